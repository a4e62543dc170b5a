import { readFileSync, writeFileSync } from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { canonical } from '../../src/core/sheet/canonical'
import { demo } from '../demo'
import { type App, namesOn, placeIn, startApp, typeSheet, write } from './app'
import { fingerOn } from './finger'
import { NOTEBOOK, NOTEBOOK_FEET, startNew } from './notebook'
import { savedFrom } from './saved'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const saved = async (page: Page) => canonical(await savedFrom(page))

describe('a notebook page', () => {
  it('as it was written is pasted, read over and taken; what no page says is placed by hand, and all of it is on paper', async () => {
    const { page, errors, context } = await app.visit()
    await page.getByRole('button', { name: 'From a page' }).click()
    await page.getByLabel('The page').fill(`Garden Door, 84 bpm, start right

A - in
1-4 hip circle
5-6: hip drop R
7, 8: hip lift L
1 step side R, 3 step L side, 5 step R side, 7 step L side

B
1-4 grapevine R
5-8 shimmy
arms in second`)
    await page.getByText('2 things to look at.').waitFor()
    await page.getByRole('button', { name: 'hip-circle-large cw' }).click()
    await page.getByRole('button', { name: 'twist-shimmy' }).click()
    await page.getByText('hips 5-8 twist-shimmy').waitFor()
    // A page that is not taken is here again.
    await page.reload()
    expect(await page.getByLabel('The page').inputValue()).toContain('Garden Door')
    await page.getByRole('button', { name: 'hip-circle-large cw' }).click()
    await page.getByRole('button', { name: 'twist-shimmy' }).click()
    await page.getByText('hips 5-8 twist-shimmy').waitFor()
    await page.getByRole('button', { name: 'Use it' }).click()
    const braid = page.getByRole('application')
    await braid.waitFor()
    await page.getByRole('heading', { name: 'Garden Door' }).waitFor()
    expect(await namesOn(page, 'R:0', 'hips')).toEqual([
      'large hip circle cw, 1-4, hips',
      'hip drop R, 5-6, hips',
      'hip lift L, 7, hips',
      'hip lift L, 8, hips',
    ])
    const place = async (count: string, typed: string, offer?: string) => {
      await braid.focus()
      await page.keyboard.press(count)
      await page.keyboard.type(typed)
      await page.locator('[role="option"][data-combobox-selected]').first().waitFor()
      if (offer) await page.getByRole('option', { name: offer }).click()
      else await page.keyboard.press('Enter')
    }
    await place('1', 'low')
    await place('2', 'knee twist R')
    await place('5', 'twisted right')
    await place('7', 'R fist', 'R fist')
    // An option for new dancers: in B nothing shakes.
    const optionsOf = async () => {
      await page.getByRole('button', { name: /^Phrase B,/ }).click()
      await page.getByRole('menuitem', { name: 'Options…' }).click()
    }
    await optionsOf()
    await page.getByLabel('Name of the new option').fill('still')
    await page.getByLabel('What the page says of it').fill('without the shimmy')
    await page.getByRole('button', { name: 'Add option' }).click()
    await page.getByText('What you change in it belongs to this option.').waitFor()
    await page.locator('[data-line="R:1"] [data-event]', { hasText: 'twist shimmy' }).click()
    await braid.focus()
    await page.keyboard.press('Delete')
    expect(await namesOn(page, 'R:1', 'hips')).toEqual([])
    await page.getByRole('button', { name: 'As it is written' }).click()
    expect(await namesOn(page, 'R:1', 'hips')).toEqual(['twist shimmy, 5-8, hips'])
    // What leads into B, over the end of A; and a phrase that is like B but for that.
    await page.getByRole('button', { name: /^Phrase B,/ }).click()
    await page.getByRole('menuitem', { name: 'Name and counts…' }).click()
    await page.getByRole('textbox', { name: 'Counts that lead into it' }).fill('1')
    await page.keyboard.press('Enter')
    await page.keyboard.press('Escape')
    await page.getByRole('dialog').waitFor({ state: 'detached' })
    await page.getByRole('menu').waitFor({ state: 'detached' })
    // The first count of the line is the one before count 1 now.
    await write(page, 'R:1', 'feet', 1, 'kick R forward')
    for (const line of ['R:0', 'R:1'])
      await expect.poll(() => namesOn(page, line, 'feet')).toContain('kick R forward, feet')
    await page.getByRole('button', { name: /^Phrase B,/ }).click()
    await page.getByRole('menuitem', { name: 'New phrase like it, behind it' }).click()
    await page.getByText('like B', { exact: false }).first().waitFor()
    const written = await saved(page)
    expect(written.phrases[1]?.events.some(({ at }) => at === -12)).toBe(true)
    expect(written.phrases[2]?.like).toEqual({ phrase: 'B' })
    expect(written.phrases[1]?.options).toEqual([
      {
        name: 'still',
        kind: 'easier',
        words: 'without the shimmy',
        events: [],
        without: [{ layer: 'hips', at: 48 }],
      },
    ])
    await page.emulateMedia({ media: 'print' })
    const paper = await page
      .locator('main')
      .locator('[data-event] text, [data-event] + text, section p, text')
      .evaluateAll((all) => all.map((one) => one.textContent ?? '').join('\n'))
    for (const said of ['knee twist R', 'twisted right', 'R fist', 'low', 'without the shimmy'])
      expect(paper, said).toContain(said)
    const pdf = (await page.pdf({ format: 'A4', preferCSSPageSize: true })).toString('latin1')
    expect(pdf.match(/\/Type \/Page\b/g)?.length).toBeGreaterThan(0)
    expect(errors).toEqual([])
    await context.close()
  })

  it('typed as a sheet and written in the braid is the same combination', async () => {
    const one = await app.visit()
    await startNew(one.page)
    await typeSheet(one.page, NOTEBOOK)
    await one.page.getByText('All of it is read.').waitFor()
    const typed = await saved(one.page)
    expect(one.errors).toEqual([])
    await one.context.close()

    const two = await app.visit()
    const { page } = two
    await startNew(page)
    let presses = 0
    /** Key presses one after another; what is in quotes is typed letter by letter. */
    const keys = async (...list: string[]) => {
      for (const key of list) {
        const isText = key.startsWith('"')
        presses += isText ? key.length - 1 : 1
        if (!isText) await page.keyboard.press(key)
        else {
          await page.keyboard.type(key.slice(1))
          const found = page.locator('[role="option"][data-combobox-selected]').first()
          await found.waitFor().catch(() => {
            throw new Error(`nothing was found for ${key}”`)
          })
        }
      }
    }
    const click = async (name: string, role: 'button' | 'menuitem' | 'textbox' = 'button') => {
      presses++
      await page.getByRole(role, { name, exact: true }).click()
    }
    const menuOf = async (phrase: string) => {
      presses++
      await page
        .getByRole('button', { name: new RegExp(`^Phrase ${phrase},`) })
        .first()
        .click()
    }

    // A pickup of one count, then the feet: a figure opened, a quick pair, a quarter.
    await click('Tempo, families and start')
    await page.getByRole('textbox', { name: 'Pickup, counts' }).fill('1')
    presses += 2
    await keys('Escape')
    await page.getByRole('application').focus()
    await keys('ArrowLeft', '"ki', 'Tab', '"vin', 'Enter', 'Control+o', '5')
    await keys('"st s', 'Tab', 'Control+ArrowLeft', '"cl', 'Tab', '"s', 'Tab', '"cl', 'Tab')
    await keys('"st i', 'Enter', 'Control+Shift+ArrowRight', 'Control+Shift+ArrowRight')
    await keys('Control+Shift+ArrowRight', '"tog', 'Enter')
    expect(await namesOn(page, 'R:0', 'feet')).toEqual(NOTEBOOK_FEET)
    // An own move of the quick side step.
    await keys('5', 'Shift+ArrowRight', 'Control+m')
    await page.getByRole('textbox', { name: 'What the class calls it' }).fill('Lamp')
    presses += 5
    await page.getByLabel('Put it in place of what is selected').uncheck()
    presses++
    await keys('Enter')
    await page.getByRole('dialog').waitFor({ state: 'detached' })
    // The other layers of A, from the hips up.
    await keys('ArrowUp', '1')
    for (let i = 0; i < 5; i++) await keys('Shift+ArrowRight')
    await keys('"und', 'Enter', '7', '"drop', 'Enter')
    presses += 6
    await page.getByText('More about it').click()
    await page.getByRole('textbox', { name: 'Called here' }).fill('plop')
    await page.getByRole('application').focus()
    await keys('ArrowUp', '"pop', 'Enter', 'ArrowUp', '1')
    for (let i = 0; i < 3; i++) await keys('Shift+ArrowRight')
    await keys('"hi', 'Tab', '"lo', 'Enter', 'ArrowUp', '4', '"l', 'Tab', '"fr', 'Enter')
    // A second phrase on the own move, then both once more.
    await click('Add a phrase')
    await page.getByRole('application').focus()
    await keys('8', 'ArrowRight', '"r', 'Enter', 'ArrowDown', '"cr', 'Enter', 'ArrowDown', '1')
    for (let i = 0; i < 7; i++) await keys('Shift+ArrowRight')
    await keys('"shi', 'Enter', 'ArrowDown', '"bump', 'Enter', 'ArrowDown', '"lamp', 'Enter')
    for (const phrase of ['A', 'B']) {
      await menuOf(phrase)
      await click('Dance it again', 'menuitem')
      await page.getByRole('menu').waitFor({ state: 'detached' })
    }
    console.log(`Key presses and clicks for 32 counts on five layers: ${presses}`)
    expect(presses).toBeLessThan(150)
    expect(await saved(page)).toEqual(typed)
    expect(two.errors).toEqual([])
    await two.context.close()
  })
})

/** Opens a demo combination in the studio. */
async function open(page: Page, title: string) {
  await page.getByRole('link', { name: new RegExp(title) }).click()
  await page.getByRole('application').waitFor()
  await page.getByRole('application').focus()
}
const press = async (page: Page, ...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key)
}

describe('the sheet beside the braid', () => {
  it('follows the braid, marks what it cannot read and where the cursor is, and keeps it all', async () => {
    const { page, context, errors } = await app.visit()
    await open(page, 'Long Swell')
    await press(page, 'Control+s')
    const editor = page.getByRole('textbox', { name: 'Count sheet' })
    const text = async () => ((await editor.textContent()) ?? '').replace(/\s+/g, ' ')
    await editor.waitFor()
    await expect.poll(text).toContain('Long Swell')
    // What is done in the braid is in the sheet.
    await write(page, 'R:1', 'torso', 1, 'chest pop')
    await expect.poll(text).toContain('torso 1 chest-pop')
    await expect.poll(() => page.locator('.cm-place').textContent()).toBe('1 chest-pop')
    // What is typed is in the braid; what can't be read is marked, kept and said.
    await editor.getByText('chest-pop').click()
    await press(page, 'End')
    await page.keyboard.insertText('; 3 rib-circel; 5 chest-lift')
    await page.getByText(/“rib-circel” is not known here. Did you mean rib-circle/).waitFor()
    expect(await page.locator('.cm-lintRange-error').textContent()).toBe('rib-circel')
    expect(await namesOn(page, 'R:1', 'torso')).toEqual([
      'chest pop, 1, torso',
      'chest lift, 5, torso',
    ])
    // The cursor in the sheet selects in the braid.
    await editor.getByText('chest-lift').click()
    await press(page, 'End')
    await expect
      .poll(() => page.locator('#braid-place').textContent())
      .toMatch(/^B5, Torso: chest lift/)
    await page.locator('[data-save-state="saved"]').waitFor()
    await page.reload()
    await page.getByRole('application').focus()
    await press(page, 'Control+s')
    await page.getByText(/“rib-circel” is not known here/).waitFor()
    // Undo covers the sheet, also from inside it; a text that is no sheet at all stays as typed.
    await editor.click()
    await press(page, 'Control+Home')
    await page.keyboard.insertText('my notes ')
    await page.getByText(/This is no count sheet.*kept as you typed it/).waitFor()
    await page.reload()
    await page.getByRole('application').focus()
    await press(page, 'Control+s')
    await page.getByText(/This is no count sheet/).waitFor()
    expect(await text()).toMatch(/^my notes sway 1/)
    await editor.click()
    await press(page, 'Control+Home')
    for (let i = 0; i < 9; i++) await press(page, 'Delete')
    await page.getByText(/“rib-circel”/).waitFor()
    await press(page, 'Control+End')
    await page.keyboard.insertText('rest 8')
    await expect.poll(text).toContain('rest 8')
    await press(page, 'Control+z')
    await expect.poll(text).not.toContain('rest 8')
    expect(errors).toEqual([])
    await context.close()
  })
})

describe('copying', () => {
  it('takes blocks of layers over phrases: pasted, mirrored, one layer, doubled, repeated, undone', async () => {
    const { page, context } = await app.visit()
    await startNew(page)
    await press(page, 'Control+s')
    const editor = page.getByRole('textbox', { name: 'Count sheet' })
    await editor.click()
    await press(page, 'Control+a', 'Delete')
    await page.keyboard.insertText('sway 1')
    for (const line of [
      'phrase A 8',
      ' feet 1 step side; 2 touch',
      ' hips 2 hip drop L',
      ' arms 1 R high-v, L hips',
      'phrase B 8',
    ]) {
      await press(page, 'Escape', 'Enter')
      await page.keyboard.insertText(line)
    }
    await page.getByText('All of it is read.').waitFor()
    await page.getByRole('button', { name: 'Body', exact: true }).click()
    await page.getByRole('application').focus()
    const all = async (line: string) => [
      ...(await namesOn(page, line, 'arms')),
      ...(await namesOn(page, line, 'hips')),
      ...(await namesOn(page, line, 'feet')),
    ]
    const message = (words: RegExp) => page.getByText(words).waitFor()
    // Two counts of arms to feet, once more right behind, then to the end.
    await press(
      page,
      'Control+Home',
      '1',
      'Shift+ArrowUp',
      'Shift+ArrowUp',
      'Shift+ArrowUp',
      'Shift+ArrowRight',
    )
    await press(page, 'Control+d')
    await message(/4 moves pasted/)
    expect(await namesOn(page, 'R:0', 'feet')).toHaveLength(4)
    await press(
      page,
      'Control+z',
      '1',
      'Shift+ArrowUp',
      'Shift+ArrowUp',
      'Shift+ArrowUp',
      'Shift+ArrowRight',
      'Control+e',
    )
    await message(/Repeated 3 times/)
    expect(await namesOn(page, 'R:0', 'feet')).toHaveLength(8)
    expect(await namesOn(page, 'R:0', 'hips')).toHaveLength(4)
    await press(page, 'Control+z')
    // The other side of it into the next phrase, and only one layer of it.
    await press(
      page,
      '1',
      'Shift+ArrowUp',
      'Shift+ArrowUp',
      'Shift+ArrowUp',
      'Shift+ArrowRight',
      'Control+c',
    )
    await message(/4 moves copied/)
    await press(page, '8', 'ArrowRight', 'Control+Shift+v')
    expect(await all('R:1')).toEqual([
      'R hips, L high-v, 1, arms',
      'hip drop R, 2, hips',
      'step L side, feet',
      'touch R in-place, feet',
    ])
    await press(page, '5', 'Control+Alt+v')
    expect(await namesOn(page, 'R:1', 'feet')).toHaveLength(4)
    expect(await namesOn(page, 'R:1', 'hips')).toHaveLength(1)
    // What has no room is said.
    await press(page, '8', 'Control+v')
    await message(/2 pasted; 2 had no room/)
    // Everything, over both phrases, cut and brought back.
    await press(page, 'Control+a', 'Control+x')
    expect([...(await all('R:0')), ...(await all('R:1'))]).toEqual([])
    await press(page, 'Control+z')
    expect((await all('R:1')).length).toBeGreaterThan(5)
    await context.close()
  })
})

describe('dragging', () => {
  it('shows where it would land, into another phrase too, and takes a move from the list', async () => {
    const { page, context } = await app.visit()
    await open(page, 'Copper Lantern')
    const from = await placeIn(page, 'R:3', 'hips', 5)
    const to = await placeIn(page, 'R:0', 'hips', 7)
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(to.x, to.y, { steps: 8 })
    const ghost = await page.locator('[data-ghost]').boundingBox()
    expect(ghost && ghost.y < to.y && ghost.y + ghost.height > to.y).toBe(true)
    expect(Math.abs((ghost?.x ?? 0) - to.x)).toBeLessThan(60)
    await page.mouse.up()
    expect(await page.locator('[data-ghost]').count()).toBe(0)
    expect(await namesOn(page, 'R:3', 'hips')).toEqual(['hip bump R, 7, hips'])
    expect(await namesOn(page, 'R:0', 'hips')).toContain('hip bump L, 7, hips')
    await press(page, 'Control+z')
    // From the list: only what suits the place, dropped on another count.
    await page.getByRole('button', { name: 'Moves', exact: true }).click()
    const place = await placeIn(page, 'R:0', 'torso', 3)
    await page.mouse.click(place.x, place.y)
    await page.getByRole('textbox', { name: 'Search moves' }).fill('chest drop')
    const row = page.getByRole('option', { name: /Chest drop/ })
    const target = page.locator('[data-line="R:0"] [data-lane="torso"]')
    const box = await target.boundingBox()
    if (!box) throw new Error('no torso')
    await row.dragTo(target, { targetPosition: { x: (box.width / 8) * 5.1, y: box.height / 2 } })
    expect(await namesOn(page, 'R:0', 'torso')).toEqual(['chest drop, 6, torso'])
    await context.close()
  })
})

describe('dragging by a finger', () => {
  it('moves what it rests on, carries from the list, and scrolls where it goes on at once', async () => {
    const { page, context, errors } = await app.visit({
      hasTouch: true,
      viewport: { width: 1280, height: 620 },
    })
    await open(page, 'Copper Lantern')
    const finger = await fingerOn(page)
    const hips = () => namesOn(page, 'R:3', 'hips')
    const before = await hips()
    const from = await placeIn(page, 'R:3', 'hips', 5)
    // Down at once: the page goes along, and nothing is moved or picked.
    const top = () =>
      page.evaluate(() => document.querySelector('[data-line]')?.getBoundingClientRect().top)
    const place = () => page.locator('#braid-place').textContent()
    const [wasAt, wasTop] = [await place(), await top()]
    await finger.drag(from, { x: from.x, y: from.y + 120 })
    await expect.poll(top).toBeGreaterThan((wasTop ?? 0) + 60)
    expect(await hips()).toEqual(before)
    expect(await place()).toBe(wasAt)
    await page
      .locator('[data-line="R:3"]')
      .evaluate((line) => line.scrollIntoView({ block: 'center' }))
    // A page that was pushed goes on for a while.
    for (let before = Number.NaN, same = 0; same < 4; await page.waitForTimeout(200)) {
      const now = (await top()) ?? 0
      same = now === before ? same + 1 : 0
      before = now
    }
    const [there, aim] = [
      await placeIn(page, 'R:3', 'hips', 5),
      await placeIn(page, 'R:3', 'hips', 3),
    ]
    // A browser that waits too long for a busy page takes the finger back: then nothing has happened.
    const moved = ['hip bump L, 3, hips', 'hip bump R, 7, hips']
    for (let i = 0; i < 3 && (await hips()).join() !== moved.join(); i++) {
      expect(await hips()).toEqual(before)
      await finger.drag(there, aim, { rest: 900 })
      await page.waitForTimeout(500)
    }
    await expect.poll(hips).toEqual(moved)
    // A touch picks.
    await page.touchscreen.tap(there.x, there.y)
    await expect.poll(place).toMatch(/^D5, Hips/)
    await page.getByRole('button', { name: 'Close what fits here' }).tap()
    await press(page, 'Control+z')
    await expect.poll(hips).toEqual(before)
    // Taken back in the middle: nothing has happened.
    await finger.drag(there, aim, { rest: 900, isTakenBack: true })
    expect(await page.locator('[data-ghost]').count()).toBe(0)
    expect(await hips()).toEqual(before)

    await page.getByRole('button', { name: 'Moves', exact: true }).tap()
    const torso = await placeIn(page, 'R:0', 'torso', 3)
    await page.touchscreen.tap(torso.x, torso.y)
    await page.getByRole('textbox', { name: 'Search moves' }).fill('chest drop')
    const row = await page.getByRole('option', { name: /Chest drop/ }).boundingBox()
    if (!row) throw new Error('no chest drop')
    const target = await placeIn(page, 'R:0', 'torso', 6)
    await finger.drag({ x: row.x + 40, y: row.y + row.height / 2 }, target, { rest: 900 })
    await expect.poll(() => namesOn(page, 'R:0', 'torso')).toEqual(['chest drop, 6, torso'])
    expect(errors).toEqual([])
    await context.close()
  })
})

describe('the vocabulary', () => {
  it('is searched and filtered; a name the class uses follows everywhere; own moves can go', async () => {
    const { page, context, errors } = await app.visit()
    await page.getByRole('link', { name: 'Moves', exact: true }).click()
    await page.getByRole('textbox', { name: 'Search moves' }).fill('HIP DROP')
    await page.getByRole('option', { name: /^Hip drop 1/ }).click()
    const detail = page.getByRole('region', { name: 'Hip drop', exact: true })
    expect(await detail.textContent()).toMatch(/How.*Watch.*harder/s)
    await page.getByRole('button', { name: 'Make it a favourite' }).click()
    await page.getByRole('textbox', { name: 'What the class calls it' }).fill('plop')
    await press(page, 'Enter')
    await page.getByRole('textbox', { name: 'Search moves' }).fill('')
    await page.getByLabel('Which moves').selectOption('own')
    const listed = page.getByRole('listbox', { name: 'Moves' }).getByRole('option')
    await expect.poll(() => listed.count()).toBe(1)
    await page.getByLabel('Which moves').selectOption('favourites')
    await page.getByRole('option', { name: /plop/ }).waitFor()
    await page.getByLabel('Which moves').selectOption('all')
    await page.getByLabel('Layer').selectOption('feet')
    await page.getByLabel('Demand').selectOption('1')
    await page
      .getByRole('option', { name: /Step-touch/ })
      .first()
      .click()
    expect(
      await page
        .getByRole('group', { name: /Phrase A/ })
        .getByRole('img')
        .count(),
    ).toBe(2)

    // An own move, placed, then taken out of the list: what uses it goes on.
    await page.getByRole('button', { name: 'New own step' }).click()
    const form = page.getByRole('dialog')
    await form.getByRole('textbox', { name: 'What the class calls it' }).fill('Glow step')
    await page.getByRole('textbox', { name: 'Its steps' }).fill('1 step R side; 2 stumble')
    await page
      .getByText(/“|expected/i)
      .first()
      .waitFor()
    expect(await page.getByRole('button', { name: 'Keep this move' }).isDisabled()).toBe(true)
    await page.getByRole('textbox', { name: 'Its steps' }).fill('1 step R side; 2 touch L together')
    await page.getByRole('button', { name: 'Keep this move' }).click()
    await page.getByRole('link', { name: 'Combinations', exact: true }).click()
    await open(page, 'Copper Lantern')
    expect(await namesOn(page, 'R:2', 'hips')).toContain('plop R, 7, hips')
    await write(page, 'R:3', 'feet', 1, 'glow')
    await page.locator('[data-save-state="saved"]').waitFor()
    await page.getByRole('link', { name: 'Moves', exact: true }).click()
    await page.getByRole('textbox', { name: 'Search moves' }).fill('glow')
    await page.getByRole('option', { name: /Glow step/ }).click()
    await page.getByRole('button', { name: 'Delete this own move' }).click()
    await page.getByText(/Combinations that use it keep it/).waitFor()
    await page.goBack()
    await page.getByRole('application').waitFor()
    expect((await namesOn(page, 'R:3', 'feet'))[0]).toBe('step R side, feet')
    expect(await page.getByText(/no move called/).count()).toBe(0)
    expect(errors).toEqual([])
    await context.close()
  })
})

describe('files', () => {
  it('come several at once by button, drop and paste, each reported; a backup brings all back', async () => {
    const { page, context, errors } = await app.visit()
    const folder = await mkdtemp(join(tmpdir(), 'sway-'))
    const file = (name: string, text: string) => {
      const path = join(folder, name)
      writeFileSync(path, text)
      return path
    }
    await page.setInputFiles('input[type="file"]', [
      file('ebb.sway', 'sway 1\ntitle Ebb\nphrase A 4\n feet 1 step; 2 tuoch'),
      file('rows.csv', 'phrase,count,feet\nA,1,step side\nA,2,touch\n'),
      file('soup.txt', 'carrots'),
    ])
    const reports = page.getByRole('region', { name: 'Opened files' })
    await reports.getByText(/“Ebb” is here now. One place in it could not be read/).waitFor()
    await reports.getByText(/“rows” is here now/).waitFor()
    await reports.getByText(/“soup.txt” is no combination/).waitFor()
    // Dropped, and pasted.
    await page.evaluate(() => {
      const transfer = new DataTransfer()
      transfer.items.add(new File(['sway 1\ntitle Dropped\nphrase A 4'], 'dropped.sway'))
      const target = document.querySelector('main')
      target?.dispatchEvent(new DragEvent('dragover', { dataTransfer: transfer, bubbles: true }))
      target?.dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true }))
    })
    await page.getByRole('article', { name: 'Dropped' }).waitFor()
    await page.evaluate(() => {
      const transfer = new DataTransfer()
      transfer.setData('text', 'sway 1\ntitle Pasted\nphrase A 4\n feet 1 step side')
      document
        .querySelector('main')
        ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true }))
    })
    await page.getByRole('article', { name: 'Pasted' }).waitFor()
    // Everything in one zip, brought back where there is nothing but the demo.
    await page.getByRole('button', { name: 'Backup' }).click()
    const download = page.waitForEvent('download')
    await page.getByRole('menuitem', { name: 'Save everything as one zip' }).click()
    const zip = join(folder, 'all.zip')
    await (await download).saveAs(zip)
    const there = await app.visit()
    await there.page.setInputFiles('input[type="file"]', zip)
    await there.page.getByText(/own names and moves came in/).waitFor()
    await there.page.getByRole('article', { name: 'Pasted' }).waitFor()
    expect(await there.page.getByText(/is here already, just so/).count()).toBe(demo.length)
    // The other forms of one.
    for (const [item, begins] of [
      ['Save as count sheet', /^sway 1\n/],
      ['Save as rows (CSV)', /^\u{feff}?.{0,3}phrase,count,feet/u],
      ['Save captions (WebVTT)', /^WEBVTT/],
      ['Save clicks and cues (MIDI)', /^MThd/],
    ] as const) {
      await there.page.getByRole('article', { name: 'Pasted' }).getByRole('button').click()
      const saving = there.page.waitForEvent('download')
      await there.page.getByRole('menuitem', { name: item }).click()
      const path = join(folder, (await saving).suggestedFilename())
      await (await saving).saveAs(path)
      expect(readFileSync(path, 'latin1')).toMatch(begins)
    }
    expect([...errors, ...there.errors]).toEqual([])
    await context.close()
    await there.context.close()
  })
})

describe('counts as they are danced', () => {
  it('thirds and quarters by key, counts in and out, double time or a reason why not, a pickup that sounds', async () => {
    const { page, context, errors } = await app.visit()
    await startNew(page)
    const place = () => page.locator('#braid-place').textContent()
    const message = (words: RegExp) => page.getByText(words).waitFor()
    const type = async (text: string, end = 'Enter') => {
      await page.keyboard.type(text)
      await page.locator('[role="option"][data-combobox-selected]').first().waitFor()
      await press(page, end)
    }
    // Three steps on one count, then four.
    await type('step s')
    await press(page, 'Control+.')
    await type('cl')
    await press(page, 'Control+.')
    await type('step s')
    expect(await place()).toMatch(/^A1\+8, Feet: step R side/)
    await press(page, '3')
    for (const step of ['step s', 'cl', 'step s', 'touch t']) {
      await type(step)
      await press(page, 'Control+Shift+ArrowRight')
    }
    // The ruler names the quarters and marks the thirds.
    const words = await page
      .locator('[data-line="R:0"] text')
      .evaluateAll((texts) => texts.map((text) => text.textContent))
    expect(words).toEqual(expect.arrayContaining(['e', 'a', '·']))
    expect(await namesOn(page, 'R:0', 'feet')).toHaveLength(7)
    // A third and a half can be halved, a quarter can't: that is said, and nothing is changed.
    await page.getByRole('button', { name: /^Phrase A,/ }).click()
    await page.getByRole('menuitem', { name: 'Double time, in half the counts' }).click()
    await message(/would fall between the smallest parts of a count/)
    expect(await page.locator('[data-line="R:0"] [data-count]').count()).toBe(8)
    await page.getByRole('application').focus()
    await press(page, '3', 'Control+Backspace', '1', 'Control+Enter')
    expect(await page.locator('[data-line="R:0"] [data-count]').count()).toBe(8)
    expect(await place()).toMatch(/^A1, Feet: empty/)
    await press(page, 'Control+k')
    // The list of commands is there when its field has the focus.
    await page.locator('[role="dialog"] input:focus').waitFor()
    await page.keyboard.type('twice the')
    await press(page, 'Enter')
    await expect.poll(() => page.locator('[data-line="R:0"] [data-count]').count()).toBe(16)
    await page.getByRole('dialog').waitFor({ state: 'detached' })
    await page.getByRole('application').focus()
    await press(page, 'Control+z', 'Control+z', 'Control+z')
    expect(await namesOn(page, 'R:0', 'feet')).toHaveLength(7)
    // A pickup: in its own place before 1, counted in and lit in the braid.
    await page.getByRole('button', { name: 'Tempo, families and start' }).click()
    await page.getByRole('textbox', { name: 'Pickup, counts' }).fill('1')
    await press(page, 'Escape')
    await page.getByRole('application').focus()
    await press(page, '1', 'ArrowLeft')
    await type('touch s')
    expect(await place()).toMatch(/^A<8, Feet: touch R side/)
    expect(await page.locator('[data-line="R:0"] [data-count="-1"]').textContent()).toBe('8')
    await press(page, 'Space')
    await page.locator('[data-count="-1"][data-lit="true"]').waitFor()
    await page.locator('[data-count="0"][data-lit="true"]').waitFor()
    await press(page, 'Space')
    // Every option of a move, by hand, and in the sheet.
    await press(page, 'ArrowUp', '5')
    await type('small hip c')
    await page.getByText('More about it').click()
    await page.getByRole('textbox', { name: 'Called here' }).fill('ring')
    await page.getByRole('textbox', { name: 'Words or meaning' }).fill('the moon')
    await page.getByRole('textbox', { name: 'Size %' }).fill('70')
    await page.getByLabel('Harder instead').selectOption('move interior-circle')
    await page.getByText('a flourish that may be left out').click()
    await page.getByRole('button', { name: 'Sheet', exact: true }).click()
    const editor = page.getByRole('textbox', { name: 'Count sheet' })
    await expect
      .poll(async () => (await editor.textContent()) ?? '')
      .toContain(
        '~5 hip-circle-small cw size 70% as "ring" harder interior-circle words "the moon"',
      )
    expect(errors).toEqual([])
    await context.close()
  })
})
