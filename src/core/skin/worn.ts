import type { DancerHair } from '../house/dancerLook'
import type { Anatomy } from './anatomy'
import { type Carried, MIDDLE_BONE } from './bones'
import { carriedAt } from './carried'
import { castOut, type Field, mix, outwardAt, plus, type Vec } from './field'
import { meshPoints, type SkinMesh } from './mesh'
import type { Clothes, Tone, ToneOf } from './paint'
import { type PatchName, uvIn } from './patches'
import { type Loft, meshOf, openAt } from './rays'

/** A point of the hips from which something hangs. */
export interface Hung {
  readonly point: Vec
  readonly normal: Vec
  readonly by: Carried
  /** Metres. */
  readonly long: number
  /** 0 to 1: no two beside each other swing alike. */
  readonly phase: number
}

/** What is worn round the hips: cloth that lies on them, and what hangs from it. */
export interface WornHips {
  readonly mesh: SkinMesh
  readonly strands: readonly Hung[]
  readonly coins: readonly Hung[]
  /** From where the panels of a skirt hang. */
  readonly panels: readonly Hung[]
}

const AROUND = 48
const ROWS = 7
const STRANDS = 72
const COINS = 36
const PANELS = 36

/** Where the cloth begins and ends at an angle from the back, by what is worn. */
const EDGES: Readonly<
  Record<
    Clothes['hips'],
    { readonly top: (t: number) => number; readonly end: (t: number) => number }
  >
> = {
  // A point in the middle of the back and of the front, higher at the sides.
  scarf: {
    top: (t) => 0.978 + 0.008 * Math.cos(t),
    end: (t) => 0.874 - 0.02 * Math.cos(2 * t) + 0.004 * Math.cos(9 * t),
  },
  'long-skirt': { top: () => 0.985, end: () => 0.93 },
  'short-skirt': { top: () => 0.985, end: () => 0.93 },
  sash: { top: (t) => 0.992 + 0.006 * Math.cos(t), end: (t) => 0.905 + 0.01 * Math.sin(t) },
}

/** Lengths of a skirt, in metres. */
export const SKIRT_LONG: Readonly<Record<Clothes['hips'], number>> = {
  scarf: 0,
  sash: 0,
  'short-skirt': 0.42,
  'long-skirt': 0.72,
}

/** Makes what is worn round the hips. */
export function wornHips(anatomy: Anatomy, { hips }: Clothes, detail: number): WornHips {
  const { skin } = anatomy
  const { top, end } = EDGES[hips]
  const around = Math.max(28, 2 * Math.round((AROUND * detail) / 2))
  const onSkin = (up: number, t: number) => {
    const from: Vec = [0, up, 0.004]
    const way: Vec = [Math.sin(t), 0, Math.cos(t)]
    const point = plus(from, way, castOut(skin, from, way, 0.3))
    // Cloth bridges the furrow between the legs.
    return { point, normal: outwardAt(skin, point, 0.012), by: carriedAt(anatomy, point) }
  }
  const points = meshPoints()
  for (let i = 0; i < ROWS; i++)
    for (let j = 0; j <= around; j++) {
      const t = (2 * Math.PI * (j % around)) / around
      const down = i / (ROWS - 1)
      const { point, normal, by } = onSkin(top(t) + (end(t) - top(t)) * down, t)
      const fold =
        hips === 'sash' ? 0.003 * Math.sin(down * 14 + 2 * t) : 0.0015 * Math.sin(9 * t + 3 * down)
      const lifted = plus(point, normal, 0.005 + 0.007 * down + fold)
      points.put(lifted, normal, uvIn('hips', j / around, down), by, openAt(skin, lifted, normal))
    }
  points.grid({ patch: 'hips', rows: ROWS, around }, 0)
  const hung = (
    count: number,
    up: (t: number, i: number) => number,
    off: number,
    long: (t: number) => number,
  ) =>
    Array.from({ length: count }, (_, i): Hung => {
      const t = (2 * Math.PI * (i + 0.5)) / count
      const { point, normal, by } = onSkin(up(t, i), t)
      return { point: plus(point, normal, off), normal, by, long: long(t), phase: (i * 0.618) % 1 }
    })
  const isScarf = hips === 'scarf'
  const skirt = SKIRT_LONG[hips]
  return {
    mesh: points.done(),
    strands: isScarf
      ? hung(
          Math.round(STRANDS * (detail < 1 ? 0.75 : 1)),
          (t) => end(t) + 0.004,
          0.0115,
          (t) => 0.088 + 0.02 * Math.abs(Math.sin(4.5 * t)) + 0.02 * Math.cos(t) ** 2,
        )
      : hips === 'sash'
        ? sashEnds(onSkin)
        : [],
    coins: isScarf
      ? hung(
          COINS,
          (t, i) => end(t) + 0.024 + 0.012 * (i % 2),
          0.0135,
          () => 0,
        )
      : [],
    panels:
      skirt > 0
        ? hung(
            PANELS,
            (t) => end(t) + 0.004,
            0.012,
            () => skirt,
          )
        : [],
  }
}

/** The two ends of a sash hang side by side over one hip. */
function sashEnds(
  onSkin: (up: number, t: number) => Pick<Hung, 'point' | 'normal' | 'by'>,
): readonly Hung[] {
  return Array.from({ length: 14 }, (_, i): Hung => {
    const t = 0.36 * Math.PI + 0.022 * i + (i > 6 ? 0.06 : 0)
    const { point, normal, by } = onSkin(0.925, t)
    const long = i > 6 ? 0.3 - 0.006 * i : 0.38 - 0.006 * i
    return { point: plus(point, normal, 0.014), normal, by, long, phase: 0.2 + 0.01 * i }
  })
}

/** How the cloth round the hips is coloured, across and down 0 to 1. */
export const hipsTone =
  (hips: Clothes['hips']): ToneOf =>
  (across, down) => {
    const isScarf = hips === 'scarf'
    if (down < 0.06 || (isScarf && (down > 0.93 || Math.abs(down - 0.8) < 0.025))) return 'trim'
    const dot = Math.hypot((((across * 24) % 1) - 0.5) * 0.05, (down - 0.45) * 0.1)
    if (isScarf && dot < 0.008) return 'trim'
    return Math.sin(across * 56.5 + down * 3) > 0.55 && hips !== 'sash' ? 'deep' : 'hips'
  }

/** Where the head ends at the back and what hangs there begins. */
export const KNOT: Vec = [0, 1.628, 0.142]
const HAIR_MIDDLE: Vec = [0, 1.632, 0.03]

/** The hair as it lies on the head, with its band; what swings is made anew with each pose. */
export function hairMesh({ hair }: Anatomy, kind: DancerHair, detail: number): SkinMesh {
  const shell = (
    patch: PatchName,
    field: Field,
    middle: Vec,
    rows: number,
    around: number,
  ): Loft => ({
    patch,
    rows,
    around,
    field,
    isEven: true,
    by: () => ({ first: MIDDLE_BONE.head, second: MIDDLE_BONE.head, share: 1 }),
    ray(row, turn) {
      const lift = mix(-1.35, 1.57, row)
      const way: Vec = [
        Math.sin(turn) * Math.cos(lift),
        Math.sin(lift),
        Math.cos(turn) * Math.cos(lift),
      ]
      return { from: middle, way, most: 0.2 }
    },
  })
  const rows = Math.max(11, Math.round(16 * detail))
  const cap = shell('hair', hair, HAIR_MIDDLE, rows, Math.max(16, 2 * Math.round(11 * detail)))
  if (kind === 'short') return meshOf([cap], hair)
  const size = kind === 'knot' ? 0.05 : 0.036
  const middle: Vec = kind === 'knot' ? [0, 1.655, 0.132] : [0, 1.632, 0.122]
  const ball: Field = (x, y, z) => Math.hypot(x - middle[0], y - middle[1], z - middle[2]) - size
  // As the braid is above its band.
  return meshOf([cap, { ...shell('braid', ball, middle, 9, 12), until: 0.7 }], hair)
}

/** How a fringe is coloured: no two strands alike, gold at their ends. */
export const strandTone: ToneOf = (across, down) =>
  down > 0.86 ? 'trim' : across > 0.5 ? 'hips' : 'deep'

/** A skirt has folds, and a band above its hem. */
export const skirtTone: ToneOf = (across, down) =>
  down > 0.94 || Math.abs(down - 0.88) < 0.02 ? 'trim' : across > 0.5 ? 'hips' : 'deep'

/** A braid is tied near its end. */
export const braidTone: ToneOf = (_, down) => (Math.abs(down - 0.88) < 0.04 ? 'head' : 'hair')

/** A band over the head from ear to ear; round it where the hair is short. */
export const hairToneAt =
  (kind: DancerHair) =>
  (_: number, y: number, z: number): Tone => {
    const off = kind === 'short' ? y - 1.64 - 0.25 * z : z + 0.02 - (y - 1.644) * 0.25
    return Math.abs(off) < BAND_HALF && (kind === 'short' || y > 1.6) ? 'head' : 'hair'
  }
const BAND_HALF = 0.011
