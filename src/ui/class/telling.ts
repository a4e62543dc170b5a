import { useEffect, useMemo, useRef } from 'react'
import type { DrillDance } from '../../core/class/drillDance'
import { drillOf, type UnderWay } from '../../core/class/underWay'
import {
  afterNews,
  type Followed,
  followedTick,
  NOTHING_TOLD,
  newsOf,
} from '../../core/following/followed'
import type { FloorNews, RunNews } from '../../core/following/news.schema'
import { drillNews, pieceNews, restNews } from '../../core/following/tell'
import type { HouseRules } from '../../core/house/house'
import type { Materials } from '../../core/plan/material'
import { drillTitle } from '../../core/plan/totals'
import { stableText } from '../../core/record/stable'
import { wakeEvery } from '../../workers/wake'
import type { ClassClock } from './ClassFace'
import { finely } from './finely'

/** What the floor tells; who listens hears first all that holds. */
export interface Telling {
  readonly subscribe: (listener: (news: FloorNews) => void) => () => void
}

const TELL_MS = 100
/** Who follows is told again where it is once that is off by so many milliseconds. */
const OFF_MS = 8

interface Told {
  readonly session: UnderWay
  readonly materials: Materials
  readonly rules: HouseRules
  /** What sounds, or would if it were begun. */
  readonly danced: DrillDance | undefined
  readonly isPlaying: boolean
  /** When a step without a count began. */
  readonly begun: number | undefined
}

type News = { [K in FloorNews['t']]: Omit<Extract<FloorNews, { t: K }>, 'n'> }[FloorNews['t']]

/** Tells what the floor does, as it changes, and where it is in step with the sound. */
export function useTelling(told: Told, clock: ClassClock): Telling {
  const now = useRef(told)
  now.current = told
  const { telling, tell } = useMemo(createTelling, [])
  useEffect(() => wakeEvery(TELL_MS, () => tell(now.current, clock())), [tell, clock])
  return telling
}

function createTelling() {
  const listeners = new Set<(news: FloorNews) => void>()
  let known: Followed = NOTHING_TOLD
  let rest = ''
  let said: DrillDance | undefined
  let drill: string | undefined
  const say = (news: News) => {
    // Later than all before, also in another window of the same class.
    const numbered = { ...news, n: finely() } as FloorNews
    known = afterNews(known, numbered)
    for (const listener of [...listeners]) listener(numbered)
  }
  /** Tells how something is danced, where that is not known yet; returns its mark. */
  const tellDance = ({ session, materials, rules, danced }: Told): string | undefined => {
    if (danced === said) return drill
    said = danced
    drill = undefined
    const step = drillOf(session)
    if (!danced || !step) return undefined
    const piece = pieceNews(danced, { materials, rules })
    const news = drillNews(danced, { mark: piece.mark, title: drillTitle(step, materials) })
    if (!known.pieces.some(({ mark }) => mark === piece.mark)) say(piece)
    if (!known.drills.some((one) => one.drill === news.drill)) say(news)
    drill = news.drill
    return drill
  }
  return {
    tell(floor: Told, tick: number | undefined) {
      const mark = tellDance(floor)
      const { danced, isPlaying, session, materials, begun } = floor
      if (isPlaying && danced && mark !== undefined) {
        if (tick === undefined) return
        const at = finely()
        const { going } = known
        if (going?.t === 'run' && going.drill === mark && isNear(danced, going, { tick, at }))
          return
        rest = ''
        say({ t: 'run', drill: mark, at, tick })
        return
      }
      const news = restNews(session, { materials, drill: mark, begun })
      const text = stableText(news)
      if (text === rest) return
      rest = text
      say(news)
    },
    telling: {
      subscribe(listener: (news: FloorNews) => void) {
        listeners.add(listener)
        for (const news of newsOf(known)) listener(news)
        return () => {
          listeners.delete(listener)
        }
      },
    },
  }
}

/** Whether who follows is where the sound is. */
function isNear(
  { performance }: DrillDance,
  told: RunNews,
  { tick, at }: Pick<RunNews, 'tick' | 'at'>,
): boolean {
  const theirs = followedTick({ performance }, told, at)
  const { time } = performance
  return (
    theirs !== undefined && 1000 * Math.abs(time.secondsAt(theirs) - time.secondsAt(tick)) < OFF_MS
  )
}
