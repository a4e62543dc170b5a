import { type Anatomy, TOES } from './anatomy'
import { type Carried, SIDE_BONES } from './bones'
import { carriedAt, mirrored } from './carried'
import {
  castOut,
  clamp,
  cross,
  dot,
  type Field,
  joined,
  mix,
  outwardAt,
  plus,
  smooth,
  unit,
  type Vec,
} from './field'
import {
  ANKLE,
  ARM_ACROSS,
  ARM_WAY,
  FINGER_BEND,
  FINGERS,
  fromHand,
  LEG_ACROSS,
  LEG_WAY,
  ofHand,
  REST,
  wayOfHand,
} from './rest'

/** Where on the painted sheet the skin of a part lies, in texels. */
export interface Patch {
  readonly left: number
  readonly top: number
  readonly width: number
  readonly height: number
}

/** The painted sheet: one patch a part, the same for both sides of the body. */
export const SHEET = { width: 512, height: 256 } as const
export const PATCHES = {
  trunk: { left: 0, top: 0, width: 192, height: 160 },
  head: { left: 192, top: 0, width: 192, height: 192 },
  arm: { left: 384, top: 0, width: 64, height: 192 },
  leg: { left: 448, top: 0, width: 64, height: 192 },
  neck: { left: 0, top: 160, width: 96, height: 32 },
  plain: { left: 96, top: 160, width: 16, height: 16 },
  hair: { left: 0, top: 192, width: 192, height: 64 },
  hips: { left: 192, top: 192, width: 256, height: 64 },
  strand: { left: 112, top: 160, width: 16, height: 32 },
  skirt: { left: 128, top: 160, width: 32, height: 32 },
  braid: { left: 160, top: 160, width: 16, height: 32 },
} as const satisfies Record<string, Patch>
export type PatchName = keyof typeof PATCHES

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

/** Texels a patch keeps free at its edge, so that no other colour bleeds in. */
const GUTTER = 1.5

/** Where a point of a grid lies on the sheet. */
export function uvIn(name: PatchName, across: number, down: number): readonly [number, number] {
  const { left, top, width, height } = PATCHES[name]
  return [
    (left + GUTTER + across * (width - 2 * GUTTER)) / SHEET.width,
    (top + GUTTER + down * (height - 2 * GUTTER)) / SHEET.height,
  ]
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

/** From where, and which way, a point of a grid is looked for. */
interface Ray {
  readonly from: Vec
  readonly way: Vec
  readonly most: number
}

interface Loft {
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
  /** Only its right half is looked for, the left one is its mirror image. */
  readonly isEven?: boolean
}

/** How open the sky is over a place: what the field says a little way off. */
export function openAt(field: Field, [x, y, z]: Vec, [nx, ny, nz]: Vec): number {
  const near = 0.02 - field(x + nx * 0.02, y + ny * 0.02, z + nz * 0.02)
  const far = 0.055 - field(x + nx * 0.055, y + ny * 0.055, z + nz * 0.055)
  return clamp(1 - 9 * Math.max(0, near) - 5 * Math.max(0, far), 0.35, 1)
}

/** Makes the skin of a body. @param detail 1 for all of it; less for fewer, larger triangles. */
export function skinOf(anatomy: Anatomy, detail: number): SkinMesh {
  const points = meshPoints()
  for (const one of loftsOf(anatomy, detail)) {
    const found = pointsOf(one, anatomy.skin)
    write(points, one, found, false)
    if (!one.isEven) write(points, one, found, true)
  }
  return points.done()
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
  { patch, around, casts = true }: Loft,
  found: readonly (readonly Found[])[],
  isOther: boolean,
): void {
  const first = points.count()
  for (const [i, row] of found.entries())
    for (const [j, one] of row.entries()) {
      const { point, normal, by, open } = isOther ? mirroredPoint(one) : one
      points.put(point, normal, uvIn(patch, j / around, i / (found.length - 1)), by, open)
    }
  points.grid({ patch, rows: found.length, around }, first, casts)
}

const between = (from: number, to: number, share: number): number => from + (to - from) * share

/** Every part of the body as a grid of rays from its own axis onto the common skin. */
function loftsOf(anatomy: Anatomy, detail: number): readonly Loft[] {
  const { skin, trunk, neck, arm, hand, palm, leg, foot, wholeLeg } = anatomy
  const some = (count: number, least: number) => Math.max(least, Math.round(count * detail))
  const even = (count: number, least: number) => 2 * Math.round(some(count, least) / 2)
  const by = (point: Vec) => carriedAt(anatomy, point)
  /** A ray that would run into a neighbour ends a little outside its own part. */
  const until = (own: Field, from: Vec, way: Vec, more: number): number =>
    castOut(own, from, way, 0.4) + more

  /** Level rays up to the armpits, then a fan over the shoulders; closer together at the sides. */
  const level = 0.78
  const lofts: Loft[] = [
    {
      patch: 'trunk',
      rows: some(37, 22),
      around: even(32, 20),
      isEven: true,
      field: skin,
      by,
      ray(row, turn) {
        const isLevel = row <= level
        const t = turn - 0.12 * Math.sin(2 * turn) * (isLevel ? 0.4 : 1)
        const up = isLevel ? between(0.768, 1.362, row / level) : 1.362
        const lift = isLevel ? 0 : ((row - level) / (1 - level)) * 1.18
        const from: Vec = [0, up, 0.006]
        const way: Vec = [
          Math.sin(t) * Math.cos(lift),
          Math.sin(lift),
          Math.cos(t) * Math.cos(lift),
        ]
        return { from, way, most: until(trunk, from, way, 0.03) + (up < 0.81 ? 0.05 : 0) }
      },
    },
    {
      patch: 'neck',
      rows: some(7, 5),
      around: even(16, 10),
      isEven: true,
      field: skin,
      by,
      ray(row, turn) {
        const from: Vec = [0, between(1.43, 1.545, row), between(0.014, 0, row)]
        const way: Vec = [Math.sin(turn), 0, Math.cos(turn)]
        return { from, way, most: until(neck, from, way, 0.022) }
      },
    },
    {
      // Finer in front, where the face is.
      patch: 'head',
      rows: some(22, 15),
      around: even(30, 20),
      isEven: true,
      field: skin,
      by,
      ray(row, turn) {
        const lift = between(-1.22, 1.4, row)
        const t = turn + 0.5 * Math.sin(turn)
        const way: Vec = [
          Math.sin(t) * Math.cos(lift),
          Math.sin(lift),
          Math.cos(t) * Math.cos(lift),
        ]
        return { from: HEAD_MIDDLE, way, most: row === 0 ? 0.09 : 0.16 }
      },
      tip: { from: HEAD_MIDDLE, way: [0, 1, 0], most: 0.2 },
    },
    {
      patch: 'arm',
      rows: some(27, 17),
      around: some(13, 8),
      field: skin,
      by,
      ray(row, turn) {
        const from = plus(REST.shoulder, ARM_WAY, between(-0.045, 0.5, row))
        const [x, y, z] = ARM_ACROSS
        const cos = Math.cos(turn)
        const way: Vec = [x * cos, y * cos, z * cos + Math.sin(turn)]
        return { from, way, most: until(arm, from, way, 0.022) }
      },
    },
  ]
  const wrist: Field = (x, y, z) => joined(arm(x, y, z), hand(x, y, z), 0.014)
  lofts.push({
    patch: 'plain',
    rows: some(8, 6),
    around: some(14, 10),
    field: wrist,
    by,
    ray(row, turn) {
      const from = fromHand([0, between(-0.018, 0.088, row), 0])
      const way = wayOfHand([Math.cos(turn), 0, Math.sin(turn)])
      return { from, way, most: until(palm, from, way, 0.01) }
    },
    tip: { from: fromHand([0, 0.088, 0]), way: wayOfHand([0, 1, 0]), most: 0.012 },
  })
  for (const one of FINGERS) {
    const isThumb = one.name === 'thumb'
    const up = unit(cross(one.way, isThumb ? [1, 0, 0] : [0, 0, 1]))
    const across = cross(one.way, up)
    const rows = [0.04, 0.3, 0.52, 0.74, 0.93]
    const bones = SIDE_BONES.R
    const [base, tip] = [bones[`${one.name}1`], bones[`${one.name}2`]]
    lofts.push({
      patch: 'plain',
      rows: rows.length,
      around: detail < 1 ? 5 : 6,
      field: wrist,
      casts: false,
      by(point) {
        const along = dot(plus(ofHand(...point), one.base, -1), one.way)
        const begin = isThumb ? 0.004 : 0.012
        const bend = one.long * FINGER_BEND
        const far = smooth(bend - 0.008, bend + 0.008, along)
        const near = smooth(begin - 0.01, begin + 0.01, along)
        return far > 0
          ? { first: base, second: tip, share: 1 - far }
          : { first: bones.hand, second: base, share: 1 - near }
      },
      ray(row, turn) {
        const at = rows[Math.round(row * (rows.length - 1))] as number
        const from = fromHand(plus(one.base, one.way, one.long * at))
        const way = wayOfHand(
          plus(
            [up[0] * Math.cos(turn), up[1] * Math.cos(turn), up[2] * Math.cos(turn)],
            across,
            Math.sin(turn),
          ),
        )
        return { from, way, most: one.thick * 1.5 }
      },
      tip: {
        from: fromHand(plus(one.base, one.way, one.long * 0.85)),
        way: wayOfHand(one.way),
        most: 0.03,
      },
    })
  }
  lofts.push({
    patch: 'leg',
    rows: some(32, 20),
    around: some(16, 10),
    field: skin,
    by,
    ray(row, turn) {
      const from = plus(REST.hip, LEG_WAY, between(-0.05, 0.8, row))
      const [x, y, z] = LEG_ACROSS
      const cos = Math.cos(turn)
      const way: Vec = [x * cos, y * cos, z * cos - Math.sin(turn)]
      return { from, way, most: until(leg, from, way, 0.03) }
    },
  })
  const onFoot = (ahead: number, up = 0): Vec => [ANKLE[0], 0.008 + up, -ahead]
  lofts.push({
    patch: 'plain',
    rows: some(12, 8),
    around: some(14, 10),
    field: wholeLeg,
    by,
    ray(row, turn) {
      const ahead = between(-0.052, 0.146, row)
      const from = onFoot(ahead, ahead > 0.12 ? -0.012 : 0)
      const way: Vec = [Math.cos(turn), Math.sin(turn), 0]
      return { from, way, most: until(foot, from, way, 0.012) }
    },
    heel: { from: onFoot(-0.045), way: [0, 0, 1], most: 0.04 },
    tip: { from: onFoot(0.14, -0.012), way: [0, 0, -1], most: 0.02 },
  })
  for (const [aside, near, far, thick] of TOES)
    lofts.push({
      patch: 'plain',
      rows: detail < 1 ? 3 : 4,
      around: detail < 1 ? 5 : 6,
      field: wholeLeg,
      casts: false,
      by,
      ray(row, turn) {
        const ahead = between(near + 0.006, far - 0.003, row)
        const share = (ahead - near) / (far - near)
        const from: Vec = [
          ANKLE[0] + mix(aside * 0.92, aside, share),
          -0.007 - 0.003 * smooth(near, far, ahead),
          -ahead,
        ]
        return { from, way: [Math.cos(turn), Math.sin(turn), 0], most: thick * 1.6 }
      },
      tip: { from: [ANKLE[0] + aside, -0.008, -far + 0.01], way: [0, 0, -1], most: 0.03 },
    })
  return lofts
}

const HEAD_MIDDLE: Vec = [0, 1.592, -0.012]
