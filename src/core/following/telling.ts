import type { DrillDance } from '../class/drillDance'
import { drillOf, type UnderWay } from '../class/underWay'
import type { HouseRules } from '../house/house'
import type { Materials } from '../plan/material'
import { drillTitle } from '../plan/totals'
import { stableText } from '../record/stable'
import { afterNews, type Followed, followedTick, NOTHING_TOLD, newsOf } from './followed'
import type { FloorNews, RunNews } from './news.schema'
import { drillNews, pieceNews, restNews } from './tell'

/** What the floor tells; who listens hears first all that holds. */
export interface Telling {
  readonly subscribe: (listener: (news: FloorNews) => void) => () => void
}

/** Of two news at the same moment the later one has a higher number. */
const LEAST_LATER = 0.001
/** Who follows is told again where it is once that is off by so many milliseconds. */
const OFF_MS = 8

/** What the floor does at a moment. */
export interface FloorNow {
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

/** Tells what has changed, by its own memory of what was told. */
export interface Teller {
  readonly telling: Telling
  /** @param tick of the performance that is heard; absent while nothing does */
  readonly tell: (floor: FloorNow, tick: number | undefined) => void
}

/** @param now milliseconds since 1970, the same clock in every window */
export function createTeller(now: () => number): Teller {
  const listeners = new Set<(news: FloorNews) => void>()
  let known: Followed = NOTHING_TOLD
  let rest = ''
  let number = 0
  let said: DrillDance | undefined
  let drill: string | undefined
  const say = (news: News) => {
    // Later than all before, also in another window of the same class.
    number = Math.max(now(), number + LEAST_LATER)
    const numbered = { ...news, n: number } as FloorNews
    known = afterNews(known, numbered)
    for (const listener of [...listeners]) listener(numbered)
  }
  /** Tells how something is danced, where that is not known yet; returns its mark. */
  const tellDance = ({ session, materials, rules, danced }: FloorNow): string | undefined => {
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
    tell(floor: FloorNow, tick: number | undefined) {
      const mark = tellDance(floor)
      const { danced, isPlaying, session, materials, begun } = floor
      if (isPlaying && danced && mark !== undefined) {
        if (tick === undefined) return
        const at = now()
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
