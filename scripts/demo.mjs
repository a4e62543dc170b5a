import { parseArgs } from 'node:util'
import { installPackages } from './setup.mjs'

installPackages()
console.log('Building…')
const { buildApp } = await import('./build.mjs')
await buildApp()
const { serve } = await import('./serve.mjs')
const { values } = parseArgs({ options: { name: { type: 'string', multiple: true } } })
const { address } = await serve(undefined, undefined, undefined, values.name)
console.log(
  `\nMolten Sway is at ${address}\nThe demo combinations are loaded on the first visit; work already there stays. Stop with Ctrl C.`,
)
