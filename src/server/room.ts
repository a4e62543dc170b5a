import { randomBytes, randomInt } from 'node:crypto'
import {
  afterNews,
  drillTold,
  type Followed,
  NOTHING_TOLD,
  newsOf,
} from '../core/following/followed'
import type { FloorNews } from '../core/following/news.schema'
import { type FollowerHears, FollowerSays } from '../core/following/room.schema'
import { NEWS_VERSION } from '../core/following/version'
import { bucket, isSame, wrongTries } from './allowed'
import { CLOSED, type RoomLimits } from './limits'

/** A connection of somebody, whatever carries it. */
export interface Line {
  /** Where it comes from. */
  readonly from: string
  readonly send: (text: string) => void
  readonly close: (code: number) => void
  /** Cuts it, whatever waits. */
  readonly cut: () => void
  /** Bytes that wait to be read at the other end. */
  readonly waiting: () => number
}

/** What a line does to the room it has come into. */
interface InRoom {
  readonly said: (text: string, isBinary: boolean) => void
  readonly left: () => void
}

/** The people who follow one class, and all that holds of what they were told. */
export interface Room {
  readonly code: string
  readonly key: string
  readonly enter: (line: Line) => InRoom
  readonly tell: (news: FloorNews) => void
  readonly counts: () => { readonly followers: number; readonly hands: number }
  /** Lets nobody in any more; they are told that it is over, or come back by themselves. */
  readonly close: (isOver: boolean) => void
}

interface Follower {
  readonly line: Line
  readonly isAllowed: () => boolean
  isIn: boolean
  isUp: boolean
  heard: number
}

/** Milliseconds since 1970, finer than the calendar's clock. */
export const serverNow = (): number => performance.timeOrigin + performance.now()

/**
 * A room with a code of its own.
 * @param kept the code and key it had before an interruption
 * @param changed told when somebody comes, goes or raises a hand
 */
export function openRoom(
  limits: RoomLimits,
  changed: () => void,
  kept: { readonly code?: string | undefined; readonly key?: string | undefined } = {},
): Room {
  const code = kept.code ?? String(randomInt(1_000_000)).padStart(6, '0')
  // 128 bits, as 22 signs.
  const key = kept.key ?? randomBytes(16).toString('base64url')
  const followers = new Set<Follower>()
  const tries = wrongTries(limits.wrong, serverNow)
  let followed: Followed = NOTHING_TOLD
  let danced = ''

  const inside = () => [...followers].filter(({ isIn }) => isIn)
  const send = (follower: Follower, message: FollowerHears | string) => {
    const { line } = follower
    // Who does not read any more is not waited for.
    if (line.waiting() > limits.waiting) {
      line.cut()
      leave(follower)
      return
    }
    line.send(typeof message === 'string' ? message : JSON.stringify(message))
  }
  const leave = (follower: Follower) => {
    if (followers.delete(follower) && follower.isIn) changed()
  }
  const refuse = (follower: Follower, why: 'code' | 'full' | 'wait' | 'old', seconds?: number) => {
    send(follower, { t: 'no', why, ...(seconds !== undefined && { seconds }) })
    follower.line.close(CLOSED.no)
    leave(follower)
  }
  const join = (follower: Follower, asked: string) => {
    if (follower.isIn) return
    // The key is never held up: in a hot spot all have one address.
    if (!isSame(asked, key)) {
      const seconds = tries.wait(follower.line.from)
      if (seconds > 0) return refuse(follower, 'wait', seconds)
      if (!isSame(asked, code)) {
        tries.wrong(follower.line.from)
        return refuse(follower, 'code')
      }
    }
    if (inside().length >= limits.followers) return refuse(follower, 'full')
    follower.isIn = true
    follower.heard = serverNow()
    send(follower, { t: 'welcome', v: NEWS_VERSION, at: serverNow(), now: newsOf(followed) })
    changed()
  }
  const heard = (follower: Follower, said: FollowerSays) => {
    switch (said.t) {
      case 'join':
        return join(follower, said.code)
      case 'ping':
        return send(follower, { t: 'pong', id: said.id, at: serverNow() })
      case 'hand':
        if (!follower.isIn || follower.isUp === said.up) return
        follower.isUp = said.up
        return changed()
    }
  }
  const sweeping = setInterval(
    () => {
      const now = serverNow()
      for (const follower of [...followers]) {
        const most = follower.isIn ? limits.silentMs : limits.joinMs
        if (now - follower.heard < most) continue
        follower.line.close(CLOSED.silent)
        leave(follower)
      }
    },
    Math.min(1000, limits.joinMs / 2),
  )
  // The server may end while it waits.
  sweeping.unref()

  return {
    code,
    key,
    enter(line) {
      const follower: Follower = {
        line,
        isAllowed: bucket(limits.messages, serverNow),
        isIn: false,
        isUp: false,
        heard: serverNow(),
      }
      followers.add(follower)
      return {
        said(text, isBinary) {
          if (!followers.has(follower)) return
          if (!follower.isAllowed()) {
            line.close(CLOSED.flood)
            leave(follower)
            return
          }
          const said = isBinary ? undefined : FollowerSays.safeParse(parsed(text)).data
          if (!said) {
            line.close(CLOSED.not)
            leave(follower)
            return
          }
          // A line that only pings does not stay outside for it.
          if (follower.isIn) follower.heard = serverNow()
          heard(follower, said)
        },
        left: () => leave(follower),
      }
    },
    tell(news) {
      followed = afterNews(followed, news)
      const told = drillTold(followed)
      const now = `${told?.piece.mark} ${told?.drill.title}`
      // A raised hand is about what is danced.
      if (told && now !== danced) {
        danced = now
        for (const follower of followers) follower.isUp = false
        changed()
      }
      const text = JSON.stringify(news)
      for (const follower of inside()) send(follower, text)
    },
    counts: () => ({
      followers: inside().length,
      hands: inside().filter(({ isUp }) => isUp).length,
    }),
    close(isOver) {
      clearInterval(sweeping)
      for (const follower of [...followers]) {
        if (isOver) send(follower, { t: 'closed' })
        follower.line.close(CLOSED.over)
      }
      followers.clear()
    },
  }
}

/** What a text says; undefined where it is none. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
