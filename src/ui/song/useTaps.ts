import { useEffect, useRef, useState } from 'react'
import { LEAST_TAPS } from '../../core/beats/tapped'

/** Nobody taps any more after so long, or after so many times as long as it took from tap to tap. */
const TAPPED_MS = 2500
const TAPPED_GAPS = 3

/** What is tapped along with. */
interface Playing {
  readonly playing: boolean
  readonly play: () => Promise<void>
  readonly stop: () => void
  /** The second of the sound that is heard now. */
  readonly second: () => number | undefined
}

/** Milliseconds from tap to tap, all taps taken together; 0 before there are two. */
const gapMs = (seconds: readonly number[]): number =>
  (1000 * ((seconds.at(-1) ?? 0) - (seconds[0] ?? 0))) / Math.max(1, seconds.length - 1)

/** Taps along with what sounds; the first one starts it, and eight or more are taken when they are over. */
export function useTaps(player: Playing, done: (seconds: readonly number[]) => void) {
  const [count, setCount] = useState<number>()
  const taps = useRef<number[]>([])
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const drop = () => {
    clearTimeout(timer.current)
    taps.current = []
    setCount(undefined)
  }
  const finish = () => {
    const made = taps.current
    drop()
    player.stop()
    done(made)
  }
  const tap = () => {
    clearTimeout(timer.current)
    if (!player.playing) {
      taps.current = []
      setCount(0)
      void player.play()
      return
    }
    const second = player.second()
    if (second === undefined) return
    taps.current = [...taps.current, second]
    setCount(taps.current.length)
    timer.current = setTimeout(
      taps.current.length >= LEAST_TAPS ? finish : drop,
      Math.max(TAPPED_MS, TAPPED_GAPS * gapMs(taps.current)),
    )
  }
  useEffect(() => () => clearTimeout(timer.current), [])
  return { count, tap, drop }
}
