import type { Seen } from '../pose/views'
import { ARM, LEG, MANS_ARM, MANS_LEG, TRUNKS } from './anatomy'
import { armChain, legChain, spineChain } from './bones'
import type { Worn } from './dress'
import { mix, smooth, type TubeRow } from './field'
import type { Along, FlatPen } from './flatPen'
import { ARM_WAY, LEG_WAY, REST } from './rest'

/** A limb as it is drawn flat, with how thick it is along it. */
export interface Limb extends Along {
  readonly thick: (along: number) => number
}

/** The mean thickness of a tube, between its rows. */
function thickIn(rows: readonly (readonly number[])[]): (along: number) => number {
  const table = rows.map(([along = 0, ...radii]): readonly [number, number] => [
    along,
    radii.reduce((sum, radius) => sum + radius, 0) / radii.length,
  ])
  return (along) => between(table, along)[0] ?? 0
}

/** The other numbers of a table at one of its first. */
function between(table: readonly (readonly number[])[], at: number): readonly number[] {
  let i = 0
  while (i < table.length - 2 && at > ((table[i + 1] as readonly number[])[0] as number)) i++
  const [from, ...a] = table[i] as readonly number[]
  const [to, ...b] = table[i + 1] as readonly number[]
  const share = Math.min(
    1,
    Math.max(0, (at - (from as number)) / ((to as number) - (from as number))),
  )
  return a.map((value, k) => mix(value, b[k] as number, share))
}

/** A body as it is drawn flat. */
export interface FlatShape {
  readonly leg: Limb
  readonly arm: Limb
  /** Fingers together, narrower to their tips. */
  readonly hand: Limb
  /** Half width, front and back of the trunk, with what stands out in front and behind. */
  readonly trunkAt: (up: number) => readonly [number, number, number]
}

function shapeOf(
  legs: readonly TubeRow[],
  arms: readonly TubeRow[],
  trunk: readonly (readonly number[])[],
  chest: number,
): FlatShape {
  const arm = { from: REST.shoulder, way: ARM_WAY, chain: armChain, thick: thickIn(arms) }
  return {
    leg: { from: REST.hip, way: LEG_WAY, chain: legChain, thick: thickIn(legs) },
    arm,
    hand: {
      ...arm,
      thick: (along) =>
        along < 0.5
          ? 0.02
          : 0.02 + 0.011 * smooth(0.5, 0.57, along) - 0.02 * smooth(0.6, 0.69, along),
    },
    trunkAt(up) {
      const [half = 0, front = 0, back = 0] = between(trunk, up)
      const bump = (at: number, wide: number) => Math.exp(-(((up - at) / wide) ** 2))
      return [half, front + chest * bump(1.27, 0.045), back + 0.022 * bump(0.87, 0.06)]
    },
  }
}

export const SHAPES: Readonly<Record<Worn['shape'], FlatShape>> = {
  woman: shapeOf(LEG, ARM, TRUNKS.woman, 0.028),
  man: shapeOf(MANS_LEG, MANS_ARM, TRUNKS.man, 0.012),
}

/** Trousers fall straight from the knee. */
export const loose = (limb: Limb): Limb => ({
  ...limb,
  thick: (along) => Math.max(limb.thick(along) + 0.008, along > 0.3 ? 0.062 : 0),
})

/** A level ring of the trunk: its middle, and its widest point as it is seen. */
export interface Ring {
  readonly middle: Seen
  readonly wide: number
  readonly rise: number
}

/** A level ring of the trunk as an ellipse that is seen from somewhere. */
export function ringAt({ seen }: FlatPen, { trunkAt }: FlatShape, up: number): Ring {
  const [half, front, back] = trunkAt(up)
  const by = spineChain(up)
  const middle = seen([0, up, (back - front) / 2], by)
  const aside = seen([half, up, (back - front) / 2], by)
  const ahead = seen([0, up, -front], by)
  const a = { right: aside.right - middle.right, up: aside.up - middle.up }
  const b = { right: ahead.right - middle.right, up: ahead.up - middle.up }
  // The widest point of an ellipse seen from there.
  const wide = Math.hypot(a.right, b.right) || 1e-9
  const rise = (a.right * a.up + b.right * b.up) / wide
  return { middle, wide, rise }
}
