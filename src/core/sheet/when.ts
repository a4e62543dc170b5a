import { type EntryPlace, EntryProblem } from '../entry/reader'
import type { Token } from '../entry/tokens'
import {
  endOf,
  type Span,
  slotAt,
  TICKS_PER_COUNT,
  type Tick,
  tick,
  tickOfLabel,
} from '../time/time'

/** The dashes a word processor puts for a hyphen. */
const DASHES = /[‐‑‒–—−]/g

const PIECE = /^(<?)(\d{1,3}(?:e|&|a|\+\d{1,2})?)(?:([->])(<?)(\d{1,3}(?:e|&|a|\+\d{1,2})?))?$/

/** A place or a range in time, and whether only its start was written. */
export interface When extends Span {
  readonly single: boolean
}

function tickOf(back: string, label: string, place: EntryPlace, token: Token): Tick {
  const found = tickOfLabel(label)
  const last = `${place.counts}`
  if (found === undefined)
    throw new EntryProblem(
      `“${label}” is no count. Write 3, 3&, 3e, 3a or 3+4, from 1 to ${last}.`,
      token,
    )
  if (back && !place.first)
    throw new EntryProblem(
      'A pickup (“<”) can only stand in the phrase that is danced first.',
      token,
    )
  if (found >= place.counts * TICKS_PER_COUNT)
    throw new EntryProblem(
      `This phrase has ${last} counts, so there is no ${label} in it. Write a count up to ${last}, or give the phrase more counts.`,
      token,
    )
  return back ? tick(found - place.counts * TICKS_PER_COUNT) : found
}

/** How “and 8” is written: on the last count, or half a count before it. */
const pickupWords = ({ counts }: EntryPlace): string =>
  counts > 1
    ? `<${counts} for ${counts}, <${counts - 1}& for the “and” before it`
    : '<1 for 1, <1& for the “and” behind it'

/** Reads `3`, `3&`, `1-4`, `<8`, `2,4,6`, `1>1a`. */
export function readWhen(token: Token, place: EntryPlace): readonly When[] {
  const pieces = token.text.replace(DASHES, '-').split(',').filter(Boolean)
  if (pieces.length === 0) throw new EntryProblem('Write the count first: “3 …” or “1-4 …”.', token)
  return pieces.map((piece): When => {
    const [, back = '', from = '', sign, backTo = '', to = ''] = PIECE.exec(piece) ?? []
    if (!from && /^(?:and|&)$/i.test(piece))
      throw new EntryProblem(
        `“${piece}” is no count. A pickup is written with <: ${pickupWords(place)}; inside the phrase write 7&.`,
        token,
      )
    if (!from)
      throw new EntryProblem(
        `“${piece}” is no count. An entry starts with when it is danced: 3, 3&, 1-4 or 2,4,6.`,
        token,
      )
    const at = tickOf(back, from, place, token)
    if (!sign) return { at, length: slotAt(at), single: true }
    const last = tickOf(backTo, to, place, token)
    const end = sign === '>' ? last : endOf({ at: last, length: slotAt(last) })
    if (end <= at)
      throw new EntryProblem(
        `“${piece}” ends before it starts. Write the earlier count first.`,
        token,
      )
    return { at, length: tick(end - at), single: false }
  })
}
