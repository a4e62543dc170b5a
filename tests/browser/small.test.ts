import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, expectAccessible, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** Nothing sticks out of the page to the right, and no two of these lie on each other. */
async function expectTidy(page: Page, selectors: readonly string[]) {
  const { wide, boxes } = await page.evaluate((list) => {
    const found = list.map((selector) => document.querySelector(selector)?.getBoundingClientRect())
    return {
      wide: document.documentElement.scrollWidth - window.innerWidth,
      boxes: found.map(
        (box) => box && { top: box.top, bottom: box.bottom, left: box.left, right: box.right },
      ),
    }
  }, selectors)
  expect(wide).toBeLessThanOrEqual(0)
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1)) {
      if (!a || !b) throw new Error(`one of ${selectors.join(', ')} is not there`)
      const apart =
        a.bottom <= b.top + 1 ||
        b.bottom <= a.top + 1 ||
        a.right <= b.left + 1 ||
        b.right <= a.left + 1
      expect(apart, `${selectors[i]} lies on another`).toBe(true)
    }
}

describe.each([
  [768, 1024],
  [390, 844],
])('at %i wide', (width, height) => {
  it('combinations, the studio and the moves can be read and used', async () => {
    const { page, context, errors } = await app.visit({ viewport: { width, height } })
    await page.getByRole('article').first().waitFor()
    await expectTidy(page, ['h1', 'input[aria-label="Search combinations"]', 'article'])
    await page.getByRole('link', { name: /Quick Ember/ }).click()
    await page.getByRole('application').waitFor()
    await page.locator('[data-line="R:2"]').waitFor()
    await expectTidy(page, ['[data-line="R:0"]', '[data-line="R:1"]', '[data-line="R:2"]', 'aside'])
    for (const [panel, inside] of [
      ['Floor', '[data-floor]'],
      ['Level', '[aria-label="Version for"]'],
    ] as const) {
      await page.getByRole('button', { name: panel, exact: true }).click()
      await page.locator(inside).waitFor()
      await expectTidy(page, ['[data-braid]', inside])
    }
    await page.getByRole('button', { name: 'Sheet', exact: true }).click()
    await page.locator('.cm-content').waitFor()
    await expectTidy(page, ['[data-braid]', '[data-sheet]'])
    await page.getByRole('link', { name: 'Moves', exact: true }).click()
    await page.getByRole('heading', { name: 'Moves' }).waitFor()
    await page.getByRole('option', { name: /Grapevine/ }).click()
    await expectTidy(page, ['h1', '[role="listbox"]', 'section[aria-label="Grapevine"]'])
    await expectAccessible(page)
    await page.getByRole('link', { name: 'House rules' }).click()
    await page.getByRole('heading', { name: 'House rules' }).waitFor()
    await expectTidy(page, ['h1', '[aria-label="Room and class"]', '[aria-label="Quick feet"]'])
    expect(errors).toEqual([])
    await context.close()
  })
})
