// Needs no installed package: it is what installs them.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

export const ROOT = join(import.meta.dirname, '..')
const MARK = join(ROOT, 'node_modules', '.installed-from')

/** Runs a command in the project, its output shown; returns its exit code. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options })
  return done.status ?? 1
}

/** Runs a command and stops the whole script when it fails. */
export function need(command, args, options) {
  const code = run(command, args, options)
  if (code !== 0) {
    console.error(`\n“${command} ${args.join(' ')}” failed (${code}).`)
    process.exit(code)
  }
}

export const bin = (name) => join(ROOT, 'node_modules', '.bin', name)

function wanted() {
  const hash = createHash('sha256')
  for (const file of ['package.json', 'package-lock.json'])
    hash.update(readFileSync(join(ROOT, file)))
  return hash.digest('hex')
}

/** Installs what is missing or stale; what that prints goes to `out`, 1 or 2. `npm install`, since `npm ci` refuses a lock file without every platform's optional packages. */
export function installPackages(out = 1) {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(
      `Molten Sway needs Node 20.19 or newer; this is ${process.versions.node}. Install a newer one and run this again.`,
    )
    process.exit(1)
  }
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === wanted()) return
  if (out === 1) console.log('Installing packages…')
  // A command whose output is read by another program says nothing else on stdout.
  need('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: ['ignore', out, 2],
  })
  writeFileSync(MARK, wanted())
}

/** How Chromium is started here, as root too: nothing but the page. */
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
]
const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser']

/** The browser for the tests; installed by apt when missing and root, else says the exact command. */
export function findChromium() {
  const given = process.env.CHROMIUM
  const found = () => [given, ...CHROMIUM].find((path) => path && existsSync(path))
  if (found()) return found()
  const command = 'apt-get update && apt-get install -y --no-install-recommends chromium'
  if (process.getuid?.() !== 0) {
    console.error(
      `The browser tests need Chromium. Run this, then try again:\n  sudo sh -c '${command}'\n(or set CHROMIUM to the path of one)`,
    )
    process.exit(1)
  }
  console.log('Installing Chromium…')
  need('sh', ['-c', command], { stdio: ['ignore', 'ignore', 'inherit'] })
  const installed = found()
  if (!installed) {
    console.error(
      'Chromium was installed, but is not at /usr/bin/chromium. Set CHROMIUM to its path.',
    )
    process.exit(1)
  }
  return installed
}
