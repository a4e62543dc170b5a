import type { Side } from '../body/side'
import type { Combination } from '../combination/combination'
import { passesOf } from '../combination/passes'
import { endOf, TICKS_PER_COUNT } from '../time/time'
import { countInCounts, type TimelineItem, timelineOf } from './timeline'

/** What a practice video shows at one moment. */
interface ReelMoment {
  readonly side: Side
  /** Ticks of that side's dance; below 0 while it is counted in. */
  readonly tick: number
  /** The number that is danced or counted in. */
  readonly count: string
  readonly phrase: string
  /** The cue that stands there, or nothing. */
  readonly cue: string
}

/** A combination as a film: each side counted in and danced once. */
export interface Reel {
  /** In ticks, count-ins included. */
  readonly length: number
  readonly at: (tick: number) => ReelMoment
  /** When the next side begins, and with which tick of its own; absent on the last one. */
  readonly nextSide: (tick: number) => { at: number; side: Side; tick: number } | undefined
  /** Ticks of every count, and whether a phrase begins there. */
  readonly counts: readonly { readonly at: number; readonly isFirst: boolean }[]
}

/** @param sides the sides that are shown, one after the other. */
export function reelOf(combination: Combination, sides: readonly Side[]): Reel {
  const last = passesOf(combination).at(-1)
  const countIn = countInCounts(combination) * TICKS_PER_COUNT
  const each = countIn + (last ? endOf(last) : 0)
  // The timeline has both sides, the lead first: each shown one is moved to where it is shown.
  const items = timelineOf(combination).flatMap((item) => {
    const place = sides.indexOf(item.side)
    const own = item.side === combination.lead ? 0 : each
    return place < 0 ? [] : [{ ...item, at: item.at - own + place * each }]
  })
  const latest = (kinds: readonly TimelineItem['kind'][], tick: number, whileItLasts: boolean) =>
    items.findLast(
      ({ kind, at, length }) =>
        kinds.includes(kind) && at <= tick && (!whileItLasts || tick < at + length),
    )
  return {
    length: sides.length * each,
    at(tick) {
      const place = Math.min(sides.length - 1, Math.max(0, Math.floor(tick / each)))
      const side = sides[place] ?? combination.lead
      const danced = tick - place * each - countIn
      const phrase = latest(['phrase'], tick, false)
      return {
        side,
        tick: danced,
        count: latest(['count', 'count-in'], tick, true)?.text ?? '',
        phrase: danced < 0 || phrase?.side !== side ? '' : phrase.text,
        cue: latest(['cue'], tick, true)?.text ?? '',
      }
    },
    nextSide(tick) {
      const place = Math.floor(Math.max(0, tick) / each) + 1
      const side = sides[place]
      return side && { at: place * each, side, tick: 0 - countIn }
    },
    counts: items
      .filter(({ kind }) => kind === 'count' || kind === 'count-in')
      .map(({ at, kind, text }) => ({ at, isFirst: kind === 'count' && text === '1' })),
  }
}
