import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  type PrecacheEntry,
  precacheAndRoute,
} from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { type HeardByWorker, PAGE, type SaidByWorker, SECRET } from './messages'

/** What is used of the worker's own world; the pages have another one. */
interface WorkerWorld {
  readonly clients: {
    claim(): Promise<void>
    matchAll(about: { type: 'window'; includeUncontrolled: true }): Promise<readonly object[]>
  }
  skipWaiting(): Promise<void>
  addEventListener(kind: 'activate', listener: (event: Lasting) => void): void
  addEventListener(kind: 'message', listener: (event: Lasting & MessageEvent) => void): void
}
interface Lasting {
  waitUntil(work: Promise<unknown>): void
}

/** All files of this version, put here by the build (scripts/offline.mjs). */
declare const FILES: readonly PrecacheEntry[]

const world = globalThis as unknown as WorkerWorld

// All of one version, or none of it: what is opened never mixes two.
precacheAndRoute([...FILES])
cleanupOutdatedCaches()

// The app's own addresses all get the page; a file that is missing does not.
registerRoute(new NavigationRoute(createHandlerBoundToURL(PAGE), { denylist: [/\.\w+$/] }))

// Asked each time, and never kept; without a network nobody leads.
registerRoute(
  ({ url }) => url.pathname === SECRET,
  ({ request }) => fetch(request).catch(() => new Response(null, { status: 204 })),
)

// Also the first visit can lose the network before it is loaded again.
world.addEventListener('activate', (event) => event.waitUntil(world.clients.claim()))

/** The new version takes over where one window asks for it: others would miss the files of theirs. */
world.addEventListener('message', (event) => {
  if ((event.data as HeardByWorker) !== 'start') return
  event.waitUntil(
    world.clients.matchAll({ type: 'window', includeUncontrolled: true }).then((windows) => {
      const answer: SaidByWorker = windows.length > 1 ? 'others' : 'starts'
      event.ports[0]?.postMessage(answer)
      // Not waited for: a worker that waits for itself is never idle, and the next one waits for that.
      if (answer === 'starts') void world.skipWaiting()
    }),
  )
})
