import { z } from 'zod'

/** Halves, thirds and quarters of a count stay whole numbers. */
export const TICKS_PER_COUNT = 12

/** A phrase has so many counts at the most (model 1). */
export const MOST_PHRASE_COUNTS = 16

/** A place in time or a length of time, in twelfths of a count; always whole. */
export const Tick = z.int().brand<'Tick'>()
export type Tick = z.infer<typeof Tick>

/** Ticks something lasts. */
export const TickLength = Tick.refine((ticks) => ticks > 0, 'has no length')

/** Makes a tick of a whole number. A fraction is a bug in the caller. */
export function tick(value: number): Tick {
  if (!Number.isInteger(value)) throw new Error(`${value} is not a whole number of ticks`)
  return value as Tick
}

export const COUNT = tick(TICKS_PER_COUNT)
export const HALF_COUNT = tick(TICKS_PER_COUNT / 2)
export const THIRD_COUNT = tick(TICKS_PER_COUNT / 3)
export const QUARTER_COUNT = tick(TICKS_PER_COUNT / 4)

/** Counts start at 1, as dancers say them: count 1 is tick 0. */
export const tickOfCount = (count: number): Tick => tick((count - 1) * TICKS_PER_COUNT)

/** The count, from 1, that a tick of a phrase belongs to. */
const countOfTick = (at: Tick): number => Math.floor(at / TICKS_PER_COUNT) + 1

/** Ticks since the count; a pickup's ticks are negative. */
const partOf = (at: Tick): number => ((at % TICKS_PER_COUNT) + TICKS_PER_COUNT) % TICKS_PER_COUNT

const LABEL_OF_PART: Readonly<Record<number, string>> = { 0: '', 3: 'e', 6: '&', 9: 'a' }

/**
 * What dancers call a place inside a phrase: `3`, `3&`, `3e`, `3a`. Anything between
 * is written `3+4`, in ticks after the count.
 */
export const labelOfTick = (at: Tick): string => `${countOfTick(at)}${partLabel(at)}`

const partLabel = (at: Tick): string => LABEL_OF_PART[partOf(at)] ?? `+${partOf(at)}`

const SLOT_OF_PART: Readonly<Record<number, number>> = { 0: 12, 3: 3, 4: 4, 6: 6, 8: 4, 9: 3 }

/** How long the slot of a place is: a whole count, a half on `&`, a quarter on `e` and `a`, a third on thirds. */
export const slotAt = (at: Tick): Tick => tick(SLOT_OF_PART[partOf(at)] ?? 1)

const PLACE = /^(\d{1,3})(e|&|a|\+(\d{1,2}))?$/

/** Reads `3`, `3&`, `3+4`. Undefined when it is no place in time. */
export function tickOfLabel(label: string): Tick | undefined {
  const found = PLACE.exec(label.trim())
  if (!found) return undefined
  const count = Number(found[1])
  const part = found[2] ?? ''
  const offset = part.startsWith('+') ? Number(found[3]) : { '': 0, e: 3, '&': 6, a: 9 }[part]
  if (count < 1 || offset === undefined || offset >= TICKS_PER_COUNT) return undefined
  return tick((count - 1) * TICKS_PER_COUNT + offset)
}

/** Ticks from one to before another. */
export interface Range {
  readonly from: Tick
  readonly to: Tick
}

/** A stretch of time, half-open: `at` belongs to it, `at + length` does not. */
export interface Span {
  readonly at: Tick
  readonly length: Tick
}

export const endOf = ({ at, length }: Span): Tick => tick(at + length)

export const overlap = (a: Span, b: Span): boolean => a.at < endOf(b) && b.at < endOf(a)

const SLOTS = [12, 6, 3, 4, 1] as const

/** The label whose slot ends exactly here and begins no earlier than `from`; the longest such slot. */
export function lastSlot(from: number, end: number): Tick | undefined {
  const size = SLOTS.find((slot) => end - slot >= from && slotAt(tick(end - slot)) === slot)
  return size === undefined ? undefined : tick(end - size)
}

/** What the count, or the part of one, is called that ends on a tick. */
export const labelOfEnd = (end: Tick, label: PlaceLabel): string =>
  label(lastSlot(Number.NEGATIVE_INFINITY, end) ?? end)

/** What the counts of a phrase are called: so many, from 1 or from a later one. */
export interface Numbering {
  readonly counts: number
  readonly from?: number | undefined
}

/** Counts are numbered in an eight, those of a longer phrase in a sixteen: after its last comes 1. */
const EIGHT = 8
const numbersOf = ({ counts, from = 1 }: Numbering): number =>
  counts <= EIGHT && from <= EIGHT ? EIGHT : MOST_PHRASE_COUNTS

/** The number of a count of a phrase, the first one being 1: 5 for the first of `4 from 5`. */
export const numberOfCount = (count: number, numbering: Numbering): number => {
  const numbers = numbersOf(numbering)
  return ((((count + (numbering.from ?? 1) - 2) % numbers) + numbers) % numbers) + 1
}

/** The number of the count a tick of a phrase belongs to. */
export const numberAt = (at: number, numbering: Numbering): number =>
  numberOfCount(Math.floor(at / TICKS_PER_COUNT) + 1, numbering)

/** The tick a place of a phrase stands for: `5&` of `4 from 5`. Undefined where it has no such count. */
export function tickIn(label: string, numbering: Numbering): Tick | undefined {
  const named = tickOfLabel(label)
  if (named === undefined) return undefined
  const numbers = numbersOf(numbering)
  const count = Math.floor(named / TICKS_PER_COUNT)
  const own = (((count - (numbering.from ?? 1) + 1) % numbers) + numbers) % numbers
  return count < numbers && own < numbering.counts
    ? tick(own * TICKS_PER_COUNT + partOf(named))
    : undefined
}

/** What a place in time is called; a phrase with a pickup has names of its own for it. */
export type PlaceLabel = (at: Tick) => string

/**
 * A range as it is written and read back: `5`, `5&`, `1-4`. A range that ends inside a slot
 * is written to the place it ends before: `1>1a` is three quarters of a count.
 */
export function labelOfSpan(span: Span, label: PlaceLabel = labelOfTick): string {
  const from = label(span.at)
  const end = endOf(span)
  if (span.length === slotAt(span.at)) return from
  const last = lastSlot(span.at, end)
  if (last === undefined) return `${from}>${label(end)}`
  return last === span.at ? from : `${from}-${label(last)}`
}

/** A range with both its ends said, also when it is one slot: `3-3`. */
export function fullLabelOfSpan(span: Span, label: PlaceLabel = labelOfTick): string {
  const range = labelOfSpan(span, label)
  return range === label(span.at) ? `${range}-${range}` : range
}

/**
 * The labels of a phrase: places before its first count are called after the last counts of the
 * phrase, `<8` being one count before 1 of an 8.
 */
export const labelIn =
  (numbering: Numbering): PlaceLabel =>
  (at) =>
    at < 0
      ? `<${labelNumbered(tick(at + numbering.counts * TICKS_PER_COUNT), numbering)}`
      : labelNumbered(at, numbering)

const labelNumbered = (at: Tick, numbering: Numbering): string =>
  `${numberAt(at, numbering)}${partLabel(at)}`
