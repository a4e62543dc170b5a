import type { Page } from 'playwright-core'

interface Spot {
  readonly x: number
  readonly y: number
}

/** A finger on the page's glass: it may rest before it goes, in milliseconds. */
export async function fingerOn(page: Page) {
  const glass = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd' | 'touchCancel', at?: Spot) =>
    glass.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [at] : [] })
  return {
    async drag(from: Spot, to: Spot, { rest = 0, isTakenBack = false } = {}) {
      await touch('touchStart', from)
      await page.waitForTimeout(rest)
      for (let i = 1; i <= 8; i++)
        await touch('touchMove', {
          x: from.x + ((to.x - from.x) * i) / 8,
          y: from.y + ((to.y - from.y) * i) / 8,
        })
      if (isTakenBack) await page.locator('[data-ghost]').waitFor()
      await touch(isTakenBack ? 'touchCancel' : 'touchEnd')
    },
  }
}
