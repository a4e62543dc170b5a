import { readFileSync } from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { canonical } from '../../src/core/sheet/canonical'
import { readSwayJson } from '../../src/core/sheet/swayJson'
import { type App, namesOn, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})
afterAll(() => app.stop())

/** What an instructor brings in her notebook: 32 counts, five layers, all that is hard to write. */
const SHEET = `sway 1
title   New combination
family  general
tempo   96, teach 64
lead    R
start   weight L, arms low, facing 0
pickup  1
move    lamp "Lamp" feet steps counts 2 sided side claims feet to on-R pattern "1 step R side; 1& close L; 2 step R side"

phrase A 8
  feet   <8 kick; 1 step side; 2 step cross-behind; 3 step side; 4 touch together;
         5 step side; 5& close; 6 step side; 7 close; 8 step in-place; 8a touch together
  hips   1-6 pelvic undulation; 7 hip drop as "plop"
  torso  7 chest pop
  arms   1-4 both high v; 5 both low v
  head   4 look L; 5 look front
phrase B 8
  feet   1-8 lamp
  hips   1-8 hip-bump
  torso  1-8 shoulder shimmy
  arms   1 both crown
  head   1 look R
order  A A B B`

async function saved(page: Page) {
  await page.locator('[data-save-state="saved"]').waitFor()
  await page.getByRole('button', { name: 'More', exact: true }).click()
  const download = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as file' }).click()
  const path = join(await mkdtemp(join(tmpdir(), 'sway-')), 'saved.sway.json')
  await (await download).saveAs(path)
  return canonical(readSwayJson(readFileSync(path, 'utf8')))
}

async function startNew(page: Page) {
  await page.getByRole('button', { name: 'New combination' }).click()
  await page.getByRole('application').waitFor()
  await page.getByRole('application').focus()
}

async function typeSheet(page: Page, sheet: string) {
  await page.keyboard.press('Control+s')
  const editor = page.getByRole('textbox', { name: 'Count sheet' })
  await editor.waitFor()
  await editor.click()
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  for (const [i, line] of sheet.split('\n').entries()) {
    if (i > 0) await page.keyboard.press('Enter')
    await page.keyboard.insertText(line)
    // What is offered is not wanted.
    await page.keyboard.press('Escape')
  }
}

describe('a notebook page', () => {
  it('typed as a sheet and written in the braid is the same combination', async () => {
    const one = await app.visit()
    await startNew(one.page)
    await typeSheet(one.page, SHEET)
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
    expect(await namesOn(page, 'R:0', 'feet')).toEqual([
      'kick R forward, feet',
      'step R side, feet',
      'step L cross-behind, feet',
      'step R side, feet',
      'touch L together, feet',
      'step L side, feet',
      'close R, feet',
      'step L side, feet',
      'close R, feet',
      'step L in-place, feet',
      'touch R together, feet',
    ])
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
