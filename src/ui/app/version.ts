import { createStore } from 'zustand/vanilla'
import { type HeardByWorker, type SaidByWorker, WORKER } from '../../offline/messages'

/**
 * Which version of the app is here: the only one, another that waits, waits for other windows or
 * took over late, or one that was just started.
 */
type Version = 'only' | 'waits' | 'others' | 'late' | 'started'
export const version = createStore<Version>(() => 'only')

/** Which version was open last, in any window. */
const SLOT = 'molten-sway version'
/** How long a new version may take to take over before the old one goes on. */
const PATIENCE_MS = 6000
/** So often an app that is left open looks for a new version, at the most. */
const LOOK_MS = 60 * 60 * 1000

/** Nothing where the page is not kept: without https, in private windows of some browsers, in development. */
const container = (): ServiceWorkerContainer | undefined =>
  import.meta.env.PROD ? (navigator.serviceWorker as ServiceWorkerContainer | undefined) : undefined

/** Asks a version that waits to take over; it does where no other window is open. */
function ask(waiting: ServiceWorker): Promise<SaidByWorker | undefined> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = ({ data }) => resolve(data as SaidByWorker)
    const message: HeardByWorker = 'start'
    waiting.postMessage(message, [port2])
    setTimeout(() => resolve(undefined), PATIENCE_MS)
  })
}

/** Lets the new version take over, and begins again in it; else says why it does not. */
async function startNew(waiting: ServiceWorker): Promise<'starts' | 'others' | 'slow'> {
  const taken = new Promise<boolean>((resolve) => {
    container()?.addEventListener('controllerchange', () => resolve(true), { once: true })
    setTimeout(() => resolve(false), PATIENCE_MS)
  })
  const answer = await ask(waiting)
  if (answer === 'others') return answer
  if (answer === undefined || !(await taken)) return 'slow'
  location.reload()
  return 'starts'
}

/** Before anything is opened: a version that came since the last time is started. Whether the page is loaded again for it. */
export async function beginInNewest(say: (text: string) => void): Promise<boolean> {
  try {
    const waiting = (await container()?.getRegistration())?.waiting
    if (!waiting) return false
    say('Starting the new version…')
    return (await startNew(waiting)) === 'starts'
  } catch {
    // It is no reason not to start.
    return false
  }
}

/** Whether this is another version than was open last. */
function isAnother(): boolean {
  const here = document.querySelector<HTMLMetaElement>('meta[name="version"]')?.content ?? ''
  const last = localStorage.getItem(SLOT)
  if (last === here) return false
  localStorage.setItem(SLOT, here)
  return last !== null
}

/** Keeps the app for when there is no network, and watches for new versions of it. */
export async function keepApp(): Promise<void> {
  const workers = container()
  if (!workers) return
  const hadOne = workers.controller !== null
  const registration = await workers.register(WORKER, { updateViaCache: 'none' })
  const waits = () => {
    if (registration.waiting && workers.controller) version.setState('waits', true)
  }
  waits()
  registration.addEventListener('updatefound', () => {
    const { installing } = registration
    installing?.addEventListener('statechange', () => {
      if (installing.state === 'installed') waits()
    })
  })
  if (isAnother()) version.setState('started', true)
  // It took over later than it was waited for: what this page loads next is not there any more.
  workers.addEventListener('controllerchange', () => {
    if (hadOne) version.setState('late', true)
  })
  let looked = Date.now()
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState !== 'visible' || Date.now() - looked < LOOK_MS) return
    looked = Date.now()
    // Without a network there is none.
    registration.update().catch(() => {})
  })
}

/** Starts the version that waits; says so where other windows have to be closed first. */
export async function startWaiting(): Promise<void> {
  const waiting = (await container()?.getRegistration())?.waiting
  if (!waiting) return location.reload()
  if ((await startNew(waiting)) === 'others') version.setState('others', true)
}
