import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { BrowserContext, Page } from 'playwright-core'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
// @ts-expect-error a plain script without types
import { serve } from '../../scripts/serve.mjs'
import { type App, expectAccessibleInBoth, namesOn, soundsOf, startApp, write } from './app'

const PORT = 4700
const DIST = join(import.meta.dirname, '..', '..', 'dist')

let app: App
/** The app as it is published, in a folder that can become a newer version. */
let folder: string
let server: { readonly address: string; readonly stop: () => Promise<void> }

let isUp = false
const start = async () => {
  server = await serve(PORT, undefined, folder)
  isUp = true
}
const stop = async () => {
  await server.stop()
  isUp = false
}
// One that failed in the middle may have left nobody there.
beforeEach(async () => {
  if (!isUp) await start()
})

/** Publishes another version: its page says so. */
async function publish(mark: string): Promise<void> {
  await stop()
  const page = join(folder, 'index.html')
  const said = readFileSync(page, 'utf8').replace(/(name="version" content=")\w+/, `$1${mark}`)
  writeFileSync(page, said)
  for (const ending of ['.br', '.gz']) rmSync(`${page}${ending}`, { force: true })
  const worker = join(folder, 'offline.js')
  const code = readFileSync(worker, 'utf8')
  const changed = code.replace(/(\/index\.html.,revision:.)\w+/, `$1${mark}`)
  expect(changed).not.toBe(code)
  writeFileSync(worker, changed)
  for (const ending of ['.br', '.gz']) rmSync(`${worker}${ending}`, { force: true })
  await start()
}

const versionOf = (page: Page) => page.locator('meta[name="version"]').getAttribute('content')

beforeAll(async () => {
  app = await startApp()
  folder = mkdtempSync(join(tmpdir(), 'molten-sway-app-'))
  cpSync(DIST, folder, { recursive: true })
  await start()
})
afterAll(async () => {
  await stop()
  rmSync(folder, { recursive: true })
})

/** A visitor whose browser keeps the app; it is kept when this resolves. */
async function keptVisit(): Promise<{ context: BrowserContext; page: Page; errors: string[] }> {
  const { context, page, errors } = await app.visit({
    at: server.address,
    serviceWorkers: 'allow',
    clock: 4,
  })
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null)
  return { context, page, errors: errors as string[] }
}

describe('without a network', () => {
  it('can be installed; opens, edits, dances, keeps what is done, and comes back', async () => {
    const { context, page } = await keptVisit()
    const devtools = await context.newCDPSession(page)
    const { errors, data = '' } = await devtools.send('Page.getAppManifest')
    expect(errors).toEqual([])
    const { installabilityErrors } = await devtools.send('Page.getInstallabilityErrors')
    // A browser without a window of its own for apps may say nothing else.
    expect(installabilityErrors.filter(({ errorId }) => errorId !== 'in-incognito')).toEqual([])
    const { icons, file_handlers: handlers } = JSON.parse(data) as {
      icons: readonly { readonly src: string; readonly sizes: string }[]
      file_handlers: readonly { readonly accept: Readonly<Record<string, readonly string[]>> }[]
    }
    expect(handlers.flatMap(({ accept }) => Object.values(accept).flat())).toEqual(['.sway'])
    for (const { src, sizes } of icons) {
      const size = await page.evaluate(async (address) => {
        const picture = new Image()
        picture.src = address
        await picture.decode()
        return `${picture.naturalWidth}x${picture.naturalHeight}`
      }, src)
      if (sizes !== 'any') expect(size).toBe(sizes)
    }
    await stop()
    // Screens that were never opened before, and what they load later.
    await page.goto(`${server.address}/diary`)
    await page.getByRole('heading', { name: 'Diary' }).waitFor()
    await page.goto(server.address)
    await page.getByRole('link', { name: 'Copper Lantern' }).click()
    await page.getByRole('application').waitFor()
    await write(page, 'R:0', 'head', 1, 'nod')
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await expect.poll(async () => (await soundsOf(page)).length).toBeGreaterThan(20)
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    await page.getByRole('link', { name: 'Teach' }).click()
    await page
      .getByRole('button', { name: /practice page/i })
      .first()
      .click()
    await page.reload()
    await page
      .getByRole('link', { name: /Combinations|Molten Sway/ })
      .first()
      .click()
    await page.getByRole('link', { name: 'Copper Lantern' }).click()
    await expect.poll(async () => (await namesOn(page, 'R:0', 'head'))[0] ?? '').toMatch(/^nod/)
    await start()
    await page.reload()
    await page.getByRole('application').waitFor()
    await expect.poll(async () => (await namesOn(page, 'R:0', 'head'))[0] ?? '').toMatch(/^nod/)
  })

  it('starts a new version with the work that is open, and not under other windows', async () => {
    const { context, page } = await keptVisit()
    await page.getByRole('link', { name: 'Copper Lantern' }).click()
    await page.getByRole('application').waitFor()
    await write(page, 'R:0', 'head', 1, 'nod')
    await publish('second')
    const other = await context.newPage()
    await other.goto(server.address)
    await page.getByText('A new version is here').waitFor()
    await expectAccessibleInBoth(page)
    await page.getByRole('button', { name: 'Start it now' }).click()
    await page.getByText('Close the other windows of Molten Sway').waitFor()
    expect(await versionOf(page)).toMatch(/^[0-9a-f]{12}$/)
    await other.close()
    await page.getByRole('button', { name: 'Start it now' }).click()
    await page.getByText('Molten Sway was updated').waitFor()
    expect(await versionOf(page)).toBe('second')
    await page.getByRole('application').waitFor()
    await expect.poll(async () => (await namesOn(page, 'R:0', 'head'))[0] ?? '').toMatch(/^nod/)
  })

  it('starts one that came while the app was open by itself the next time', async () => {
    const { context, page } = await keptVisit()
    await publish('third')
    await page.evaluate(async () => {
      await (await navigator.serviceWorker.getRegistration())?.update()
    })
    await page.getByText('A new version is here').waitFor()
    await page.close()
    const again = await context.newPage()
    await again.goto(server.address)
    await again.getByText('Molten Sway was updated').waitFor()
    expect(await versionOf(again)).toBe('third')
  })
})

const LAMP = `sway 1
title  "Small lamp"
order  A
phrase A 4
  feet  1 R step; 2 L step; 3 R step; 4 L step
`

/** A file of the visitor that the browser opens the app with, as an installed app is opened. */
async function launch(page: Page, text?: string): Promise<void> {
  await page.evaluate(async (content) => {
    const folder = await navigator.storage.getDirectory()
    const handle = await folder.getFileHandle('lamp.sway', { create: true })
    if (content !== undefined) {
      const writing = await handle.createWritable()
      await writing.write(content)
      await writing.close()
    }
    const { launched } = window as unknown as { launched: (l: { files: unknown[] }) => void }
    launched({ files: [handle] })
  }, text)
}

const inFile = (page: Page) =>
  page.evaluate(async () => {
    const folder = await navigator.storage.getDirectory()
    return (await (await folder.getFileHandle('lamp.sway')).getFile()).text()
  })

describe('files', () => {
  it('of an installed app open as one combination, are saved back into, and never over a newer one', async () => {
    const { context, page } = await app.visit()
    await context.addInitScript(() => {
      Object.defineProperty(window, 'launchQueue', {
        value: {
          setConsumer: (take: unknown) => Object.assign(window, { launched: take }),
        },
      })
    })
    await page.reload()
    await page.getByRole('article').first().waitFor()
    const before = await page.getByRole('article').count()
    await launch(page, LAMP)
    await page.getByRole('application').waitFor()
    await write(page, 'R:0', 'head', 1, 'nod')
    await page.getByRole('button', { name: 'More' }).click()
    await page.getByRole('menuitem', { name: 'Save back into “lamp.sway”' }).click()
    await page.getByText('Saved into “lamp.sway”.').waitFor()
    expect(await inFile(page)).toMatch(/head +1 nod/)
    await page.getByRole('link', { name: 'Molten Sway, all combinations' }).click()
    // Opened again it is the same one, and with what was done to it since.
    await launch(page)
    await page.getByRole('application').waitFor()
    await expect.poll(async () => (await namesOn(page, 'R:0', 'head'))[0] ?? '').toMatch(/^nod/)
    await page.getByRole('link', { name: 'Molten Sway, all combinations' }).click()
    await expect.poll(() => page.getByRole('article').count()).toBe(before + 1)
    // Changed elsewhere it is another one beside it, and the file is left as it is.
    await page.getByRole('link', { name: 'Small lamp' }).click()
    await page.getByRole('application').waitFor()
    await page.evaluate(
      async (text) => {
        const folder = await navigator.storage.getDirectory()
        const writing = await (await folder.getFileHandle('lamp.sway')).createWritable()
        await writing.write(text)
        await writing.close()
      },
      LAMP.replace('step', 'touch'),
    )
    await page.getByRole('button', { name: 'More' }).click()
    await page.getByRole('menuitem', { name: 'Save back into “lamp.sway”' }).click()
    await page.getByText('“lamp.sway” was changed elsewhere').waitFor()
    expect(await inFile(page)).toContain('touch')
    await launch(page)
    await page.getByText('this is beside what you had').waitFor()
  })

  it('can be dropped on the studio, which stays', async () => {
    const { page } = await app.visit()
    await page.getByRole('link', { name: 'Copper Lantern' }).click()
    await page.getByRole('application').waitFor()
    const address = page.url()
    const transfer = await page.evaluateHandle((text) => {
      const made = new DataTransfer()
      made.items.add(new File([text], 'lamp.sway', { type: 'text/plain' }))
      return made
    }, LAMP)
    for (const kind of ['dragover', 'drop'])
      await page.getByRole('application').dispatchEvent(kind, { dataTransfer: transfer })
    const told = page.getByRole('region', { name: 'Opened files' })
    await told.getByText('“Small lamp” is here now.').waitFor()
    expect(page.url()).toBe(address)
    await told.getByRole('link', { name: 'Open it' }).click()
    await expect.poll(() => page.getByLabel('Title').inputValue()).toBe('Small lamp')
  })

  it('are wanted as a backup after two weeks of work, in one line that goes with it', async () => {
    const { page } = await app.visit()
    const line = page.getByText(/days of work are in this browser only/)
    const SLOT = 'molten-sway without backup since'
    const since = () => page.evaluate((slot) => localStorage.getItem(slot), SLOT)
    for (const screen of ['Plans', 'Diary', 'Songs', 'Combinations']) {
      await page.getByRole('link', { name: screen, exact: true }).click()
      await page.getByRole('heading', { level: 1 }).first().waitFor()
    }
    // Who only looks round has no work to lose.
    expect(await since()).toBeNull()
    await page.getByRole('link', { name: 'Copper Lantern' }).click()
    await page.getByRole('application').waitFor()
    await write(page, 'R:0', 'head', 1, 'nod')
    await expect.poll(since).not.toBeNull()
    await page.goto(app.address)
    await page.getByRole('article').first().waitFor()
    expect(await line.count()).toBe(0)
    await page.evaluate(([slot, at]) => localStorage.setItem(slot, String(at)), [
      SLOT,
      Date.now() - 15 * 24 * 60 * 60 * 1000,
    ] as const)
    await page.reload()
    await line.waitFor()
    const saved = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save a backup' }).click()
    expect((await saved).suggestedFilename()).toMatch(/\.zip$/)
    await line.waitFor({ state: 'detached' })
    await expect.poll(since).toBeNull()
  })
})
