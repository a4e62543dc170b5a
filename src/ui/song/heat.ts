import { frameAt } from '../../core/beats/features'
import type { KeptFeatures } from '../../core/beats/kept'

/** How loud a song is, and how much begins, a hundredth of a second each. */
export type Heat = Pick<KeptFeatures, 'loudness' | 'flux'>

/** Pixels of a strip of heat, on the screen. */
const STRIP = 2
/** What stands for 0 in a byte of what is kept. */
const NONE = 128

/**
 * Draws how loud a line of a song is: as wide as its counts, each of them as wide as any other,
 * so that a stroke on a count stands on its post.
 */
export function drawHeat(
  canvas: HTMLCanvasElement,
  { loudness, flux }: Heat,
  ms: readonly number[],
  shift: number,
  from: number,
  to: number,
): void {
  const context = canvas.getContext('2d')
  const wide = canvas.clientWidth
  const high = canvas.clientHeight
  if (!context || wide === 0) return
  canvas.width = wide
  canvas.height = high
  const ink = getComputedStyle(canvas).color
  context.fillStyle = ink
  const each = wide / (to - from)
  const secondsAt = (place: number) => {
    const index = Math.min(ms.length - 2, Math.floor(place))
    const a = ms[index] as number
    const b = ms[index + 1] as number
    return (a + (place - index) * (b - a) + shift) / 1000
  }
  for (let x = 0; x < wide; x += STRIP) {
    const begins = Math.round(frameAt(secondsAt(from + x / each)))
    const ends = Math.max(begins + 1, Math.round(frameAt(secondsAt(from + (x + STRIP) / each))))
    const loud = mostOf(loudness.values, begins, ends)
    const stroke = mostOf(flux.values, begins, ends)
    context.globalAlpha = 0.06 + 0.4 * loud * loud
    context.fillRect(x, 0, STRIP, high)
    // What begins glows at the foot of the line.
    context.globalAlpha = Math.min(1, 1.4 * stroke * stroke)
    context.fillRect(x, high * (1 - 0.45 * stroke), STRIP, high)
  }
}

/** The most of some bytes, 0 to 1. */
function mostOf(values: Uint8Array, from: number, to: number): number {
  let most = 0
  for (let i = Math.max(0, from); i < to; i++) most = Math.max(most, (values[i] ?? NONE) - NONE)
  return most / 127
}
