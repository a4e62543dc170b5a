import { useEffect, useMemo } from 'react'
import { createStore, type StoreApi } from 'zustand/vanilla'
import { pingAfter, serverClock } from '../../core/following/clock'
import type { FloorNews } from '../../core/following/news.schema'
import type { FloorHears, FloorSays, OpenRoom } from '../../core/following/room.schema'
import type { Telling } from '../../core/following/telling'
import { NEWS_VERSION } from '../../core/following/version'
import { SECRET } from '../../offline/messages'
import { finely } from './finely'

/** How it stands with who follows. */
interface Following {
  /** The server: not there, looked for, led by this window, or by another one of the instructor’s. */
  readonly server: 'none' | 'sought' | 'leads' | 'busy' | 'asking'
  readonly addresses: readonly string[]
  /** Where people join; absent while nobody is let in. */
  readonly room: OpenRoom | undefined
  readonly followers: number
  readonly hands: number
  /** Another window wants to lead. */
  readonly isAsked: boolean
  readonly problem: { readonly what: string; readonly toDo: string } | undefined
}

export interface Followers {
  readonly now: StoreApi<Following>
  readonly open: (address: string) => void
  readonly close: () => void
  /** Asks the window that leads whether this one may. */
  readonly take: () => void
  readonly answer: (take: boolean) => void
  /** Looks for the server, which is there where the app was started with `npm run studio`; stops when it is stopped. */
  readonly start: () => void
  readonly stop: () => void
}

const NOBODY: Following = {
  server: 'sought',
  addresses: [],
  room: undefined,
  followers: 0,
  hands: 0,
  isAsked: false,
  problem: undefined,
}

const OPEN = WebSocket.OPEN
const AGAIN_MS = [300, 700, 1500] as const

/** What only an app knows that was started with `npm run studio`. */
const studioSecret = (): Promise<string> =>
  fetch(SECRET).then(
    (answer) => (answer.ok ? answer.text() : ''),
    () => '',
  )

/** Leads those who follow a class, through the server the app came from. */
function createFollowers(telling: Telling): Followers {
  const now = createStore<Following>(() => NOBODY)
  const clock = serverClock()
  let secret = ''
  let socket: WebSocket | undefined
  let stopTelling: (() => void) | undefined
  let pings = new Map<number, number>()
  let sent = 0
  let tries = 0
  let isOver = false
  let timer: ReturnType<typeof setTimeout> | undefined
  let pinging: ReturnType<typeof setTimeout> | undefined
  /** Which room is to be there again when the server is. */
  let wanted: OpenRoom | undefined

  const say = (message: FloorSays) => {
    if (socket?.readyState === OPEN) socket.send(JSON.stringify(message))
  }
  /** The same news by the clock of the server. */
  const tell = (news: FloorNews) => {
    const here = finely()
    const offset = (clock.at(here, false) ?? here) - here
    if (news.t === 'run') say({ ...news, at: news.at + offset })
    else if (news.t === 'rest' && news.until !== undefined)
      say({ ...news, until: news.until + offset })
    else say(news)
  }
  const tellAll = () => {
    stopTelling?.()
    stopTelling = clock.at(finely(), false) === undefined ? undefined : telling.subscribe(tell)
  }
  const ping = () => {
    const id = sent++
    pings.set(id, finely())
    say({ t: 'ping', id })
    pinging = setTimeout(ping, pingAfter(sent))
  }
  const heard = (message: FloorHears) => {
    const { room } = now.getState()
    switch (message.t) {
      case 'leads':
        now.setState({ server: 'leads', addresses: message.addresses, isAsked: false })
        if (wanted) {
          const { address, code, key } = wanted
          say({ t: 'open', address, code, key })
        }
        return
      case 'busy':
        return now.setState({ server: 'busy' })
      case 'kept':
        return now.setState({
          server: 'busy',
          problem: { what: 'The other window goes on leading.', toDo: 'Stop it there first.' },
        })
      case 'asked':
        return now.setState({ isAsked: true })
      case 'taken':
        wanted = undefined
        return now.setState({ server: 'busy', room: undefined, isAsked: false })
      case 'opened':
        wanted = message
        now.setState({ room: message, problem: undefined })
        return tellAll()
      case 'closed':
        stopTelling?.()
        return now.setState({ room: undefined, followers: 0, hands: 0 })
      case 'cannot':
        wanted = undefined
        return now.setState({ room: undefined, problem: message })
      case 'room':
        return now.setState({ followers: message.followers, hands: message.hands })
      case 'pong': {
        const asked = pings.get(message.id)
        pings.delete(message.id)
        if (asked === undefined) return
        const isFirst = clock.at(finely(), false) === undefined
        clock.heard(asked, message.at, finely())
        if (isFirst && room) tellAll()
      }
    }
  }
  const connect = () => {
    const made = new WebSocket(`ws://${location.host}/floor`)
    socket = made
    made.onopen = () => {
      tries = 0
      pings = new Map()
      sent = 0
      say({ t: 'floor', v: NEWS_VERSION, secret })
      ping()
    }
    made.onmessage = ({ data }) => heard(JSON.parse(String(data)) as FloorHears)
    made.onclose = () => {
      clearTimeout(pinging)
      stopTelling?.()
      if (isOver) return
      // The class goes on in any case.
      now.setState({ server: 'sought' })
      timer = setTimeout(connect, AGAIN_MS[Math.min(tries, AGAIN_MS.length - 1)])
      tries += 1
    }
  }
  return {
    now,
    start() {
      isOver = false
      void studioSecret().then((known) => {
        secret = known
        if (isOver) return
        // Without a server nobody can follow, and nothing else is missing.
        if (secret) connect()
        else now.setState({ server: 'none' })
      })
    },
    open: (address) => say({ t: 'open', address }),
    close() {
      wanted = undefined
      say({ t: 'close' })
    },
    take() {
      now.setState({ server: 'asking', problem: undefined })
      say({ t: 'take' })
    },
    answer(take) {
      now.setState({ isAsked: false })
      say({ t: 'let', take })
    },
    stop() {
      isOver = true
      clearTimeout(timer)
      clearTimeout(pinging)
      stopTelling?.()
      socket?.close()
    },
  }
}

/** Those who follow the class of this floor. */
export function useFollowers(telling: Telling, isOver: boolean): Followers {
  const followers = useMemo(() => createFollowers(telling), [telling])
  useEffect(() => {
    followers.start()
    return followers.stop
  }, [followers])
  // Nobody follows a class that is over.
  useEffect(() => {
    if (isOver) followers.close()
  }, [followers, isOver])
  return followers
}
