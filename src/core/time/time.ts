import { z } from 'zod'

/** Halves, thirds and quarters of a count stay whole numbers. */
export const TICKS_PER_COUNT = 12

/** A place in time or a length of time, in twelfths of a count; always whole. */
export const Tick = z.int().brand<'Tick'>()
export type Tick = z.infer<typeof Tick>

/** Makes a tick of a whole number. A fraction is a bug in the caller. */
export function tick(value: number): Tick {
  if (!Number.isInteger(value)) throw new Error(`${value} is not a whole number of ticks`)
  return value as Tick
}

export const COUNT = tick(TICKS_PER_COUNT)
export const HALF_COUNT = tick(TICKS_PER_COUNT / 2)

/** Counts start at 1, as dancers say them: count 1 is tick 0. */
export const tickOfCount = (count: number): Tick => tick((count - 1) * TICKS_PER_COUNT)

/** The count, from 1, that a tick of a phrase belongs to. */
const countOfTick = (at: Tick): number => Math.floor(at / TICKS_PER_COUNT) + 1

const LABEL_OF_PART: Readonly<Record<number, string>> = { 0: '', 3: 'e', 6: '&', 9: 'a' }

/**
 * What dancers call a place inside a phrase: `3`, `3&`, `3e`, `3a`. Anything between
 * is written `3+4`, in ticks after the count.
 */
export function labelOfTick(at: Tick): string {
  const part = ((at % TICKS_PER_COUNT) + TICKS_PER_COUNT) % TICKS_PER_COUNT
  return `${countOfTick(at)}${LABEL_OF_PART[part] ?? `+${part}`}`
}

const SLOT_OF_PART: Readonly<Record<number, number>> = { 0: 12, 3: 3, 4: 4, 6: 6, 8: 4, 9: 3 }

/** How long the slot of a place is: a whole count, a half on `&`, a quarter on `e` and `a`, a third on thirds. */
export const slotAt = (at: Tick): Tick => tick(SLOT_OF_PART[at % TICKS_PER_COUNT] ?? 1)

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

/** A stretch of time, half-open: `at` belongs to it, `at + length` does not. */
export interface Span {
  readonly at: Tick
  readonly length: Tick
}

export const endOf = ({ at, length }: Span): Tick => tick(at + length)

export const overlap = (a: Span, b: Span): boolean => a.at < endOf(b) && b.at < endOf(a)

/** `5`, `5&`, or `1-4` for a range that runs to the end of its last slot; for people, not for reading back. */
export function labelOfSpan(span: Span): string {
  const from = labelOfTick(span.at)
  if (span.length <= slotAt(span.at)) return from
  const end = endOf(span)
  // The last slot is the longest one that ends where the range ends.
  const last = [12, 6, 3, 4, 1].find(
    (slot) => end - slot >= span.at && slotAt(tick(end - slot)) === slot,
  )
  return `${from}-${labelOfTick(tick(end - (last ?? 1)))}`
}
