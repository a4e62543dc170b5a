import { pingAfter, type ServerClock, serverClock } from '../core/following/clock'
import { afterNews, type Followed, NOTHING_TOLD } from '../core/following/followed'
import type { FloorNews } from '../core/following/news.schema'
import type { FollowerHears, FollowerSays } from '../core/following/room.schema'
import { NEWS_VERSION } from '../core/following/version'

/** How it stands with the room. */
export type Standing =
  | { readonly kind: 'joining' | 'in' | 'over' }
  /** Since when nothing was heard, in milliseconds. */
  | { readonly kind: 'lost'; readonly since: number }
  | {
      readonly kind: 'refused'
      readonly why: 'code' | 'full' | 'wait' | 'old'
      readonly seconds?: number | undefined
    }

export interface Connection {
  readonly told: () => Followed
  readonly standing: () => Standing
  /** The floor's clock now, in milliseconds. */
  readonly now: (isDanced: boolean) => number | undefined
  readonly hand: (isUp: boolean) => void
  /** Comes back at once where it was lost: the page is seen again, or the network is there. */
  readonly again: () => void
  readonly leave: () => void
}

interface Asked {
  readonly open: () => WebSocket
  readonly code: string
  /** 0 to 1, another one for each: all that were lost at once do not come back at once. */
  readonly chance: number
  /** One's own clock, in milliseconds. */
  readonly clock: () => number
  /** Told with every news and every change of how it stands. */
  readonly changed: () => void
}

const OPEN = 1
/** Nothing heard for so long: the line is dead, whatever it says. */
const DEAD_MS = 6000
/** Tries to come back: the first after so long, then rarer and rarer. */
const FIRST_TRY_MS = 300
const MOST_TRY_MS = 2000
const RARER = 1.6

/** Follows a room: joins, keeps its clock, comes back by itself when it is lost. */
export function follow({ open, code, chance, clock: ownNow, changed }: Asked): Connection {
  let socket: WebSocket | undefined
  let clock: ServerClock = serverClock()
  let told: Followed = NOTHING_TOLD
  let standing: Standing = { kind: 'joining' }
  let heardAt = ownNow()
  let pings: { readonly id: number; readonly asked: number }[] = []
  let sent = 0
  let tries = 0
  let isLeft = false
  const timers = new Set<ReturnType<typeof setTimeout>>()

  const stand = (next: Standing) => {
    standing = next
    changed()
  }
  const say = (message: FollowerSays) => {
    if (socket?.readyState === OPEN) socket.send(JSON.stringify(message))
  }
  const after = (ms: number, work: () => void) => {
    const timer = setTimeout(() => {
      timers.delete(timer)
      work()
    }, ms)
    timers.add(timer)
  }
  const stopTimers = () => {
    for (const timer of timers) clearTimeout(timer)
    timers.clear()
  }
  const lost = () => {
    if (standing.kind !== 'lost') stand({ kind: 'lost', since: ownNow() })
  }
  const ping = () => {
    if (ownNow() - heardAt > DEAD_MS) return drop()
    const id = sent++
    pings = [...pings.slice(-7), { id, asked: ownNow() }]
    say({ t: 'ping', id })
    after(pingAfter(sent), ping)
  }
  const heard = (message: FollowerHears) => {
    heardAt = ownNow()
    switch (message.t) {
      case 'welcome':
        told = message.now.reduce(afterNews, NOTHING_TOLD)
        tries = 0
        stand({ kind: 'in' })
        ping()
        return
      case 'pong': {
        const own = pings.find(({ id }) => id === message.id)
        if (own) clock.heard(own.asked, message.at, heardAt)
        return
      }
      case 'no':
        isLeft = true
        return stand({ kind: 'refused', why: message.why, seconds: message.seconds })
      case 'closed':
        isLeft = true
        return stand({ kind: 'over' })
      default:
        told = afterNews(told, message satisfies FloorNews)
        changed()
    }
  }
  /** Lets go of a line that is dead or closed, and tries anew. */
  const drop = () => {
    stopTimers()
    const old = socket
    socket = undefined
    if (old) {
      old.onopen = null
      old.onmessage = null
      old.onclose = null
      old.close()
    }
    if (isLeft) return
    lost()
    const wait = Math.min(MOST_TRY_MS, FIRST_TRY_MS * RARER ** tries)
    tries += 1
    after(wait * (0.8 + 0.4 * chance), connect)
  }
  const connect = () => {
    stopTimers()
    heardAt = ownNow()
    const made = open()
    socket = made
    sent = 0
    pings = []
    made.onopen = () => say({ t: 'join', v: NEWS_VERSION, code })
    made.onmessage = ({ data }) => {
      if (socket === made) heard(JSON.parse(String(data)) as FollowerHears)
    }
    made.onclose = () => {
      if (socket === made) drop()
    }
    after(DEAD_MS, () => {
      if (standing.kind !== 'in') drop()
    })
  }
  connect()
  return {
    told: () => told,
    standing: () => standing,
    now: (isDanced) => clock.at(ownNow(), isDanced),
    hand: (up) => say({ t: 'hand', up }),
    again() {
      if (isLeft) return
      const isDead = socket?.readyState !== OPEN || ownNow() - heardAt > DEAD_MS / 2
      if (!isDead) return
      tries = 0
      // Another server may have another clock.
      if (socket) clock = serverClock()
      stopTimers()
      const old = socket
      socket = undefined
      old?.close()
      lost()
      connect()
    },
    leave() {
      isLeft = true
      drop()
    },
  }
}
