import type { Side } from '../body/side'
import { SIDES } from '../body/side'
import type { DancerHair } from '../house/dancerLook'
import { jointsOfSide, newPose, type Pose, placeOfJoint } from '../pose/joints'
import { type Carried, MIDDLE_BONE } from './bones'
import { clamp, mix, smooth } from './field'
import { REST } from './rest'
import { BONE_SIZE, carryPoint, type Rig } from './rig'
import { FRAME_SIZE, frameOf, MOMENTS_AGO, offBy, swingWeights } from './swing'
import { newV3, type V3 } from './turns'
import { type Hung, KNOT, type WornHips } from './worn'

/** A dancer a little before, so that what hangs knows where it comes from. */
export type Before = (ticks: number, into: Pose) => Pose

/** A surface that is written anew with each pose. */
export interface Hanging {
  readonly positions: Float32Array
  readonly normals: Float32Array
  readonly triangles: Uint16Array
  /** Of each point, 0 at the top to 1 at its end; and its shade, 0 to 1. */
  readonly down: Float32Array
  readonly shade: Float32Array
}

/** All that hangs on a dancer. */
export interface HangingThings {
  readonly strands: Hanging | undefined
  readonly skirt: Hanging | undefined
  readonly braid: Hanging | undefined
  /** Nine numbers a coin: where it is, where it looks, and which way it hangs. */
  readonly coins: Float32Array
  /**
   * Hangs them as they hang at a moment: in the pose, and after those shortly before.
   * @param before absent for a pose that stands still; @param ticksASecond how fast they go by.
   */
  readonly hang: (
    rig: Rig,
    pose: Pose,
    scale: number,
    before: Before | undefined,
    ticksASecond: number,
  ) => void
}

const FAST = swingWeights(3.4, 0.22)
const SLOW = swingWeights(1.9, 0.3)
const HAIR = swingWeights(1.5, 0.4)
const KNOTS = 5
const SKIRT_ROWS = 9
const BRAID_ROWS = 16
const BRAID_AROUND = 7
const BRAID_LONG = 0.4
/** How far a thing may swing, in metres. */
const MOST = { coin: 0.05, strand: 0.11, skirt: 0.2, braid: 0.28 } as const

const surface = (points: number, triangles: readonly number[]): Hanging => ({
  positions: new Float32Array(3 * points),
  normals: new Float32Array(3 * points),
  triangles: new Uint16Array(triangles),
  down: new Float32Array(points),
  shade: new Float32Array(points),
})

/** Makes what hangs, ready to be hung again and again. */
export function hangingThings(
  { strands, coins, panels }: WornHips,
  hair: DancerHair,
): HangingThings {
  const lag = {
    fast: new Float64Array(FRAME_SIZE),
    slow: new Float64Array(FRAME_SIZE),
    head: new Float64Array(FRAME_SIZE),
  }
  const now = new Float64Array(FRAME_SIZE)
  const nowHead = new Float64Array(FRAME_SIZE)
  const was = new Float64Array(FRAME_SIZE)
  const past = newPose()

  const look = (pose: Pose, scale: number, before: Before | undefined, ticks: number, rig: Rig) => {
    for (const one of [lag.fast, lag.slow, lag.head]) one.fill(0)
    rig.trailing.R = 0
    rig.trailing.L = 0
    if (!before) return
    frameOf(now, pose, pose.pelvis, 'pelvis', scale)
    frameOf(nowHead, pose, pose.head, 'head', scale)
    for (const [k, ago] of MOMENTS_AGO.entries()) {
      before(ago * ticks, past)
      frameOf(was, past, past.pelvis, 'pelvis', scale)
      for (let i = 0; i < FRAME_SIZE; i++) {
        const off = (was[i] as number) - (now[i] as number)
        lag.fast[i] = (lag.fast[i] as number) + (FAST[k] as number) * off
        lag.slow[i] = (lag.slow[i] as number) + (SLOW[k] as number) * off
      }
      frameOf(was, past, past.head, 'head', scale)
      for (let i = 0; i < FRAME_SIZE; i++)
        lag.head[i] =
          (lag.head[i] as number) +
          (HAIR[k] as number) * ((was[i] as number) - (nowHead[i] as number))
      if (k === 1) for (const side of SIDES) rig.trailing[side] = trailOf(pose, past, side, ago)
    }
  }

  const fringe = strands.length > 0 ? fringeOf(strands) : undefined
  const skirt = panels.length > 0 ? skirtOf(panels) : undefined
  const braid = hair === 'braid' ? braidOf() : undefined
  const coinNumbers = new Float32Array(9 * coins.length)
  return {
    strands: fringe?.drawn,
    skirt: skirt?.drawn,
    braid: braid?.drawn,
    coins: coinNumbers,
    hang(rig, pose, scale, before, ticksASecond) {
      look(pose, scale, before, ticksASecond, rig)
      fringe?.hang(rig, pose, scale, lag)
      skirt?.hang(rig, pose, scale, lag)
      braid?.hang(rig, lag.head)
      hangCoins(coinNumbers, coins, rig, lag.fast)
    },
  }
}

interface Lag {
  readonly fast: Float64Array
  readonly slow: Float64Array
}

/** Fingers trail the hand: by how fast the palm goes the way it looks. */
function trailOf(pose: Pose, past: Pose, side: Side, ago: number): number {
  const palm = jointsOfSide[side].palm
  const { chest } = placeOfJoint
  const o = side === 'R' ? 0 : 3
  let ahead = 0
  for (let i = 0; i < 3; i++)
    ahead +=
      ((pose.joints[palm + i] as number) -
        (pose.joints[chest + i] as number) -
        (past.joints[palm + i] as number) +
        (past.joints[chest + i] as number)) *
      (pose.palms[o + i] as number)
  return clamp((-ahead / ago) * 0.45, -0.4, 0.5)
}

const [at, facing, off, one, other, next] = [newV3(), newV3(), newV3(), newV3(), newV3(), newV3()]

/** Where the skin takes a point that hangs from it. */
function carried(out: V3, { rows }: Rig, { point, by }: Hung): V3 {
  carryPoint(one, rows, by.first, point)
  carryPoint(other, rows, by.second, point)
  for (let i = 0; i < 3; i++) out[i] = mix(other[i] as number, one[i] as number, by.share)
  return out
}
function carriedNormal(out: V3, { rows }: Rig, normal: readonly number[], by: Carried): V3 {
  const o = BONE_SIZE * (by.share > 0.5 ? by.first : by.second)
  for (let i = 0; i < 3; i++)
    out[i] =
      (rows[o + 4 * i] as number) * (normal[0] as number) +
      (rows[o + 4 * i + 1] as number) * (normal[1] as number) +
      (rows[o + 4 * i + 2] as number) * (normal[2] as number)
  return out
}

/** A part of a leg as a cone: joints it lies between, and how thick it is there. */
const LEG_PARTS = [
  ['hip', 'knee', 0.1, 0.057],
  ['knee', 'ankle', 0.06, 0.036],
] as const

/** How much what hangs would rather go out the way it looks than round the other side of a leg, in metres. */
const OUTWARDS = 0.09

/** Keeps a hanging point out of a part of both legs. */
function outOfLegs(
  p: V3,
  facing: V3,
  { joints }: Pose,
  scale: number,
  [from, to, thick, thin]: (typeof LEG_PARTS)[number],
  air: number,
): void {
  for (const side of SIDES) {
    const a = jointsOfSide[side][from]
    const b = jointsOfSide[side][to]
    const ax = (joints[a] as number) / scale
    const ay = (joints[a + 1] as number) / scale
    const az = -(joints[a + 2] as number) / scale
    const bx = (joints[b] as number) / scale - ax
    const by = (joints[b + 1] as number) / scale - ay
    const bz = -(joints[b + 2] as number) / scale - az
    const px = (p[0] as number) - ax
    const py = (p[1] as number) - ay
    const pz = (p[2] as number) - az
    const t = clamp((px * bx + py * by + pz * bz) / (bx * bx + by * by + bz * bz))
    const least = mix(thick, thin, t) + air
    const dx = px - bx * t
    const dy = py - by * t
    const dz = pz - bz * t
    const far = Math.sqrt(dx * dx + dy * dy + dz * dz)
    if (far >= least) continue
    const wx = dx + (facing[0] as number) * OUTWARDS
    const wy = dy + (facing[1] as number) * OUTWARDS
    const wz = dz + (facing[2] as number) * OUTWARDS
    const push = (least - far) / (Math.sqrt(wx * wx + wy * wy + wz * wz) || 1)
    p[0] = (p[0] as number) + wx * push
    p[1] = (p[1] as number) + wy * push
    p[2] = (p[2] as number) + wz * push
  }
}

/** A fringe of ribbons: straight down, out a little, and the swing, which grows with the way down. */
function fringeOf(strands: readonly Hung[]) {
  const triangles: number[] = []
  for (let j = 0; j < strands.length; j++)
    for (let k = 0; k + 1 < KNOTS; k++) {
      const a = (j * KNOTS + k) * 2
      triangles.push(a, a + 1, a + 2, a + 1, a + 3, a + 2)
    }
  const drawn = surface(2 * KNOTS * strands.length, triangles)
  for (const [j, { phase }] of strands.entries())
    for (let k = 0; k < KNOTS; k++)
      for (let e = 0; e < 2; e++) {
        drawn.down[(j * KNOTS + k) * 2 + e] = k / (KNOTS - 1)
        drawn.shade[(j * KNOTS + k) * 2 + e] = phase
      }
  const hang = (rig: Rig, pose: Pose, scale: number, lag: Lag) => {
    for (const [j, strand] of strands.entries()) {
      carried(at, rig, strand)
      carriedNormal(facing, rig, strand.normal, strand.by)
      const { long, phase, point } = strand
      offBy(off, phase > 0.4 ? lag.fast : lag.slow, point, REST.pelvis, MOST.strand * (long / 0.1))
      next.set(at)
      free.set(at)
      const across = Math.hypot(facing[0] as number, facing[2] as number) || 1
      const ex = -(facing[2] as number) / across
      const ez = (facing[0] as number) / across
      const half = long > 0.2 ? 0.007 : 0.0042
      for (let k = 0; k < KNOTS; k++) {
        const t = k / (KNOTS - 1)
        if (k > 0) {
          const by = 0.35 * t + 0.65 * t * t
          step(
            next,
            (at[0] as number) + (facing[0] as number) * 0.012 * t + (off[0] as number) * by,
            (at[1] as number) - long * t + (off[1] as number) * by,
            (at[2] as number) + (facing[2] as number) * 0.012 * t + (off[2] as number) * by,
            long / (KNOTS - 1),
          )
          outOfLegs(next, facing, pose, scale, LEG_PARTS[0], 0.004)
        }
        const wide = half * (1 - 0.35 * t)
        const up = (phase - 0.5) * 0.8
        for (const [e, sign] of [-1, 1].entries()) {
          const o = 3 * ((j * KNOTS + k) * 2 + e)
          drawn.positions[o] = (next[0] as number) + ex * wide * sign
          drawn.positions[o + 1] = next[1] as number
          drawn.positions[o + 2] = (next[2] as number) + ez * wide * sign
          drawn.normals[o] = (facing[0] as number) + ex * up
          drawn.normals[o + 1] = (facing[1] as number) + 0.2
          drawn.normals[o + 2] = (facing[2] as number) + ez * up
        }
      }
    }
  }
  return { drawn, hang }
}

/** The free line of what hangs: where it would be with nothing in its way. */
const free = newV3()

/**
 * Goes a step of some length the way the free line goes to its next place. What was pushed off it
 * stays beside it: a step towards the line itself would turn over where the two meet.
 */
function step(p: V3, x: number, y: number, z: number, long: number): void {
  const dx = x - (free[0] as number)
  const dy = y - (free[1] as number)
  const dz = z - (free[2] as number)
  const by = long / (Math.sqrt(dx * dx + dy * dy + dz * dz) || 1)
  p[0] = (p[0] as number) + dx * by
  p[1] = (p[1] as number) + dy * by
  p[2] = (p[2] as number) + dz * by
  free[0] = x
  free[1] = y
  free[2] = z
}

/** A skirt of panels: wider on its way down, slower the lower, and never inside a leg. */
function skirtOf(panels: readonly Hung[]) {
  const count = panels.length
  const triangles: number[] = []
  for (let j = 0; j < count; j++)
    for (let k = 0; k + 1 < SKIRT_ROWS; k++) {
      const a = j * SKIRT_ROWS + k
      const b = ((j + 1) % count) * SKIRT_ROWS + k
      triangles.push(a, a + 1, b, b, a + 1, b + 1)
    }
  const drawn = surface(count * SKIRT_ROWS, triangles)
  for (let j = 0; j < count; j++)
    for (let k = 0; k < SKIRT_ROWS; k++) {
      drawn.down[j * SKIRT_ROWS + k] = k / (SKIRT_ROWS - 1)
      drawn.shade[j * SKIRT_ROWS + k] = j % 2
    }
  const { positions, normals } = drawn
  const hang = (rig: Rig, pose: Pose, scale: number, lag: Lag) => {
    for (const [j, panel] of panels.entries()) {
      carried(at, rig, panel)
      carriedNormal(facing, rig, panel.normal, panel.by)
      offBy(off, lag.slow, panel.point, REST.pelvis, MOST.skirt)
      const out = Math.hypot(facing[0] as number, facing[2] as number) || 1
      const nx = (facing[0] as number) / out
      const nz = (facing[2] as number) / out
      next.set(at)
      free.set(at)
      const long = panel.long / (SKIRT_ROWS - 1)
      for (let k = 0; k < SKIRT_ROWS; k++) {
        const t = k / (SKIRT_ROWS - 1)
        if (k > 0) {
          // Folds stand out, the more the lower.
          const wide = (0.2 + (j % 2 ? 0.035 : -0.02)) * t * panel.long
          const by = t * Math.sqrt(t)
          step(
            next,
            (at[0] as number) + nx * wide + (off[0] as number) * by,
            Math.max(0.02, (at[1] as number) - panel.long * t + (off[1] as number) * by * 0.5),
            (at[2] as number) + nz * wide + (off[2] as number) * by,
            long,
          )
          for (const part of LEG_PARTS) outOfLegs(next, facing, pose, scale, part, 0.012)
          if ((next[1] as number) < 0.015) next[1] = 0.015
        }
        const o = 3 * (j * SKIRT_ROWS + k)
        for (let i = 0; i < 3; i++) positions[o + i] = next[i] as number
      }
    }
    for (let j = 0; j < count; j++)
      for (let k = 0; k < SKIRT_ROWS; k++) {
        const left = 3 * (((j + count - 1) % count) * SKIRT_ROWS + k)
        const right = 3 * (((j + 1) % count) * SKIRT_ROWS + k)
        const upper = 3 * (j * SKIRT_ROWS + Math.max(0, k - 1))
        const lower = 3 * (j * SKIRT_ROWS + Math.min(SKIRT_ROWS - 1, k + 1))
        outward(normals, 3 * (j * SKIRT_ROWS + k), positions, left, right, upper, lower)
      }
  }
  return { drawn, hang }
}

/** The direction at right angles to a surface, from its four neighbours. */
function outward(
  normals: Float32Array,
  o: number,
  p: Float32Array,
  left: number,
  right: number,
  upper: number,
  lower: number,
): void {
  const ax = (p[right] as number) - (p[left] as number)
  const ay = (p[right + 1] as number) - (p[left + 1] as number)
  const az = (p[right + 2] as number) - (p[left + 2] as number)
  const bx = (p[upper] as number) - (p[lower] as number)
  const by = (p[upper + 1] as number) - (p[lower + 1] as number)
  const bz = (p[upper + 2] as number) - (p[lower + 2] as number)
  const x = ay * bz - az * by
  const y = az * bx - ax * bz
  const z = ax * by - ay * bx
  const long = Math.sqrt(x * x + y * y + z * z) || 1
  normals[o] = x / long
  normals[o + 1] = y / long
  normals[o + 2] = z / long
}

/** A coin hangs from its upper rim and tips with the swing. */
function hangCoins(out: Float32Array, coins: readonly Hung[], rig: Rig, lag: Float64Array): void {
  for (const [j, coin] of coins.entries()) {
    carried(at, rig, coin)
    carriedNormal(facing, rig, coin.normal, coin.by)
    offBy(off, lag, coin.point, REST.pelvis, MOST.coin)
    const flat = Math.hypot(facing[0] as number, facing[2] as number) || 1
    const nx = (facing[0] as number) / flat
    const nz = (facing[2] as number) / flat
    const outwards = (off[0] as number) * nx + (off[2] as number) * nz
    const aside = (off[0] as number) * -nz + (off[2] as number) * nx
    const tip = clamp(outwards * 14, -0.15, 1.1) + 0.1
    const roll = clamp(aside * 14, -0.8, 0.8)
    const o = 9 * j
    // Down from the rim, then where it looks.
    const dx = nx * Math.sin(tip) - nz * Math.sin(roll)
    const dz = nz * Math.sin(tip) + nx * Math.sin(roll)
    const dy = -Math.cos(tip) * Math.cos(roll)
    const long = Math.sqrt(dx * dx + dy * dy + dz * dz) || 1
    for (const [i, value] of [dx, dy, dz].entries()) {
      out[o + i] =
        (at[i] as number) +
        (facing[i] as number) * 0.004 +
        (value / long) * 0.0115 +
        (i === 1 ? 0.008 : 0)
      out[o + 6 + i] = value / long
    }
    out[o + 3] = nx * Math.cos(tip)
    out[o + 4] = Math.sin(tip)
    out[o + 5] = nz * Math.cos(tip)
  }
}

const [side1, side2, was3, way] = [newV3(), newV3(), newV3(), newV3()]

/** A braid: along the nape, then down, bent by the swing and kept off the back. */
function braidOf() {
  const triangles: number[] = []
  for (let k = 0; k + 1 < BRAID_ROWS; k++)
    for (let j = 0; j < BRAID_AROUND; j++) {
      const a = k * BRAID_AROUND + j
      const b = k * BRAID_AROUND + ((j + 1) % BRAID_AROUND)
      triangles.push(a, b, a + BRAID_AROUND, b, b + BRAID_AROUND, a + BRAID_AROUND)
    }
  const drawn = surface(BRAID_ROWS * BRAID_AROUND, triangles)
  for (let k = 0; k < BRAID_ROWS; k++)
    for (let j = 0; j < BRAID_AROUND; j++) {
      drawn.down[k * BRAID_AROUND + j] = k / (BRAID_ROWS - 1)
      drawn.shade[k * BRAID_AROUND + j] = k % 2
    }
  const hang = ({ rows }: Rig, lag: Float64Array) => {
    carryPoint(at, rows, MIDDLE_BONE.head, KNOT)
    offBy(off, lag, KNOT, REST.head, MOST.braid)
    const head = BONE_SIZE * MIDDLE_BONE.head
    const backX = rows[head + 2] as number
    const backZ = rows[head + 10] as number
    next.set(at)
    free.set(at)
    for (let k = 0; k < BRAID_ROWS; k++) {
      const t = k / (BRAID_ROWS - 1)
      was3.set(next)
      if (k > 0) {
        const out = 0.03 * (1 - Math.exp(-t * 14)) - 0.03 * t
        const by = t * (0.64 + 0.96 * t)
        step(
          next,
          (at[0] as number) + backX * out + (off[0] as number) * by,
          (at[1] as number) -
            BRAID_LONG * t +
            0.02 * Math.min(1, t * 6) +
            (off[1] as number) * t * t,
          (at[2] as number) + backZ * out + (off[2] as number) * by,
          BRAID_LONG / (BRAID_ROWS - 1),
        )
        offTheBack(next, rows)
        for (let i = 0; i < 3; i++) way[i] = (next[i] as number) - (was3[i] as number)
      } else {
        way[0] = backX
        way[1] = -0.6
        way[2] = backZ
      }
      unit3(way)
      // Across: right of the head, then square to the braid.
      for (let i = 0; i < 3; i++) side1[i] = rows[head + 4 * i] as number
      const lean = dot3(side1, way)
      for (let i = 0; i < 3; i++) side1[i] = (side1[i] as number) - (way[i] as number) * lean
      unit3(side1)
      side2[0] =
        (way[1] as number) * (side1[2] as number) - (way[2] as number) * (side1[1] as number)
      side2[1] =
        (way[2] as number) * (side1[0] as number) - (way[0] as number) * (side1[2] as number)
      side2[2] =
        (way[0] as number) * (side1[1] as number) - (way[1] as number) * (side1[0] as number)
      const plait = k < BRAID_ROWS - 3 ? 0.16 * (k % 2 ? 1 : -1) : 0
      const thick =
        k === BRAID_ROWS - 1
          ? 0.002
          : k === BRAID_ROWS - 3
            ? 0.0085
            : 0.021 * (1 - 0.35 * t) * (1 + plait)
      for (let j = 0; j < BRAID_AROUND; j++) {
        const turn = (2 * Math.PI * j) / BRAID_AROUND
        const [cos, sin] = [Math.cos(turn), Math.sin(turn)]
        const o = 3 * (k * BRAID_AROUND + j)
        for (let i = 0; i < 3; i++) {
          const normal = (side1[i] as number) * cos + (side2[i] as number) * sin
          drawn.normals[o + i] = normal
          drawn.positions[o + i] = (next[i] as number) + normal * thick
        }
      }
    }
  }
  return { drawn, hang }
}

/** The back is an ellipse of the chest, narrower towards the neck and the waist. */
function offTheBack(p: V3, rows: Float32Array): void {
  const o = BONE_SIZE * MIDDLE_BONE.chest
  const x = (p[0] as number) - (rows[o + 3] as number)
  const y = (p[1] as number) - (rows[o + 7] as number)
  const z = (p[2] as number) - (rows[o + 11] as number)
  const own = (column: number) =>
    (rows[o + column] as number) * x +
    (rows[o + 4 + column] as number) * y +
    (rows[o + 8 + column] as number) * z
  const [right, up, back] = [own(0), own(1), own(2)]
  if (up > 1.46 || up < 1.1) return
  const deep = 0.122 - 0.045 * smooth(1.36, 1.46, up) - 0.02 * smooth(1.25, 1.12, up)
  const far = Math.hypot(right / 0.165, back / deep)
  if (far >= 1 || far < 1e-6) return
  const by = 1 / far - 1
  for (let i = 0; i < 3; i++)
    p[i] =
      (p[i] as number) +
      (rows[o + 4 * i] as number) * right * by +
      (rows[o + 4 * i + 2] as number) * back * by
}

const dot3 = (a: V3, b: V3): number =>
  (a[0] as number) * (b[0] as number) +
  (a[1] as number) * (b[1] as number) +
  (a[2] as number) * (b[2] as number)

function unit3(v: V3): void {
  const long = Math.sqrt(dot3(v, v)) || 1
  for (let i = 0; i < 3; i++) v[i] = (v[i] as number) / long
}
