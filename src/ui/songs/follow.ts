/** What is heard: a second of the film, and how fast. */
interface Heard {
  readonly second: number
  readonly rate: number
}

/** So often the pictures are brought back to the sound. */
const STEP_MS = 100
/** Farther off than that they jump; then the speed alone steers for a while. */
const JUMP_SECONDS = 0.25
const SETTLED_MS = 2000
/** How strongly the speed steers, and by how much at the most. */
const STEER = 1.5
const MOST_STEER = 0.1
/** A jump lands a little later than it was asked for. */
const LANDS_SECONDS = 0.05
/** The middle of a picture, so that it is surely the one that is shown. */
const HALF_PICTURE = 1 / 60

/**
 * Keeps the pictures of a film with what is heard, until it is told to stop.
 * @param heard undefined while nothing of it sounds: the film waits
 */
export function follow(film: HTMLVideoElement, heard: () => Heard | undefined): () => void {
  let jumped = Number.NEGATIVE_INFINITY
  const step = () => {
    const now = heard()
    if (!now) {
      film.pause()
      return
    }
    if (film.paused) void film.play().catch(() => {})
    const late = now.second - film.currentTime
    const time = performance.now()
    if (Math.abs(late) > JUMP_SECONDS && time - jumped > SETTLED_MS) {
      jumped = time
      film.currentTime = Math.max(0, now.second + LANDS_SECONDS * now.rate)
    }
    film.playbackRate = now.rate * (1 + Math.max(-MOST_STEER, Math.min(MOST_STEER, STEER * late)))
    film.dataset.late = late.toFixed(3)
  }
  step()
  const every = setInterval(step, STEP_MS)
  return () => {
    clearInterval(every)
    film.pause()
    film.playbackRate = 1
  }
}

/** Shows the picture of a second. */
export function stood(film: HTMLVideoElement, second: number): void {
  film.pause()
  film.currentTime = Math.max(0, second + HALF_PICTURE)
}
