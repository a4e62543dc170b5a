import { z } from 'zod'
import { ArmPlace, Via } from '../body/places'
import type { Side } from '../body/side'
import { SIDES, sideWord } from '../body/side'
import { armPlaceIn } from '../entry/armPlaceIn'
import { nearest } from '../entry/names'
import { type Read, refuseStepWords, sizeIn } from '../entry/read'
import { EntryProblem, hint, type Reader, sideIn } from '../entry/reader'
import { readMotion } from '../moves/motion'
import { type Kind, ONCE } from './kind'

/** Each arm that is named goes to its place and stays. */
export const ArmsWhat = z
  .object({
    kind: z.literal('arms'),
    R: ArmPlace.optional(),
    L: ArmPlace.optional(),
    via: Via.optional(),
  })
  .refine(({ R, L }) => R !== undefined || L !== undefined, 'say where at least one arm goes')
  .readonly()
type ArmsWhat = z.infer<typeof ArmsWhat>

export const arms: Kind<ArmsWhat> = {
  layers: ['arms'],
  words: ['both'],
  read: readArms,
  finish({ what }, options) {
    refuseStepWords(options)
    const { via } = options
    return { what: { ...what, ...(via && { via }) }, open: false, size: sizeIn(options) }
  },
  ...ONCE,
  side: ({ R, L }) => (R && L ? undefined : R ? 'R' : 'L'),
  mirror({ R, L, ...rest }) {
    return { ...rest, ...(L && { R: L }), ...(R && { L: R }) }
  },
  name: (what) => armWords(what),
  claim: ({ R, L }) => ({
    kind: 'place',
    parts: [...(R ? (['armR'] as const) : []), ...(L ? (['armL'] as const) : [])],
    wave: false,
  }),
  leaves: ({ R, L }, before) => ({
    ...before,
    arms: { R: R ?? before.arms.R, L: L ?? before.arms.L },
  }),
  motion: ({ R, L, via }) =>
    readMotion(
      [
        via && `both:via(${via})`,
        R === L ? `both:to(${R})` : R && `R:to(${R})`,
        R !== L && L && `L:to(${L})`,
      ]
        .filter(Boolean)
        .join('+'),
    ),
  write: ({ R, L }) =>
    R === L ? `both ${R}` : [R && `R ${R}`, L && `L ${L}`].filter(Boolean).join(', '),
  say(what) {
    const via = what.via ? `, by the ${what.via}` : ''
    if (what.R === what.L) return `both arms to ${what.R}${via}`
    const each = SIDES.flatMap((side) => {
      const place = what[side]
      return place ? [`${sideWord[side]} arm to ${place}`] : []
    })
    return `${each.join(', ')}${via}`
  },
}

/** Both arms where they agree, else each: `both low`, `R crown, L hips`. */
export const armWords = ({
  R,
  L,
}: {
  R?: ArmPlace | undefined
  L?: ArmPlace | undefined
}): string => (R === L ? `both ${R}` : [R && `R ${R}`, L && `L ${L}`].filter(Boolean).join(', '))

/** `both low`, `R high-v, L hips`; the same word twice means both. */
function readArms(reader: Reader): Read<ArmsWhat> | undefined {
  const arms: Partial<Record<Side, ArmPlace>> = {}
  for (;;) {
    const first = reader.peek()
    const side = sideIn(first)
    if (!first || (first.text !== 'both' && !side)) break
    const found = armPlaceIn(reader.peek(1), reader.peek(2))
    if (!found) {
      const next = reader.peek(1)
      // It may be a move of one arm; what it is not is said there.
      if (Object.keys(arms).length === 0) return undefined
      throw new EntryProblem(
        `“${next?.text ?? first.text}” is no place for an arm.${hint(nearest(next?.text ?? '', ArmPlace.options), 'Write low, second, high-v, crown, hips or another one.')}`,
        next ?? first,
      )
    }
    reader.skip(1 + found.words)
    if (side) arms[side] = found.place
    else {
      arms.R = found.place
      arms.L = found.place
    }
    if (reader.peek()?.text === ',' && (sideIn(reader.peek(1)) || reader.peek(1)?.text === 'both'))
      reader.take()
    else if (!sideIn(reader.peek())) break
  }
  return arms.R || arms.L ? { what: { kind: 'arms', ...arms } } : undefined
}
