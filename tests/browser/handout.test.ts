import { beforeAll, describe, expect, it } from 'vitest'
import { handoutFile } from '../../src/core/handout/handoutFile'
import { PAPERS } from '../../src/core/handout/style'
import { USUAL_LOOK } from '../../src/core/house/dancerLook'
import { USUAL_HOUSE } from '../../src/core/house/house'
import { vocabulary } from '../../src/core/moves/vocabulary'
import { danceOf } from '../../src/core/piece/dance'
import { readSheet } from '../../src/core/sheet/readSheet'
import { ORDINARY, PIECES, WITH_PROPS } from '../ordinary'
import { type App, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** Inside its margins, in CSS pixels. */
const INSIDE = { a4: { width: 680, height: 1009 }, letter: { width: 702, height: 942 } } as const

const some = [
  ...ORDINARY.filter((_, i) => i % 3 === 0),
  ...PIECES.filter((_, i) => i % 4 === 0),
  ...WITH_PROPS.filter((_, i) => i % 2 === 0),
].map((sheet) => readSheet(sheet, vocabulary).combination)

describe('a handout on paper', () => {
  it('breaks no phrase and cuts nothing off, whatever is danced, in both sizes and in large print', async () => {
    expect(some.length).toBeGreaterThanOrEqual(30)
    const context = await app.browser.newContext()
    const page = await context.newPage()
    await page.emulateMedia({ media: 'print' })
    for (const [i, combination] of some.entries())
      for (const paper of PAPERS) {
        // Each third one in large print, which is not for phrases of a page and more.
        const isLarge = i % 3 === 0
        const html = handoutFile(
          { ...danceOf(combination, vocabulary, USUAL_HOUSE), combination },
          { paper, day: '2026-11-30', isLarge, look: USUAL_LOOK },
        )
        const { width, height } = INSIDE[paper]
        await page.setViewportSize({ width, height })
        await page.setContent(html)
        const seen = await page.evaluate(() => ({
          phrases: [...document.querySelectorAll('.phrase')].map(
            (one) => one.getBoundingClientRect().height,
          ),
          over: document.documentElement.scrollWidth - innerWidth,
          cut: [...document.querySelectorAll('.handout td, .handout p, .handout li')]
            .filter((one) => one.scrollWidth > one.clientWidth + 1 && one.clientWidth > 0)
            .map((one) => one.textContent),
          size: getComputedStyle(document.querySelector('li p, td') ?? document.body).fontSize,
        }))
        const told = `${combination.title} ${paper}${isLarge ? ', large' : ''}`
        expect(seen.over, told).toBe(0)
        expect(seen.cut, told).toEqual([])
        if (!isLarge) for (const one of seen.phrases) expect(one, told).toBeLessThanOrEqual(height)
        if (isLarge) expect(Number.parseFloat(seen.size), told).toBeGreaterThanOrEqual(24)
        const pdf = (await page.pdf({ preferCSSPageSize: true })).toString('latin1')
        const pages = pdf.match(/\/Type\s*\/Page\b/g)?.length ?? 0
        const filled = seen.phrases.reduce((sum, one) => sum + one, 0) / height
        // No page is left empty, and a phrase that does not fit begins the next one.
        expect(pages, told).toBeGreaterThanOrEqual(Math.ceil(filled * 0.95))
        expect(pages, told).toBeLessThanOrEqual(Math.ceil(filled * 2) + 2)
        const [, , wide = '0', high = '0'] =
          /\/MediaBox\s*\[\s*(\S+)\s+(\S+)\s+(\S+)\s+(\S+?)\s*\]/.exec(pdf)?.slice(1) ?? []
        expect([Math.round(Number(wide)), Math.round(Number(high))], told).toEqual(
          paper === 'a4' ? [595, 842] : [612, 792],
        )
      }
    await context.close()
  })
})
