import { createRequire } from 'node:module'
import { cruise } from 'dependency-cruiser'
import extractTSConfig from 'dependency-cruiser/config-utl/extract-ts-config'
import { ROOT } from './setup.mjs'

// Without a compiler that reads .ts the check would read nothing and pass.
const require = createRequire(import.meta.url)
require.resolve('@swc/core')
const { forbidden, options } = require('../.dependency-cruiser.cjs')

process.chdir(ROOT)
const { output } = await cruise(
  ['src'],
  { ...options, ruleSet: { forbidden }, validate: true },
  undefined,
  {
    tsConfig: extractTSConfig('tsconfig.json'),
  },
)
const { modules, summary } = output
const screens = modules.filter(({ source }) => source.endsWith('.tsx') && source.startsWith('src/'))
const imports = modules.flatMap(({ dependencies }) => dependencies)
if (screens.length < 5 || imports.length < 100) {
  console.error(
    `Only ${screens.length} screens and ${imports.length} imports were read: the check itself is broken.`,
  )
  process.exit(1)
}
for (const { rule, from, to } of summary.violations)
  console.error(`${rule.name}: ${from} imports ${to}`)
console.log(
  `${modules.length} modules, ${imports.length} imports, ${summary.violations.length} over a border`,
)
process.exit(summary.violations.length === 0 ? 0 : 1)
