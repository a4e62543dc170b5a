import type { DancerLook, DancerOutfit } from '../house/dancerLook'
import type { Family } from '../moves/move'
import type { Worn } from './dress'
import type { Clothes } from './paint'

/** What goes with the dances of a family, and leaves knees and weight to be seen. */
const OF_FAMILY: Readonly<Record<string, Exclude<DancerOutfit, 'family'>>> = {
  belly: 'scarf',
  bollywood: 'sash',
  polynesian: 'short skirt',
  latin: 'short skirt',
  general: 'scarf',
  afro: 'sash',
  jazz: 'short skirt',
  contemporary: 'long skirt',
}

const HIPS: Readonly<Record<Exclude<DancerOutfit, 'family'>, Clothes['hips']>> = {
  scarf: 'scarf',
  'long skirt': 'long-skirt',
  'short skirt': 'short-skirt',
  sash: 'sash',
}

/** What a dancer wears who looks like this, for a dance of some families. */
export function dressFor(
  { shape, hair, outfit, waist }: Omit<DancerLook, 'skin'>,
  families: readonly Family[],
): Worn {
  const hips = HIPS[outfit === 'family' ? (OF_FAMILY[families[0] ?? 'general'] ?? 'scarf') : outfit]
  return {
    shape,
    hair,
    clothes: {
      hips,
      waist,
      top: shape === 'man' ? 'long' : 'short',
      legs: hips === 'sash' ? 'trousers' : 'leggings',
    },
  }
}
