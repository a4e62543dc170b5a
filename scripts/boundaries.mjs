import { readFileSync } from 'node:fs'
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
/** The folders of a room as docs/architecture.md lists them: what stands below may import what stands above. */
const page = readFileSync('docs/architecture.md', 'utf8')
const orderOf = (room) =>
  [...page.matchAll(/^\| `(src\/[\w/]+)` \|/gm)]
    .map(([, path]) => path)
    .filter((path) => path.startsWith(`${room}/`))
    .map((path) => path.slice(room.length + 1))

/** What a folder of a room imports from one below it, or without a place in the list; tests are no border. */
function upwards(room) {
  const order = orderOf(room)
  const folderOf = (path) => new RegExp(`^${room}/([^/]+)/`).exec(path)?.[1]
  return modules
    .filter(({ source }) => folderOf(source) && !source.includes('.test.'))
    .flatMap(({ source, dependencies }) => {
      const place = order.indexOf(folderOf(source))
      if (place < 0) return [`${source}: its folder has no line in docs/architecture.md`]
      return dependencies
        .map(({ resolved }) => resolved)
        .filter((path) => folderOf(path) && order.indexOf(folderOf(path)) > place)
        .map((path) => `${source} imports ${path}, whose folder stands below its own`)
    })
}
const over = ['src/core', 'src/ui'].flatMap(upwards)
for (const how of over) console.error(how)
for (const { rule, from, to } of summary.violations)
  console.error(`${rule.name}: ${from} imports ${to}`)
console.log(
  `${modules.length} modules, ${imports.length} imports, ${summary.violations.length} over a border, ${over.length} against the order of folders`,
)
process.exit(summary.violations.length + over.length === 0 ? 0 : 1)
