import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { ROOT } from './setup.mjs'

const MOST_KB = 300

/** What the page loads before anything is opened: its scripts and all they import at once. */
const page = readFileSync(join(ROOT, 'dist', 'index.html'), 'utf8')
const waiting = [...page.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map(([, path]) => path)
const seen = new Set()
let bytes = 0
while (waiting.length > 0) {
  const path = waiting.pop()
  if (seen.has(path)) continue
  seen.add(path)
  const code = readFileSync(join(ROOT, 'dist', path))
  bytes += gzipSync(code, { level: 9 }).length
  for (const [, name] of code.toString().matchAll(/(?:import|from)\s*"\.\/([^"]+\.js)"/g))
    waiting.push(`/assets/${name}`)
}
const kb = bytes / 1000
console.log(
  `First load: ${kb.toFixed(1)} kB of compressed script in ${seen.size} files (${MOST_KB} at most)`,
)
process.exit(seen.size > 0 && kb < MOST_KB ? 0 : 1)
