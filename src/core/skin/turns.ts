/**
 * Turns as quaternions and directions as three numbers, written into what is given: sixty frames
 * a second make nothing new.
 */
export type Quat = Float64Array
export type V3 = Float64Array
type Three = ArrayLike<number>

export const newQuat = (): Quat => new Float64Array([0, 0, 0, 1])
export const newV3 = (): V3 => new Float64Array(3)

export const NO_TURN: Quat = newQuat()

/** First `b`, then `a`. */
export function times(out: Quat, a: Three, b: Three): Quat {
  const [ax, ay, az, aw] = [a[0] as number, a[1] as number, a[2] as number, a[3] as number]
  const [bx, by, bz, bw] = [b[0] as number, b[1] as number, b[2] as number, b[3] as number]
  out[0] = aw * bx + ax * bw + ay * bz - az * by
  out[1] = aw * by - ax * bz + ay * bw + az * bx
  out[2] = aw * bz + ax * by - ay * bx + az * bw
  out[3] = aw * bw - ax * bx - ay * by - az * bz
  return out
}

/** Radians about a direction of length 1. */
export function about(out: Quat, axis: Three, angle: number): Quat {
  const sin = Math.sin(angle / 2)
  out[0] = (axis[0] as number) * sin
  out[1] = (axis[1] as number) * sin
  out[2] = (axis[2] as number) * sin
  out[3] = Math.cos(angle / 2)
  return out
}

export function back(out: Quat, q: Three): Quat {
  out[0] = -(q[0] as number)
  out[1] = -(q[1] as number)
  out[2] = -(q[2] as number)
  out[3] = q[3] as number
  return out
}

export function turned(out: V3, q: Three, v: Three): V3 {
  const [x, y, z, w] = [q[0] as number, q[1] as number, q[2] as number, q[3] as number]
  const [a, b, c] = [v[0] as number, v[1] as number, v[2] as number]
  const tx = 2 * (y * c - z * b)
  const ty = 2 * (z * a - x * c)
  const tz = 2 * (x * b - y * a)
  out[0] = a + w * tx + y * tz - z * ty
  out[1] = b + w * ty + z * tx - x * tz
  out[2] = c + w * tz + x * ty - y * tx
  return out
}

/** Between two turns, the short way. */
export function midway(out: Quat, a: Three, b: Three, share: number): Quat {
  let cos = 0
  for (let i = 0; i < 4; i++) cos += (a[i] as number) * (b[i] as number)
  const sign = cos < 0 ? -1 : 1
  cos = Math.min(1, Math.abs(cos))
  let from = 1 - share
  let to = share
  if (cos < 0.9995) {
    const angle = Math.acos(cos)
    from = Math.sin((1 - share) * angle) / Math.sin(angle)
    to = Math.sin(share * angle) / Math.sin(angle)
  }
  for (let i = 0; i < 4; i++) out[i] = (a[i] as number) * from + (b[i] as number) * to * sign
  return out
}

/** From three directions at right angles to each other. */
export function ofAxes(out: Quat, x: Three, y: Three, z: Three): Quat {
  const [a, b, c] = [x[0] as number, y[1] as number, z[2] as number]
  const yz = (y[2] as number) - (z[1] as number)
  const zx = (z[0] as number) - (x[2] as number)
  const xy = (x[1] as number) - (y[0] as number)
  if (a + b + c > 0) {
    const s = Math.sqrt(a + b + c + 1) * 2
    return written(out, yz / s, zx / s, xy / s, s / 4)
  }
  const yx = (y[0] as number) + (x[1] as number)
  const xz = (z[0] as number) + (x[2] as number)
  const zy = (z[1] as number) + (y[2] as number)
  if (a > b && a > c) {
    const s = Math.sqrt(1 + a - b - c) * 2
    return written(out, s / 4, yx / s, xz / s, yz / s)
  }
  if (b > c) {
    const s = Math.sqrt(1 + b - a - c) * 2
    return written(out, yx / s, s / 4, zy / s, zx / s)
  }
  const s = Math.sqrt(1 + c - a - b) * 2
  return written(out, xz / s, zy / s, s / 4, xy / s)
}

/** The shortest turn from one direction to another. */
export function shortest(out: Quat, a: Three, b: Three): Quat {
  across(out as unknown as V3, a, b)
  out[3] = 1 + dotOf(a, b)
  const long = Math.hypot(out[0] as number, out[1] as number, out[2] as number, out[3])
  for (let i = 0; i < 4; i++) out[i] = (out[i] as number) / (long || 1)
  return out
}

function written(out: Quat, x: number, y: number, z: number, w: number): Quat {
  out[0] = x
  out[1] = y
  out[2] = z
  out[3] = w
  return out
}

export function across(out: V3, a: Three, b: Three): V3 {
  const x = (a[1] as number) * (b[2] as number) - (a[2] as number) * (b[1] as number)
  const y = (a[2] as number) * (b[0] as number) - (a[0] as number) * (b[2] as number)
  const z = (a[0] as number) * (b[1] as number) - (a[1] as number) * (b[0] as number)
  out[0] = x
  out[1] = y
  out[2] = z
  return out
}

export const dotOf = (a: Three, b: Three): number =>
  (a[0] as number) * (b[0] as number) +
  (a[1] as number) * (b[1] as number) +
  (a[2] as number) * (b[2] as number)

/** `a + d * by`. */
export function along(out: V3, a: Three, d: Three, by: number): V3 {
  for (let i = 0; i < 3; i++) out[i] = (a[i] as number) + (d[i] as number) * by
  return out
}

/** Makes it 1 long. */
export function toUnit(v: V3): V3 {
  const long = Math.sqrt(dotOf(v, v)) || 1e-9
  for (let i = 0; i < 3; i++) v[i] = (v[i] as number) / long
  return v
}

/** Radians from one direction to another about an axis. */
export function angleAbout(a: Three, b: Three, axis: Three): number {
  const sin = across(cross3, a, b)
  return Math.atan2(dotOf(sin, axis), dotOf(a, b))
}
const cross3 = newV3()
