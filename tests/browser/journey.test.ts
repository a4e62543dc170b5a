import { readFileSync, writeFileSync } from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, namesOn, placeIn, soundsOf, startApp, write } from './app'
import { saveFile } from './saved'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const saved = (page: Page) => page.locator('[data-save-state="saved"]').waitFor()
const says = (page: Page, words: RegExp) =>
  expect.poll(() => page.getByRole('region', { name: 'Findings' }).textContent()).toMatch(words)

describe('a new combination of 16 counts, from nothing to a file and back', () => {
  it('is built by hand, judged, flipped, played, taught, kept, deleted and opened again', async () => {
    const { page, outside, errors } = await app.visit()

    // Build: feet with a half count and a touch.
    await page.getByRole('button', { name: 'New combination' }).click()
    await page.getByRole('textbox', { name: 'Title' }).fill('First Pour')
    await write(page, 'R:0', 'feet', 1, 'step side')
    await write(page, 'R:0', 'feet', 2, 'close')
    await write(page, 'R:0', 'feet', 3, 'step forward')
    await write(page, 'R:0', 'feet', 3.5, 'step in-place')
    await write(page, 'R:0', 'feet', 4, 'step back')
    await write(page, 'R:0', 'feet', 5, 'touch tog')
    // The free foot is filled in: each step is on the other one, the touch changes nothing.
    expect(await namesOn(page, 'R:0', 'feet')).toEqual([
      'step R side, feet',
      'close L, feet',
      'step R forward, feet',
      'step L in-place, feet',
      'step R back, feet',
      'touch L together, feet',
    ])
    expect(await page.locator('[data-line="R:0"]').innerHTML()).toContain('L free')
    await says(page, /A5.*You end on your right foot, the left is free\. It switches/s)

    // A deliberate slip, and what is said about it; undo takes it back.
    await write(page, 'R:0', 'feet', 7, 'step r side')
    await says(page, /Findings: 1 to fix.*A7.*You already stand on your right foot/s)
    expect(await page.locator('[data-line="R:0"] path[class*="gap"]').count()).toBe(1)
    await page.getByRole('button', { name: /A7.*Can’t be danced/ }).click()
    await page.keyboard.press('<')
    expect(await page.locator('[data-line="R:0"] path[class*="gap"]').count()).toBe(0)
    await page.keyboard.press('Control+z')
    expect(await page.locator('[data-line="R:0"] path[class*="gap"]').count()).toBe(1)
    await page.keyboard.press('Control+z')
    expect(await page.locator('[data-line="R:0"] path[class*="gap"]').count()).toBe(0)

    // The other layers: a hip move over a range, a torso move, arms that differ, a look.
    await page.mouse.click(...xy(await placeIn(page, 'R:0', 'hips', 5)))
    await page.keyboard.press('Shift+ArrowRight')
    await page.keyboard.type('drop l')
    await page.keyboard.press('Enter')
    await write(page, 'R:0', 'torso', 1, 'rib circle')
    await write(page, 'R:0', 'arms', 1, 'r high-v, l hips')
    await write(page, 'R:0', 'head', 4, 'look l')

    // A second phrase, and a path that clashes with another: found, moved away by keys.
    await page.getByRole('button', { name: 'Add a phrase' }).click()
    await write(page, 'R:1', 'feet', 1, 'vine')
    await write(page, 'R:1', 'hips', 1, 'hip sway')
    await write(page, 'R:1', 'hips', 3, 'undulation')
    // Where nothing is written one way ends where the next begins, and has the time till then; a
    // range that is written stays.
    for (let i = 0; i < 2; i++) await page.keyboard.press('Alt+ArrowLeft')
    await says(page, /Hip sway has 0\.62 s; it needs 0\.63 s/)
    for (let i = 0; i < 2; i++) await page.keyboard.press('Alt+ArrowRight')
    await page.mouse.click(...xy(await placeIn(page, 'R:1', 'hips', 1)))
    for (let i = 0; i < 2; i++) await page.keyboard.press('Alt+Shift+ArrowRight')
    await says(page, /B3.*both need the hips/s)
    for (let i = 0; i < 2; i++) await page.keyboard.press('Control+z')
    await says(page, /Findings: nothing to fix/)
    await page.mouse.click(...xy(await placeIn(page, 'R:1', 'hips', 3)))
    expect(await namesOn(page, 'R:1', 'hips')).toEqual([
      'hip sway R, 1-2, hips',
      'pelvic undulation, 3-4, hips',
    ])
    await page.keyboard.press('Alt+Shift+ArrowRight')
    expect((await namesOn(page, 'R:1', 'hips'))[1]).toBe('pelvic undulation, 3-5e, hips')
    await page.keyboard.press('Control+z')

    // Flip: every layer has changed its side; both can be read across.
    await page.keyboard.press('/')
    expect(await namesOn(page, 'L:0', 'feet')).toContain('touch R together, feet')
    expect(await namesOn(page, 'L:0', 'hips')).toEqual(['hip drop R, 5-6, hips'])
    expect(await namesOn(page, 'L:0', 'arms')).toEqual(['R hips, L high-v, 1, arms'])
    expect(await namesOn(page, 'L:0', 'head')).toEqual(['look right, 4, head'])
    expect(await namesOn(page, 'L:1', 'hips')).toContain('hip sway L, 1-2, hips')
    // Written on the other side, read on the lead side.
    await write(page, 'L:1', 'head', 7, 'look l')
    await page.keyboard.press('/')
    expect(await namesOn(page, 'R:1', 'head')).toEqual(['look right, 7, head'])
    // Kept: the other side shows it as written.
    await page.mouse.click(...xy(await placeIn(page, 'R:0', 'head', 4)))
    await page.keyboard.press('!')
    await page.keyboard.press('\\')
    expect(await namesOn(page, 'L:0', 'head')).toEqual(['look left, 4, head, kept'])
    await page.keyboard.press('\\')

    // Play: count-in, then counts and halves, R then L in turn, on exact times.
    await page.getByRole('application').focus()
    await page.keyboard.press('Space')
    await page.locator('[data-lit="true"]').waitFor()
    await expect
      .poll(async () => (await soundsOf(page)).length, { timeout: 20_000 })
      .toBeGreaterThan(9)
    const sounds = await soundsOf(page)
    await page.keyboard.press('Space')
    const period = 60 / 96
    const first = sounds[0]?.when ?? 0
    const halves = sounds.map(({ when }) => ((when - first) / period) * 2)
    for (const half of halves) expect(half).toBeCloseTo(Math.round(half), 4)
    // Four counts before, then the accent of the phrase, a half, a count, a half, …
    const lengths = sounds.slice(0, 9).map(({ duration }) => Math.round(duration * 1000))
    expect(lengths).toEqual([70, 70, 70, 70, 90, 40, 70, 40, 70])
    expect(halves.slice(0, 9).map(Math.round)).toEqual([0, 2, 4, 6, 8, 9, 10, 11, 12])

    // Teach: the steps of a class, from the walk to all of it at tempo.
    await saved(page)
    await page.getByRole('link', { name: 'Teach' }).click()
    const strip = page.getByRole('list', { name: 'Steps' })
    await strip.waitFor()
    const titles = (await strip.getByRole('button').allInnerTexts()).map(
      (text) => text.split('\n')[0] ?? '',
    )
    expect(titles[0]).toMatch(/ alone · A$|^Walk it · A/)
    expect(titles).toEqual(expect.arrayContaining(['All layers · A', 'Other side · A B']))
    expect(titles.at(-1)).toMatch(/^Run at \d+/)
    await strip.getByRole('button', { name: /^All layers · A/ }).click()
    const words = page.getByRole('region', { name: 'What to do on each count' })
    expect(await words.textContent()).toMatch(
      /Right foot steps forward\. 3&: left foot steps in place/,
    )
    await strip.getByRole('button', { name: /^Other side · A/ }).click()
    const all = await words.textContent()
    expect(all ?? '').toMatch(/Right foot touches beside the other/)
    expect(all ?? '').toMatch(/right arm to hips, left arm to high-v/i)
    expect(all ?? '').toMatch(/Hips Hip drop right, until 6/)

    // Keep: a reload has it all; the file, opened after a delete, is equal.
    await page.getByRole('link', { name: 'Studio', exact: true }).click()
    await page.reload()
    await page.getByRole('application').waitFor()
    expect(await namesOn(page, 'R:0', 'torso')).toEqual(['rib circle cw, 1-4, torso'])
    const file = await saveFile(page)
    await page.getByRole('link', { name: 'Combinations', exact: true }).click()
    const card = page.getByRole('article', { name: 'First Pour' })
    await card.getByRole('button').click()
    await page.getByRole('menuitem', { name: 'Delete' }).click()
    await card.waitFor({ state: 'detached' })
    await page.getByRole('button', { name: 'Undo' }).click()
    await card.waitFor()
    await card.getByRole('button').click()
    await page.getByRole('menuitem', { name: 'Delete' }).click()
    await card.waitFor({ state: 'detached' })
    await page.setInputFiles('input[type="file"]', file)
    await card.getByRole('link').click()
    await page.getByRole('application').waitFor()
    const again = await saveFile(page)
    // The deleted one still has its id, so what was opened is a copy under a new one.
    const plain = (path: string) => ({ ...JSON.parse(readFileSync(path, 'utf8')), id: '' })
    expect(plain(again)).toEqual(plain(file))

    expect(outside).toEqual([])
    expect(errors).toEqual([])
  })
})

const xy = ({ x, y }: { x: number; y: number }): [number, number] => [x, y]

describe('files that are no combinations', () => {
  it.each([
    ['broken.sway.json', '{"kind": "combination", "title": ', /damaged or is no combination/],
    ['foreign.json', '{"name": "a list of groceries"}', /something else/],
    [
      'newer.sway.json',
      '{"kind":"combination","schemaVersion":9,"title":"Later"}',
      /newer version/,
    ],
    [
      'bent.sway.json',
      '{"kind":"combination","schemaVersion":1,"title":"Bent"}',
      /“Bent” can't be opened/,
    ],
  ])('%s gets a sentence and changes nothing', async (name, text, message) => {
    const { page, context } = await app.visit()
    const path = join(await mkdtemp(join(tmpdir(), 'sway-')), name)
    writeFileSync(path, text)
    await page.getByRole('article').nth(4).waitFor()
    const before = await page.getByRole('article').allInnerTexts()
    await page.setInputFiles('input[type="file"]', path)
    const alert = page.getByRole('alert')
    await alert.waitFor()
    expect(await alert.textContent()).toMatch(message)
    expect(await alert.textContent()).toMatch(/Nothing was changed|Update this one/)
    expect(await page.getByRole('article').allInnerTexts()).toEqual(before)
    await context.close()
  })
})

describe('work', () => {
  it('is kept when the tab is closed at once, and shared by two windows', async () => {
    const { page, context } = await app.visit()
    await page.getByRole('link', { name: /Copper Lantern/ }).click()
    await page.getByRole('application').waitFor()
    const other = await context.newPage()
    await other.goto(page.url())
    await other.getByRole('application').waitFor()

    await write(page, 'R:0', 'torso', 1, 'chest pop')
    await other.locator('[data-line="R:0"] [aria-label^="chest pop"]').waitFor()
    await write(other, 'R:3', 'head', 1, 'nod')
    await page.locator('[data-line="R:3"] [aria-label^="nod"]').waitFor()
    // What came from the other window can be undone here, and goes back there.
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await other.locator('[data-line="R:3"] [aria-label^="nod"]').waitFor({ state: 'detached' })

    await write(page, 'R:2', 'torso', 5, 'rib circle')
    await page.close()
    const later = await context.newPage()
    await later.goto(other.url())
    await later.locator('[data-line="R:2"] [aria-label^="rib circle"]').waitFor()
    expect(await namesOn(later, 'R:0', 'torso')).toEqual(['chest pop, 1, torso'])
    await context.close()
  })

  it('of the first visit stays: the demo is loaded once and never over it', async () => {
    const { page, context } = await app.visit()
    await expect.poll(() => page.getByRole('article').count()).toBeGreaterThanOrEqual(4)
    await page.getByRole('article', { name: 'Long Swell' }).getByRole('button').click()
    await page.getByRole('menuitem', { name: 'Delete' }).click()
    await page.getByRole('article', { name: 'Long Swell' }).waitFor({ state: 'detached' })
    await page.reload()
    await page.getByRole('article', { name: 'Copper Lantern' }).waitFor()
    expect(await page.getByRole('article', { name: 'Long Swell' }).count()).toBe(0)
    await page.getByRole('textbox', { name: 'Search combinations' }).fill('BELLY lan')
    await expect.poll(() => page.getByRole('article').count()).toBe(1)
    await context.close()
  })
})
