import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, beginClass, drills, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** Tab stops that are looked at on a screen. */
const STOPS = 6

/** Presses Tab until something of this name has the focus, or says where it ended. */
async function tabTo(page: Page, name: string | RegExp, most = 80): Promise<void> {
  for (let i = 0; i < most; i++) {
    await page.keyboard.press('Tab')
    const at = await focused(page)
    if (typeof name === 'string' ? at === name : name.test(at)) return
  }
  throw new Error(`Tab never came to ${name}, but to ${await focused(page)}`)
}

/** What a screen reader would call what has the focus. */
const focused = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const at = document.activeElement
    if (!at || at === document.body) return ''
    const label = at.id ? document.querySelector(`label[for="${at.id}"]`)?.textContent : undefined
    return (
      at.getAttribute('aria-label') ??
      label ??
      at.getAttribute('placeholder') ??
      at.textContent ??
      ''
    ).trim()
  })

/** Tab stops that look the same with and without the focus. */
async function unseenStops(page: Page): Promise<readonly string[]> {
  const unseen: string[] = []
  for (let i = 0; i < STOPS; i++) {
    await page.keyboard.press('Tab')
    const name = await focused(page)
    const element = (await page.evaluateHandle(() => document.activeElement)).asElement()
    const box = await element?.boundingBox()
    if (!element || name === '' || !box) continue
    const { width, height } = page.viewportSize() ?? { width: 0, height: 0 }
    const x = Math.max(0, box.x - 5)
    const y = Math.max(0, box.y - 5)
    const clip = {
      x,
      y,
      width: Math.max(1, Math.min(box.width + 10, width - x)),
      height: Math.max(1, Math.min(box.height + 10, height - y)),
    }
    if (y >= height || x >= width) {
      unseen.push(`${name}, out of sight`)
      continue
    }
    const withFocus = await page.screenshot({ clip, caret: 'hide' })
    await element.evaluate((at) => (at as HTMLElement).blur())
    const without = await page.screenshot({ clip, caret: 'hide' })
    if (withFocus.equals(without)) unseen.push(name)
    await element.evaluate((at) => (at as HTMLElement).focus())
  }
  return unseen
}

describe('the focus', () => {
  it('can be seen wherever Tab goes', async () => {
    const { page, context } = await app.visit({ reducedMotion: 'reduce' })
    const unseen: Record<string, readonly string[]> = {}
    const look = async (screen: string) => {
      await page.waitForTimeout(500)
      unseen[screen] = await unseenStops(page)
    }
    await look('combinations')
    await page.getByRole('link', { name: /Find the Slip/ }).click()
    await page.getByRole('application').waitFor()
    await look('studio')
    await page.getByRole('link', { name: 'Teach' }).click()
    await page.getByRole('list', { name: 'Steps' }).waitFor()
    await look('teach')
    for (const [path, heading] of [
      ['moves', 'Moves'],
      ['page', 'From a page'],
      ['plans', 'Plans'],
      ['diary', 'Diary'],
      ['house', 'House rules'],
    ] as const) {
      await page.goto(`${app.address}/${path}`)
      await page.getByRole('heading', { name: heading, exact: true }).first().waitFor()
      await look(path)
    }
    await page.goto(`${app.address}/plan/demo-plan-tuesday`)
    await drills(page).first().waitFor()
    await look('plan')
    await beginClass(page)
    await look('floor')
    expect(Object.entries(unseen).filter(([, names]) => names.length > 0)).toEqual([])
    await context.close()
  })
})

describe('without a mouse', () => {
  it('a class is planned, changed, begun, judged, left and noted', async () => {
    const { page, context, errors } = await app.visit()
    await tabTo(page, 'Plans')
    await page.keyboard.press('Enter')
    await tabTo(page, 'A new plan from a combination')
    await page.keyboard.type('Quick')
    // On a busy machine the list comes a moment after the letters.
    await page.getByRole('option', { name: /Quick Ember/ }).waitFor()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Enter')
    await drills(page).first().waitFor()

    await tabTo(page, 'Minutes')
    await page.keyboard.press('Control+a')
    await page.keyboard.type('30')
    await page.keyboard.press('Tab')
    await expect.poll(() => page.locator('[data-spare]').textContent()).toBe('30 min of 30 min')
    const names = () =>
      drills(page).evaluateAll((rows) => rows.map((row) => row.getAttribute('aria-label')))
    const before = await names()
    await tabTo(page, `Move ${before[1]}`, 200)
    for (const key of ['Space', 'ArrowDown', 'Space']) {
      await page.keyboard.press(key)
      await page.waitForTimeout(300)
    }
    await expect.poll(async () => (await names()).slice(1, 3)).toEqual([before[2], before[1]])

    await page.keyboard.press('Control+Home')
    await page.getByRole('textbox', { name: 'Name of the plan' }).focus()
    await tabTo(page, 'Begin class')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: /^Begin Hello/ }).waitFor()
    // Hello and posture are said: on by a key. What is shown next is danced.
    for (let presses = 0; presses < 4; presses++) await page.keyboard.press('Space')
    await page.getByRole('button', { name: /^Begin Show it/ }).waitFor()
    await page.keyboard.press('s')
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('Space')
    await page.locator('[data-count]').waitFor()
    await page.keyboard.press('Space')
    await page.getByText('Paused.').waitFor()
    await page.keyboard.press('End')
    await tabTo(page, 'Leave the floor')
    await page.keyboard.press('Enter')
    await page.getByRole('heading', { name: 'Diary' }).waitFor()

    await tabTo(page, 'Next time')
    await page.keyboard.type('Slower')
    await page.keyboard.press('Shift+Tab')
    await page.keyboard.type('Good class')
    await page.reload()
    await expect.poll(() => page.getByLabel('Next time').inputValue()).toBe('Slower')
    expect(await page.getByLabel('Notes').inputValue()).toBe('Good class')
    expect(errors).toEqual([])
    await context.close()
  })
})
