import type { Pose } from '../pose/joints'
import {
  begin,
  carried,
  carriedNormal,
  type Lag,
  LEG_PARTS,
  outOfLegs,
  step,
  surface,
} from './hanging'
import { REST } from './rest'
import type { Rig } from './rig'
import { offBy } from './swing'
import { newV3 } from './turns'
import type { Hung } from './worn'

const SKIRT_ROWS = 9
/** How far its hem may swing, in metres. */
const MOST = 0.2

const at = newV3()
const facing = newV3()
const off = newV3()
const next = newV3()

/** A skirt of panels: wider on its way down, slower the lower, and never inside a leg. */
export function skirtOf(panels: readonly Hung[]) {
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
      offBy(off, lag.slow, panel.point, REST.pelvis, MOST)
      const out = Math.hypot(facing[0] as number, facing[2] as number) || 1
      const nx = (facing[0] as number) / out
      const nz = (facing[2] as number) / out
      begin(next, at)
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
