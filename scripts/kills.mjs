// Kills a browser in the middle of the work, again and again, and looks whether what stood there
// under “saved” is there at the next start. Nightly: `node scripts/kills.mjs [kills] [seed]`.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, findChromium, installPackages } from './setup.mjs'

installPackages()
const { buildApp } = await import('./build.mjs')
if (!process.env.BUILT) await buildApp()
const { writeBackup } = await import('./backup.mjs')
const { chromium } = await import('playwright-core')
const { uniformInt } = await import('pure-rand/distribution/uniformInt')
const { xoroshiro128plus } = await import('pure-rand/generator/xoroshiro128plus')
const { serve } = await import('./serve.mjs')

const KILLS = Number(process.argv[2] ?? 60)
const SEED = Number(process.argv[3] ?? Date.now() % 1_000_000)
const IN_BACKUP = 300
const START_MS = 60_000
/** What says no “saved” of its own has had so long to be written down. */
const SETTLED_MS = 250

console.log(`${KILLS} kills, seed ${SEED}`)
const draw = xoroshiro128plus(SEED)
const random = (below) => uniformInt(draw, 0, below - 1)
const sleep = (ms) => new Promise((done) => setTimeout(done, ms))
const { address, stop } = await serve(4700)

/** A browser of its own process group on a profile that stays. */
async function open(profile) {
  const child = spawn(
    findChromium(),
    [
      ...CHROMIUM_FLAGS,
      '--headless=new',
      '--remote-debugging-port=0',
      '--hide-crash-restore-bubble',
      `--user-data-dir=${profile}`,
      'about:blank',
    ],
    { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
  )
  const endpoint = await new Promise((found, fail) => {
    let text = ''
    child.stderr.on('data', (part) => {
      text += part
      const at = /ws:\/\/\S+/.exec(text)
      if (at) found(at[0])
    })
    child.on('exit', () => fail(new Error(`Chromium ended: ${text.slice(-400)}`)))
    setTimeout(() => fail(new Error('Chromium did not start.')), START_MS)
  })
  const browser = await chromium.connectOverCDP(endpoint)
  const context = browser.contexts()[0]
  const page = await context.newPage()
  await page.setViewportSize({ width: 1280, height: 800 })
  return {
    page,
    async kill() {
      const gone = new Promise((done) => child.on('exit', done))
      process.kill(-child.pid, 'SIGKILL')
      await gone
      await browser.close().catch(() => {})
    },
  }
}

/** Starts, does something until it is killed in it, starts again; what was seen both times. */
async function killed(profile, at, work, look) {
  const first = await open(profile)
  await first.page.goto(address + at)
  const going = work(first.page).catch(() => {})
  const seen = await look.before(first.page)
  await first.kill()
  await going
  const second = await open(profile)
  await second.page.goto(address + at)
  const found = await look.after(second.page)
  await second.kill()
  return { seen, found }
}

/** Waits a while, then reads what is shown in the same moment as “saved” stands there. */
async function underSaved(page, read, wait = 400 + random(1600)) {
  await page.locator('[data-save-state]').waitFor()
  const first = await page.evaluate(read)
  await sleep(wait)
  for (;;) {
    const { word, shown } = await page.evaluate(
      `({ word: document.querySelector('[data-save-state]').textContent, shown: (${read})() })`,
    )
    // With nothing done yet there is nothing to lose.
    if (word === 'saved' && (wait === 0 || shown !== first)) return shown
    await sleep(5)
  }
}

async function afterStart(page, read) {
  await page.locator('[data-save-state="saved"]').waitFor()
  return page.evaluate(read)
}

const titleShown = () => document.querySelector('[aria-label="Title"]').value
const planShown = () => document.querySelector('[aria-label="Name of the plan"]').value
const movesShown = () =>
  [...document.querySelectorAll('[data-line] [data-event]')].map((mark) =>
    mark.getAttribute('aria-label'),
  )
const LETTERS = 'abcdefghij klmnop qrstuvw'

async function typeInto(page, name) {
  const field = page.getByRole('textbox', { name, exact: true })
  await field.click()
  await field.press('End')
  for (;;) {
    await page.keyboard.type(LETTERS[random(LETTERS.length)])
    await sleep(random(90))
  }
}

const MOVES = ['step side', 'touch tog', 'step forward', 'rock back', 'step tog']

/** How many combinations of the backup are stored, read past the app. */
const broughtBack = () =>
  new Promise((done, fail) => {
    const opened = indexedDB.open('molten-sway')
    opened.onerror = () => fail(opened.error)
    opened.onsuccess = () => {
      const asked = opened.result
        .transaction('combinations')
        .objectStore('combinations')
        .getAllKeys(IDBKeyRange.bound('back-', 'back-z'))
      asked.onsuccess = () => done(asked.result.length)
    }
  })

const zip = writeBackup(IN_BACKUP, (i) => ({ id: `back-${i}`, title: `Brought back ${i}` }))
const profiles = new Map()
/** One profile a kind of work, with the demo loaded in it. */
async function profileFor(kind) {
  if (profiles.has(kind)) return profiles.get(kind)
  const profile = mkdtempSync(join(tmpdir(), 'sway-kill-'))
  profiles.set(kind, profile)
  const { page, kill } = await open(profile)
  await page.goto(address)
  await page.getByRole('article').first().waitFor()
  await sleep(500)
  await kill()
  return profile
}

/** Types into a field until the browser is killed; what was shown under “saved” is there again. */
async function textKilled(kind, at, name, shown) {
  const { seen, found } = await killed(await profileFor(kind), at, (page) => typeInto(page, name), {
    before: (page) => underSaved(page, shown),
    after: (page) => afterStart(page, shown),
  })
  return { ok: found.startsWith(seen), seen, found }
}

const KINDS = {
  title: () => textKilled('title', '/combination/demo-copper-lantern', 'Title', titleShown),
  async moves() {
    // A move placed after the look may replace one: the hands rest before it.
    let resting
    const { seen, found } = await killed(
      await profileFor('moves'),
      '/combination/demo-copper-lantern',
      async (page) => {
        await page.getByRole('application').waitFor()
        while (!resting) {
          await page.keyboard.type(MOVES[random(MOVES.length)])
          await page.locator('[role="option"][data-combobox-selected]').waitFor()
          await page.keyboard.press(random(2) ? 'Tab' : 'Enter')
          await page.keyboard.press('ArrowRight')
        }
        resting()
      },
      {
        async before(page) {
          await page.getByRole('application').waitFor()
          await sleep(400 + random(1600))
          await new Promise((rest) => {
            resting = rest
          })
          return underSaved(page, movesShown, 0)
        },
        after: (page) => afterStart(page, movesShown),
      },
    )
    return {
      ok: JSON.stringify(found) === JSON.stringify(seen),
      seen: `${seen.length} moves`,
      found: `${found.length} moves, missing ${seen.filter((name) => !found.includes(name))}`,
    }
  },
  plan: () => textKilled('plan', '/plan/demo-plan-tuesday', 'Name of the plan', planShown),
  async class() {
    const profile = await profileFor('class')
    const where = async (page) =>
      `${await page.locator('h1').textContent()}, ${await page.locator('h1 + p').textContent()}`
    const first = await open(profile)
    await first.page.goto(`${address}/plan/demo-plan-tuesday`)
    await first.page.getByRole('button', { name: 'Begin class' }).click()
    await first.page.locator('[data-phase]').waitFor()
    for (let i = 0, most = 1 + random(6); i < most; i++) {
      await first.page.keyboard.press(['End', 'End', 'x', 'c', 'ArrowDown'][random(5)])
      await sleep(random(400))
    }
    await sleep(SETTLED_MS)
    const at = new URL(first.page.url()).pathname
    const seen = await where(first.page)
    await first.kill()
    const second = await open(profile)
    await second.page.goto(address + at)
    await second.page.locator('[data-phase]').waitFor()
    const found = await where(second.page)
    await second.kill()
    return { ok: found === seen, seen, found }
  },
  async restore() {
    profiles.delete('restore')
    const profile = await profileFor('restore')
    let told = 'nothing'
    const first = await open(profile)
    await first.page.goto(address)
    await first.page.getByRole('article').first().waitFor()
    await first.page.locator('input[type=file]').first().setInputFiles(zip)
    const until = Date.now() + 100 + random(4000)
    while (Date.now() < until) {
      const text = await first.page.locator('body').textContent()
      if (/is here now/.test(text)) told = 'here now'
      await sleep(20)
    }
    await first.kill()
    const second = await open(profile)
    await second.page.goto(address)
    await second.page.getByRole('article').first().waitFor()
    const found = await second.page.evaluate(broughtBack)
    await second.kill()
    rmSync(profile, { recursive: true, force: true })
    return {
      ok: found === IN_BACKUP || (found === 0 && told === 'nothing'),
      seen: told,
      found: `${found} of ${IN_BACKUP}`,
    }
  },
}

let failed = 0
const kinds = Object.keys(KINDS)
for (let i = 0; i < KILLS; i++) {
  const kind = kinds[i % kinds.length]
  const { ok, seen, found } = await KINDS[kind]()
  if (!ok) failed++
  console.log(
    `${ok ? 'kept' : 'LOST'} ${kind}: ${String(seen).slice(-60)} → ${String(found).slice(-60)}`,
  )
}
for (const profile of profiles.values()) rmSync(profile, { recursive: true, force: true })
await stop()
console.log(`${KILLS - failed} kept, ${failed} lost`)
process.exit(failed > 0 ? 1 : 0)
