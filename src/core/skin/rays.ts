import type { Carried } from './bones'
import { mirrored } from './carried'
import { castOut, clamp, type Field, outwardAt, plus, type Vec } from './field'
import { type MeshPoints, meshPoints, type SkinMesh } from './mesh'
import { type PatchName, uvIn } from './patches'

/** From where, and which way, a point of a grid is looked for. */
interface Ray {
  readonly from: Vec
  readonly way: Vec
  readonly most: number
}

/** A grid of rays thrown from an axis onto a skin. */
export interface Loft {
  readonly patch: PatchName
  readonly rows: number
  readonly around: number
  /** @param row 0 to 1; @param turn radians. */
  readonly ray: (row: number, turn: number) => Ray
  /** The skin that is looked for. */
  readonly field: Field
  readonly by: (point: Vec) => Carried
  /** A last point ahead of the last row, which closes it. */
  readonly tip?: Ray
  /** … and behind the first one. */
  readonly heel?: Ray
  readonly casts?: boolean
  /** How far down its patch it goes; all of it where it is not said. */
  readonly until?: number
  /** Only its right half is looked for, the left one is its mirror image. */
  readonly isEven?: boolean
}

/** How open the sky is over a place: what the field says a little way off. */
export function openAt(field: Field, [x, y, z]: Vec, [nx, ny, nz]: Vec): number {
  const near = 0.02 - field(x + nx * 0.02, y + ny * 0.02, z + nz * 0.02)
  const far = 0.055 - field(x + nx * 0.055, y + ny * 0.055, z + nz * 0.055)
  return clamp(1 - 9 * Math.max(0, near) - 5 * Math.max(0, far), 0.35, 1)
}

interface Found {
  readonly point: Vec
  readonly normal: Vec
  readonly by: Carried
  readonly open: number
}

const mirror = ([x, y, z]: Vec): Vec => [-x, y, z]
const mirroredPoint = ({ point, normal, by, open }: Found): Found => ({
  point: mirror(point),
  normal: mirror(normal),
  by: mirrored(by),
  open,
})

/** Looks for the points of a grid, row by row; a last one closes each row on the first. */
function pointsOf(loft: Loft, all: Field): readonly (readonly Found[])[] {
  const { rows, around, ray, field, by, tip, heel, isEven } = loft
  /** How far the last row's skin was, by column. */
  const lasts: number[] = []
  const find = ({ from, way, most }: Ray, column?: number): Found => {
    const far = castOut(field, from, way, most, column === undefined ? 0 : lasts[column])
    if (column !== undefined) lasts[column] = far
    const point = plus(from, way, far)
    const normal = outwardAt(field, point)
    return { point, normal, by: by(point), open: openAt(all, point, normal) }
  }
  const found = Array.from({ length: rows }, (_, i) => {
    const row: Found[] = []
    for (let j = 0; j < around; j++) {
      const twin = (around - j) % around
      row.push(
        isEven && twin < j
          ? mirroredPoint(row[twin] as Found)
          : find(ray(i / (rows - 1), (2 * Math.PI * j) / around), j),
      )
    }
    return [...row, row[0] as Found]
  })
  const closed = (end: Ray) => {
    const point = find(end)
    return Array.from({ length: around + 1 }, () => point)
  }
  return [...(heel ? [closed(heel)] : []), ...found, ...(tip ? [closed(tip)] : [])]
}

function write(
  points: MeshPoints,
  { patch, around, casts = true, until = 1 }: Loft,
  found: readonly (readonly Found[])[],
  isOther: boolean,
): void {
  const first = points.count()
  for (const [i, row] of found.entries())
    for (const [j, one] of row.entries()) {
      const { point, normal, by, open } = isOther ? mirroredPoint(one) : one
      points.put(point, normal, uvIn(patch, j / around, (until * i) / (found.length - 1)), by, open)
    }
  points.grid({ patch, rows: found.length, around }, first, casts)
}

/** The mesh of some grids, with the other side of those that are of one side. @param all what shades them. */
export function meshOf(lofts: readonly Loft[], all: Field): SkinMesh {
  const points = meshPoints()
  for (const one of lofts) {
    const found = pointsOf(one, all)
    write(points, one, found, false)
    if (!one.isEven) write(points, one, found, true)
  }
  return points.done()
}
