import { spawnSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { bin, need, ROOT } from './setup.mjs'
import { buildCli } from './sway.mjs'

/** Builds the app, and publishes the JSON Schema of its files beside it. */
export function buildApp() {
  need(bin('vite'), ['build', '--logLevel', 'warn'])
  const { stdout, status } = spawnSync(process.execPath, [buildCli(), 'schema'])
  if (status !== 0) throw new Error('the schema could not be written')
  const folder = join(ROOT, 'dist', 'schema')
  mkdirSync(folder, { recursive: true })
  writeFileSync(join(folder, 'combination.schema.json'), stdout)
}

if (process.argv[1] === import.meta.filename) buildApp()
