import { LAYERS, type Layer } from '../body/layers'
import type { DancerHair, DancerShape } from '../house/dancerLook'
import { anatomyOf } from './anatomy'
import { skinOf } from './lofts'
import type { Grid, SkinMesh } from './mesh'
import { type Clothes, type Tone, type TonedSheet, toneAt, tonedSheet } from './paint'
import type { PatchName } from './patches'
import {
  braidTone,
  hairMesh,
  hairToneAt,
  hipsTone,
  skirtTone,
  strandTone,
  type WornHips,
  wornHips,
} from './worn'

/** Who dances: how built, in what, with what hair, and how finely it is made. */
export interface DressWish {
  readonly shape: DancerShape
  readonly hair: DancerHair
  readonly clothes: Clothes
  /** 1 for all of it; less for fewer, larger triangles. */
  readonly detail: number
}

/** Who is drawn, and in what. */
export type Worn = Omit<DressWish, 'detail'>

/** A dancer at rest, ready to be drawn: numbers alone, so that it can be made beside the page. */
export interface Dressed {
  readonly wish: DressWish
  readonly skin: SkinMesh
  readonly hairCap: SkinMesh
  readonly hips: WornHips
  /** The layer each point of the skin belongs to; `WAIST_LAYER` between hips and torso. */
  readonly layers: Uint8Array
  readonly sheet: TonedSheet
}

/** The waist shows what hips and torso do, and is of neither. */
export const WAIST_LAYER = LAYERS.length

/** Air round the shins of trousers, in metres. */
const LOOSE = 0.026

/** Makes a dancer at rest. */
export function dress(wish: DressWish): Dressed {
  const { shape, hair, clothes, detail } = wish
  const anatomy = anatomyOf({ shape, loose: clothes.legs === 'trousers' ? LOOSE : 0 })
  const skin = skinOf(anatomy, detail)
  const hairCap = hairMesh(anatomy, hair, detail)
  return {
    wish,
    skin,
    hairCap,
    hips: wornHips(anatomy, clothes, detail),
    layers: layersOf(skin, clothes),
    sheet: tonedSheet(
      skin,
      clothes,
      {
        plain: () => 'skin',
        hips: hipsTone(clothes.hips),
        strand: strandTone,
        skirt: skirtTone,
        braid: braidTone,
      },
      { mesh: hairCap, toneAt: hairToneAt(hair) },
    ),
  }
}

const LAYER_OF_TONE: Readonly<Partial<Record<Tone, Layer>>> = {
  feet: 'feet',
  hips: 'hips',
  torso: 'torso',
  arms: 'arms',
  head: 'head',
}

/** Bare skin goes with the limb it is of. */
const LAYER_OF_PART: Readonly<Partial<Record<PatchName, Layer>>> = {
  leg: 'feet',
  arm: 'arms',
  neck: 'head',
  head: 'head',
}

function layersOf({ positions, grids }: SkinMesh, clothes: Clothes): Uint8Array {
  const layers = new Uint8Array(positions.length / 3)
  const layerOf = ({ patch }: Grid, [x, y, z]: readonly [number, number, number]) => {
    if (patch === 'plain') return LAYERS.indexOf(y < 0.3 ? 'feet' : 'arms')
    const layer = LAYER_OF_TONE[toneAt(x, y, z, patch, clothes)] ?? LAYER_OF_PART[patch]
    return layer ? LAYERS.indexOf(layer) : WAIST_LAYER
  }
  for (const grid of grids) {
    const end = grid.first + grid.rows * (grid.around + 1)
    for (let i = grid.first; i < end; i++)
      layers[i] = layerOf(grid, [
        positions[3 * i] as number,
        positions[3 * i + 1] as number,
        positions[3 * i + 2] as number,
      ])
  }
  return layers
}
