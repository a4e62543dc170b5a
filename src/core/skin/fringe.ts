import type { Pose } from '../pose/joints'
import { clamp } from './field'
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

const KNOTS = 5
/** How far they may swing, in metres: a coin, and a strand of ten centimetres. */
const MOST = { coin: 0.05, strand: 0.11 } as const

const at = newV3()
const facing = newV3()
const off = newV3()
const next = newV3()

/** A fringe of ribbons: straight down, out a little, and the swing, which grows with the way down. */
export function fringeOf(strands: readonly Hung[]) {
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
      begin(next, at)
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

/** A coin hangs from its upper rim and tips with the swing. */
export function hangCoins(
  out: Float32Array,
  coins: readonly Hung[],
  rig: Rig,
  lag: Float64Array,
): void {
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
