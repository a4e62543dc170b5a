import { bin, installPackages, run } from './setup.mjs'

installPackages()
process.exit(run(bin('vite'), process.argv.slice(2)))
