import type { Side } from '../body/side'

/** The side a place is on, by the end of its name: `FR`, `over-L`. */
export function sideAtEnd(place: string): Side | undefined {
  const end = place.at(-1)
  return end === 'R' || end === 'L' ? end : undefined
}
