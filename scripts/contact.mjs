// Draws contact sheets of the vocabulary: `node scripts/contact.mjs [FOLDER] [LAYER...]`.
import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { CHROMIUM_FLAGS, findChromium, installPackages, ROOT } from './setup.mjs'

installPackages()
const { createServer } = await import('vite')
const { chromium } = await import('playwright-core')
const [folder = join(ROOT, '.cache', 'contact'), ...layers] = process.argv.slice(2)
const PER_SHEET = 24
const MOST = { hips: 72, torso: 48, arms: 72, head: 24, feet: 96, legs: 24 }
mkdirSync(folder, { recursive: true })
const server = await createServer({ root: ROOT, server: { port: 4810 }, logLevel: 'error' })
await server.listen()
const browser = await chromium.launch({ executablePath: findChromium(), args: CHROMIUM_FLAGS })
const page = await browser.newPage({ viewport: { width: 1280, height: 900 } })
page.on('pageerror', (error) => console.error(error.message))
for (const layer of layers.length > 0 ? layers : ['hips', 'torso', 'arms'])
  for (let from = 0; from < MOST[layer]; from += PER_SHEET) {
    await page.goto(
      `http://localhost:4810/scripts/contact/index.html?layer=${layer}&from=${from}&count=${PER_SHEET}`,
    )
    await page.locator('body[data-done]').waitFor()
    const path = join(folder, `${layer}-${from}.png`)
    await page.locator('canvas').screenshot({ path })
    console.log(path)
  }
await browser.close()
await server.close()
