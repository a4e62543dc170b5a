import { networkInterfaces } from 'node:os'
import websocket from '@fastify/websocket'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import type { WebSocket } from 'ws'
import { type FloorHears, FloorSays } from '../core/following/room.schema'
import { isSame } from './allowed'
import { type FollowPage, listenFor } from './followers'
import { CLOSED, ROOM_LIMITS, type RoomLimits } from './limits'
import { openRoom, type Room, serverNow } from './room'

/** What the studio is started with. */
export interface Studio {
  /** Only the app that was served with it may lead. */
  readonly secret: string
  readonly page: FollowPage
  readonly limits?: RoomLimits
  /** The addresses other machines can come by; asked each time, since networks come and go. */
  readonly addresses?: () => readonly string[]
}

/** The addresses other machines can come by. */
const addressesHere = (): readonly string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address)

/** A window of the instructor's app. */
interface Window {
  readonly hear: (message: FloorHears) => void
}

/** Leads those who follow: one window of the instructor's app at a time, on this machine only. */
export async function attachFloor(
  server: FastifyInstance,
  { secret, page, limits = ROOM_LIMITS, addresses = addressesHere }: Studio,
): Promise<void> {
  await server.register(websocket, {
    options: { maxPayload: limits.bytes.floor, perMessageDeflate: false },
  })
  let leading: Window | undefined
  let wanting: { readonly window: Window; readonly timer: NodeJS.Timeout } | undefined
  let room: Room | undefined
  let listening: Awaited<ReturnType<typeof listenFor>> | undefined
  let gone: NodeJS.Timeout | undefined

  const tellCounts = () => room && leading?.hear({ t: 'room', ...room.counts() })
  const close = async (isOver: boolean) => {
    clearTimeout(gone)
    room?.close(isOver)
    room = undefined
    const stopped = listening
    listening = undefined
    await stopped?.stop()
  }
  const open = async (
    address: string,
    kept: { readonly code?: string | undefined; readonly key?: string | undefined },
  ) => {
    await close(false)
    if (!addresses().includes(address))
      return leading?.hear({
        t: 'cannot',
        what: `This machine is not at ${address} any more.`,
        toDo: 'Choose another address; the wireless network may have changed.',
      })
    room = openRoom(limits, tellCounts, kept)
    const { code, key } = room
    try {
      listening = await listenFor(address, { page, room: () => room, limits })
    } catch (error) {
      room.close(true)
      room = undefined
      return leading?.hear({
        t: 'cannot',
        what: `Nobody can be let in at ${address}: ${(error as Error).message}.`,
        toDo: 'Choose another address, or stop what else listens there.',
      })
    }
    leading?.hear({ t: 'opened', address, url: `http://${listening.host}/`, code, key })
  }
  /** One thing after the other: who opens twice opens once more when it is closed. */
  let doing: Promise<unknown> = Promise.resolve()
  const inTurn = (work: () => Promise<unknown>) => {
    doing = doing.then(work).catch(() => {})
  }

  const lead = (window: Window) => {
    clearTimeout(wanting?.timer)
    wanting = undefined
    clearTimeout(gone)
    if (leading && leading !== window) leading.hear({ t: 'taken' })
    leading = window
    window.hear({ t: 'leads', addresses: addresses() })
    if (room && listening)
      window.hear({
        t: 'opened',
        address: listening.host.replace(/:\d+$/, ''),
        url: `http://${listening.host}/`,
        code: room.code,
        key: room.key,
      })
    tellCounts()
  }
  const ask = (window: Window) => {
    if (!leading || leading === window) return lead(window)
    clearTimeout(wanting?.timer)
    // Who does not answer is not there any more.
    wanting = { window, timer: setTimeout(() => lead(window), limits.askedMs) }
    leading.hear({ t: 'asked' })
  }
  const heard = (window: Window, said: FloorSays) => {
    switch (said.t) {
      case 'floor':
        return leading && leading !== window ? window.hear({ t: 'busy' }) : lead(window)
      case 'take':
        return ask(window)
      case 'ping':
        return window.hear({ t: 'pong', id: said.id, at: serverNow() })
      default:
    }
    if (window !== leading) return
    switch (said.t) {
      case 'let':
        if (!wanting) return
        if (said.take) return lead(wanting.window)
        clearTimeout(wanting.timer)
        wanting.window.hear({ t: 'kept' })
        wanting = undefined
        return
      case 'open':
        return inTurn(() => open(said.address, said))
      case 'close':
        return inTurn(async () => {
          await close(true)
          window.hear({ t: 'closed' })
        })
      default:
        return room?.tell(said)
    }
  }

  server.get('/floor', { websocket: true }, (socket: WebSocket, request: FastifyRequest) => {
    const { origin, host } = request.headers
    if (origin !== `http://${host}`) {
      socket.close(CLOSED.foreign)
      return
    }
    let isKnown = false
    const window: Window = {
      hear: (message) => socket.send(JSON.stringify(message)),
    }
    socket.on('message', (data, isBinary) => {
      let said: FloorSays | undefined
      try {
        said = isBinary ? undefined : FloorSays.safeParse(JSON.parse(data.toString())).data
      } catch {
        said = undefined
      }
      if (said?.t === 'floor') isKnown = isSame(said.secret, secret)
      if (!isKnown) {
        socket.close(CLOSED.foreign)
        return
      }
      // What is no news is told to nobody, and the floor goes on.
      if (said) heard(window, said)
    })
    socket.on('close', () => {
      if (wanting?.window === window) {
        clearTimeout(wanting.timer)
        wanting = undefined
      }
      if (leading !== window) return
      leading = undefined
      if (wanting) return lead(wanting.window)
      // It may only have been loaded again.
      gone = setTimeout(() => inTurn(() => close(true)), limits.goneMs)
      gone.unref()
    })
    socket.on('error', () => socket.terminate())
  })
  // Who follows comes back when it is started again.
  server.addHook('onClose', () => close(false))
}
