import { MIDDLE_BONE } from './bones'
import { smooth } from './field'
import { begin, step, surface } from './hanging'
import { REST } from './rest'
import { BONE_SIZE, carryPoint, type Rig } from './rig'
import { offBy } from './swing'
import { across, dotOf, newV3, toUnit, type V3 } from './turns'
import { KNOT } from './worn'

const BRAID_ROWS = 16
const BRAID_AROUND = 7
/** Metres; and how far its end may swing. */
const BRAID_LONG = 0.4
const MOST = 0.28

const at = newV3()
const off = newV3()
const next = newV3()
const was = newV3()
const way = newV3()
const side1 = newV3()
const side2 = newV3()

/** A braid: along the nape, then down, bent by the swing and kept off the back. */
export function braidOf() {
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
    offBy(off, lag, KNOT, REST.head, MOST)
    const head = BONE_SIZE * MIDDLE_BONE.head
    const backX = rows[head + 2] as number
    const backZ = rows[head + 10] as number
    begin(next, at)
    for (let k = 0; k < BRAID_ROWS; k++) {
      const t = k / (BRAID_ROWS - 1)
      was.set(next)
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
        for (let i = 0; i < 3; i++) way[i] = (next[i] as number) - (was[i] as number)
      } else {
        way[0] = backX
        way[1] = -0.6
        way[2] = backZ
      }
      toUnit(way)
      // Across: right of the head, then square to the braid.
      for (let i = 0; i < 3; i++) side1[i] = rows[head + 4 * i] as number
      const lean = dotOf(side1, way)
      for (let i = 0; i < 3; i++) side1[i] = (side1[i] as number) - (way[i] as number) * lean
      toUnit(side1)
      across(side2, way, side1)
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
