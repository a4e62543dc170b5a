import { EntryProblem } from '../entry/reader'
import type { Token } from '../entry/tokens'
import {
  endOf,
  type Numbering,
  numberOfCount,
  type Span,
  slotAt,
  TICKS_PER_COUNT,
  type Tick,
  tick,
  tickIn,
  tickOfLabel,
} from '../time/time'

/** The dashes a word processor puts for a hyphen. */
const DASHES = /[‐‑‒–—−]/g

const PIECE = /^(<?)(\d{1,3}(?:e|&|a|\+\d{1,2})?)(?:([->])(<?)(\d{1,3}(?:e|&|a|\+\d{1,2})?))?$/

/** A place or a range in time, and whether only its start was written. */
export interface When extends Span {
  readonly single: boolean
}

function tickOf(back: string, label: string, place: Numbering, token: Token): Tick {
  const first = numberOfCount(1, place)
  const last = numberOfCount(place.counts, place)
  if (tickOfLabel(label) === undefined)
    throw new EntryProblem(
      `“${label}” is no count. Write 3, 3&, 3e, 3a or 3+4, from ${first} to ${last}.`,
      token,
    )
  const found = tickIn(label, place)
  if (found === undefined)
    throw new EntryProblem(
      first === 1
        ? `This phrase has ${last} counts, so there is no ${label} in it. Write a count up to ${last}, or give the phrase more counts.`
        : `The counts of this phrase go from ${first} to ${last}, so there is no ${label} in it.`,
      token,
    )
  return back ? tick(found - place.counts * TICKS_PER_COUNT) : found
}

/** How “and 8” is written: on the last count, or half a count before it. */
function pickupWords(place: Numbering): string {
  const last = numberOfCount(place.counts, place)
  return place.counts > 1
    ? `<${last} for ${last}, <${numberOfCount(place.counts - 1, place)}& for the “and” before it`
    : `<${last} for ${last}, <${last}& for the “and” behind it`
}

/** Reads `3`, `3&`, `1-4`, `<8`, `2,4,6`, `1>1a`. */
export function readWhen(token: Token, place: Numbering): readonly When[] {
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
