import type { Side } from '../body/side'
import { SPINE_UP } from './rest'

/**
 * The bones that carry the skin. Each is a turn away from rest about a point; a vertex lies
 * between two neighbours of a chain. Many bones with small differences keep joints thick.
 */
const MIDDLE = ['pelvis', 'spine1', 'spine2', 'spine3', 'chest', 'neck1', 'neck2', 'head'] as const
const ARM = [
  'collar1',
  'collar2',
  'upper1',
  'upper2',
  'upper3',
  'elbow1',
  'elbow2',
  'fore1',
  'fore2',
  'fore3',
  'wrist',
  'hand',
  'index1',
  'index2',
  'middle1',
  'middle2',
  'ring1',
  'ring2',
  'little1',
  'little2',
  'thumb1',
  'thumb2',
] as const
const LEG = [
  'groin1',
  'groin2',
  'groin3',
  'thigh1',
  'thigh2',
  'thigh3',
  'knee1',
  'knee2',
  'shin1',
  'shin2',
  'ankle',
  'foot',
  'toes',
] as const

type MiddleBone = (typeof MIDDLE)[number]
export type LimbBone = (typeof ARM)[number] | (typeof LEG)[number]

export const MIDDLE_BONE = Object.fromEntries(MIDDLE.map((name, i) => [name, i])) as Readonly<
  Record<MiddleBone, number>
>
const LIMB = [...ARM, ...LEG]
const of = (first: number) =>
  Object.fromEntries(LIMB.map((name, i) => [name, first + i])) as Readonly<Record<LimbBone, number>>
/** The bones of each side, by name. */
export const SIDE_BONES: Readonly<Record<Side, Readonly<Record<LimbBone, number>>>> = {
  R: of(MIDDLE.length),
  L: of(MIDDLE.length + LIMB.length),
}
export const BONE_COUNT = MIDDLE.length + 2 * LIMB.length

/** The same bone on the other side. */
export const otherBone = (bone: number): number =>
  bone < MIDDLE.length
    ? bone
    : bone < MIDDLE.length + LIMB.length
      ? bone + LIMB.length
      : bone - LIMB.length

/** Between which two bones a vertex lies, and how much it follows the first. */
export interface Carried {
  readonly first: number
  readonly second: number
  /** 0 to 1. */
  readonly share: number
}

export type Chain = (along: number) => Carried

/** Bones by how far along they are. */
function chain(keys: readonly (readonly [number, number])[]): Chain {
  return (along) => {
    let i = 0
    while (i < keys.length - 2 && along > (keys[i + 1] as readonly [number, number])[0]) i++
    const [from, first] = keys[i] as readonly [number, number]
    const [to, second] = keys[i + 1] as readonly [number, number]
    const share = 1 - Math.min(1, Math.max(0, (along - from) / (to - from)))
    return { first, second, share }
  }
}

const [low, one, two, three, high] = SPINE_UP
const m = MIDDLE_BONE
/** By height. */
export const spineChain = chain([
  [low, m.pelvis],
  [one, m.spine1],
  [two, m.spine2],
  [three, m.spine3],
  [high, m.chest],
  [1.418, m.chest],
  [1.452, m.neck1],
  [1.49, m.neck2],
  [1.53, m.head],
])

const r = SIDE_BONES.R
/** Where the chest's part of an arm ends, and the pelvis' part of a leg. */
export const ARM_FROM = -0.075
export const LEG_FROM = -0.1
/** Along the right arm from the shoulder, and along the right leg from the hip. */
export const armChain = chain([
  [ARM_FROM, m.chest],
  [-0.03, r.collar1],
  [0.012, r.collar2],
  [0.055, r.upper1],
  [0.13, r.upper2],
  [0.21, r.upper3],
  [0.245, r.elbow1],
  [0.285, r.elbow2],
  [0.32, r.fore1],
  [0.39, r.fore2],
  [0.46, r.fore3],
  [0.51, r.wrist],
  [0.545, r.hand],
])
export const legChain = chain([
  [LEG_FROM, m.pelvis],
  [-0.055, r.groin1],
  [-0.01, r.groin2],
  [0.04, r.groin3],
  [0.1, r.thigh1],
  [0.22, r.thigh2],
  [0.335, r.thigh3],
  [0.388, r.knee1],
  [0.433, r.knee2],
  [0.485, r.shin1],
  [0.68, r.shin2],
  [0.795, r.ankle],
  [0.84, r.foot],
])
