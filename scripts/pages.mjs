import { createHash } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { build, runnerImport } from 'vite'
import { lazyCore } from './lazyCore.mjs'
import { ROOT } from './setup.mjs'

/** What the script of a page may weigh, as it is and compressed, in bytes. */
const MOST = { raw: 236_000, gzipped: 91_000 }
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
 * Builds a page that stands alone, its script and its style, into a folder: who serves or saves it
 * puts them together.
 */
async function buildPage(entry, folder, { raw: mostRaw, gzipped: mostGzipped }) {
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
      lib: { entry, formats: ['iife'], name: 'page', cssFileName: 'page' },
      rolldownOptions: {
        treeshake: { moduleSideEffects: (id) => /src\/(practice|follow)\/|\.css$/.test(id) },
      },
    },
  })
  const { output } = Array.isArray(built) ? built[0] : built
  const chunk = output.find(({ type }) => type === 'chunk')
  const css = output.find(({ fileName }) => fileName.endsWith('.css'))
  const along = Object.entries(chunk.modules)
    .filter(([id, { renderedLength }]) => renderedLength > 0 && STAYS.test(id))
    .map(([id]) => id)
  if (along.length > 0) throw new Error(`${entry} must do without ${along.join(', ')}`)
  const script = harmless(chunk.code.trim())
  const gzipped = gzipSync(script).length
  if (script.length > mostRaw || gzipped > mostGzipped)
    throw new Error(
      `the script of ${entry} is ${script.length} bytes, ${gzipped} compressed: ${mostRaw} and ${mostGzipped} at most`,
    )
  const hash = `sha256-${createHash('sha256').update(script).digest('base64')}`
  mkdirSync(folder, { recursive: true })
  const style = harmless(String(css.source).trim())
  writeFileSync(join(folder, 'page.json'), JSON.stringify({ script, style, hash }))
  return { raw: script.length, gzipped }
}

/** What students take home. */
export const buildPractice = (folder) => buildPage('src/practice/main.ts', folder, MOST)

/** What those see who follow a class. */
export const buildFollow = (folder) => buildPage('src/follow/main.ts', folder, MOST)

if (process.argv[1] === import.meta.filename)
  for (const [name, made] of Object.entries({ practice: buildPractice, follow: buildFollow }))
    console.log(name, await made(join(ROOT, '.cache', name)))
