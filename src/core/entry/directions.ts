import { Direction } from '../body/feet'
import { squashed } from './names'

/** Directions by their name without case and hyphens. */
export const DIRECTIONS: ReadonlyMap<string, Direction> = new Map(
  Direction.options.map((direction) => [squashed(direction), direction]),
)

/** A direction, also by its first three letters or more where they mean only one. */
export function directionIn(word: string): Direction | undefined {
  const key = squashed(word)
  const whole = DIRECTIONS.get(key)
  if (whole || key.length < 3) return whole
  const found = [...DIRECTIONS].filter(([name]) => name.startsWith(key))
  return found.length === 1 ? found[0]?.[1] : undefined
}
