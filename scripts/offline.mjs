import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'vite'
import { ROOT } from './setup.mjs'

/** What is not opened in the app, or stands there in another form. */
const LEFT_OUT = /\.(?:br|gz|woff|map)$|^(?:schema|follow)\/|^offline\.js$/

/** Every file of the built app with the mark of what is in it: the worker keeps them all. */
function filesIn(folder) {
  return readdirSync(folder, { recursive: true })
    .map((name) => String(name).replaceAll('\\', '/'))
    .filter((name) => !LEFT_OUT.test(name) && statSync(join(folder, name)).isFile())
    .sort()
    .map((name) => {
      const mark = createHash('sha256')
        .update(readFileSync(join(folder, name)))
        .digest('hex')
      return { url: `/${name}`, revision: mark.slice(0, 16) }
    })
}

/** Writes into the page which version it is: the mark of all that comes with it. */
function stamp(folder) {
  const page = join(folder, 'index.html')
  const mark = createHash('sha256')
    .update(JSON.stringify(filesIn(folder)))
    .digest('hex')
  writeFileSync(page, readFileSync(page, 'utf8').replace('__VERSION__', mark.slice(0, 12)))
}

/** Builds the worker that keeps the app for when there is no network; last of all, for it knows every file. */
export async function buildOffline(folder) {
  stamp(folder)
  const files = filesIn(folder)
  const built = await build({
    root: ROOT,
    configFile: false,
    publicDir: false,
    logLevel: 'error',
    define: { FILES: JSON.stringify(files), 'process.env.NODE_ENV': '"production"' },
    build: {
      write: false,
      minify: true,
      lib: { entry: 'src/offline/worker.ts', formats: ['iife'], name: 'offline' },
    },
  })
  const { output } = Array.isArray(built) ? built[0] : built
  writeFileSync(join(folder, 'offline.js'), output[0].code)
  return files.length
}
