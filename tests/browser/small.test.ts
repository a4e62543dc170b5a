import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, expectAccessible, expectAccessibleInBoth, placeIn, startApp } from './app'

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

/** Screens by their addresses, from the demo data. */
const SCREENS = ['/', '/page', '/moves', '/plans', '/series', '/songs', '/diary', '/house'] as const

/** What sticks out of the page to the right, and what fingers are meant for and is smaller than their tips. */
const notForFingers = (page: Page) =>
  page.evaluate(() => {
    const isShown = (one: Element) => {
      const { width, height } = one.getBoundingClientRect()
      return width > 0 && height > 0 && getComputedStyle(one).visibility !== 'hidden'
    }
    /** Where a finger may come down for it. */
    const targetOf = (one: Element): Element => {
      const { id } = one
      if (one.matches('[type="checkbox"], [type="radio"]'))
        return one.closest('label') ?? document.querySelector(`label[for="${id}"]`) ?? one
      return one.closest('.mantine-Slider-root') ?? one
    }
    const found: string[] = []
    if (document.documentElement.scrollWidth > window.innerWidth + 1)
      found.push(`${document.documentElement.scrollWidth} px wide`)
    const all =
      'button, a[href], select, input, summary, textarea, [role="menuitem"], [role="option"], [role="slider"]'
    for (const one of document.querySelectorAll<HTMLElement>(all)) {
      if (!isShown(one) || one.matches(':disabled, [type="file"]') || one.closest('.only-read'))
        continue
      // A link in the middle of a sentence is as tall as the sentence.
      const isInText =
        one.tagName === 'A' &&
        getComputedStyle(one).display === 'inline' &&
        one.parentElement?.textContent?.trim() !== one.textContent?.trim()
      const { width, height } = targetOf(one).getBoundingClientRect()
      if (!isInText && (width < 43.5 || height < 43.5))
        found.push(
          `${Math.round(width)} x ${Math.round(height)}: ${one.getAttribute('aria-label') ?? one.textContent ?? ''}`,
        )
    }
    return found
  })

describe('under fingers', () => {
  it('nothing is smaller than a fingertip or wider than the page, from a small phone to a tablet', async () => {
    const { page, errors } = await app.visit({
      viewport: { width: 820, height: 1180 },
      hasTouch: true,
      isMobile: true,
    })
    const combination = await page
      .getByRole('link', { name: /Copper Lantern/ })
      .getAttribute('href')
    await page.goto(`${app.address}/plans`)
    await page.getByRole('heading', { name: 'Plans' }).waitFor()
    const plan = await page.locator('a[href^="/plan/"]').first().getAttribute('href')
    for (const path of [
      ...SCREENS,
      combination,
      `${combination}/teach`,
      `${combination}/lesson`,
      plan,
    ]) {
      await page.goto(`${app.address}${path}`)
      await page.locator('main').first().waitFor()
      for (const width of [820, 320]) {
        await page.setViewportSize({ width, height: width < 600 ? 700 : 1180 })
        await expect.poll(() => notForFingers(page), { message: `${path} at ${width}` }).toEqual([])
      }
    }
    // What opens on them: the sheet of what fits, settings, menus.
    await page.goto(`${app.address}${combination}`)
    await page.getByRole('application').waitFor()
    const { x, y } = await placeIn(page, 'R:0', 'torso', 3)
    await page.touchscreen.tap(x, y)
    await page.getByRole('region', { name: 'What fits here' }).waitFor()
    await expectAccessibleInBoth(page)
    for (const layer of ['Feet', 'Arms', 'Head', 'Hips']) {
      await page.getByRole('group', { name: 'Layer' }).getByRole('button', { name: layer }).tap()
      expect(await notForFingers(page), layer).toEqual([])
    }
    await page.getByRole('button', { name: 'Close what fits here' }).tap()
    for (const button of ['Tempo, families and start', 'More']) {
      await page.getByRole('button', { name: button, exact: true }).tap()
      await page.locator('[role="dialog"], [role="menu"]').first().waitFor()
      expect(await notForFingers(page), button).toEqual([])
      await page.keyboard.press('Escape')
    }
    expect(errors).toEqual([])
  })

  it('text twice as large is cut nowhere', async () => {
    const { page } = await app.visit({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
    })
    for (const path of SCREENS) {
      await page.goto(`${app.address}${path}`)
      await page.locator('main').first().waitFor()
      const cut = await page.evaluate(() => {
        const all = [...document.querySelectorAll<HTMLElement>('body *:not(svg, svg *)')]
        const sizes = all.map((one) => Number.parseFloat(getComputedStyle(one).fontSize))
        all.forEach((one, i) => {
          one.style.fontSize = `${2 * (sizes[i] ?? 16)}px`
        })
        const words = 'button, h1, h2, h3, p, label, li, summary'
        return [...document.querySelectorAll<HTMLElement>(words)].flatMap((one) => {
          const { overflowX, overflowY, textOverflow } = getComputedStyle(one)
          const hides = (way: string) => /hidden|clip/.test(way)
          const isCut =
            (one.scrollWidth > one.clientWidth + 2 &&
              hides(overflowX) &&
              textOverflow !== 'ellipsis') ||
            (one.scrollHeight > one.clientHeight + 4 && hides(overflowY))
          return one.clientWidth > 1 && !one.closest('.only-read') && isCut
            ? [one.textContent?.trim() ?? '']
            : []
        })
      })
      expect(cut, path).toEqual([])
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
        path,
      ).toBeLessThanOrEqual(1)
    }
  })
})
