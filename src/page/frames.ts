/** A picture that took longer than this, in milliseconds, was slow to draw. */
const SLOW_MS = 12

/** Draws with each frame; a picture that took long is followed by one that is left out: all else goes first. */
export function eachFrame(draw: () => void): void {
  let took = 0
  const frame = () => {
    const begun = performance.now()
    const isLeftOut = took > SLOW_MS
    if (!isLeftOut) draw()
    took = isLeftOut ? 0 : performance.now() - begun
    requestAnimationFrame(frame)
  }
  requestAnimationFrame(frame)
}

/** Who wants no motion sees each count as it ends: the tick that is drawn instead of one. */
export const stillTick = (tick: number, count: number): number =>
  Math.ceil((tick + 0.01) / count) * count - 0.01
