import { readFileSync } from 'node:fs'
import { request } from 'node:http'
import { join } from 'node:path'
import { serve } from './serve.mjs'
import { ROOT } from './setup.mjs'

const MOST_KB = 300

/** What the page loads before anything is opened: its scripts and all they import at once. */
const page = readFileSync(join(ROOT, 'dist', 'index.html'), 'utf8')
const { address, stop } = await serve(4600)
/** What a browser is sent for a file, as it is sent: fetch would unpack it. */
const onTheWire = (path) =>
  new Promise((resolve, reject) => {
    const asked = request(`${address}${path}`, { headers: { 'accept-encoding': 'br, gzip' } })
    asked.on('error', reject)
    asked.on('response', (response) => {
      let size = 0
      response.on('data', (part) => {
        size += part.length
      })
      response.on('end', () => resolve(size))
    })
    asked.end()
  })
const waiting = [...page.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map(([, path]) => path)
const seen = new Set()
let bytes = 0
while (waiting.length > 0) {
  const path = waiting.pop()
  if (seen.has(path)) continue
  seen.add(path)
  const code = readFileSync(join(ROOT, 'dist', path))
  bytes += await onTheWire(path)
  for (const [, name] of code.toString().matchAll(/(?:import|from)\s*"\.\/([^"]+\.js)"/g))
    waiting.push(`/assets/${name}`)
}
await stop()
const kb = bytes / 1000
console.log(
  `First load: ${kb.toFixed(1)} kB of script on the wire in ${seen.size} files (${MOST_KB} at most)`,
)
process.exit(seen.size > 0 && kb < MOST_KB ? 0 : 1)
