import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, bytesOf, expectAccessible, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** The letters that are new in each class, or were. */
const columns = (page: Page) =>
  page.getByRole('region', { name: 'The classes' }).getByRole('listitem')
const lettersIn = (page: Page) =>
  columns(page).evaluateAll((all) =>
    all.map((one) =>
      [...one.querySelectorAll('[data-unit]')]
        .map((unit) => unit.getAttribute('data-unit'))
        .join(''),
    ),
  )
const unit = (page: Page, name: string) => page.locator(`[data-unit="${name}"]`)
const said = (page: Page) => page.locator('main > p[role="status"]')

describe('a series over weeks', () => {
  it('is planned, changed by keys and by hand, given slower than planned, and shared out again', async () => {
    const { page, errors } = await app.visit({ locale: 'en-GB' })
    // The day is made up from here on, so this window is nobody else's after.
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.clock.setFixedTime(new Date('2026-12-01T12:00:00'))
    await page.goto(`${app.address}/plans`)
    await page.getByRole('link', { name: 'Series over weeks' }).click()
    await page.getByRole('button', { name: 'New series' }).click()
    await page.getByText('Choose what to teach and the dates; the rest is worked out.').waitFor()
    await page.getByPlaceholder('Teach…').click()
    await page.getByRole('option', { name: 'Copper Lantern', exact: true }).click()
    await page.getByText('Add at least one date.').waitFor()
    await page.getByRole('button', { name: 'Add dates' }).click()
    await expect.poll(() => columns(page).count()).toBe(6)
    const before = await lettersIn(page)
    expect(before.join('')).toBe('ABCD')
    expect(before.slice(4)).toEqual(['', ''])
    await page.getByText('on plan').waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Evening colours' }).click()
    await expectAccessible(page)

    // By keys: a class later, where it stays; anywhere again; left out; back with one step.
    const at = before.findIndex((letters) => letters.includes('D'))
    await unit(page, 'D').focus()
    await page.keyboard.press('ArrowLeft')
    await expect
      .poll(() => lettersIn(page).then((all) => all.findIndex((one) => one.includes('D'))))
      .toBe(at - 1)
    await expect.poll(() => unit(page, 'D').getAttribute('aria-label')).toContain('stays here')
    expect(await said(page).textContent()).toContain('D moves to')
    await unit(page, 'D').focus()
    await page.keyboard.press('u')
    await expect.poll(() => lettersIn(page)).toEqual(before)
    await unit(page, 'A').focus()
    await page.keyboard.press('x')
    await expect.poll(async () => (await lettersIn(page)).join('')).toBe('BCD')
    await page.getByRole('button', { name: 'Take A of Copper Lantern back' }).waitFor()
    await said(page).getByRole('button', { name: 'Undo' }).click()
    await expect.poll(() => lettersIn(page)).toEqual(before)
    // By its menu, as a finger does it; and dragged.
    await unit(page, 'D').click()
    await page.getByRole('menuitem', { name: /^To class 3/ }).click()
    await expect.poll(async () => (await lettersIn(page))[2]).toBe('D')
    await unit(page, 'D').dragTo(columns(page).nth(3))
    await expect.poll(async () => (await lettersIn(page))[3]).toBe('D')
    // The first class can't have all of it, and says why.
    await page.getByLabel('Minutes', { exact: true }).fill('25')
    await page.keyboard.press('Tab')
    await unit(page, 'D').dragTo(columns(page).nth(0))
    await expect
      .poll(() => said(page).textContent())
      .toMatch(/Full: \d+ minutes? over\. Lengthen it|no room/)
    for (
      let i = 0;
      i < 8 && (await page.getByLabel('Minutes', { exact: true }).inputValue()) !== '60';
      i++
    )
      await page.keyboard.press('Control+z')
    const calendar = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save as calendar' }).click()
    expect((await bytesOf(await calendar)).toString()).toContain('RRULE:FREQ=WEEKLY;COUNT=6')

    // A holiday: no class then, and one again.
    await columns(page)
      .nth(1)
      .getByRole('button', { name: /^Class 2/ })
      .click()
    await page.getByLabel('No class on this day, because').fill('holiday')
    await page.getByRole('button', { name: 'No class', exact: true }).click()
    await expect.poll(() => columns(page).count()).toBe(5)
    await page.getByRole('button', { name: /\(holiday\): a class again/ }).click()
    await expect.poll(() => columns(page).count()).toBe(6)
    await columns(page)
      .nth(0)
      .getByRole('button', { name: /^Class 1/ })
      .click()

    // The first class: its plan, its page, its floor.
    const first = page.getByRole('region', { name: 'Copper Lantern, 1 of 6' })
    const names = (await lettersIn(page))[0] ?? ''
    await first.getByRole('button', { name: 'Plan', exact: true }).click()
    await page.waitForURL(/\/plan\//)
    expect(await page.getByLabel('Name of the plan').inputValue()).toBe('Copper Lantern, 1 of 6')
    const rows = await page
      .getByRole('region', { name: 'Drills' })
      .getByRole('listitem')
      .allTextContents()
    expect(rows.some((row) => row.includes(`All layers · ${names[0]}`))).toBe(true)
    await page.goBack()
    await first.getByRole('button', { name: 'Practice page' }).click()
    const saved = page.waitForEvent('download')
    await page.getByRole('dialog').getByRole('button', { name: 'Save the page' }).click()
    expect((await bytesOf(await saved)).toString()).toContain('"inSeries":{"n":1,"of":6}')
    await page.keyboard.press('Escape')
    await first.getByRole('button', { name: 'Begin class' }).click()
    await page.waitForURL(/\/class\//)
    const given = page.url().split('/').at(-1)
    // Only the first of it was danced: written down by hand.
    await page.goto(`${app.address}/diary?class=${given}`)
    await page.getByLabel('Combination that was danced').selectOption({ label: 'Copper Lantern' })
    await page.getByLabel('Phrase that was danced').selectOption({ index: 1 })
    await page.getByRole('button', { name: 'Add it' }).click()
    await expect.poll(() => page.getByRole('row').count()).toBeGreaterThan(1)

    // A week later: what was not reached comes next, and nothing of the past has changed.
    await page.clock.setFixedTime(new Date('2026-12-02T12:00:00'))
    await page.goto(`${app.address}/series`)
    await page.getByRole('link', { name: /Copper Lantern/ }).click()
    await page.getByText(names.length > 1 ? `${names.slice(1)} late` : 'on plan').waitFor()
    const column = columns(page).nth(0)
    expect(await column.textContent()).toContain('A ✓')
    if (names.length > 1) expect(await column.textContent()).toContain(`${names[1]} not yet`)
    const after = await lettersIn(page)
    expect(after.join('')).toBe('BCD')
    expect(after[0]).toBe('')
    await column.getByRole('button').click()
    await page.getByText('taught: A').waitFor()
    await page.setViewportSize({ width: 390, height: 844 })
    await expectAccessible(page)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    expect(errors).toEqual([])
  })
})
