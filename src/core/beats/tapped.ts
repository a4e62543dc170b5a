import { UserError } from '../errors'
import { beatsIn } from './beats'
import { envelopeOf } from './envelope'
import { type Features, secondsOfFrame } from './features'
import { mean } from './numbers'
import { pacesIn } from './pace'

/** Fewer taps say too little. */
export const LEAST_TAPS = 8
/** A count is no shorter and no longer, in seconds. */
const [SHORTEST, LONGEST] = [0.2, 4]
/** The level that was tapped is looked for this near, in octaves. */
const SPREAD = 0.06
/** Parts of a count by which taps may lie beside what was found; quarters must be that much nearer. */
const SHIFTS = [0, 1 / 2, 1 / 3, 2 / 3, 1 / 4, 3 / 4]
const QUARTERS_LESS = 0.05

/**
 * Counts a song again, at the level and in the place that was tapped along with it.
 * @param taps seconds, rising
 * @throws UserError where they are too few or no steady count
 */
export function tappedCounts(features: Features, taps: readonly number[]): readonly number[] {
  const { period } = periodOf(taps)
  const envelope = envelopeOf(features.flux)
  const pace = pacesIn(envelope)({ centre: 60 / period, spread: SPREAD })
  const beats = beatsIn(envelope, pace).map(secondsOfFrame)
  if (beats.length < 2) return beats
  const offsets = taps.map((tap) => shareBehind(beats, tap))
  const distance = (shift: number) =>
    mean(offsets.map((offset) => apart(offset, shift))) + (shift % 0.5 === 0.25 ? QUARTERS_LESS : 0)
  const best = SHIFTS.reduce((a, b) => (distance(b) < distance(a) ? b : a))
  if (best === 0) return beats
  return beats.map((at, i) => {
    const next = beats[i + 1] ?? at + (at - (beats[i - 1] as number))
    return at + best * (next - at)
  })
}

/** A count that taps keep, in seconds: the line through all of them, and where it begins. */
interface Pulse {
  readonly period: number
  readonly first: number
}

/** @throws UserError where taps are too few or no steady count */
export function periodOf(taps: readonly number[]): Pulse {
  if (taps.length < LEAST_TAPS)
    throw new UserError(
      `${taps.length} taps are too few.`,
      `Tap along for ${LEAST_TAPS} counts or more.`,
    )
  const middle = (taps.length - 1) / 2
  const centre = mean(taps)
  let over = 0
  let under = 0
  for (const [i, tap] of taps.entries()) {
    over += (i - middle) * (tap - centre)
    under += (i - middle) ** 2
  }
  const period = over / under
  if (!(period > SHORTEST && period < LONGEST))
    throw new UserError('These taps keep no count.', 'Tap once on every count, evenly.')
  return { period, first: centre - middle * period }
}

/** How far behind the last count a moment is, 0 to 1 of the way to the next. */
function shareBehind(beats: readonly number[], at: number): number {
  const next = beats.findIndex((beat) => beat > at)
  const i = Math.min(beats.length - 2, Math.max(0, (next < 0 ? beats.length : next) - 1))
  const [from, to] = [beats[i] as number, beats[i + 1] as number]
  const share = (at - from) / (to - from)
  return share - Math.floor(share)
}

/** How far apart two places of a round are, 0 to a half. */
const apart = (a: number, b: number): number => {
  const off = Math.abs(a - b) % 1
  return Math.min(off, 1 - off)
}
