// Takes the pictures of docs/screenshots from the demo data. Run it when a view has changed.
import { mkdirSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, findChromium, installPackages, ROOT } from './setup.mjs'

installPackages()
const { buildApp } = await import('./build.mjs')
await buildApp()
const { chromium } = await import('playwright-core')
const { serve } = await import('./serve.mjs')
const { buildServer, studioWith } = await import('./studio.mjs')
const out = join(ROOT, 'docs', 'screenshots')
mkdirSync(out, { recursive: true })

const { address, stop } = await serve(4600, await studioWith(buildServer()))
const browser = await chromium.launch({
  executablePath: findChromium(),
  args: CHROMIUM_FLAGS,
})

async function visit(colorScheme = 'light', viewport = { width: 1280, height: 800 }) {
  const context = await browser.newContext({ viewport, colorScheme, reducedMotion: 'reduce' })
  const page = await context.newPage()
  await page.goto(address)
  await page.getByRole('heading', { name: 'Combinations' }).waitFor()
  return {
    page,
    async open(title) {
      await page.getByRole('link', { name: title }).click()
      await page.getByRole('application').waitFor()
    },
    async shot(name) {
      await page.evaluate(() => document.fonts.ready)
      await page.waitForTimeout(400)
      await page.screenshot({ path: join(out, `${name}.png`) })
    },
    close: () => context.close(),
  }
}

const heading = (page) => page.getByRole('heading', { level: 1 }).textContent()

/** Past every step of a class before the one of a title. */
async function pressTo(page, title) {
  for (let i = 0; i < 60 && (await heading(page)) !== title; i++) await page.keyboard.press('End')
}

async function beginAt(page, title) {
  await page.getByRole('button', { name: 'Begin class' }).click()
  await page.getByRole('button', { name: /^Begin Hello/ }).waitFor()
  await pressTo(page, title)
}

const day = await visit()
await day.shot('combinations')
await day.open('Copper Lantern')
await day.shot('studio')
await day.page.getByRole('link', { name: 'Teach' }).click()
await day.page.getByRole('list', { name: 'Steps' }).waitFor()
await day.shot('teach')
await day.page.getByRole('button', { name: 'Practice page…' }).click()
const saved = day.page.waitForEvent('download')
await day.page.getByRole('button', { name: 'Save the page' }).click()
const practice = await browser.newContext({ viewport: { width: 1280, height: 800 } })
const home = await practice.newPage()
const file = join(mkdtempSync(join(tmpdir(), 'sway-')), 'page.html')
await (await saved).saveAs(file)
await home.goto(`file://${file}`)
const press = (name) => home.getByRole('button', { name, exact: true }).click()
await press('Start')
await press('Go on')
while ((await home.locator('h2').first().textContent()) !== 'Try A')
  await press(
    (await home.getByRole('button', { name: 'Go on', exact: true }).count()) > 0
      ? 'Go on'
      : 'Next count',
  )
await press('Play')
await home.waitForFunction(() => document.querySelector('.count')?.textContent === '4', undefined, {
  polling: 'raf',
})
await home.screenshot({ path: join(out, 'practice.png') })
await practice.close()
const tablet = await browser.newContext({
  viewport: { width: 820, height: 1180 },
  hasTouch: true,
  isMobile: true,
  reducedMotion: 'reduce',
})
const held = await tablet.newPage()
await held.goto(address)
await held.getByRole('link', { name: 'Copper Lantern' }).tap()
await held.getByRole('application').waitFor()
const lane = await held.locator('[data-line="R:1"] [data-lane="arms"]').boundingBox()
await held.touchscreen.tap(lane.x + 10, lane.y + lane.height / 2)
await held.getByRole('region', { name: 'What fits here' }).waitFor()
await held.waitForTimeout(600)
await held.screenshot({ path: join(out, 'touch.png') })
await tablet.close()
await day.page.goto(address)
await day.open('Quick Ember')
await day.page.getByRole('button', { name: 'Add a phrase' }).click()
await day.page.getByRole('button', { name: 'Moves', exact: true }).click()
const feet = await day.page.locator('[data-line="R:3"] [data-lane="feet"]').boundingBox()
await day.page.mouse.click(feet.x + 20, feet.y + feet.height / 2)
await day.page.getByRole('button', { name: 'Make D up' }).click()
const ways = day.page.getByRole('list', { name: 'Ways to fill D' })
await ways.getByRole('button').first().hover()
await day.page.locator('[data-fresh]').first().waitFor()
await day.shot('ideas')
await day.page.getByRole('link', { name: 'House rules' }).click()
await day.page.getByRole('list', { name: 'Layerings of belly' }).waitFor()
await day.shot('house')
await day.page.goto(address)
await day.open('Two Lamps')
await day.page.locator('[data-between]').first().click({ force: true })
await day.shot('duet')
await day.page.getByRole('button', { name: 'Floor', exact: true }).click()
await day.page.locator('[data-part="Blue"]').waitFor()
await day.shot('duet-floor')
await day.page.goto(`${address}/page`)
// The page is one of those the tests read.
const [notes] = readFileSync('tests/notebook/11-mixed.txt', 'utf8').split(/^====$/m)
await day.page.getByLabel('The page').fill(notes.trim())
await day.page.getByText(/things to look at/).waitFor()
await day.shot('page')
await day.page.getByRole('link', { name: 'Moves', exact: true }).click()
await day.page.getByRole('textbox', { name: 'Search moves' }).fill('hip circle')
await day.page
  .getByRole('option', { name: /Large hip circle/ })
  .first()
  .click()
await day.page.getByRole('textbox', { name: 'Search moves' }).fill('')
await day.shot('moves')
await day.close()

const teaching = await visit()
await teaching.page.getByRole('link', { name: 'Diary' }).click()
await teaching.page.getByRole('heading', { name: 'Diary' }).waitFor()
await teaching.page.getByLabel('Group').first().selectOption('demo-tuesday')
await teaching.page.getByRole('region', { name: 'Next class' }).waitFor()
await teaching.shot('diary')
await teaching.page.goto(`${address}/plan/demo-plan-tuesday`)
await teaching.page.getByRole('button', { name: 'Hips alone · A', exact: true }).click()
await teaching.shot('plan')
await beginAt(teaching.page, 'All layers · A')
await teaching.page.keyboard.press('PageDown')
await teaching.page.waitForFunction(
  () => document.querySelector('[data-at]')?.getAttribute('data-at')?.startsWith('2 5'),
  undefined,
  { timeout: 30_000 },
)
await teaching.page.screenshot({ path: join(out, 'class.png') })
await teaching.close()

const music = await visit()
for (const title of ['Slow Copper', 'Kiln Yard']) {
  await music.page.getByRole('link', { name: 'Songs', exact: true }).click()
  await music.page.getByRole('button', { name: 'Try a demo song' }).click()
  await music.page.getByRole('menuitem', { name: title }).click()
  await music.page.waitForURL(/song\//, { timeout: 60_000 })
}
await music.page.getByRole('grid').focus()
for (let i = 0; i < 18; i++) await music.page.keyboard.press('ArrowRight')
await music.shot('song')
await music.page.getByRole('link', { name: 'Songs', exact: true }).click()
await music.page.getByRole('button', { name: 'New routine' }).first().click()
const shelf = music.page.getByRole('region', { name: 'Combinations to lay' })
for (const title of ['Copper Lantern', 'Saffron Steps', 'Long Swell'])
  await shelf.getByLabel(`Propose with ${title}`).check()
await shelf.getByRole('button', { name: 'Propose with those ticked' }).click()
await shelf.getByRole('button', { name: /^Proposal 1/ }).click()
await music.page.getByRole('grid').focus()
for (let i = 0; i < 5; i++) await music.page.keyboard.press('ArrowDown')
await music.page.keyboard.press('s')
await music.page.waitForTimeout(1500)
await music.shot('song-map')
await music.page.getByRole('link', { name: 'Songs', exact: true }).click()
await music.page.getByRole('link', { name: /Slow Copper \d/ }).waitFor()
await music.close()

// A camera that sees somebody drawn, since none is there.
const filmed = await visit()
await filmed.page.addInitScript(() => {
  const draw = (pen, seconds) => {
    const sway = Math.sin(seconds * 3)
    pen.fillStyle = '#cbb79e'
    pen.fillRect(0, 0, 640, 360)
    pen.fillStyle = '#8d7458'
    pen.fillRect(0, 290, 640, 70)
    pen.strokeStyle = '#2b3a55'
    pen.lineCap = 'round'
    pen.lineWidth = 20
    const line = (...points) => {
      pen.beginPath()
      for (const [x, y] of points) pen.lineTo(x, y)
      pen.stroke()
    }
    const hip = 320 + 16 * sway
    line([290, 325], [300, 260], [hip - 8, 205])
    line([350, 325], [340, 260], [hip + 8, 205])
    line([hip, 205], [320 - 6 * sway, 120])
    line([320 - 6 * sway, 125], [270, 105 + 20 * sway], [250, 60])
    line([320 - 6 * sway, 125], [370, 105 - 20 * sway], [390, 60])
    pen.fillStyle = '#2b3a55'
    pen.beginPath()
    pen.arc(320 - 8 * sway, 80, 24, 0, 7)
    pen.fill()
  }
  const getUserMedia = async () => {
    const canvas = Object.assign(document.createElement('canvas'), { width: 640, height: 360 })
    const pen = canvas.getContext('2d')
    const again = (ms) => {
      draw(pen, ms / 1000)
      requestAnimationFrame(again)
    }
    again(0)
    return canvas.captureStream(30)
  }
  Object.defineProperty(navigator, 'mediaDevices', { value: { getUserMedia } })
})
await filmed.page.goto(address)
await filmed.open('Quick Ember')
await filmed.page.getByRole('button', { name: 'Song', exact: true }).click()
await filmed.page.getByRole('button', { name: 'Wider' }).click()
await filmed.page.getByText('R side', { exact: true }).click()
await filmed.page.getByRole('button', { name: 'Film a take' }).click()
await filmed.page.getByRole('checkbox', { name: /take 1, \d/ }).check({ timeout: 60_000 })
for (let i = 0; i < 4; i++) await filmed.page.getByRole('application').press('ArrowRight')
await filmed.shot('take')
await filmed.close()

const floor = await visit()
await floor.page.goto(`${address}/plan/demo-plan-tuesday`)
await beginAt(floor.page, 'All layers · A')
await floor.page.keyboard.press('l')
const panel = floor.page.getByRole('dialog', { name: 'Let people follow' })
await panel.getByRole('button', { name: 'Let people follow' }).click()
const key = await panel.locator('[data-key]').getAttribute('data-key')
const host = await panel.getByText(/^\d+\.\d+\.\d+\.\d+:\d+$/).textContent()
await floor.page.keyboard.press('Escape')
const phone = await visit('light', { width: 390, height: 800 })
await phone.page.goto(`http://${host}/#${key}`)
await phone.page.getByText('Ready.').waitFor()
await floor.page.keyboard.press('PageDown')
await phone.page.locator('[data-at]').waitFor()
await phone.page.locator('.count', { hasText: '3' }).waitFor()
await phone.shot('follow')
await phone.close()
await floor.close()

const evening = await visit('dark')
await evening.page.goto(`${address}/series`)
await evening.page.getByRole('button', { name: 'New series' }).click()
for (const title of ['Copper Lantern', 'Quick Ember']) {
  await evening.page.getByPlaceholder('Teach…').click()
  await evening.page.getByRole('option', { name: title, exact: true }).click()
}
await evening.page.getByLabel('Name of the series').fill('Winter Tuesdays')
await evening.page.getByRole('button', { name: 'Add dates' }).click()
await evening.page.locator('[data-unit="D"]').focus()
await evening.page.keyboard.press('ArrowRight')
await evening.shot('series')
await evening.close()

await browser.close()
await stop()
