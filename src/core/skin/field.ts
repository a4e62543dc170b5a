/** A shape as a field of places: below 0 inside, about metres from the skin outside. */
export type Field = (x: number, y: number, z: number) => number

export const clamp = (value: number, least = 0, most = 1): number =>
  Math.min(most, Math.max(least, value))

/** 0 before `a`, 1 behind `b`, and softly between them; also downwards. */
export function smooth(a: number, b: number, x: number): number {
  const t = clamp((x - a) / (b - a))
  return t * t * (3 - 2 * t)
}

export const mix = (a: number, b: number, t: number): number => a + (b - a) * t

/** Two shapes as one, with a seam `k` metres wide. */
export function joined(a: number, b: number, k: number): number {
  const h = k - Math.abs(a - b)
  const least = Math.min(a, b)
  return h > 0 ? least - (h * h) / (4 * k) : least
}

/** One shape without another. */
export const without = (a: number, b: number, k: number): number => -joined(-a, b, k)

/** An ellipsoid by its middle and its half lengths. */
export function egg(
  x: number,
  y: number,
  z: number,
  [cx, cy, cz]: readonly [number, number, number],
  [rx, ry, rz]: readonly [number, number, number],
): number {
  const a = (x - cx) / rx
  const b = (y - cy) / ry
  const c = (z - cz) / rz
  const near = Math.sqrt(a * a + b * b + c * c)
  const steep = Math.sqrt((a / rx) ** 2 + (b / ry) ** 2 + (c / rz) ** 2)
  return steep < 1e-9 ? -Math.min(rx, ry, rz) : (near * (near - 1)) / steep
}

/** A round cone between two points, with a radius at each. */
export function cone(
  x: number,
  y: number,
  z: number,
  [ax, ay, az]: readonly [number, number, number],
  [bx, by, bz]: readonly [number, number, number],
  thickA: number,
  thickB: number,
): number {
  const dx = bx - ax
  const dy = by - ay
  const dz = bz - az
  const px = x - ax
  const py = y - ay
  const pz = z - az
  const t = clamp((px * dx + py * dy + pz * dz) / (dx * dx + dy * dy + dz * dz))
  const ox = px - dx * t
  const oy = py - dy * t
  const oz = pz - dz * t
  return Math.sqrt(ox * ox + oy * oy + oz * oz) - mix(thickA, thickB, t)
}

/** One row of a tube: how far along, then its radii to −u, +u, −v and +v. */
export type TubeRow = readonly [number, number, number, number, number]

const STEP = 0.002

/**
 * A tube whose sections are four quarter ellipses, with radii that change smoothly along it.
 * @param power 2 for ellipses, more for squarer sections.
 */
export function tube(
  rows: readonly TubeRow[],
  power = 2,
): (t: number, u: number, v: number) => number {
  const first = (rows[0] as TubeRow)[0]
  const last = (rows.at(-1) as TubeRow)[0]
  const count = Math.ceil((last - first) / STEP) + 2
  const radii = new Float64Array(4 * count)
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 4; k++) radii[4 * i + k] = radiusAt(rows, first + i * STEP, k + 1)
  return (t, u, v) => {
    const at = clamp((t - first) / STEP, 0, count - 2)
    const i = Math.floor(at)
    const share = at - i
    const a = 4 * i + (u < 0 ? 0 : 1)
    const b = 4 * i + (v < 0 ? 2 : 3)
    const ru = mix(radii[a] as number, radii[a + 4] as number, share)
    const rv = mix(radii[b] as number, radii[b + 4] as number, share)
    const far = Math.sqrt(u * u + v * v)
    const cos = far < 1e-7 ? 1 : Math.abs(u) / far
    const sin = far < 1e-7 ? 0 : Math.abs(v) / far
    const edge =
      power === 2
        ? 1 / Math.sqrt((cos / ru) ** 2 + (sin / rv) ** 2)
        : ((cos / ru) ** power + (sin / rv) ** power) ** (-1 / power)
    const aside = far - edge
    const over = t < first ? first - t : t > last ? t - last : 0
    if (over === 0) return aside
    return aside > 0 ? Math.sqrt(aside * aside + over * over) : Math.max(aside, over)
  }
}

/** A radius of a table between its rows, by a curve through them. */
function radiusAt(rows: readonly TubeRow[], t: number, k: number): number {
  let i = 0
  while (i < rows.length - 2 && t > (rows[i + 1] as TubeRow)[0]) i++
  const [before, from, to, after] = [i - 1, i, i + 1, i + 2].map(
    (at) => rows[clamp(at, 0, rows.length - 1)] as TubeRow,
  ) as [TubeRow, TubeRow, TubeRow, TubeRow]
  const [r0, r1, r2, r3] = [before, from, to, after].map((row) => row[k] as number) as [
    number,
    number,
    number,
    number,
  ]
  const long = to[0] - from[0]
  const u = clamp((t - from[0]) / long)
  const m1 = to[0] > before[0] ? ((r2 - r0) / (to[0] - before[0])) * long : 0
  const m2 = after[0] > from[0] ? ((r3 - r1) / (after[0] - from[0])) * long : 0
  return (
    (2 * u ** 3 - 3 * u * u + 1) * r1 +
    (u ** 3 - 2 * u * u + u) * m1 +
    (3 * u * u - 2 * u ** 3) * r2 +
    (u ** 3 - u * u) * m2
  )
}

/**
 * How far a ray goes from inside a shape to its skin; at most `most`, 0 where it begins outside.
 * Direction of length 1.
 * @param guess how far the skin is about; a good one is quicker.
 */
export function castOut(
  field: Field,
  [ox, oy, oz]: Vec,
  [dx, dy, dz]: Vec,
  most: number,
  guess = 0,
): number {
  const at = (far: number) => field(ox + dx * far, oy + dy * far, oz + dz * far)
  const begun = Math.min(most, guess - GUESSED_SHORT)
  const guessed = begun > 0 ? at(begun) : 1
  const isInside = guessed < 0
  let far = isInside ? begun : 0
  let near = far
  let inside = isInside ? guessed : at(0)
  if (inside > 0) return 0
  let outside = inside
  while (far < most) {
    near = far
    inside = outside
    far = Math.min(most, far + Math.max(0.0025, -outside * 0.7))
    outside = at(far)
    if (outside > 0) break
  }
  if (outside <= 0) return most
  for (let i = 0; i < 7; i++) {
    const mid = i % 3 === 2 ? (near + far) / 2 : near + ((far - near) * inside) / (inside - outside)
    const value = at(mid)
    if (Math.abs(value) < 2e-5) return mid
    if (value > 0) {
      far = mid
      outside = value
    } else {
      near = mid
      inside = value
    }
  }
  return (near + far) / 2
}
/** A guess begins so far inside, in metres: beyond a furrow it would find the wrong skin. */
const GUESSED_SHORT = 0.02

export type Vec = readonly [number, number, number]

/** Where the skin looks at a place: the field's steepest way up, of length 1. */
export function outwardAt(field: Field, [x, y, z]: Vec, step = 0.0022): Vec {
  return unit([
    field(x + step, y, z) - field(x - step, y, z),
    field(x, y + step, z) - field(x, y - step, z),
    field(x, y, z + step) - field(x, y, z - step),
  ])
}

export const unit = ([x, y, z]: Vec): Vec => {
  const long = Math.sqrt(x * x + y * y + z * z) || 1
  return [x / long, y / long, z / long]
}
export const plus = (a: Vec, b: Vec, by = 1): Vec => [
  a[0] + b[0] * by,
  a[1] + b[1] * by,
  a[2] + b[2] * by,
]
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
export const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]
