// The app with the room it can open to who follows a class: npm run studio.
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { bin, installPackages, need, ROOT } from './setup.mjs'

const OUT = join('.cache', 'server')
const SECRET = join(ROOT, '.cache', 'studio-secret')

/** Builds the server of the room, since Node 20 runs no .ts; returns the path of what to load. */
export function buildServer() {
  need(bin('vite'), [
    ...['build', '--ssr', 'src/server/floor.ts', '--outDir', OUT],
    ...['--logLevel', 'error'],
  ])
  return join(ROOT, OUT, 'floor.js')
}

/** What only the app knows that was served from here. It is kept, so that an app that is open goes on after a restart. */
function secretHere() {
  if (!existsSync(SECRET)) {
    mkdirSync(join(ROOT, '.cache'), { recursive: true })
    writeFileSync(SECRET, randomBytes(24).toString('base64url'), { mode: 0o600 })
  }
  return readFileSync(SECRET, 'utf8').trim()
}

/**
 * What the app's server is started with so that people can follow.
 * @param server the path of the built server
 * @param other limits and addresses than the usual ones, for tests
 */
export async function studioWith(server, other = {}) {
  const { attachFloor } = await import(pathToFileURL(server).href)
  const page = JSON.parse(readFileSync(join(ROOT, 'dist', 'follow', 'page.json'), 'utf8'))
  const secret = secretHere()
  return {
    secret,
    attach: (app) => attachFloor(app, { secret, page, ...other }),
  }
}

if (process.argv[1] === import.meta.filename) {
  installPackages()
  console.log('Building…')
  const { buildApp } = await import('./build.mjs')
  await buildApp()
  const { serve } = await import('./serve.mjs')
  const { address } = await serve(undefined, await studioWith(buildServer()))
  console.log(
    `\nMolten Sway is at ${address}, for this machine only.\nOn the floor of a class, “Let people follow” opens a page of its own to the network, port 4180, until the class is over.\nStop with Ctrl C.`,
  )
}
