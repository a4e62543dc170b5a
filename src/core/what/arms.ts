import { z } from 'zod'
import { ArmPlace, Via } from '../body/places'
import { SIDES, sideWord } from '../body/side'
import { readMotion } from '../moves/motion'
import type { Kind } from './kind'

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
