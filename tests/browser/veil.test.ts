import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, expectAccessible, startApp, typeSheet } from './app'
import { savedSheet } from './saved'
import { canvasOf } from './stage'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const SHEET = `sway 1
title Open air
tempo 84
start arms high-v
phrase A 8
 feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together`

const right = async (page: Page, counts: number) => {
  await page.getByRole('application').focus()
  for (let i = 0; i < counts; i++) await page.keyboard.press('ArrowRight')
}

describe('a veil phrase', () => {
  it('is written on empty hands, mended, printed, and undone to the last step', async () => {
    const { page, errors, outside } = await app.visit()
    await page.getByRole('button', { name: 'New combination' }).click()
    await page.getByRole('application').waitFor()
    await page.getByRole('application').focus()
    await typeSheet(page, SHEET)
    await page.locator('[data-line="R:0"] [data-event]').nth(7).waitFor()
    await page.getByRole('button', { name: 'Body', exact: true }).click()
    const empty = await savedSheet(page)

    // With nothing in the hands nothing is done with it, and that is said.
    await page.getByRole('application').focus()
    await page.keyboard.press('Home')
    await page.keyboard.press('Alt+c')
    await page.getByText(/Nothing is carried/).waitFor()

    // What is carried: a veil, named.
    await page.getByRole('button', { name: 'More', exact: true }).click()
    await page.getByRole('menuitem', { name: 'What is carried…' }).click()
    const form = page.getByRole('dialog', { name: /^What is carried in/ })
    await form.getByRole('button', { name: 'A veil' }).click()
    await form.getByLabel('Name').fill('Foam')
    await expectAccessible(page)
    await page.keyboard.press('Escape')
    await form.waitFor({ state: 'hidden' })
    expect(await page.locator('[data-hand]').count()).toBe(2)

    // Over the head on 1 and 2: it wants the hair out of the way, and the button says so before.
    await right(page, 0)
    await page.keyboard.press('Alt+c')
    const card = page.getByRole('region', { name: 'What is done with it' })
    await card.getByLabel('What is done', { exact: true }).selectOption('over')
    await card.getByRole('button', { name: 'Half a count longer' }).click()
    await card.getByRole('button', { name: 'Half a count longer' }).click()
    expect(await card.getByText(/Foam, counts 1-2/).count()).toBe(1)
    const unready = page.locator('[data-code="prop.unready"]')
    await unready.getByRole('button').first().click()
    await unready.getByRole('button', { name: /^ready hair-in/ }).click()
    await unready.waitFor({ state: 'detached' })

    // One hand lets go, and a frame wants two: it can't be danced, and is mended by its button.
    await page.getByRole('application').focus()
    await page.keyboard.press('Home')
    await right(page, 3)
    await page.keyboard.press('Alt+c')
    await card.getByLabel('What is done', { exact: true }).selectOption('let-go')
    await card.getByLabel('Which hand').selectOption('L')
    await card.getByRole('button', { name: 'Close' }).click()
    await right(page, 2)
    await page.keyboard.press('Alt+c')
    await card.getByLabel('What is done', { exact: true }).selectOption('frame')
    const fault = page.locator('[data-code="prop.two-hands"][data-severity="fault"]')
    await fault.getByRole('button').first().click()
    await expectAccessible(page)
    await fault.getByRole('button', { name: /^take it with the left hand/ }).click()
    await fault.waitFor({ state: 'detached' })
    const sheet = await savedSheet(page)
    expect(sheet).toMatch(/^sway 2\n/)
    expect(sheet).toMatch(
      /carry +veil "Foam" 2\.5 x 1\.1 behind, R top-R pinch, L top-L pinch, ready hair-in/,
    )
    expect(sheet).toMatch(/prop +1-2 over; 4 let-go L; 5 take L; 6 frame/)

    // Both hands again, drawn as bars; the other side has the other hand free between.
    const bars = (side: string) =>
      page
        .locator(`[data-line="${side}:0"] [data-hand]`)
        .evaluateAll((all) => all.map((one) => one.getAttribute('data-hand')))
    expect(await bars('R')).toEqual(['R', 'L', 'L'])
    await page.getByRole('button', { name: 'Left side', exact: true }).click()
    expect(await bars('L')).toEqual(['R', 'R', 'L'])
    await page.getByRole('button', { name: 'Right side', exact: true }).click()

    // On paper its line is there, and what only works on a screen is not.
    await page.emulateMedia({ media: 'print' })
    expect(await page.locator('[data-act]').first().isVisible()).toBe(true)
    expect(await page.getByRole('group', { name: 'What is carried' }).isVisible()).toBe(false)
    await page.emulateMedia({ media: 'screen' })

    // The page to hand out says it in words, in a window beside this one.
    await page.locator('[data-save-state="saved"]').waitFor()
    const beside = await page.context().newPage()
    await beside.addInitScript(() => {
      Object.assign(window, {
        print: () => {
          document.body.dataset.printed = document.querySelector('article')?.textContent ?? ''
        },
      })
    })
    await beside.goto(`${app.address}${new URL(page.url()).pathname}/teach`)
    await beside.getByRole('list', { name: 'Steps' }).getByRole('button').last().click()
    const first = beside.locator('[data-row]').first()
    await expect.poll(() => first.textContent()).toContain('Foam: over the head')
    await beside.getByRole('link', { name: 'Plan a class of it' }).click()
    await beside.getByRole('button', { name: 'Print' }).click()
    await beside.getByRole('menuitem', { name: /^Count sheet of Open air/ }).click()
    await beside.locator('body[data-printed]').waitFor()
    const printed = await beside.evaluate(() => document.body.dataset.printed ?? '')
    for (const words of ['Foam: over the head', 'Foam: let go, left hand', 'Foam: frame'])
      expect(printed).toContain(words)
    await beside.close()

    // Undone to empty hands.
    const undo = page.getByRole('button', { name: 'Undo', exact: true })
    const bar = page.getByRole('group', { name: 'What is carried' })
    for (let i = 0; i < 60 && (await bar.count()) > 0; i++) await undo.click()
    expect(await page.locator('[data-hand]').count()).toBe(0)
    expect(await savedSheet(page)).toBe(empty)
    expect(outside).toEqual([])
    expect(errors).toEqual([])
  })

  it('is seen: the cloth is drawn, and goes with the hands', async () => {
    const { page, errors } = await app.visit({ inSpace: true })
    await page.getByRole('link', { name: 'Open the Window' }).click()
    await page.getByRole('application').waitFor()
    const picture = canvasOf(page)
    await picture.waitFor()
    await page.getByRole('application').focus()
    await page.keyboard.press('Home')
    const before = await picture.screenshot()
    for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowRight')
    await expect.poll(async () => (await picture.screenshot()).equals(before)).toBe(false)
    // Nothing of what is done is lost in the sheet.
    const sheet = await savedSheet(page)
    expect(sheet).toMatch(
      /prop +1-2 over to front; 3-4 frame; 5-6 carry; 7 round cue "wait for it"/,
    )
    expect(errors).toEqual([])
  })
})
