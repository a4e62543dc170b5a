import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bin, findChromium, installPackages, run } from './setup.mjs'

installPackages()
const chromium = findChromium()
const reports = mkdtempSync(join(tmpdir(), 'molten-sway-'))

let passed = 0
let failed = 0

/** One check that is not a test file: it counts as one. */
function check(name, command, args) {
  console.log(`\n== ${name}`)
  if (run(command, args) === 0) passed++
  else failed++
}

function tests(name, project, env = {}) {
  console.log(`\n== ${name}`)
  const report = join(reports, `${project}.json`)
  const code = run(
    bin('vitest'),
    [
      'run',
      '--project',
      project,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${report}`,
    ],
    { env: { ...process.env, ...env } },
  )
  if (!existsSync(report)) {
    failed++
    return
  }
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'))
  passed += numPassedTests
  failed += numFailedTests
  // A run that broke outside its tests has failed, whatever it counted.
  if (code !== 0 && numFailedTests === 0) failed++
}

check('Types', bin('tsc'), ['-p', 'tsconfig.json'])
check('Types of the core, without a browser', bin('tsc'), ['-p', 'tsconfig.core.json'])
check('Format and lint', bin('biome'), ['ci', '--error-on-warnings', '.'])
check('Boundaries', process.execPath, ['scripts/boundaries.mjs'])
check('Unused code', bin('knip'), [])
tests('Unit tests', 'unit')
check('Build', process.execPath, ['scripts/build.mjs'])
check('Size of the first load', process.execPath, ['scripts/size.mjs'])
tests('Browser tests', 'browser', { CHROMIUM: chromium })

rmSync(reports, { recursive: true })
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
