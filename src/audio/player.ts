import type { Played, PlayedSegment, SegmentMusic } from '../core/performance/played'
import type { Sound } from '../core/performance/sounds'
import { type Anchor, clockAt, secondsBetween, tickDue } from '../core/time/timeMap'

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
  readonly music?: Music | undefined
  /** Calls again and again until the returned stop is called. */
  readonly every: (ms: number, call: () => void) => () => void
}

/** What plays a song on the clock. */
export interface Music {
  /** Books a song from this second of the clock until that one. */
  readonly book: (music: SegmentMusic, at: number, until: number) => void
  /** Takes back what is due at this second or later; what sounds then stops there. */
  readonly takeBack: (from: number) => void
  /** Called again and again: books the next of what is to be heard. */
  readonly goOn: () => void
}

/** Where the sound is now. */
export interface Position {
  /** How many segments were played before the one that sounds. */
  readonly turn: number
  /** Ticks into that segment, not rounded. */
  readonly at: number
  /** The same on the ticks of the performance. */
  readonly tick: number
  /** The second of the song that sounds with it, and how fast that is played. */
  readonly music?: { readonly mark: string; readonly second: number; readonly rate: number }
}

export interface Player {
  readonly play: (performance: Played) => void
  readonly stop: () => void
  /** Goes on in a changed performance of the same segments, at its tempo, a quarter of a second from now. */
  readonly swap: (performance: Played) => void
  /** Books anew what is not yet due, when what is to be heard of it has changed. */
  readonly rebook: () => void
  /** Where the sound is; `late` seconds behind the clock, when the device is that slow to sound. */
  readonly position: (late?: number) => Position | undefined
  /** What plays; absent while nothing does. */
  readonly performed: () => Played | undefined
  readonly subscribe: (listener: () => void) => () => void
  /** Calls with each segment that begins to be heard, by how many were played before it. */
  readonly onTurn: (listener: (turn: number) => void) => () => void
}

/** A time that holds from some tick of some segment on. */
interface PartAnchor extends Anchor {
  readonly turn: number
}

/** Which segment is played after so many others; undefined when all is over. */
function indexAt({ segments, loopFrom }: Played, turn: number): number | undefined {
  if (turn < segments.length) return turn
  if (loopFrom === undefined || loopFrom >= segments.length) return undefined
  return loopFrom + ((turn - loopFrom) % (segments.length - loopFrom))
}

function segmentAt(performance: Played, turn: number): PlayedSegment | undefined {
  const index = indexAt(performance, turn)
  return index === undefined ? undefined : performance.segments[index]
}

/** Plays performances: books sounds ahead on the clock, drops what is late, never bunches it. */
export function createPlayer({ clock, book, takeBack, music, every }: Outside): Player {
  const listeners = new Set<() => void>()
  const turnListeners = new Set<(turn: number) => void>()
  let performed: Played | undefined
  let told = -1 // the last turn that was reported
  let anchors: PartAnchor[] = []
  let next = 0 // index of the next sound to book in the segment of the last anchor
  let stopWaking: (() => void) | undefined

  const tell = () => {
    for (const listener of [...listeners]) listener()
  }
  const last = () => anchors.at(-1)
  const segmentOf = (anchor: PartAnchor) => performed && segmentAt(performed, anchor.turn)

  function bookAhead() {
    const horizon = clock.currentTime + AHEAD_SECONDS
    for (let anchor = last(); performed && anchor; anchor = last()) {
      const segment = segmentOf(anchor)
      if (!segment) break
      const sound = segment.sounds[next]
      if (sound) {
        const due = clockAt(anchor, sound.at)
        if (due >= horizon) return
        if (due >= clock.currentTime) book(sound, due)
        next++
        continue
      }
      const ends = clockAt(anchor, segment.length)
      if (ends >= horizon) return
      const following = segmentAt(performed, anchor.turn + 1)
      if (!following) {
        if (clock.currentTime >= ends) stop()
        return
      }
      begin(anchor.turn + 1, ends, following)
    }
  }

  function begin(turn: number, seconds: number, segment: PlayedSegment) {
    next = 0
    const anchor = { turn, seconds, tick: 0, time: segment.time }
    addAnchor(anchor)
    bookMusic(anchor, segment)
  }

  /** Books the song that goes along with a segment, from the tick of an anchor in it on. */
  function bookMusic(anchor: PartAnchor, { music: heard, time, length }: PlayedSegment) {
    if (!heard) return
    const { seconds, tick } = anchor
    const from = heard.from + heard.rate * secondsBetween(time, 0, tick)
    music?.book({ ...heard, from }, seconds, clockAt(anchor, length))
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
    const segment = anchor && segmentOf(anchor)
    if (!anchor || !segment) return
    const found = segment.sounds.findIndex(({ at }) => clockAt(anchor, at) >= seconds)
    next = found < 0 ? segment.sounds.length : found
  }

  /** Makes a change in what is not yet due, and books it again. */
  function change(make: (from: number) => void) {
    if (!performed) return
    const from = clock.currentTime + SETTLED_SECONDS
    takeBack(from)
    music?.takeBack(from)
    while (anchors.length > 1 && (last()?.seconds ?? 0) > from) anchors.pop()
    make(from)
    const anchor = last()
    const segment = anchor && segmentOf(anchor)
    // What was just begun in a new time goes on from there, all else from where it is by then.
    if (anchor && segment) {
      const seconds = Math.max(from, anchor.seconds)
      bookMusic({ ...anchor, seconds, tick: tickDue(anchor, seconds) }, segment)
    }
    bookFrom(from)
    bookAhead()
  }

  function stop() {
    if (!performed) return
    stopWaking?.()
    stopWaking = undefined
    performed = undefined
    told = -1
    anchors = []
    takeBack(Number.NEGATIVE_INFINITY)
    music?.takeBack(Number.NEGATIVE_INFINITY)
    tell()
  }

  /** What is heard may be ahead of what was reported by more than one segment. */
  function tellTurns() {
    const turn = anchorAt(clock.currentTime)?.turn ?? -1
    while (performed && told < turn) {
      told++
      for (const listener of [...turnListeners]) listener(told)
    }
  }

  const anchorAt = (now: number) => anchors.findLast(({ seconds }) => seconds <= now) ?? anchors[0]

  return {
    play(wanted) {
      stop()
      const first = wanted.segments[0]
      if (!first) return
      performed = wanted
      begin(0, clock.currentTime + FIRST_SECONDS, first)
      bookAhead()
      stopWaking = every(WAKE_MS, () => {
        bookAhead()
        music?.goOn()
        tellTurns()
      })
      tell()
      tellTurns()
    },
    stop,
    swap: (wanted) =>
      change((from) => {
        performed = wanted
        const anchor = last()
        const segment = anchor && segmentOf(anchor)
        if (!anchor || !segment || segment.time === anchor.time) return
        addAnchor({
          turn: anchor.turn,
          seconds: from,
          tick: tickDue(anchor, from),
          time: segment.time,
        })
      }),
    rebook: () => change(() => {}),
    position(late = 0) {
      const now = clock.currentTime - late
      const anchor = anchorAt(now)
      const index = anchor && performed && indexAt(performed, anchor.turn)
      const segment = index === undefined ? undefined : performed?.segments[index]
      if (!anchor || !segment || !performed || index === undefined) return undefined
      const at = Math.min(segment.length, Math.max(0, tickDue(anchor, now)))
      // The very end of a segment is still its own: the next one begins with its sound.
      const inside = Math.min(at, segment.length - 1e-6)
      const { music: heard, time } = segment
      return {
        turn: anchor.turn,
        at,
        tick: performed.tickOf({ index, at: inside }),
        ...(heard && {
          music: {
            mark: heard.mark,
            second: heard.from + heard.rate * secondsBetween(time, 0, at),
            rate: heard.rate,
          },
        }),
      }
    },
    performed: () => performed,
    subscribe(listener) {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    onTurn(listener) {
      turnListeners.add(listener)
      return () => turnListeners.delete(listener)
    },
  }
}
