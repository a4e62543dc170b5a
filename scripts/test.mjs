import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bin, findChromium, installPackages, ROOT } from './setup.mjs'

installPackages()
process.env.CHROMIUM = findChromium()
// One day for all of a run, also over midnight.
process.env.SEED ??= new Date().toISOString().slice(0, 10).replaceAll('-', '')
console.log(`Seed of the day: ${process.env.SEED}. Repeat a run with SEED=${process.env.SEED}.`)
const reports = mkdtempSync(join(tmpdir(), 'molten-sway-'))
const begun = performance.now()
const seconds = (since) => `${Math.round((performance.now() - since) / 1000)} s`

let passed = 0
let failed = 0

/** Runs a command and shows what it said when it is over, since several run beside each other. */
function runAside(name, command, args) {
  const since = performance.now()
  return new Promise((done) => {
    const said = []
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] })
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => said.push(part))
    const over = (code) => {
      console.log(`\n== ${name} (${seconds(since)})`)
      process.stdout.write(Buffer.concat(said))
      done(code)
    }
    child.on('error', (error) => {
      said.push(Buffer.from(String(error)))
      over(1)
    })
    child.on('close', (code) => over(code ?? 1))
  })
}

/** One check that is not a test file: it counts as one. */
async function check(name, command, args) {
  if ((await runAside(name, command, args)) === 0) passed++
  else failed++
}

async function tests(name, project) {
  const report = join(reports, `${project}.json`)
  const code = await runAside(name, bin('vitest'), [
    'run',
    '--project',
    project,
    '--reporter=dot',
    '--reporter=json',
    '--reporter=./scripts/secondTries.mjs',
    `--outputFile.json=${report}`,
  ])
  if (!existsSync(report)) {
    failed++
    return
  }
  const { numPassedTests, numFailedTests, testResults } = JSON.parse(readFileSync(report, 'utf8'))
  passed += numPassedTests
  failed += numFailedTests
  // A run that broke outside its tests has failed, whatever it counted.
  if (code !== 0 && numFailedTests === 0) failed++
  for (const { title, duration } of testResults
    .flatMap(({ assertionResults }) => assertionResults)
    .sort((a, b) => (b.duration ?? 0) - (a.duration ?? 0))
    .slice(0, 3))
    console.log(`   ${((duration ?? 0) / 1000).toFixed(1)} s ${title}`)
}

const node = (script) => [process.execPath, [join('scripts', script)]]

// What needs no built app goes beside the build and the browser; what listens to the clock goes last, alone.
await Promise.all([
  (async () => {
    await check('Types', bin('tsc'), ['-p', 'tsconfig.json'])
    await check('Types of the core, without a browser', bin('tsc'), ['-p', 'tsconfig.core.json'])
    await check('Format and lint', bin('biome'), ['ci', '--error-on-warnings', '.'])
    await check('Boundaries', ...node('boundaries.mjs'))
    await check('Unused code', bin('knip'), [])
    await tests('Unit tests', 'unit')
  })(),
  (async () => {
    await check('Build', ...node('build.mjs'))
    await check('Size of the first load', ...node('size.mjs'))
    await tests('Browser tests', 'browser')
  })(),
])
await tests('Browser tests by the audio clock', 'sound')

rmSync(reports, { recursive: true })
console.log(`\n${seconds(begun)}\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
