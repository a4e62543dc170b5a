import type { Carried } from './bones'
import { cross, dot, plus, type Vec } from './field'
import type { PatchName } from './patches'

/** Points of a grid, row by row; each row closes on itself. */
export interface Grid {
  readonly patch: PatchName
  readonly rows: number
  /** Points of a row; the first is there again at its end. */
  readonly around: number
  readonly first: number
}

/** A skin that is drawn: points at rest with what carries them, and its triangles. */
export interface SkinMesh {
  readonly positions: Float32Array
  readonly normals: Float32Array
  /** Of the painted sheet, 0 to 1. */
  readonly uvs: Float32Array
  /** Two bones a point. */
  readonly bones: Uint8Array
  /** How much a point follows its first bone, 0 to 1. */
  readonly shares: Float32Array
  /** How open the sky is over a point, 0 to 1. */
  readonly open: Float32Array
  readonly triangles: Uint16Array
  /** Fewer of them, for what only throws a shadow. */
  readonly shadow: Uint16Array
  readonly grids: readonly Grid[]
}

/** Points as they are found. */
export interface MeshPoints {
  readonly put: (
    point: Vec,
    normal: Vec,
    uv: readonly [number, number],
    by: Carried,
    open: number,
  ) => number
  readonly grid: (grid: Omit<Grid, 'first'>, first: number, ends?: boolean) => void
  readonly count: () => number
  readonly done: () => SkinMesh
}

export function meshPoints(): MeshPoints {
  const positions: number[] = []
  const normals: number[] = []
  const uvs: number[] = []
  const bones: number[] = []
  const shares: number[] = []
  const opens: number[] = []
  const triangles: number[] = []
  const shadow: number[] = []
  const grids: Grid[] = []
  const lay = (
    into: number[],
    rows: readonly number[],
    columns: readonly number[],
    first: number,
    wide: number,
  ) => {
    for (let i = 0; i + 1 < rows.length; i++)
      for (let j = 0; j + 1 < columns.length; j++) {
        const [upper, lower] = [
          first + (rows[i] as number) * wide,
          first + (rows[i + 1] as number) * wide,
        ]
        const [left, right] = [columns[j] as number, columns[j + 1] as number]
        faceOut(into, positions, normals, upper + left, upper + right, lower + left)
        faceOut(into, positions, normals, upper + right, lower + right, lower + left)
      }
  }
  return {
    put(point, normal, uv, { first, second, share }, open) {
      positions.push(...point)
      normals.push(...normal)
      uvs.push(...uv)
      bones.push(first, second)
      shares.push(share)
      opens.push(open)
      return opens.length - 1
    },
    grid(grid, first, isShading = true) {
      grids.push({ ...grid, first })
      const wide = grid.around + 1
      const every = (count: number, step: number) => {
        const some = Array.from({ length: Math.ceil(count / step) }, (_, i) => i * step)
        return some.at(-1) === count - 1 ? some : [...some, count - 1]
      }
      lay(triangles, every(grid.rows, 1), every(wide, 1), first, wide)
      if (isShading)
        lay(
          shadow,
          every(grid.rows, 3),
          every(wide, Math.max(1, Math.floor(wide / 6))),
          first,
          wide,
        )
    },
    count: () => opens.length,
    done: () => ({
      positions: new Float32Array(positions),
      normals: new Float32Array(normals),
      uvs: new Float32Array(uvs),
      bones: new Uint8Array(bones),
      shares: new Float32Array(shares),
      open: new Float32Array(opens),
      triangles: new Uint16Array(triangles),
      shadow: new Uint16Array(shadow),
      grids,
    }),
  }
}

/** Adds a triangle so that it looks the way its corners do; none that has no area. */
function faceOut(
  into: number[],
  positions: readonly number[],
  normals: readonly number[],
  a: number,
  b: number,
  c: number,
): void {
  const at = (list: readonly number[], i: number): Vec => [
    list[3 * i] as number,
    list[3 * i + 1] as number,
    list[3 * i + 2] as number,
  ]
  const [pa, pb, pc] = [at(positions, a), at(positions, b), at(positions, c)]
  const face = cross(plus(pb, pa, -1), plus(pc, pa, -1))
  if (dot(face, face) < 1e-14) return
  const out = plus(plus(at(normals, a), at(normals, b)), at(normals, c))
  if (dot(face, out) < 0) into.push(a, c, b)
  else into.push(a, b, c)
}
