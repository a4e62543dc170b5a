const drawn = new Set<() => void>()
let isRunning = false

/** Calls before each picture of the screen, until the returned stop is called. One loop serves all. */
export function eachFrame(draw: () => void): () => void {
  drawn.add(draw)
  if (!isRunning) {
    isRunning = true
    requestAnimationFrame(next)
  }
  return () => {
    drawn.delete(draw)
  }
}

function next(): void {
  isRunning = drawn.size > 0
  if (isRunning) requestAnimationFrame(next)
  for (const draw of [...drawn]) draw()
}

/** A picture that is there later than this, in milliseconds, was slow to draw. */
const LATE_MS = 25

/**
 * The same for what is dear to draw: a machine that draws slowly draws it less often, and has as
 * long a rest after each picture as that took. The sound and the counts go first.
 */
export function eachFrameAtEase(draw: () => void): () => void {
  let begun: number | undefined
  let rested = 0
  return eachFrame(() => {
    const now = performance.now()
    if (begun !== undefined) {
      const took = now - begun
      begun = undefined
      rested = took > LATE_MS ? now + took : now
    }
    if (now < rested) return
    begun = now
    draw()
  })
}
