import { clamp, smooth } from './field'
import type { Grid, SkinMesh } from './mesh'
import { PATCHES, type PatchName, SHEET, uvIn } from './patches'
import { acrossArm, alongArm, alongLeg } from './rest'

/** What a place of the skin, or of what is worn, is coloured as. */
export const TONES = [
  'skin',
  'feet',
  'hips',
  'torso',
  'arms',
  'head',
  'trim',
  'hair',
  'brow',
  'lips',
  'mouth',
  'cheek',
  'waist',
  'deep',
] as const
export type Tone = (typeof TONES)[number]

/** What is worn. Each layer of the dance has a piece of its own colour. */
export interface Clothes {
  /** A short top with sleeves, or a long one without. */
  readonly top: 'short' | 'long'
  /** What is under a short top: skin, or a fitted band. */
  readonly waist: 'bare' | 'covered'
  readonly legs: 'leggings' | 'trousers'
  readonly hips: 'scarf' | 'long-skirt' | 'short-skirt' | 'sash'
}

/** Where the top ends over the waist, and the leggings begin. */
export const HEM = 1.16
const WAISTBAND = 0.968
export const LEGGINGS_TO = 0.735
export const TROUSERS_TO = 0.772
const SLEEVE_FROM = 0.292
const SLEEVE_TO = 0.487

const near = (value: number, at: number, half: number): boolean => Math.abs(value - at) < half

/** Which colour a place of the body has, by where it is at rest. */
export function toneAt(x0: number, y: number, z: number, part: PatchName, clothes: Clothes): Tone {
  const x = Math.abs(x0)
  if (part === 'head') return faceTone(x, y, z)
  if (part === 'neck') return 'skin'
  if (part === 'leg') return legTone(alongLeg(x, y), y, clothes)
  const along = alongArm(x, y)
  // The arm begins outside the trunk's own side.
  const isArm = part === 'arm' || (acrossArm(x, y) < 0.066 && x > 0.12 && along > 0)
  if (isArm && along > 0.03) return armTone(along, clothes)
  const front = smooth(0.03, -0.03, z)
  const deep = clothes.top === 'long' ? 0.9 : 1.2
  const neckline =
    1.386 - 0.052 * front + (0.6 + (deep - 0.6) * front) * (Math.sqrt(x * x + 0.0018) - 0.0424)
  const isShort = clothes.top === 'short'
  const hem = isShort ? HEM + 0.01 * front * Math.cos(x * 14) : WAISTBAND
  if (near(y, neckline, 0.0035) && y > 1.2) return 'trim'
  if (y > neckline) return 'skin'
  if (isShort && near(y, hem, 0.0045)) return 'trim'
  if (y > hem) return 'torso'
  if (y < WAISTBAND) return 'feet'
  return clothes.waist === 'bare' ? 'skin' : 'waist'
}

function legTone(down: number, y: number, { legs, waist }: Clothes): Tone {
  if (y > WAISTBAND) return waist === 'bare' ? 'skin' : 'waist'
  const to = legs === 'trousers' ? TROUSERS_TO : LEGGINGS_TO
  if (near(down, to, legs === 'trousers' ? 0.008 : 0.004)) return 'trim'
  return down < to ? 'feet' : 'skin'
}

function armTone(along: number, { top }: Clothes): Tone {
  const short = top === 'short' ? 0.098 : 0.03
  if (near(along, short, 0.004)) return 'trim'
  if (along < short) return 'torso'
  if (near(along, SLEEVE_FROM, 0.004) || near(along, SLEEVE_TO, 0.004)) return 'trim'
  return along > SLEEVE_FROM && along < SLEEVE_TO ? 'arms' : 'skin'
}

/** A face that is only hinted at: brows, lowered lids, lips. */
function faceTone(x: number, y: number, z: number): Tone {
  if (z > -0.03 || y < 1.5) return 'skin'
  const brow = 1.6165 + 0.004 * Math.sin((x - 0.012) * 70) - Math.max(0, x - 0.034) * 0.22
  if (near(y, brow, 0.0018) && x > 0.013 && x < 0.046) return 'brow'
  const lid = 1 - ((x - 0.03) / 0.0175) ** 2
  if (lid > 0 && near(y, 1.5885 - 0.0045 * Math.sqrt(lid), 0.0012)) return 'brow'
  if ((x / 0.0205) ** 2 + ((y - 1.5385) / 0.0082) ** 2 < 1)
    return near(y, 1.5385, 0.0012) && x < 0.0185 ? 'mouth' : 'lips'
  return Math.hypot(x - 0.04, y - 1.562) < 0.012 ? 'cheek' : 'skin'
}

/** Samples of a texel each way, so that edges are smooth. */
const EACH = 2
export const SAMPLES = EACH * EACH

/** The tone of what is laid out flat, across and down 0 to 1. */
export type ToneOf = (across: number, down: number) => Tone

/** The number of each tone, a texel's samples one after the other; the whole sheet, row by row. */
export type TonedSheet = Uint8Array

/** Lays the clothes on the sheet of a body. What hangs is laid by `toneOf`, across and down 0 to 1. */
export function tonedSheet(
  body: SkinMesh,
  clothes: Clothes,
  toneOf: Readonly<Partial<Record<PatchName, ToneOf>>>,
  hair: { readonly mesh: SkinMesh; readonly toneAt: (x: number, y: number, z: number) => Tone },
): TonedSheet {
  const sheet = new Uint8Array(SAMPLES * SHEET.width * SHEET.height)
  const number = Object.fromEntries(TONES.map((tone, i) => [tone, i])) as Record<Tone, number>
  for (const name of Object.keys(PATCHES) as PatchName[]) {
    const { left, top, width, height } = PATCHES[name]
    const isHair = name === 'hair'
    const of = isHair ? hair.mesh : body
    const grid = of.grids.find(({ patch }) => patch === name)
    const laid = toneOf[name]
    const point = grid && !laid ? pointOn(of.positions, grid) : undefined
    if (!laid && !point) continue
    const [u0, v0] = uvIn(name, 0, 0)
    const [u1, v1] = uvIn(name, 1, 1)
    /** In texels from the patch's corner. */
    const tone = (i: number, j: number): number => {
      const across = clamp(((left + i) / SHEET.width - u0) / (u1 - u0))
      const down = clamp(((top + j) / SHEET.height - v0) / (v1 - v0))
      if (laid) return number[laid(across, down)]
      const [x, y, z] = (point as NonNullable<typeof point>)(across, down)
      return number[isHair ? hair.toneAt(x, y, z) : toneAt(x, y, z, name, clothes)]
    }
    // What is alike on both sides is asked once.
    const half = isEven(name) ? Math.ceil((width + 1) / 2) : width + 1
    const row = (j: number) => {
      const own = Array.from({ length: half }, (_, i) => tone(i, j))
      for (let i = half; i <= width; i++) own.push(own[width - i] as number)
      return own
    }
    let upper = row(0)
    for (let j = 0; j < height; j++) {
      const lower = row(j + 1)
      for (let i = 0; i < width; i++) {
        const at = SAMPLES * ((top + j) * SHEET.width + left + i)
        const own = upper[i] as number
        // Only where colours meet is it looked at more closely.
        const isPlain = upper[i + 1] === own && lower[i] === own && lower[i + 1] === own
        for (let s = 0; s < SAMPLES; s++)
          sheet[at + s] = isPlain
            ? own
            : tone(i + ((s % EACH) + 0.5) / EACH, j + (Math.floor(s / EACH) + 0.5) / EACH)
      }
      upper = lower
    }
  }
  return sheet
}

const isEven = (name: PatchName): boolean =>
  name === 'trunk' || name === 'head' || name === 'neck' || name === 'hair'

/** Where a place of a grid is at rest; the same three numbers are written again and again. */
function pointOn(
  positions: Float32Array,
  { rows, around, first }: Grid,
): (across: number, down: number) => readonly [number, number, number] {
  const out: [number, number, number] = [0, 0, 0]
  return (across, down) => {
    const row = Math.min(rows - 2, Math.floor(down * (rows - 1)))
    const column = Math.min(around - 1, Math.floor(across * around))
    const v = down * (rows - 1) - row
    const u = across * around - column
    const a = 3 * (first + row * (around + 1) + column)
    const b = a + 3 * (around + 1)
    for (let i = 0; i < 3; i++)
      out[i] =
        ((positions[a + i] as number) * (1 - u) + (positions[a + 3 + i] as number) * u) * (1 - v) +
        ((positions[b + i] as number) * (1 - u) + (positions[b + 3 + i] as number) * u) * v
    return out
  }
}
