import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import { buildOffline } from './offline.mjs'
import { buildFollow, buildPractice } from './pages.mjs'
import { bin, need, ROOT } from './setup.mjs'
import { buildCli } from './sway.mjs'

/** Builds the app, the pages that stand alone, and publishes the JSON Schema of its files beside it. */
export async function buildApp() {
  need(bin('vite'), ['build', '--logLevel', 'warn'])
  const { stdout, status } = spawnSync(process.execPath, [buildCli(), 'schema'])
  if (status !== 0) throw new Error('the schema could not be written')
  const folder = join(ROOT, 'dist', 'schema')
  mkdirSync(folder, { recursive: true })
  writeFileSync(join(folder, 'combination.schema.json'), stdout)
  await buildPractice(join(ROOT, 'dist', 'practice'))
  await buildFollow(join(ROOT, 'dist', 'follow'))
  await buildOffline(join(ROOT, 'dist'))
  compressAll(join(ROOT, 'dist'))
}

/** Fonts are compressed already, and what is small is sent as it is. */
const WORTH = /\.(?:js|css|json|svg|webmanifest)$/
const LEAST_BYTES = 1000

/** Puts a brotli and a gzip form beside each file: the server sends what the browser takes. */
function compressAll(folder) {
  for (const name of readdirSync(folder, { recursive: true })) {
    const path = join(folder, String(name))
    if (!WORTH.test(path) || statSync(path).size < LEAST_BYTES) continue
    const raw = readFileSync(path)
    const params = { [constants.BROTLI_PARAM_QUALITY]: 11 }
    writeFileSync(`${path}.br`, brotliCompressSync(raw, { params }))
    writeFileSync(`${path}.gz`, gzipSync(raw, { level: 9 }))
  }
}

if (process.argv[1] === import.meta.filename) await buildApp()
