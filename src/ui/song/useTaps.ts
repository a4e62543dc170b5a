import { useEffect, useRef, useState } from 'react'
import { LEAST_TAPS } from '../../core/beats/tapped'

/** Nobody taps any more after so long. */
const TAPPED_MS = 2500

/** What is tapped along with. */
interface Playing {
  readonly playing: boolean
  readonly play: () => Promise<void>
  readonly stop: () => void
  /** The second of the sound that is heard now. */
  readonly second: () => number | undefined
}

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
    timer.current = setTimeout(taps.current.length >= LEAST_TAPS ? finish : drop, TAPPED_MS)
  }
  useEffect(() => () => clearTimeout(timer.current), [])
  return { count, tap, drop }
}
