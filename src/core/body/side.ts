import { z } from 'zod'

export const SIDES = ['R', 'L'] as const
/** The dancer's own right or left. */
export const Side = z.enum(SIDES)
export type Side = z.infer<typeof Side>

export const otherSide: Readonly<Record<Side, Side>> = { R: 'L', L: 'R' }

/** Which foot carries the dancer. */
export const Weight = z.enum(['L', 'R', 'both'])
export type Weight = z.infer<typeof Weight>

export const mirrorWeight = (weight: Weight): Weight =>
  weight === 'both' ? 'both' : otherSide[weight]

/** +1 to the dancer's right, -1 to her left. */
export const signOf = (side: Side): 1 | -1 => (side === 'R' ? 1 : -1)

/** Minus a number, without ever making a -0 that would not equal 0. */
export const negated = (value: number): number => 0 - value

export const sideWord: Readonly<Record<Side, 'right' | 'left'>> = { R: 'right', L: 'left' }

/** Which way round, seen from above. */
export const Way = z.enum(['cw', 'ccw'])
export type Way = z.infer<typeof Way>

export const otherWay: Readonly<Record<Way, Way>> = { cw: 'ccw', ccw: 'cw' }

/** The side a place is on, by the end of its name: `FR`, `over-L`. */
export function sideAtEnd(place: string): Side | undefined {
  const end = place.at(-1)
  return end === 'R' || end === 'L' ? end : undefined
}
