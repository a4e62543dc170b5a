import { factsOf } from '../body/feet'
import { sideWord } from '../body/side'
import { HALF_COUNT, TICKS_PER_COUNT } from '../time/time'
import { type TimeMap, ticksFrom } from '../time/timeMap'
import {
  type Call,
  type CalledSegment,
  type CallMode,
  isFree,
  lengthOf,
  type SpeechSeconds,
  type Taken,
  type TicksOf,
} from './called'
import { CUE_KINDS, type Cue, leadOf } from './cues'
import { type Extras, extrasIn } from './extras'
import { numberWord } from './numbers'
import { saidOnCount } from './onCounts'
import { cuesOfAll, meetingCues } from './together'

/** “and” needs this much free time, in seconds (model 11). */
export const AND_SECONDS = 0.2
/** A word nobody has recorded is a tone of this length, in seconds. */
const TONE_SECONDS = 0.15

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
    const and = andBefore(segment, from, time, ticksOf)
    for (const [n, number] of segment.numbers.entries()) {
      const at = from + n * TICKS_PER_COUNT
      const room = and && and.at > at ? Math.min(TICKS_PER_COUNT, and.at - at) : TICKS_PER_COUNT
      calls.push(numberCall(at, numberWord(number), room, ticksOf))
    }
    if (and) calls.push(and)
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
      // Of a move's later words one that is too much for the tempo is only shown.
      if (cue.isWithin) calls.push({ at, length: 0, what: kind, text: cue.text, of: at })
      else ahead.push(cue)
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
      calls.push(...numbersIn(segment, starts[i] ?? 0, taken, time, ticksOf, speech))
  const said = calls
    .filter(({ say }) => say)
    .map(({ at, length: ticks }) => ({ from: at, to: at + ticks }))
  return [
    ...calls,
    ...extrasIn(segments, starts, [...taken, ...said], extras, speech, ticksOf),
  ].sort((a, b) => a.at - b.at)
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

function numberCall(at: number, text: string, room: number, ticksOf: TicksOf): Call {
  const isFast = ticksOf(text, false, at) > room
  const length = Math.min(ticksOf(text, isFast, at), room)
  return { at, length, what: 'number', text, of: at, say: { text, isFast, onBeat: true } }
}

/** “and” half a count before a pickup, in the count-in that leads to it (teaching 7.4); none where there is no time for it. */
function andBefore(
  { pickup, numbers }: Extract<CalledSegment, { kind: 'count-in' }>,
  from: number,
  time: TimeMap,
  ticksOf: TicksOf,
): Call | undefined {
  if (pickup === undefined || pickup < TICKS_PER_COUNT || numbers.length === 0) return undefined
  const at = from + pickup - HALF_COUNT
  const length = ticksOf('and', true, at)
  const number = numbers[Math.floor((pickup - HALF_COUNT) / TICKS_PER_COUNT)] ?? 8
  const isRoom =
    HALF_COUNT > Math.max(length, ticksFrom(time, at, AND_SECONDS)) &&
    ticksOf(numberWord(number), true, at - HALF_COUNT) <= HALF_COUNT
  const say = { text: 'and', isFast: true, onBeat: true }
  return isRoom ? { at, length, what: 'and', text: 'and', of: at, say } : undefined
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
  const { simulation, range, layers, mode, isSwitch, song, company } = segment
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
  const own = [
    ...simulation.passes
      .filter(({ at }) => at >= range.from && at < range.to)
      .flatMap((pass) => cuesOfAll(company, simulation, pass, layers)),
    ...(company ? meetingCues(company, range) : []),
    ...(song?.cues ?? []),
  ]
    .filter(({ at }) => at >= range.from && at < range.to)
    // Where the drill begins with a phrase, or a part of a song, its name was just said.
    .filter(({ at, kind }) => (kind !== 'phrase' && kind !== 'section') || at > range.from)
  return [
    ...change,
    ...own.map((cue) =>
      placed(
        { ...cue, at: cue.at - range.from + start },
        cue.isWithin === true ||
          (mode === 'all' && (cue.kind === 'layer' || cue.kind === 'accent')),
      ),
    ),
  ]
}

/** Every whole count as it is to be said, unless a cue is said there; “and” and “uh” only where something lands and there is time. */
function numbersIn(
  { simulation, range, layers, song, company }: Extract<CalledSegment, { kind: 'round' }>,
  start: number,
  taken: readonly Taken[],
  time: TimeMap,
  ticksOf: TicksOf,
  speech: SpeechSeconds,
): readonly Call[] {
  const inside = (at: number) => at >= range.from && at < range.to && (song?.isCounted(at) ?? true)
  const counts = simulation.passes.flatMap((pass) =>
    Array.from({ length: pass.length / TICKS_PER_COUNT }, (_, i) => ({
      at: pass.at + i * TICKS_PER_COUNT,
      text: saidOnCount(simulation, pass, layers, i + 1),
      number: numberWord(i + 1),
    })),
  )
  const between = new Set(
    (company?.dancers.map((dancer) => dancer.simulation) ?? [simulation])
      .flatMap(({ danced }) => danced)
      .filter(({ at, action }) => at % TICKS_PER_COUNT !== 0 && factsOf(action.primitive).lands)
      .map(({ at }) => Number(at)),
  )
  const calls: Call[] = []
  for (const { at, text, number } of counts.filter((one) => inside(one.at))) {
    if (text === undefined) continue
    const here = at - range.from + start
    const room = Math.min(
      TICKS_PER_COUNT,
      ...taken.filter(({ from }) => from > here).map(({ from }) => from - here),
    )
    // A word nobody has recorded is shown over its number.
    const spoken = speech(text, false) === undefined ? number : text
    const onCount = (within: number): Call => ({
      ...numberCall(here, spoken, within, ticksOf),
      text,
    })
    if (!isFree(taken, here, here + 1e-6)) continue
    const shortest = ticksOf(spoken, true, here)
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
    calls.push(onCount(roomBefore), ...said)
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
