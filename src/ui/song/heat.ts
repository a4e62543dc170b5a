import { frameAt } from '../../core/beats/features'
import { type KeptFeatures, mostIn } from '../../core/beats/kept'
import type { Selection } from '../../core/song/correct'
import { type Song, songTime, tickOfCount } from '../../core/song/song'

/** Pixels of a strip of heat, on the screen. */
const STRIP = 2

/**
 * Draws how loud a line of a song is: as wide as its counts, each of them as wide as any other,
 * so that a stroke on a count stands on its post.
 */
export function drawHeat(
  canvas: HTMLCanvasElement,
  heard: KeptFeatures,
  song: Song,
  { from, to }: Selection,
): void {
  const context = canvas.getContext('2d')
  const { clientWidth: wide, clientHeight: high } = canvas
  if (!context || wide === 0) return
  canvas.width = wide
  canvas.height = high
  context.fillStyle = getComputedStyle(canvas).color
  const time = songTime(song)
  const frameOf = (x: number) =>
    frameAt(time.secondsAt(tickOfCount(song, from + (x * (to - from)) / wide)))
  for (let x = 0; x < wide; x += STRIP) {
    const frames = [frameOf(x), frameOf(x + STRIP)] as const
    const loud = mostIn(heard, 'loudness', ...frames)
    const stroke = mostIn(heard, 'flux', ...frames)
    context.globalAlpha = 0.06 + 0.4 * loud * loud
    context.fillRect(x, 0, STRIP, high)
    // What begins glows at the foot of the line.
    context.globalAlpha = Math.min(1, 1.4 * stroke * stroke)
    context.fillRect(x, high * (1 - 0.45 * stroke), STRIP, high)
  }
}
