// Takes the pictures of docs/screenshots from the demo data. Run it when a view has changed.
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, findChromium, installPackages, ROOT } from './setup.mjs'

installPackages()
const { buildApp } = await import('./build.mjs')
buildApp()
const { chromium } = await import('playwright-core')
const { serve } = await import('./serve.mjs')
const out = join(ROOT, 'docs', 'screenshots')
mkdirSync(out, { recursive: true })

const { address, stop } = await serve(4600)
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

const day = await visit()
await day.shot('combinations')
await day.open('Copper Lantern')
await day.shot('studio')
await day.page.getByRole('application').press('\\')
await day.shot('both-sides')
await day.page.getByRole('link', { name: 'Teach' }).click()
await day.page.getByRole('list', { name: 'Steps' }).waitFor()
await day.shot('teach')
await day.page.goto(address)
await day.open('Quick Ember')
await day.page.getByRole('application').press('Control+s')
await day.page.locator('.cm-content').waitFor()
await day.page.waitForTimeout(800)
await day.shot('studio-sheet')
await day.page.getByRole('link', { name: 'Moves', exact: true }).click()
await day.page.getByRole('textbox', { name: 'Search moves' }).fill('grapevine')
await day.page
  .getByRole('option', { name: /Grapevine/ })
  .first()
  .click()
await day.page.getByRole('textbox', { name: 'Search moves' }).fill('')
await day.shot('moves')
await day.close()

const evening = await visit('dark')
await evening.open('Find the Slip')
await evening.page.getByRole('button', { name: /Can’t be danced/ }).click()
await evening.shot('studio-evening')
await evening.close()

await browser.close()
await stop()
