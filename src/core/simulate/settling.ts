import { oncePerPhrase } from '../combination/oncePerPhrase'
import { TICKS_PER_COUNT } from '../time/time'

/** Where the weight settles on planted feet while the hips or the trunk dance (model 4). */
export interface Settling {
  /**
   * Whether it has settled on a tick of the phrase when the feet did something last on another:
   * two counts or more lie between, filled but for a count at most by what is danced over both.
   */
  readonly between: (last: number, at: number) => boolean
  /** Whether it settles anywhere at all. */
  readonly anywhere: boolean
}

const LEAST = 2 * TICKS_PER_COUNT
const MOST_EMPTY = TICKS_PER_COUNT

/** What is danced over one leg, or with a heel up, keeps the weight where it is. */
const OVER_ONE: ReadonlySet<string> = new Set(['weight-one', 'heel-up-working', 'free-working-leg'])

interface Filling {
  readonly from: number
  readonly to: number
  readonly isOverBoth: boolean
}

export const settlingIn = oncePerPhrase((events, vocabulary): Settling => {
  const fillings = events
    .filter(({ layer }) => layer === 'hips' || layer === 'torso')
    .map(({ at, length, what }): Filling => {
      const needs = (what.kind === 'move' && vocabulary.find(what.move)?.needs) || []
      return {
        from: at,
        to: at + length,
        isOverBoth: !needs.some((need) => OVER_ONE.has(need)),
      }
    })
    .sort((a, b) => a.from - b.from)
  return {
    anywhere: fillings.length > 0,
    between(last, at) {
      if (at - last < LEAST) return false
      const inside = fillings.filter(({ from, to }) => from < at && to > last)
      if (!inside.every(({ isOverBoth }) => isOverBoth)) return false
      let empty = 0
      let until = last
      for (const { from, to } of inside) {
        empty += Math.max(0, from - until)
        until = Math.max(until, to)
      }
      return empty + Math.max(0, at - until) <= MOST_EMPTY
    },
  }
})
