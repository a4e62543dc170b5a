// The core from a terminal: npm run -s sway -- check FILE. Built like the app, since Node 20 runs no .ts.
import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { bin, installPackages, ROOT, run } from './setup.mjs'

const OUT = join('.cache', 'cli')
const built = join(ROOT, OUT, 'sway.js')

/** When anything the command line is made of was last changed. */
function changedAt(folder) {
  return Math.max(
    ...readdirSync(folder, { withFileTypes: true }).map((entry) => {
      const path = join(folder, entry.name)
      return entry.isDirectory() ? changedAt(path) : statSync(path).mtimeMs
    }),
  )
}

/** Builds the command line when it is older than its code; returns the path of what to run. */
export function buildCli() {
  const newest = Math.max(...['core', 'cli'].map((name) => changedAt(join(ROOT, 'src', name))))
  if (existsSync(built) && statSync(built).mtimeMs >= newest) return built
  // What the build says goes to stderr: stdout is for what was asked.
  const code = run(
    bin('vite'),
    ['build', '--ssr', 'src/cli/sway.ts', '--outDir', OUT, '--logLevel', 'error'],
    { stdio: ['ignore', 2, 2] },
  )
  if (code !== 0) process.exit(code)
  return built
}

if (process.argv[1] === import.meta.filename) {
  installPackages(2)
  // What builds is only loaded where something is built.
  if (process.argv[2] === 'page') {
    const { buildPractice } = await import('./pages.mjs')
    await buildPractice(join(ROOT, '.cache', 'practice'))
  }
  // The exit code is the command's own.
  process.exit(
    run(process.execPath, [buildCli(), ...process.argv.slice(2)], { cwd: process.cwd() }),
  )
}
