// What only a browser can measure: a shelf of 3,000 combinations, and frames while dragging.
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, findChromium, installPackages, ROOT } from './setup.mjs'

installPackages()
const { buildApp } = await import('./build.mjs')
await buildApp()
const { writeBackup } = await import('./backup.mjs')
const { chromium } = await import('playwright-core')
const { serve } = await import('./serve.mjs')

const SHELF = 3000
const WORDS = ['Amber', 'Basin', 'Coral', 'Drift', 'Eddy', 'Fern', 'Grove', 'Haze', 'Inlet', 'Jade']

const { address, stop } = await serve(4650)
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: CHROMIUM_FLAGS,
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(address)
await page.getByRole('article').first().waitFor()

/** Frame times while something goes on, in milliseconds. */
async function frames(work) {
  await page.evaluate(() => {
    const times = []
    let last = performance.now()
    let goes = true
    const step = (now) => {
      times.push(now - last)
      last = now
      if (goes) requestAnimationFrame(step)
    }
    requestAnimationFrame(step)
    window.stopFrames = () => {
      goes = false
      return times.slice(1)
    }
  })
  await work()
  const times = (await page.evaluate(() => window.stopFrames())).sort((a, b) => a - b)
  const at = (share) => times[Math.min(times.length - 1, Math.floor(times.length * share))]
  const long = times.filter((ms) => ms > 25).length
  return `${times.length} frames, median ${at(0.5).toFixed(1)} ms, 95 % within ${at(0.95).toFixed(1)} ms, longest ${at(1).toFixed(1)} ms, ${long} dropped`
}

const rows = []

/** The demo's five-layer combination twice over, every phrase its own: 64 counts. */
function longCombination() {
  const demo = JSON.parse(readFileSync(join(ROOT, 'src/storage/demo/demo.json'), 'utf8'))
  const one = demo.find(({ title }) => title === 'Copper Lantern')
  const phrases = ['', '-2'].flatMap((more) =>
    one.phrases.map((phrase) => ({
      ...phrase,
      id: `${phrase.id}${more}`,
      name: `${phrase.name}${more}`,
      events: phrase.events.map((event) => ({ ...event, id: `${event.id}${more}` })),
      ...(phrase.remarks && {
        remarks: phrase.remarks.map((remark) => ({ ...remark, id: `${remark.id}${more}` })),
      }),
    })),
  )
  const order = phrases.map(({ id }) => ({ phrase: id, mirrored: false }))
  return JSON.stringify({ ...one, id: 'long', title: 'Long Lantern', phrases, order })
}

// Dragging in the braid, and the edit that a drop makes with its full re-check.
await page.setInputFiles('input[type="file"]', {
  name: 'long.sway.json',
  mimeType: 'application/json',
  buffer: Buffer.from(longCombination()),
})
await page.getByRole('link', { name: /Long Lantern/ }).click()
const mark = page.locator('[data-line="R:3"] .layer-hips[data-event]').first()
await mark.waitFor()
await page.locator('canvas[data-shown]').waitFor()
await page.waitForTimeout(2500)
const box = await mark.boundingBox()
rows.push([
  'Dragging a move in a combination of 64 counts',
  await frames(async () => {
    await page.mouse.move(box.x + 8, box.y + 8)
    await page.mouse.down()
    for (let i = 0; i < 90; i++) await page.mouse.move(box.x + 8 - i * 3, box.y + 8)
    await page.mouse.up()
  }),
])

const second = await mark.boundingBox()
rows.push([
  'Twelve edits one after another in it',
  await frames(async () => {
    await page.mouse.click(second.x + 8, second.y + 8)
    for (let i = 0; i < 12; i++) {
      await page.keyboard.press(i % 2 ? 'Alt+ArrowLeft' : 'Alt+ArrowRight')
      await page.waitForTimeout(60)
    }
  }),
])

// Two figures dancing, trails and all, while the braid follows.
await page.locator('canvas[data-shown]').waitFor()
await page.getByRole('button', { name: 'Beside', exact: true }).click()
for (const trails of [false, true]) {
  if (trails) await page.getByRole('button', { name: 'Trails', exact: true }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.waitForTimeout(4000)
  const { drawn, took } = await page.evaluate(async () => {
    const canvas = document.querySelector('canvas[data-shown]')
    const took = []
    let last = ''
    const until = performance.now() + 5000
    while (performance.now() < until) {
      await new Promise(requestAnimationFrame)
      if (canvas.dataset.shown !== last) took.push(Number(canvas.dataset.took))
      last = canvas.dataset.shown
    }
    return { drawn: took.length / 5, took: took.sort((a, b) => a - b)[took.length >> 1] }
  })
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  rows.push([
    `Two figures dancing${trails ? ', with trails' : ''}`,
    `${drawn.toFixed(0)} drawn a second, ${took.toFixed(1)} ms of script in the middle one`,
  ])
}

/** Milliseconds of the page's one thread a letter takes, typed into the title of a combination. */
async function letterCost() {
  await page.goto(address)
  await page.getByRole('textbox', { name: 'Search combinations' }).fill('Quick Ember')
  await page
    .getByRole('link', { name: /Quick Ember/ })
    .first()
    .click()
  await page.getByRole('application').waitFor()
  await page.waitForTimeout(1500)
  const title = page.getByRole('textbox', { name: 'Title' })
  await title.click()
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Performance.enable')
  const spent = async () =>
    (await cdp.send('Performance.getMetrics')).metrics.find(({ name }) => name === 'TaskDuration')
      .value * 1000
  await page.keyboard.type('warm', { delay: 60 })
  await page.waitForTimeout(1000)
  const before = await spent()
  await page.keyboard.type('a letter costs just as much', { delay: 60 })
  await page.waitForTimeout(1500)
  const each = ((await spent()) - before) / 27
  for (let i = 0; i < 31; i++) await page.keyboard.press('Backspace')
  await page.locator('[data-save-state="saved"]').waitFor()
  await cdp.detach()
  return each
}
const few = await letterCost()

// A shelf of thousands.
await page.goto(address)
await page.getByRole('article').first().waitFor()
const from = Date.now()
await page.setInputFiles(
  'input[type="file"]',
  writeBackup(SHELF, (i) => ({
    id: `shelf-${i}`,
    title: `${WORDS[i % 10]} ${WORDS[Math.floor(i / 10) % 10]} ${i}`,
  })),
)
await page.getByText(`of ${SHELF + 6}`).waitFor({ timeout: 60_000 })
rows.push([
  `Bringing in a backup of ${SHELF} combinations`,
  `${((Date.now() - from) / 1000).toFixed(0)} s`,
])
await page.reload()
await page.getByText(`of ${SHELF + 6}`).waitFor({ timeout: 60_000 })
const answers = []
for (const word of ['amber', 'coral drift', 'jade 1', 'eddy', 'haze inlet']) {
  answers.push(
    await page.evaluate(async (text) => {
      const input = document.querySelector('input[aria-label="Search combinations"]')
      const number = () => document.querySelector('[data-found]')?.textContent
      const before = number()
      const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set
      const begun = performance.now()
      set.call(input, text)
      input.dispatchEvent(new Event('input', { bubbles: true }))
      while (number() === before && performance.now() - begun < 2000)
        await new Promise((done) => setTimeout(done, 1))
      return performance.now() - begun
    }, word),
  )
}
answers.sort((a, b) => a - b)
rows.push([
  `Search among ${SHELF + 6}, from the letter to the cards`,
  `median ${answers[2].toFixed(0)} ms, longest ${answers[4].toFixed(0)} ms`,
])
await page.getByRole('textbox', { name: 'Search combinations' }).fill('')
await page.waitForTimeout(500)
await page.mouse.move(640, 500)
rows.push([
  `Scrolling through ${SHELF + 6}`,
  await frames(async () => {
    for (let i = 0; i < 60; i++) await page.mouse.wheel(0, 240)
  }),
])
const many = await letterCost()
rows.push([
  `A letter typed, with 7 combinations stored and with ${SHELF + 7}`,
  `${few.toFixed(1)} and ${many.toFixed(1)} ms of the page, × ${(many / few).toFixed(2)}`,
])
await browser.close()
await stop()
const wide = Math.max(...rows.map(([what]) => what.length))
for (const [what, figure] of rows) console.log(`${what.padEnd(wide)}  ${figure}`)
