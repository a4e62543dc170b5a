import { bin, installPackages, need } from './setup.mjs'

installPackages()
console.log('Building…')
need(bin('vite'), ['build', '--logLevel', 'warn'])
const { serve } = await import('./serve.mjs')
const { address } = await serve()
console.log(
  `\nMolten Sway is at ${address}\nThe demo combinations are loaded on the first visit; work already there stays. Stop with Ctrl C.`,
)
