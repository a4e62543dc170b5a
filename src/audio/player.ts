import type { Part, Program, Sound } from '../core/teaching/program'
import { type Anchor, secondsAt, type Tempo, ticksAt } from '../core/time/tempo'
import { tick } from '../core/time/time'

/** A page blocked for 200 ms lost clicks at 100 ms ahead and none at this. */
const AHEAD_SECONDS = 0.3
/** A page that is woken late is booked for longer: three times its longest nap, up to this. */
const MOST_AHEAD_SECONDS = 1.5
const AHEAD_NAPS = 3
const FIRST_NAP_SECONDS = 0.2
/** What of the longest nap is still reckoned with at the next wake: half of it after half a minute. */
const NAP_KEPT = 0.9995
const WAKE_MS = 25
/** Room for the first sound to be booked before it is due. */
const FIRST_SECONDS = 0.08

/** The audio clock, in seconds. */
interface Clock {
  readonly currentTime: number
}

/** What the player needs from outside; tests hand in a clock that is stepped by hand. */
export interface Outside {
  readonly clock: Clock
  /** Books a sound on the clock. */
  readonly book: (sound: Sound, seconds: number) => void
  /** Takes back everything booked. */
  readonly silence: () => void
  /** Calls again and again until the returned stop is called. */
  readonly every: (ms: number, call: () => void) => () => void
}

/** Where the sound is now. */
export interface Position {
  readonly part: Part
  /** How many parts were played before this one. */
  readonly turn: number
  /** Ticks into the part, not rounded. */
  readonly at: number
  /** The part that follows without a stop; absent at the end. */
  readonly next?: Part | undefined
}

export interface Player {
  /** @param ahead seconds that are booked ahead at least; 0.3 where it is not given. */
  readonly play: (program: Program, tempo?: Tempo, ahead?: number) => void
  readonly stop: () => void
  /** Goes on in a changed program of the same parts, from the next sound not yet booked. */
  readonly swap: (program: Program) => void
  /** From the next sound not yet booked on, for everything that follows. */
  readonly setTempo: (tempo: Tempo) => void
  /** Where the sound is; `late` seconds behind the clock, when the device is that slow to sound. */
  readonly position: (late?: number) => Position | undefined
  readonly isPlaying: () => boolean
  readonly subscribe: (listener: () => void) => () => void
}

/** A tempo that holds from some tick of some part on. */
interface PartAnchor extends Anchor {
  readonly turn: number
}

/** The part played after so many others; undefined when the program is over. */
function partAt({ parts, loopFrom }: Program, turn: number): Part | undefined {
  if (turn < parts.length) return parts[turn]
  if (loopFrom === undefined || loopFrom >= parts.length) return undefined
  return parts[loopFrom + ((turn - loopFrom) % (parts.length - loopFrom))]
}

/** Plays programs: books sounds ahead on the clock, drops what is late, never bunches it. */
export function createPlayer({ clock, book, silence, every }: Outside): Player {
  const listeners = new Set<() => void>()
  let program: Program | undefined
  let tempoNow: Tempo | undefined
  let anchors: PartAnchor[] = []
  let next = 0 // index of the next sound to book in the part of the last anchor
  let stopWaking: (() => void) | undefined

  const tell = () => {
    for (const listener of [...listeners]) listener()
  }
  const last = () => anchors.at(-1)
  const partOf = (anchor: PartAnchor) => program && partAt(program, anchor.turn)

  let leastAhead = AHEAD_SECONDS
  let woken: number | undefined
  // A page that has just begun to play has more to do than later.
  let nap = FIRST_NAP_SECONDS

  /** Seconds to book ahead: more, the later this page has been woken of late. */
  function ahead(): number {
    const now = clock.currentTime
    nap = Math.max(nap * NAP_KEPT, now - (woken ?? now))
    woken = now
    return Math.min(MOST_AHEAD_SECONDS, Math.max(leastAhead, AHEAD_NAPS * nap))
  }

  function bookAhead() {
    const horizon = clock.currentTime + ahead()
    for (let anchor = last(); program && anchor; anchor = last()) {
      const part = partOf(anchor)
      if (!part) break
      const sound = part.sounds[next]
      if (sound) {
        const due = secondsAt(anchor, sound.at)
        if (due >= horizon) return
        if (due >= clock.currentTime) book(sound, due)
        next++
        continue
      }
      const ends = secondsAt(anchor, part.length)
      if (ends >= horizon) return
      const following = partAt(program, anchor.turn + 1)
      if (!following) {
        if (clock.currentTime >= ends) stop()
        return
      }
      begin(anchor.turn + 1, ends, following)
    }
  }

  function begin(turn: number, seconds: number, part: Part) {
    next = 0
    // The one before is kept: what is heard now lags behind what is booked.
    anchors = [
      ...anchors.slice(-8),
      { turn, seconds, tick: tick(0), tempo: tempoNow ?? part.tempo },
    ]
  }

  function stop() {
    if (!program) return
    stopWaking?.()
    stopWaking = undefined
    program = undefined
    woken = undefined
    anchors = []
    silence()
    tell()
  }

  return {
    play(wanted, tempo, ahead = AHEAD_SECONDS) {
      stop()
      leastAhead = ahead
      const first = wanted.parts[0]
      if (!first) return
      program = wanted
      tempoNow = tempo
      begin(0, clock.currentTime + FIRST_SECONDS, first)
      bookAhead()
      stopWaking = every(WAKE_MS, bookAhead)
      tell()
    },
    stop,
    swap(wanted) {
      const anchor = last()
      const before = anchor && partOf(anchor)
      if (!anchor || !before) return
      // All sounds of one tick are booked together, so this tick has none booked yet.
      const from = before.sounds[next]?.at ?? before.length
      program = wanted
      const part = partOf(anchor)
      if (!part) return stop()
      const found = part.sounds.findIndex(({ at }) => at >= from)
      next = found < 0 ? part.sounds.length : found
    },
    setTempo(tempo) {
      tempoNow = tempo
      const anchor = last()
      const part = anchor && partOf(anchor)
      if (!anchor || !part || anchor.tempo === tempo) return
      // What is booked keeps its time; the new tempo holds from the first sound that is not.
      const from = part.sounds[next]?.at ?? part.length
      anchors = [
        ...anchors.slice(-8),
        { turn: anchor.turn, seconds: secondsAt(anchor, from), tick: from, tempo },
      ]
    },
    position(late = 0) {
      const now = clock.currentTime - late
      const anchor = anchors.findLast(({ seconds }) => seconds <= now) ?? anchors[0]
      const part = anchor && partOf(anchor)
      if (!anchor || !part) return undefined
      const at = Math.min(part.length, Math.max(0, ticksAt(anchor, now)))
      const next = program && partAt(program, anchor.turn + 1)
      return { part, turn: anchor.turn, at, next }
    },
    isPlaying: () => program !== undefined,
    subscribe(listener) {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
  }
}
