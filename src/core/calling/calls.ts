import { factsOf } from '../body/feet'
import type { Layer } from '../body/layers'
import { sideWord } from '../body/side'
import type { Simulation } from '../simulate/simulate'
import { type Range, TICKS_PER_COUNT } from '../time/time'
import { type TimeMap, ticksFrom } from '../time/timeMap'
import { type Announcement, CUE_KINDS, type Cue, type CueKind, cuesOf, leadOf } from './cues'
import { numberWord } from './numbers'

/** A word or a few, as they are said. */
export interface Spoken {
  readonly text: string
  /** From the quick bank of the voice, for half counts. */
  readonly isFast: boolean
  /** A count sounds with its vowel on the tick; a cue only has to be over in time. */
  readonly onBeat: boolean
}

/** What may be said where nothing else is (teaching 7.5); nothing of it moves a cue or a number. */
export interface Extras {
  /** Words of praise, in turn, after the last count of a round. */
  readonly praise?: readonly string[]
  /** Slips to watch, in turn, one a round from the second on. */
  readonly watch?: readonly string[]
  /** “Breathe”, once in sixteen counts, where nothing begins. */
  readonly breathe?: boolean
}

/** How long a voice takes for a text, in seconds, from its usual or its quick bank; undefined for what it has no word for. */
export type SpeechSeconds = (text: string, isFast: boolean) => number | undefined

/** What is called in a round: numbers and cues, cues alone, only the switch, or nothing. */
export type CallMode = 'all' | 'cues' | 'switch' | 'none'

/** A stretch of a drill as the caller hears it, in order. */
export type CalledSegment =
  | {
      readonly kind: 'count-in'
      readonly numbers: readonly number[]
      readonly length: number
      /** What is named in it, where it has no numbers. */
      readonly names?: Announcement | undefined
    }
  | {
      readonly kind: 'round'
      readonly simulation: Simulation
      readonly range: Range
      readonly layers: readonly Layer[]
      readonly mode: CallMode
      /** Set where the other side was danced before. */
      readonly isSwitch: boolean
    }

/** Something that is called. */
export interface Call {
  /** Ticks from the start of the first segment; whole. */
  readonly at: number
  /** Ticks it takes to say, not rounded. */
  readonly length: number
  readonly what: 'number' | 'and' | 'names' | 'extra' | CueKind
  readonly text: string
  /** The tick of what it announces; for a number its own. */
  readonly of: number
  /** Absent where it found no room and is only shown. */
  readonly say?: Spoken
}

/** “and” needs this much free time, in seconds (model 11). */
export const AND_SECONDS = 0.2
/** A word nobody has recorded is a tone of this length, in seconds. */
const TONE_SECONDS = 0.15

const lengthOf = (segment: CalledSegment): number =>
  segment.kind === 'count-in' ? segment.length : segment.range.to - segment.range.from

interface Taken {
  readonly from: number
  readonly to: number
}

const isFree = (taken: readonly Taken[], from: number, to: number): boolean =>
  taken.every((one) => to <= one.from || from >= one.to)

/**
 * What is called over some segments, one after the other (model 11): a cue is over
 * its lead before its event, replaces the numbers it covers, and never lies over another; of
 * two that collide the more important one is said and the other only shown.
 */
export function callsOf(
  segments: readonly CalledSegment[],
  time: TimeMap,
  speech: SpeechSeconds,
  extras: Extras = {},
): readonly Call[] {
  const seconds = (text: string, isFast: boolean) => speech(text, isFast) ?? TONE_SECONDS
  const ticksOf: TicksOf = (text, isFast, at) => ticksFrom(time, at, seconds(text, isFast))
  /** Of a text that must be over by then. */
  const ticksUntil: TicksOf = (text, isFast, end) =>
    0 - ticksFrom(time, end, 0 - seconds(text, isFast))
  const starts: number[] = []
  let length = 0
  for (const segment of segments) {
    starts.push(length)
    length += lengthOf(segment)
  }
  const taken: Taken[] = []
  const calls: Call[] = []

  // Nothing is said over the numbers of a count-in.
  for (const [i, segment] of segments.entries()) {
    const from = starts[i] ?? 0
    if (segment.kind !== 'count-in') continue
    taken.push({ from, to: from + segment.length })
    for (const [n, number] of segment.numbers.entries())
      calls.push(numberCall(from + n * TICKS_PER_COUNT, number, TICKS_PER_COUNT, ticksOf))
    if (segment.names) {
      const text = spokenText(segment.names, speech)
      const ticks = ticksOf(text, false, from)
      const call = { at: from, of: from + segment.length, what: 'names' as const }
      calls.push({
        ...call,
        text: segment.names.text,
        length: Math.min(ticks, segment.length),
        ...(ticks <= segment.length && { say: { text, isFast: false, onBeat: false } }),
      })
    }
  }

  const cues = segments.flatMap((segment, i) =>
    segment.kind === 'round' ? cuesIn(segment, starts[i] ?? 0, segments[i - 1]) : [],
  )
  const byWeight = (a: PlacedCue, b: PlacedCue) =>
    CUE_KINDS.indexOf(a.kind) - CUE_KINDS.indexOf(b.kind) || a.at - b.at
  // While it is learned a name stands on its own count; what must be known before is said ahead.
  const onBeat = cues.filter(({ isOnBeat }) => isOnBeat).sort(byWeight)
  const beats = onBeat.map(({ at }) => at).sort((a, b) => a - b)
  const ahead = cues.filter(({ isOnBeat }) => !isOnBeat)
  for (const cue of onBeat) {
    const { at, kind } = cue
    const spoken = spokenText(cue, speech)
    const next = beats.find((beat) => beat > at) ?? Number.POSITIVE_INFINITY
    const room = Math.min(TICKS_PER_COUNT, next - at)
    const fitting = [false, true]
      .map((isFast) => ({ isFast, ticks: ticksOf(spoken, isFast, at) }))
      .find(({ ticks }) => ticks <= room && isFree(taken, at, at + ticks))
    if (!fitting) {
      ahead.push(cue)
      continue
    }
    const { isFast, ticks } = fitting
    taken.push({ from: at, to: at + ticks })
    const say = { text: spoken, isFast, onBeat: true }
    calls.push({ at, length: ticks, what: kind, text: cue.text, of: at, say })
  }
  for (const cue of ahead.sort(byWeight)) {
    const { at: of, kind, lead } = cue
    const spoken = spokenText(cue, speech)
    const { text } = cue
    const latest = of - lead * TICKS_PER_COUNT
    // A phrase without a name of its own is called by its first move, which is not said twice.
    const isSaid = calls.some((call) => call.of === of && call.say?.text === spoken)
    const fitting = (isSaid ? [] : [false, true]).flatMap((isFast) => {
      const room = lastRoom(taken, latest, (end) => ticksUntil(spoken, isFast, end))
      return room ? [{ ...room, isFast }] : []
    })[0]
    if (!fitting) {
      calls.push({ at: Math.max(0, latest), length: 0, what: kind, text, of })
      continue
    }
    const { at, ticks, isFast } = fitting
    taken.push({ from: at, to: at + ticks })
    const say = { text: spoken, isFast, onBeat: false }
    calls.push({ at, length: ticks, what: kind, text, of, say })
  }

  for (const [i, segment] of segments.entries())
    if (segment.kind === 'round' && segment.mode === 'all')
      calls.push(...numbersIn(segment, starts[i] ?? 0, taken, time, ticksOf))
  const said = calls
    .filter(({ say }) => say)
    .map(({ at, length: ticks }) => ({ from: at, to: at + ticks }))
  return [
    ...calls,
    ...extrasIn(segments, starts, [...taken, ...said], extras, speech, ticksOf),
  ].sort((a, b) => a.at - b.at)
}

/** Praise is short, in seconds. */
const PRAISE_SECONDS = 1.2
const BREATHE = 'breathe'
const BREATHE_EVERY = 16 * TICKS_PER_COUNT

/** What is said in the gaps; what a voice has no word for, or no gap, is left out. */
function extrasIn(
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

/** A word is looked for a place this many counts earlier than it is due, and no earlier. */
const EARLIER_COUNTS = 1

/** The latest free place for a word that is over by a tick; none where everything near is taken. */
function lastRoom(
  taken: readonly Taken[],
  latest: number,
  ticksBefore: (end: number) => number,
): { readonly at: number; readonly ticks: number } | undefined {
  let end = latest
  while (end >= latest - EARLIER_COUNTS * TICKS_PER_COUNT) {
    const ticks = ticksBefore(end)
    const at = Math.floor(end - ticks)
    if (at < 0) return undefined
    const over = taken.filter((one) => one.to > at && one.from < at + ticks)
    if (over.length === 0) return { at, ticks }
    end = Math.min(...over.map(({ from }) => from))
  }
  return undefined
}

/** What a voice says: the first of its texts that it has words for. */
const spokenText = ({ text, or = [] }: Pick<Cue, 'text' | 'or'>, speech: SpeechSeconds): string =>
  [text, ...or].find((one) => speech(one, false) !== undefined) ?? text

/** @param at where it begins, or is over. */
type TicksOf = (text: string, isFast: boolean, at: number) => number

function numberCall(at: number, number: number, room: number, ticksOf: TicksOf): Call {
  const text = numberWord(number)
  const isFast = ticksOf(text, false, at) > room
  const length = Math.min(ticksOf(text, isFast, at), room)
  return { at, length, what: 'number', text, of: at, say: { text, isFast, onBeat: true } }
}

/** A cue on the ticks of the whole: on its own count, or over so many counts before its event. */
interface PlacedCue extends Cue {
  readonly lead: number
  readonly isOnBeat: boolean
}

/** The cues of a round. */
function cuesIn(
  segment: Extract<CalledSegment, { kind: 'round' }>,
  start: number,
  before: CalledSegment | undefined,
): readonly PlacedCue[] {
  const { simulation, range, layers, mode, isSwitch } = segment
  if (mode === 'none') return []
  // The switch is announced before the count-in that stands between the sides.
  const pause = before?.kind === 'count-in' ? before.length : 0
  const placed = (cue: Cue, isOnBeat = false): PlacedCue => ({
    ...cue,
    lead: leadOf(cue.kind, simulation.house),
    isOnBeat,
  })
  const side = sideWord[simulation.combination.lead]
  const change = isSwitch
    ? [
        placed({ at: start - pause, kind: 'switch', text: 'other side', or: ['switch'] }),
        placed({ at: start, kind: 'switch', text: side }, true),
      ]
    : []
  if (mode === 'switch') return change
  const own = simulation.passes
    .filter(({ at }) => at >= range.from && at < range.to)
    .flatMap((pass) => cuesOf(simulation, pass, layers))
    .filter(({ at }) => at >= range.from && at < range.to)
    // Where the drill begins with a phrase, its name was just said.
    .filter(({ at, kind }) => kind !== 'phrase' || at > range.from)
  return [
    ...change,
    ...own.map((cue) =>
      placed(
        { ...cue, at: cue.at - range.from + start },
        mode === 'all' && (cue.kind === 'layer' || cue.kind === 'accent'),
      ),
    ),
  ]
}

/** Whole counts always, unless a cue is said there; “and” and “uh” only where something lands and there is time. */
function numbersIn(
  { simulation, range }: Extract<CalledSegment, { kind: 'round' }>,
  start: number,
  taken: readonly Taken[],
  time: TimeMap,
  ticksOf: TicksOf,
): readonly Call[] {
  const inside = (at: number) => at >= range.from && at < range.to
  const counts = simulation.passes.flatMap((pass) =>
    Array.from({ length: pass.length / TICKS_PER_COUNT }, (_, i) => ({
      at: pass.at + i * TICKS_PER_COUNT,
      number: i + 1,
    })),
  )
  const between = new Set(
    simulation.danced
      .filter(({ at, action }) => at % TICKS_PER_COUNT !== 0 && factsOf(action.primitive).lands)
      .map(({ at }) => Number(at)),
  )
  const calls: Call[] = []
  for (const { at, number } of counts.filter((one) => inside(one.at))) {
    const here = at - range.from + start
    const room = Math.min(
      TICKS_PER_COUNT,
      ...taken.filter(({ from }) => from > here).map(({ from }) => from - here),
    )
    const call = numberCall(here, number, room, ticksOf)
    if (!isFree(taken, here, here + 1e-6)) continue
    const shortest = ticksOf(call.text, true, here)
    // A number that a cue would cut off is left to the caption.
    if (shortest > room + 1e-9) continue
    const subs = [...between]
      .filter((one) => one > at && one < at + TICKS_PER_COUNT)
      .sort((a, b) => a - b)
    const said: Call[] = []
    for (const [i, sub] of subs.entries()) {
      const subHere = sub - range.from + start
      const next = Math.min(
        here + TICKS_PER_COUNT,
        ...(subs[i + 1] === undefined ? [] : [(subs[i + 1] ?? 0) - range.from + start]),
        ...taken.filter(({ from }) => from >= subHere).map(({ from }) => from),
      )
      const text = (sub - at) * 2 === TICKS_PER_COUNT ? 'and' : 'uh'
      const length = ticksOf(text, true, subHere)
      const least = ticksFrom(time, subHere, AND_SECONDS)
      const before = said.at(-1) ?? { at: here, length: shortest }
      const fits = next - subHere > Math.max(least, length) && before.at + before.length <= subHere
      if (fits && isFree(taken, subHere, subHere + length))
        said.push({
          at: subHere,
          length,
          what: 'and',
          text,
          of: subHere,
          say: { text, isFast: true, onBeat: true },
        })
    }
    const roomBefore = Math.min(room, ...said.slice(0, 1).map(({ at }) => at - here))
    calls.push(numberCall(here, number, roomBefore, ticksOf), ...said)
  }
  return calls
}

/** How the rounds of a step are called. */
interface Rounds {
  /** Something in it is met for the first time. */
  readonly isNew?: boolean
  /** The last round is danced without a word. */
  readonly endsSilent?: boolean
}

/** Which mode each round of a side is called in: a round with something new is never dumb (teaching 7.1). */
export function callModes(
  rounds: number,
  { isNew = false, endsSilent = false }: Rounds = {},
): readonly CallMode[] {
  const all =
    rounds <= 3 ? (rounds === 2 && !isNew ? 1 : Math.min(rounds, 2)) : Math.ceil(rounds / 2)
  return Array.from({ length: rounds }, (_, i) =>
    endsSilent && i > 0 && i === rounds - 1 ? 'switch' : i < all ? 'all' : 'cues',
  )
}
