import helmet from '@fastify/helmet'
import websocket from '@fastify/websocket'
import Fastify, { type FastifyInstance, type FastifyRequest } from 'fastify'
import type { WebSocket } from 'ws'
import { CLOSED, type RoomLimits } from './limits'
import type { Line, Room } from './room'

/** The followers' page as it was built. */
export interface FollowPage {
  readonly script: string
  readonly style: string
  /** `sha256-…` of the script. */
  readonly hash: string
}

/** Where the followers' server listens first, and how many more are tried. */
const FIRST_PORT = 4180
const PORTS_TRIED = 10

const html = ({ script, style }: FollowPage) => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>Follow the class</title>
<style>${style}</style>
</head>
<body>
<p id="changed">This page needs a newer browser.</p>
<script>${script}</script>
</body>
</html>
`

/** A socket as the room knows it. */
const lineOf = (socket: WebSocket, from: string): Line => ({
  from,
  send: (text) => socket.send(text),
  close: (code) => socket.close(code),
  cut: () => socket.terminate(),
  waiting: () => socket.bufferedAmount,
})

/** Serves the followers' page and its socket on one address of this machine, and nothing else. */
async function serverAt(
  host: string,
  { page, room, limits }: { page: FollowPage; room: () => Room | undefined; limits: RoomLimits },
): Promise<FastifyInstance> {
  const server = Fastify({
    logger: false,
    trustProxy: false,
    bodyLimit: 1024,
    // A browser keeps its line open for what may come.
    forceCloseConnections: true,
  })
  await server.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: [`'${page.hash}'`],
        styleSrc: ["'unsafe-inline'"],
        connectSrc: ["'self'", `ws://${host}`],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: false,
    // They mean nothing without a certificate, and the browser says so in its log.
    crossOriginOpenerPolicy: false,
    originAgentCluster: false,
  })
  await server.register(websocket, {
    options: { maxPayload: limits.bytes.follower, perMessageDeflate: false },
  })
  // Asked for by another name it is not this page that asks.
  server.addHook('onRequest', async (request, reply) => {
    if (request.headers.host !== host)
      return reply.code(403).type('text/plain').send('There is nothing here.')
  })
  server.get('/', (_, reply) =>
    reply.header('cache-control', 'no-store').type('text/html; charset=utf-8').send(html(page)),
  )
  server.get('/ws', { websocket: true }, (socket: WebSocket, request: FastifyRequest) => {
    const inside = room()
    if (request.headers.origin !== `http://${host}` || !inside) {
      socket.close(CLOSED.foreign)
      return
    }
    const own = inside.enter(lineOf(socket, request.ip))
    socket.on('message', (data, isBinary) => own.said(data.toString(), isBinary))
    socket.on('close', own.left)
    socket.on('error', () => socket.terminate())
  })
  server.setNotFoundHandler((_, reply) =>
    reply.code(404).type('text/plain').send('There is nothing here.'),
  )
  return server
}

/**
 * Begins to listen on an address of this machine.
 * @returns its host and port, and what stops it
 * @throws where no port is free or the address is not this machine's any more
 */
export async function listenFor(
  address: string,
  given: { page: FollowPage; room: () => Room | undefined; limits: RoomLimits },
): Promise<{ readonly host: string; readonly stop: () => Promise<void> }> {
  for (let port = FIRST_PORT; ; port++) {
    const host = `${address}:${port}`
    const server = await serverAt(host, given)
    try {
      await server.listen({ port, host: address })
      return {
        host,
        async stop() {
          // Sockets that are still closing are not waited for.
          for (const client of server.websocketServer.clients) client.terminate()
          await server.close()
        },
      }
    } catch (error) {
      await server.close()
      const isTaken = (error as { code?: string }).code === 'EADDRINUSE'
      if (!isTaken || port >= FIRST_PORT + PORTS_TRIED - 1) throw error
    }
  }
}
