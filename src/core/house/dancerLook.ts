import { z } from 'zod'

/** How the dancer that is drawn is built. */
export const DancerShape = z.enum(['woman', 'man'])
export type DancerShape = z.infer<typeof DancerShape>

/** What is told from behind: a braid that swings, a knot, or short hair. */
export const DancerHair = z.enum(['braid', 'knot', 'short'])
export type DancerHair = z.infer<typeof DancerHair>

const DancerSkin = z.enum(['light', 'warm', 'deep'])

/** What the dancer wears; `family` is what goes with the dance. */
export const DancerOutfit = z.enum(['family', 'scarf', 'long skirt', 'short skirt', 'sash'])
export type DancerOutfit = z.infer<typeof DancerOutfit>

/** Under a short top: skin, or a fitted band. */
const DancerWaist = z.enum(['bare', 'covered'])

/** What the dancer that is drawn looks like. */
export const DancerLook = z
  .object({
    shape: DancerShape,
    hair: DancerHair,
    skin: DancerSkin,
    outfit: DancerOutfit,
    waist: DancerWaist,
  })
  .readonly()
export type DancerLook = z.infer<typeof DancerLook>

export const USUAL_LOOK: DancerLook = {
  shape: 'woman',
  hair: 'braid',
  skin: 'warm',
  outfit: 'family',
  waist: 'bare',
}
