import { beforeAll, describe, expect, it } from 'vitest'
import { type App, bytesOf, expectAccessible, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

describe('a lesson on film', () => {
  it('goes by its script, step by step, goes on where the tab was lost, and has its chapters', async () => {
    const { page, errors } = await app.visit()
    // The time is made up from here on, so this window is nobody else's after.
    await page.setViewportSize({ width: 1280, height: 800 })
    let now = new Date('2026-12-01T12:00:00').getTime()
    const wait = async (seconds: number) => {
      now += 1000 * seconds
      await page.clock.setFixedTime(now)
    }
    await wait(0)
    await page.getByRole('link', { name: 'Saffron Steps' }).click()
    await page.getByRole('link', { name: 'Teach', exact: true }).click()
    await page.getByRole('link', { name: 'Lesson on film' }).click()
    const script = page.getByRole('region', { name: 'The script' })
    await script.waitFor()
    const titles = await script.locator('li > b').allTextContents()
    expect(titles[0]).toBe('Hello')
    expect(titles.filter((title) => title.startsWith('Pause')).length).toBeGreaterThan(2)
    await script.getByText('back to them', { exact: true }).click()
    await script.getByText('You see my back: my right is your right.').waitFor()
    await expectAccessible(page)
    await script.getByRole('button', { name: 'The camera runs: begin' }).click()
    const shown = page.locator('button[class*="step"] .display')
    expect(await shown.textContent()).toBe('Hello')
    // By a pedal, by touch; the tab is lost in the middle, and it goes on.
    for (const [i, title] of titles.entries()) {
      expect(await shown.textContent()).toBe(title)
      await wait(20)
      if (i === 3) {
        await page.reload()
        await expect.poll(() => shown.textContent()).toBe(title)
        await expectAccessible(page)
      }
      if (i === 4) {
        await page.keyboard.press('PageUp')
        await expect.poll(() => shown.textContent()).toBe(titles[3])
        await page.keyboard.press('PageDown')
        await expect.poll(() => shown.textContent()).toBe(title)
      }
      if (i % 2 === 0) await page.keyboard.press('PageDown')
      else await shown.click()
    }
    const chapters = page.getByRole('region', { name: 'Chapters' })
    const lines = ((await chapters.locator('pre').textContent()) ?? '').trim().split('\n')
    expect(lines[0]).toBe('0:00 Hello')
    expect(lines.at(-1)).toMatch(/^\d+:\d\d The other view, and goodbye$/)
    // Twenty seconds a step: each chapter where its first step began.
    expect(lines[1]).toMatch(new RegExp(`^0:20 ${titles[1]?.replace('Show ', '')}$`))
    const file = page.waitForEvent('download')
    await chapters.getByRole('button', { name: 'Save as a file' }).click()
    const vtt = (await bytesOf(await file)).toString()
    expect(vtt.startsWith('WEBVTT')).toBe(true)
    expect(vtt.match(/-->/g)).toHaveLength(lines.length)
    await page.setViewportSize({ width: 390, height: 844 })
    await expectAccessible(page)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
    expect(errors).toEqual([])
  })
})
