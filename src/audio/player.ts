import type { Part, Program, Sound } from '../core/teaching/program'
import { type Anchor, secondsAt, type Tempo, ticksAt } from '../core/time/tempo'

/** A page that is blocked for less than this loses no sound. */
const AHEAD_SECONDS = 2
/** What is due sooner than this sounds as it was booked, whatever is changed. */
const SETTLED_SECONDS = 0.25
/** What is heard may lag this far behind the clock. */
const MOST_LATE_SECONDS = 2
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
  /** Takes back what is due at this second or later. */
  readonly takeBack: (from: number) => void
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
  readonly play: (program: Program, tempo?: Tempo) => void
  readonly stop: () => void
  /** Goes on in a changed program of the same parts, a quarter of a second from now. */
  readonly swap: (program: Program) => void
  /** Holds from a quarter of a second from now, for everything that follows. */
  readonly setTempo: (tempo: Tempo) => void
  /** Books anew what is not yet due, when what is to be heard of it has changed. */
  readonly rebook: () => void
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
export function createPlayer({ clock, book, takeBack, every }: Outside): Player {
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

  function bookAhead() {
    const horizon = clock.currentTime + AHEAD_SECONDS
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
    addAnchor({ turn, seconds, tick: 0, tempo: tempoNow ?? part.tempo })
  }

  /** Those before are kept as long as they may still be heard. */
  function addAnchor(anchor: PartAnchor) {
    const heard = clock.currentTime - MOST_LATE_SECONDS
    anchors = anchors.filter((_, i) => (anchors[i + 1] ?? anchor).seconds > heard)
    anchors.push(anchor)
  }

  /** The next sound to book is the first that is due at this second or later. */
  function bookFrom(seconds: number) {
    const anchor = last()
    const part = anchor && partOf(anchor)
    if (!anchor || !part) return
    const found = part.sounds.findIndex(({ at }) => secondsAt(anchor, at) >= seconds)
    next = found < 0 ? part.sounds.length : found
  }

  /** Makes a change in what is not yet due, and books it again. */
  function change(make: (from: number) => void) {
    if (!program) return
    const from = clock.currentTime + SETTLED_SECONDS
    takeBack(from)
    while (anchors.length > 1 && (last()?.seconds ?? 0) > from) anchors.pop()
    make(from)
    bookFrom(from)
    bookAhead()
  }

  function stop() {
    if (!program) return
    stopWaking?.()
    stopWaking = undefined
    program = undefined
    anchors = []
    takeBack(Number.NEGATIVE_INFINITY)
    tell()
  }

  return {
    play(wanted, tempo) {
      stop()
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
    swap: (wanted) =>
      change(() => {
        program = wanted
      }),
    setTempo: (tempo) =>
      change((from) => {
        tempoNow = tempo
        const anchor = last()
        if (!anchor || anchor.tempo === tempo) return
        addAnchor({ turn: anchor.turn, seconds: from, tick: ticksAt(anchor, from), tempo })
      }),
    rebook: () => change(() => {}),
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
