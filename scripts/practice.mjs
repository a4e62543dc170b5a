import { createHash } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { build, runnerImport } from 'vite'
import { lazyCore } from './lazyCore.mjs'
import { ROOT } from './setup.mjs'

/** What a practice page may weigh: its script, as it is and compressed, in bytes. */
const MOST_RAW = 220_000
const MOST_GZIPPED = 84_000
/** What only reads and checks was done in the app: nothing of it goes along with a page. */
const STAYS = /node_modules\/(zod|papaparse|react|react-dom|dexie|three)\/|\.csv/

/** What would end the element a script or a style stands in. */
const harmless = (text) => text.replaceAll('</', '<\\/').replaceAll('<!--', '<\\!--')

/** The table of what is done with things in the hands, read already: a page has no reader of tables. */
async function tableRead() {
  const path = join(ROOT, 'src', 'core', 'props', 'table.ts')
  const { module } = await runnerImport(path, { root: ROOT, configFile: false, logLevel: 'error' })
  const rows = module.PROP_ACTS.map((row) => ({ ...row, feel: '', watch: '' }))
  return {
    name: 'table-read',
    load: (id) => (id === path ? `export const PROP_ACTS = ${JSON.stringify(rows)}` : undefined),
  }
}

/** What a limit of the house is called is only read where it is changed. */
const namelessLimits = () => ({
  name: 'nameless-limits',
  enforce: 'pre',
  transform: (code, id) =>
    id === join(ROOT, 'src', 'core', 'house', 'limits.ts')
      ? { code: code.replace(/\blimit\(\s*(?:'[^']*'|`[^`]*`|"[^"]*"),/g, "limit('',"), map: null }
      : undefined,
})

/**
 * Builds the script and the style of a practice page into a folder, as one file the app and the
 * command line put together with what a page knows.
 */
export async function buildPractice(folder) {
  const built = await build({
    root: ROOT,
    configFile: false,
    publicDir: false,
    logLevel: 'error',
    plugins: [namelessLimits(), lazyCore(), await tableRead()],
    build: {
      write: false,
      minify: true,
      cssMinify: true,
      lib: {
        entry: 'src/practice/main.ts',
        formats: ['iife'],
        name: 'practice',
        cssFileName: 'page',
      },
      rolldownOptions: {
        treeshake: { moduleSideEffects: (id) => /src\/practice\/|\.css$/.test(id) },
      },
    },
  })
  const { output } = Array.isArray(built) ? built[0] : built
  const chunk = output.find(({ type }) => type === 'chunk')
  const css = output.find(({ fileName }) => fileName.endsWith('.css'))
  const along = Object.entries(chunk.modules)
    .filter(([id, { renderedLength }]) => renderedLength > 0 && STAYS.test(id))
    .map(([id]) => id)
  if (along.length > 0) throw new Error(`a practice page must do without ${along.join(', ')}`)
  const script = harmless(chunk.code.trim())
  const gzipped = gzipSync(script).length
  if (script.length > MOST_RAW || gzipped > MOST_GZIPPED)
    throw new Error(
      `the script of a practice page is ${script.length} bytes, ${gzipped} compressed: ${MOST_RAW} and ${MOST_GZIPPED} at most`,
    )
  const hash = `sha256-${createHash('sha256').update(script).digest('base64')}`
  mkdirSync(folder, { recursive: true })
  const style = harmless(String(css.source).trim())
  writeFileSync(join(folder, 'page.json'), JSON.stringify({ script, style, hash }))
  return { raw: script.length, gzipped }
}

if (process.argv[1] === import.meta.filename)
  console.log(await buildPractice(join(ROOT, '.cache', 'practice')))
