import type { DancerLevel } from '../combination/combination'
import type { House } from '../house/house'
import type { LayerWeight } from './weight'

const STEP = 5
/** A phrase without anything new is talked about no longer. */
const MOST_KNOWN = 10

const inSteps = (seconds: number): number => Math.round(seconds / STEP) * STEP

/**
 * Whole seconds of talk for a phrase (teaching 2.1): more for each new thing, and for a hard one.
 * @param isFirst it is the first phrase of the class
 */
export function talkOf(
  weights: readonly LayerWeight[],
  level: DancerLevel,
  { limits }: House,
  isFirst: boolean,
): number {
  const fresh = weights.flatMap((one) => one.fresh)
  const isTechnique =
    (level === 'new' || level === 'improver') && fresh.some(({ demand }) => demand >= 3)
  const met = weights
    .filter(({ weight }) => weight !== 'light')
    .reduce((sum, { things, fresh: own }) => sum + things.length - own.length, 0)
  const each = fresh.reduce(
    (sum, { demand }) =>
      sum +
      limits[demand >= 4 ? 'plan.talkThing4' : demand >= 3 ? 'plan.talkThing3' : 'plan.talkThing'],
    0,
  )
  const seconds =
    limits['plan.talk'] +
    each +
    (isTechnique ? limits['plan.talkTechnique'] : 0) +
    met * limits['plan.talkMet']
  const scaled =
    seconds * limits[`plan.talkTimes.${level}`] * (isFirst ? limits['plan.talkFirst'] : 1)
  return inSteps(fresh.length === 0 ? Math.min(MOST_KNOWN, scaled) : scaled)
}

/** Some seconds in shares, each in steps and none over the most; what is over that is not said. */
export function sharedOut(
  seconds: number,
  shares: readonly number[],
  { limits }: House,
): readonly number[] {
  const sum = shares.reduce((a, b) => a + b, 0)
  return shares.map((share) =>
    Math.min(
      limits['plan.talkMost'],
      inSteps(sum === 0 ? seconds / shares.length : (seconds * share) / sum),
    ),
  )
}

/** Talk in pieces, each of which ends in a try of what was shown: nobody stands still longer (teaching 2.2). */
export function triesOf(talk: number, { limits }: House): readonly number[] {
  const pieces = Math.max(1, Math.ceil(talk / limits['plan.talkTry']))
  const each = Math.floor(talk / pieces)
  return Array.from({ length: pieces }, (_, i) =>
    i === pieces - 1 ? talk - each * (pieces - 1) : each,
  )
}
