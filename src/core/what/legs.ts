import { z } from 'zod'
import { LegPlace } from '../body/places'
import { SIDES, type Side, sideWord } from '../body/side'
import { finishPlain, type Read } from '../entry/read'
import { EntryProblem, type Reader, sideIn } from '../entry/reader'
import { type EntryKind, type Kind, ONCE } from './kind'

/** Each leg that is named is turned in, out, or home again, from the hip: knee and toes go along. */
export const LegsWhat = z
  .object({ kind: z.literal('legs'), R: LegPlace.optional(), L: LegPlace.optional() })
  .refine(({ R, L }) => R !== undefined || L !== undefined, 'say where at least one leg goes')
  .readonly()
type LegsWhat = z.infer<typeof LegsWhat>

export const legs: Kind<LegsWhat> = {
  layers: ['legs'],
  ...ONCE,
  side: ({ R, L }) => (R && L ? undefined : R ? 'R' : 'L'),
  mirror: ({ R, L }) => ({ kind: 'legs', ...(L && { R: L }), ...(R && { L: R }) }),
  name: (what) => (what.R === what.L ? `both legs ${what.R}` : `leg ${eachLeg(what)}`),
  claim: ({ R, L }) => ({
    kind: 'place',
    parts: [...(R ? (['legR'] as const) : []), ...(L ? (['legL'] as const) : [])],
    wave: false,
  }),
  leaves: ({ R, L }, before) => ({
    ...before,
    legs: { R: R ?? before.legs.R, L: L ?? before.legs.L },
  }),
  motion: () => [],
  write: (what) => (what.R === what.L ? `both ${what.R}` : eachLeg(what)),
  say(what) {
    if (what.R && what.R === what.L) return `both legs ${legName[what.R]}`
    return SIDES.flatMap((side) => {
      const place = what[side]
      if (!place) return []
      return [
        place === 'home'
          ? `${sideWord[side]} leg home`
          : `${sideWord[side]} knee ${legName[place]}`,
      ]
    }).join(', ')
  },
}

export const legsEntry: EntryKind<LegsWhat> = {
  words: ['both'],
  read: readLegs,
  finish: finishPlain,
}

const legName: Readonly<Record<LegPlace, string>> = { home: 'home', in: 'in', out: 'out' }

const eachLeg = ({ R, L }: LegsWhat): string =>
  [R && `R ${R}`, L && `L ${L}`].filter(Boolean).join(', ')

/** Words that may stand before a place and say nothing more. */
const ALSO: ReadonlySet<string> = new Set(['knee', 'knees', 'toes', 'leg', 'legs'])

/** `R in`, `both out`, `R in, L home`; `R knee in` and `toes in R` are read alike. */
function readLegs(reader: Reader): Read<LegsWhat> | undefined {
  const read: Partial<Record<Side, LegPlace>> = {}
  for (let first = true; ; first = false) {
    if (ALSO.has(reader.peek()?.text.toLowerCase() ?? '')) reader.take()
    let side = sideIn(reader.peek())
    let isBoth = reader.peek()?.text === 'both'
    if (side || isBoth) reader.take()
    if (ALSO.has(reader.peek()?.text.toLowerCase() ?? '')) reader.take()
    const word = reader.peek()
    const place = LegPlace.safeParse(word?.text.toLowerCase())
    if (!word || !place.success) {
      if (!word) reader.need('where the leg goes: R in, R out, R home')
      throw new EntryProblem(
        `“${word?.text}” is no place for a leg. Write R in, L out, both home.`,
        word ?? { at: 0, end: 1 },
      )
    }
    reader.take()
    // The side may stand behind.
    if (!side && !isBoth) {
      side = sideIn(reader.peek())
      isBoth = reader.peek()?.text === 'both'
      if (side || isBoth) reader.take()
      else if (first) isBoth = true
    }
    if (side) read[side] = place.data
    else Object.assign(read, { R: place.data, L: place.data })
    if (reader.peek()?.text !== ',' || !sideIn(reader.peek(1))) break
    reader.take()
  }
  return { what: { kind: 'legs', ...read } }
}
