import { useEffect, useRef } from 'react'
import type { DrillDance } from '../../core/class/drillDance'
import type { SoundChoice } from '../../core/class/soundChoice'
import type { UnderWay } from '../../core/class/underWay'
import type { Drill } from '../../core/plan/drill'
import { wakeEvery } from '../../workers/wake'
import type { ClassClock } from './ClassFace'
import { finely } from './finely'

/** What the floor tells the dancers' window, again and again. */
export interface DancersNews {
  readonly session: UnderWay
  /** What sounds, where, and when that was, in milliseconds since 1970; absent while nothing does. */
  readonly now:
    | {
        readonly drill: Drill
        readonly choice: SoundChoice
        /** Of the performance. */
        readonly tick: number
        readonly when: number
      }
    | undefined
}

export const channelOf = (id: string): BroadcastChannel =>
  new BroadcastChannel(`molten-sway class ${id}`)

const TELL_MS = 200

/** Tells other windows of this browser where the class is, in step with the sound. */
export function useBroadcast(
  session: UnderWay,
  danced: DrillDance | undefined,
  clock: ClassClock,
): void {
  const told = useRef({ session, danced })
  told.current = { session, danced }
  useEffect(() => {
    const channel = channelOf(session.id)
    const tell = () => {
      const { session: now, danced: playing } = told.current
      const tick = playing && clock()
      const news: DancersNews = {
        session: now,
        now:
          playing && tick !== undefined
            ? { drill: playing.drill, choice: playing.choice, tick, when: finely() }
            : undefined,
      }
      channel.postMessage(news)
    }
    const stop = wakeEvery(TELL_MS, tell)
    return () => {
      stop()
      channel.close()
    }
  }, [session.id, clock])
}
