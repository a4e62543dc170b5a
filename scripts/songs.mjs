import { join } from 'node:path'
import { bin, installPackages, need, ROOT } from './setup.mjs'

installPackages()
const out = join('.cache', 'songs')
need(bin('vite'), ['build', '--ssr', 'bench/songs.ts', '--outDir', out, '--logLevel', 'warn'])
need(process.execPath, [join(ROOT, out, 'songs.js'), ...process.argv.slice(2)])
