import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, expectAccessible, startApp, typeSheet } from './app'
import { savedSheet } from './saved'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** An ordinary eight for one. */
const SHEET = `sway 1
title Two ways
tempo 96
phrase A 8
 feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together`

const dancersForm = (page: Page) => page.getByRole('dialog', { name: /^Dancers of/ })

describe('a duet', () => {
  it('grows from a combination for one, is mended, danced alone and printed, and undone to the last step', async () => {
    const { page, errors, outside } = await app.visit()
    await page.getByRole('button', { name: 'New combination' }).click()
    await page.getByRole('application').waitFor()
    await page.getByRole('application').focus()
    await typeSheet(page, SHEET)
    await page.locator('[data-line="R:0"] [data-event]').nth(7).waitFor()
    await page.getByRole('button', { name: 'Body', exact: true }).click()
    const alone = await savedSheet(page)

    // For two: all dance it together.
    await page.getByRole('button', { name: 'More', exact: true }).click()
    await page.getByRole('menuitem', { name: 'Dancers…' }).click()
    await page.getByRole('button', { name: 'Make it for two dancers' }).click()
    const form = dancersForm(page)
    await form.getByLabel('Name').first().fill('Amber')
    await form.getByLabel('Name').nth(1).fill('Blue')
    await expectAccessible(page)
    await page.keyboard.press('Escape')
    await form.waitFor({ state: 'hidden' })
    expect(await page.locator('[data-own]').count()).toBe(0)

    // One count differs: Alt 2, and what is typed is Blue's.
    await page.getByRole('application').focus()
    await page.keyboard.press('Alt+2')
    const bar = page.getByRole('group', { name: 'For whom it is' })
    expect(await bar.getByRole('button', { name: 'Blue' }).getAttribute('aria-pressed')).toBe(
      'true',
    )
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
    await page.keyboard.type('step back')
    await page.keyboard.press('Enter')
    await page.locator('[data-own="2"]').waitFor()
    await page.getByRole('application').focus()
    await page.keyboard.press('Alt+0')

    // Two hands on counts 1 to 4, and a change of places that is too far: there a fault of reach appears.
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowLeft')
    await page.keyboard.press('Alt+t')
    const card = page.getByRole('region', { name: 'What they do together' })
    await card.waitFor()
    for (let i = 0; i < 6; i++)
      await card.getByRole('button', { name: 'Half a count longer' }).click()
    expect(await card.getByText(/counts 1-4/).count()).toBe(1)
    await card.getByLabel('Grip').selectOption('fingers')
    await card.getByRole('button', { name: 'Close' }).click()
    await page.getByRole('button', { name: 'Dancers…' }).click()
    await form.getByLabel('Metres right').first().fill('-1')
    await form.getByLabel('Metres right').first().press('Tab')
    await form.getByLabel('Metres right').nth(1).fill('1')
    await form.getByLabel('Metres right').nth(1).press('Tab')
    await page.keyboard.press('Escape')
    await form.waitFor({ state: 'hidden' })
    const reach = page.locator('[data-code="pair.reach"][data-severity="fault"]')
    await reach.waitFor()
    await reach.getByRole('button').first().click()
    await reach.getByRole('button', { name: /^stand .* m apart at the start$/ }).click()
    await reach.waitFor({ state: 'detached' })
    const sheet = await savedSheet(page)
    expect(sheet).toMatch(/^sway 2\n/)
    expect(sheet).toMatch(/part +@1 "Amber" at L 0\.\d+\npart +@2 "Blue" at R 0\.\d+/)
    expect(sheet).toMatch(/feet @2 5 step [RL] back/)
    expect(sheet).toMatch(/between 1-4 hold @1\.R @2\.L fingers waist/)

    // A change of places, by its kind in the card.
    await page.getByRole('application').focus()
    for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Alt+t')
    await card.getByLabel('What they do', { exact: true }).selectOption('place')
    for (let i = 0; i < 6; i++)
      await card.getByRole('button', { name: 'Half a count longer' }).click()
    await card.getByLabel('Comes').selectOption('left')
    expect(await page.locator('[data-between]').count()).toBe(2)
    await expectAccessible(page)
    await card.getByRole('button', { name: 'Close' }).click()

    // What Amber dances alone, kept beside it with the list of what was replaced.
    await page.getByRole('button', { name: 'Dancers…' }).click()
    await form.getByRole('button', { name: 'What Amber dances alone…' }).click()
    const solo = form.getByRole('region', { name: 'Amber alone' })
    expect(await solo.getByRole('listitem').allTextContents()).toEqual([
      expect.stringMatching(
        /A1-4 Amber’s right holds Blue’s left, by the fingers, at the waist: right arm /,
      ),
      expect.stringMatching(/Amber comes on the left of Blue: her own way/),
    ])
    await solo.getByRole('button', { name: 'Keep it as a combination of its own' }).click()
    await solo.getByRole('status').waitFor()
    await page.keyboard.press('Escape')
    await form.waitFor({ state: 'hidden' })

    // On paper: each in her own line, and what they do together.
    await page.emulateMedia({ media: 'print' })
    expect(await page.locator('[data-own="2"]').isVisible()).toBe(true)
    expect(await page.getByRole('group', { name: 'For whom it is' }).isVisible()).toBe(false)
    const paper = (await page.pdf({ format: 'A4', landscape: true })).toString('latin1')
    expect(paper.match(/\/Type \/Page\b/g)?.length).toBeGreaterThan(0)
    await page.emulateMedia({ media: 'screen' })

    // Undone to what it was for one.
    const undo = page.getByRole('button', { name: 'Undo', exact: true })
    for (let i = 0; i < 60 && (await page.locator('[data-between], [data-own]').count()) > 0; i++)
      await undo.click()
    for (let i = 0; i < 20 && (await bar.count()) > 0; i++) await undo.click()
    expect(await bar.count()).toBe(0)
    expect(await savedSheet(page)).toBe(alone)
    expect(outside).toEqual([])
    expect(errors).toEqual([])
  })

  it('is seen from every panel, and a part alone is changed without the other', async () => {
    const { page, errors } = await app.visit()
    await page.getByRole('link', { name: 'Two Lamps' }).click()
    await page.getByRole('application').waitFor()
    expect(await page.locator('[data-own="1"]').count()).toBe(2)
    await page.getByRole('button', { name: 'Floor', exact: true }).click()
    await page.locator('[data-part="Blue"]').waitFor()
    expect(await page.locator('[data-other="Blue"] path').count()).toBeGreaterThan(2)
    await page.getByRole('button', { name: 'Body', exact: true }).click()
    // Who dances it, in the card of a move: from all to one of them.
    await page.locator('[data-line="R:0"] [data-event]').first().click({ force: true })
    const who = page.getByRole('group', { name: 'Danced by' })
    await who.getByRole('button', { name: 'Blue' }).click()
    expect(await savedSheet(page)).toMatch(/feet @1 1 step R side; 5/)
    await page.keyboard.press('Control+z')
    expect(errors).toEqual([])
  })

  it('is taught to each alone, then together, and each has a page of her own', async () => {
    const { page, errors } = await app.visit()
    await page.addInitScript(() => {
      const note = () => {
        document.body.dataset.printed = document.querySelector('article')?.textContent ?? ''
      }
      Object.assign(window, { print: note })
    })
    await page.goto(`${app.address}/combination/demo-two-lamps/teach`)
    const steps = page.getByRole('list', { name: 'Steps' }).getByRole('button')
    await steps.first().waitFor()
    const rows = page.locator('[data-row]')
    await steps.filter({ hasText: 'Blue · Feet · A' }).click()
    expect(await rows.nth(4).textContent()).toContain('Right foot steps across behind')
    expect(await rows.nth(4).textContent()).not.toContain('forward to the right')
    await steps.filter({ hasText: 'Together · All layers · B' }).click()
    for (const words of ['Amber', 'Blue', 'Side lean right', 'carries 25 %'])
      expect(await rows.nth(2).textContent()).toContain(words)
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await page.locator('[data-row="2"][data-lit="true"]').waitFor()
    await page.getByRole('button', { name: 'Stop', exact: true }).click()

    await page.getByRole('link', { name: 'Plan a class of it' }).click()
    await page.getByRole('button', { name: 'Print' }).waitFor()
    const printed = async (item: RegExp) => {
      await page.evaluate(() => document.body.removeAttribute('data-printed'))
      await page.getByRole('button', { name: 'Print' }).click()
      await page.getByRole('menuitem', { name: item }).click()
      await page.locator('body[data-printed]').waitFor()
      return page.evaluate(() => document.body.dataset.printed ?? '')
    }
    const all = await printed(/^Count sheet of Two Lamps/)
    for (const words of ['Amber: ', 'Blue: ', 'together Amber’s right holds Blue’s left'])
      expect(all).toContain(words)
    const blue = await printed(/^Blue’s page of Two Lamps/)
    expect(blue).toContain('Blue · right side')
    expect(blue).toContain('together Amber’s right holds Blue’s left')
    expect(blue).not.toContain('forward to the right')
    expect(errors).toEqual([])
  })
})
