import type { Pose } from '../pose/joints'
import { placeOfJoint } from '../pose/joints'

/**
 * How hanging things lag, without a state: a damped pendulum's answer, integrated by parts twice,
 * is a weighted sum of where it hung a little before. The same moment swings alike, played or
 * scrubbed.
 */
const MOMENTS = 8
/** Seconds that are looked back over. */
const SPAN = 0.42
const STEP = SPAN / MOMENTS

/** How long ago each moment was, in seconds. */
export const MOMENTS_AGO: readonly number[] = Array.from(
  { length: MOMENTS },
  (_, i) => (i + 0.5) * STEP,
)

/**
 * How much each moment before weighs.
 * @param hertz how fast it swings; @param damping 0 to 1.
 */
export function swingWeights(hertz: number, damping: number): readonly number[] {
  const w = 2 * Math.PI * hertz
  const wd = w * Math.sqrt(1 - damping * damping)
  const answer = (s: number) => (Math.exp(-damping * w * s) * Math.sin(wd * s)) / wd
  const e = 1e-4
  const weights = MOMENTS_AGO.map(
    (s) => (-(answer(s + e) - 2 * answer(s) + answer(s - e)) / (e * e)) * STEP,
  )
  // At an even speed nothing lags: the first moment is made zero.
  const fade = MOMENTS_AGO.map((s) => Math.exp(-damping * w * s))
  const sum = (of: readonly number[]) =>
    of.reduce((all, value, i) => all + value * (MOMENTS_AGO[i] as number), 0)
  const by = sum(weights) / sum(fade)
  return weights.map((weight, i) => weight - by * (fade[i] as number))
}

/** The numbers of a frame that hangs: its right, up and back, and where it is. */
export const FRAME_SIZE = 12

/** Writes the frame of a part of the body: forward of the room is away. */
export function frameOf(
  out: Float64Array,
  { joints }: Pose,
  part: Float64Array,
  joint: 'pelvis' | 'head',
  scale: number,
): void {
  const at = placeOfJoint[joint]
  for (let i = 0; i < 3; i++) {
    const sign = i === 2 ? -1 : 1
    out[i] = sign * (part[i] as number)
    out[3 + i] = sign * (part[3 + i] as number)
    out[6 + i] = -sign * (part[6 + i] as number)
    out[9 + i] = (sign * (joints[at + i] as number)) / scale
  }
}

/** Where a point of a frame's rest is off to, by what the frame lags. Never farther than `most` metres. */
export function offBy(
  out: Float64Array,
  lag: Float64Array,
  point: readonly [number, number, number],
  middle: readonly [number, number, number],
  most: number,
): void {
  const x = point[0] - middle[0]
  const y = point[1] - middle[1]
  const z = point[2] - middle[2]
  let far = 0
  for (let i = 0; i < 3; i++) {
    const value =
      (lag[i] as number) * x +
      (lag[3 + i] as number) * y +
      (lag[6 + i] as number) * z +
      (lag[9 + i] as number)
    out[i] = value
    far += value * value
  }
  far = Math.sqrt(far)
  if (far < 1e-6) return
  const by = (most * Math.tanh(far / most)) / far
  for (let i = 0; i < 3; i++) out[i] = (out[i] as number) * by
}
