import { installPackages } from './setup.mjs'

installPackages()
console.log('Building…')
const { buildApp } = await import('./build.mjs')
await buildApp()
const { serve } = await import('./serve.mjs')
const { address } = await serve()
console.log(
  `\nMolten Sway is at ${address}\nThe demo combinations are loaded on the first visit; work already there stays. Stop with Ctrl C.`,
)
