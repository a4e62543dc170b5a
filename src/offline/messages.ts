/** Where the app's page is kept; every address of the app is answered with it. */
export const PAGE = '/index.html'

/** What only the app may know that leads others (scripts/serve.mjs). */
export const SECRET = '/studio-secret'

/** Where the worker is that keeps the app. */
export const WORKER = '/offline.js'

/** The new version is to take over. */
export type HeardByWorker = 'start'

/** It does, or other windows are open that dance by the old one. */
export type SaidByWorker = 'starts' | 'others'
