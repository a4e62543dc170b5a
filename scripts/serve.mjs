import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import helmet from '@fastify/helmet'
import fastifyStatic from '@fastify/static'
import Fastify from 'fastify'

const DIST = join(import.meta.dirname, '..', 'dist')
const FIRST_PORT = 4173
const PORTS_TRIED = 20
/** The app is only ever served to this machine, by these names and by those it was started with. */
const HOSTS = /^(127\.0\.0\.1|localhost):\d+$/

/**
 * Serves the built app: static files and strict headers, nothing else. Every page gets a
 * nonce of its own for the style elements the component library writes.
 */
async function makeServer(studio, folder, names) {
  const server = Fastify({ logger: false, forceCloseConnections: true })
  const page = readFileSync(join(folder, 'index.html'), 'utf8')
  // A page of another name may not read this one through its own address.
  server.addHook('onRequest', async (request, reply) => {
    const { host = '' } = request.headers
    if (!HOSTS.test(host) && !names.includes(host))
      return reply.code(403).type('text/plain').send('There is nothing here.')
  })
  if (studio) await studio.attach(server)
  // Not in the page: a browser keeps that for when nobody serves it.
  server.get('/studio-secret', (request, reply) => {
    const from = request.headers['sec-fetch-site'] ?? 'same-origin'
    reply.header('cache-control', 'no-store')
    return studio && from === 'same-origin'
      ? reply.type('text/plain').send(studio.secret)
      : reply.code(204).send()
  })
  await server.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        // Our own compiled code, which makes songs slower; nothing else is evaluated.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", (_, reply) => `'nonce-${nonceOf(reply)}'`],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'blob:'],
        mediaSrc: ["'self'", 'blob:'],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        // Its own socket too: not every browser takes it for the same.
        connectSrc: ["'self'", ...(studio ? ['ws://127.0.0.1:*', 'ws://localhost:*'] : [])],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
      },
    },
    // The app is served on plain http on the user's own machine.
    strictTransportSecurity: false,
    crossOriginEmbedderPolicy: true,
  })
  const sendPage = (reply) =>
    reply
      .header('cache-control', 'no-store')
      .type('text/html; charset=utf-8')
      .send(page.replaceAll('__NONCE__', nonceOf(reply.raw)))
  server.get('/', (_, reply) => sendPage(reply))
  server.get('/index.html', (_, reply) => sendPage(reply))
  await server.register(fastifyStatic, {
    root: folder,
    index: false,
    preCompressed: true,
    setHeaders: (reply, path) => {
      if (path.includes('/assets/'))
        reply.header('cache-control', 'public, max-age=31536000, immutable')
      // Asked for at every start: it says whether there is a new version.
      else reply.header('cache-control', 'no-cache')
    },
  })
  // The app's own addresses (/combination/…) all get the page; a missing file does not.
  server.setNotFoundHandler((request, reply) =>
    request.method === 'GET' && !/\.\w+$/.test(request.url.split('?')[0])
      ? sendPage(reply)
      : reply.code(404).type('text/plain').send('There is nothing here.'),
  )
  return server
}

const nonces = new WeakMap()
/** One nonce a response: the header and the page must say the same. */
function nonceOf(response) {
  const known = nonces.get(response) ?? randomBytes(16).toString('base64')
  nonces.set(response, known)
  return known
}

/**
 * Starts on the usual port, or the next free one. Resolves to the address and a stop.
 * @param studio what lets people follow a class; without it nobody can
 * @param folder where the built app is
 * @param names other names it is asked by, such as that of a server with https in front of it
 */
export async function serve(port = FIRST_PORT, studio = undefined, folder = DIST, names = []) {
  for (let tried = 0; tried < PORTS_TRIED; tried++) {
    const server = await makeServer(studio, folder, names)
    try {
      const address = await server.listen({ port: port + tried, host: '127.0.0.1' })
      return { address, stop: () => server.close() }
    } catch (error) {
      await server.close()
      if (error.code !== 'EADDRINUSE') throw error
    }
  }
  throw new Error(
    `Ports ${port} to ${port + PORTS_TRIED - 1} are all taken. Stop one of the programs that use them.`,
  )
}
