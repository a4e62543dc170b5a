import { TICKS_PER_COUNT } from '../time/time'
import {
  type Call,
  type CalledSegment,
  isFree,
  lengthOf,
  type SpeechSeconds,
  type Taken,
  type TicksOf,
} from './called'

/** What may be said where nothing else is (teaching 7.5); nothing of it moves a cue or a number. */
export interface Extras {
  /** Words of praise, in turn, after the last count of a round. */
  readonly praise?: readonly string[]
  /** Slips to watch, in turn, one a round from the second on. */
  readonly watch?: readonly string[]
  /** “Breathe”, once in sixteen counts, where nothing begins. */
  readonly breathe?: boolean
}

/** Praise is short, in seconds. */
const PRAISE_SECONDS = 1.2
const BREATHE = 'breathe'
const BREATHE_EVERY = 16 * TICKS_PER_COUNT

/** What is said in the gaps; what a voice has no word for, or no gap, is left out. */
export function extrasIn(
  segments: readonly CalledSegment[],
  starts: readonly number[],
  taken: readonly Taken[],
  { praise = [], watch = [], breathe = false }: Extras,
  speech: SpeechSeconds,
  ticksOf: TicksOf,
): readonly Call[] {
  const full = [...taken]
  const calls: Call[] = []
  /** Says a text at the first of some ticks at which it has room before an end. */
  const sayAt = (text: string, ticks: readonly number[], end: number): boolean => {
    if (speech(text, false) === undefined) return false
    const at = ticks.find((one) => {
      const length = ticksOf(text, false, one)
      return one + length <= end && isFree(full, one, one + length)
    })
    if (at === undefined) return false
    const length = ticksOf(text, false, at)
    full.push({ from: at, to: at + length })
    const say = { text, isFast: false, onBeat: false }
    calls.push({ at, length, what: 'extra', text, of: at + Math.ceil(length), say })
    return true
  }
  let rounds = 0
  let breathed = Number.NEGATIVE_INFINITY
  for (const [i, segment] of segments.entries()) {
    if (segment.kind !== 'round' || segment.mode === 'none') continue
    const start = starts[i] ?? 0
    const end = start + lengthOf(segment)
    const gaps = gapsIn(full, start, end)
    rounds++
    if (breathe && start - breathed >= BREATHE_EVERY) {
      const holds = holdsIn(segment, start)
      const inHold = gaps.filter((at) => holds.some(({ from, to }) => at >= from && at < to))
      if (sayAt(BREATHE, [...holds.map(({ from }) => from), ...inHold], end)) breathed = start
    }
    const slip = watch[(rounds - 2) % Math.max(1, watch.length)]
    if (rounds > 1 && slip !== undefined) sayAt(slip, gaps, end)
    const word = praise[(rounds - 1) % Math.max(1, praise.length)]
    // After the last count: nothing of this round comes any more.
    const last = [end - TICKS_PER_COUNT, ...gaps.filter((at) => at > end - TICKS_PER_COUNT)]
    if (word !== undefined && (speech(word, false) ?? 0) <= PRAISE_SECONDS) sayAt(word, last, end)
  }
  return calls
}

/** Whole ticks at which nothing is said, each the first of its gap. */
const gapsIn = (taken: readonly Taken[], from: number, to: number): readonly number[] =>
  [from, ...taken.map((one) => Math.ceil(one.to))]
    .filter((at) => at >= from && at < to && isFree(taken, at, at + 1e-6))
    .sort((a, b) => a - b)

/** Stretches of two counts and more in which nothing begins. */
function holdsIn(
  { simulation, range, layers }: Extract<CalledSegment, { kind: 'round' }>,
  start: number,
): readonly Taken[] {
  const begins = [
    ...simulation.passes.flatMap((pass) =>
      pass.events
        .filter(({ layer }) => layers.includes(layer) && layer !== 'feet')
        .map(({ at }) => Number(pass.at + at)),
    ),
    ...(layers.includes('feet') ? simulation.danced.map(({ at }) => Number(at)) : []),
    range.to,
  ]
    .filter((at) => at >= range.from && at <= range.to)
    .sort((a, b) => a - b)
  return begins.flatMap((at, i) => {
    const next = begins[i + 1] ?? at
    const from = at + TICKS_PER_COUNT
    return next - from >= TICKS_PER_COUNT
      ? [{ from: from - range.from + start, to: next - range.from + start }]
      : []
  })
}
