import { join } from 'node:path'
import { bin, installPackages, need, ROOT } from './setup.mjs'

installPackages()
const out = join('.cache', 'bench')
// Node 20 runs no .ts, so the benchmark is built like the app.
need(bin('vite'), ['build', '--ssr', 'bench/core.ts', '--outDir', out, '--logLevel', 'warn'])
need(process.execPath, [join(ROOT, out, 'core.js')])
