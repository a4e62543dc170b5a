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
/** Folders of a room that import each other, by whatever way; what only a test imports is no border. */
function circles(room) {
  const folderOf = (path) => new RegExp(`^${room}/([^/]+)/`).exec(path)?.[1]
  const isTest = (path) => path.includes('.test.')
  const to = new Map()
  for (const { source, dependencies } of modules) {
    const from = folderOf(source)
    if (!from || isTest(source)) continue
    for (const { resolved } of dependencies) {
      const other = folderOf(resolved)
      if (other && other !== from)
        to.set(from, (to.get(from) ?? new Map()).set(other, `${source} imports ${resolved}`))
    }
  }
  const reached = (from, seen = new Set()) => {
    for (const next of to.get(from)?.keys() ?? [])
      if (!seen.has(next)) reached(next, seen.add(next))
    return seen
  }
  return [...to].flatMap(([from, others]) =>
    [...others].flatMap(([other, how]) => (reached(other).has(from) ? [how] : [])),
  )
}
const round = ['src/core', 'src/ui'].flatMap(circles)
for (const how of round) console.error(`folders in a circle: ${how}`)
for (const { rule, from, to } of summary.violations)
  console.error(`${rule.name}: ${from} imports ${to}`)
console.log(
  `${modules.length} modules, ${imports.length} imports, ${summary.violations.length} over a border, ${round.length} in a circle of folders`,
)
process.exit(summary.violations.length + round.length === 0 ? 0 : 1)
