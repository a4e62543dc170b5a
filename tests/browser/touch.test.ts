import type { Locator, Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { vocabulary } from '../../src/core/moves/vocabulary'
import { canonical } from '../../src/core/sheet/canonical'
import { readSheet } from '../../src/core/sheet/readSheet'
import { type App, namesOn, placeIn, startApp } from './app'
import { fingerOn } from './finger'
import { NOTEBOOK, NOTEBOOK_FEET } from './notebook'
import { savedFrom } from './saved'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const TABLET = { viewport: { width: 820, height: 1180 }, hasTouch: true, isMobile: true }

/** Fingers on a page, and how often they came down; letters on the device's own keyboard count each. */
function fingersOn(page: Page) {
  let taps = 0
  const tap = async (what: Locator) => {
    taps++
    await what.tap()
  }
  const sheet = page.getByRole('region', { name: 'What fits here' })
  return {
    taps: () => taps,
    tap,
    sheet,
    /** A button of the sheet. */
    button: (name: string | RegExp) =>
      tap(sheet.getByRole('button', { name, exact: typeof name === 'string' })),
    /** A button of a group of the sheet. */
    in: (group: string | RegExp, name: string) =>
      tap(sheet.getByRole('group', { name: group }).getByRole('button', { name, exact: true })),
    async at(line: string, layer: string, count: number) {
      taps++
      const { x, y } = await placeIn(page, line, layer, count)
      await page.touchscreen.tap(x, y)
      await sheet.waitFor()
    },
    async type(into: Locator, text: string) {
      taps += 1 + text.length
      await into.tap()
      await into.fill(text)
    },
  }
}

describe('by touch alone, on a tablet', () => {
  it('32 counts on five layers are built as they are typed, in few taps', async () => {
    const { page, errors } = await app.visit(TABLET)
    const { tap, button, sheet, at, type, taps, ...fingers } = fingersOn(page)
    const search = async (text: string, name: RegExp) => {
      await button('Search by name')
      await type(sheet.getByRole('textbox'), text)
      await tap(sheet.getByRole('list').getByRole('button', { name }).first())
    }
    await tap(page.getByRole('button', { name: 'New combination' }))
    await page.getByRole('application').waitFor()
    await tap(page.getByRole('button', { name: 'Tempo, families and start' }))
    await type(page.getByRole('textbox', { name: 'Pickup, counts' }), '1')
    await page.keyboard.press('Enter')
    await tap(page.getByRole('textbox', { name: 'Title' }))
    await page.getByRole('dialog').waitFor({ state: 'detached' })

    // The feet, from the count before 1.
    await at('R:0', 'feet', 1)
    await fingers.in('Step', 'kick')
    await button('forward')
    await fingers.in('Step', 'step')
    await button('side')
    await button('cross behind')
    await button('side')
    await fingers.in('Step', 'touch')
    await button('together')
    await fingers.in('Step', 'step')
    await button('side')
    await button(/^Steps of 1 count/)
    await button('Earlier')
    await button(/^close/)
    await button('side')
    await button(/^close/)
    await button('in place')
    await button(/^Steps of ½ count/)
    await button('Earlier')
    await fingers.in('Step', 'touch')
    await button('together')
    expect(await namesOn(page, 'R:0', 'feet')).toEqual(NOTEBOOK_FEET)
    // A move of its own, of three steps.
    await at('R:0', 'feet', 6)
    await button('Select on to…')
    await at('R:0', 'feet', 7)
    await button('Make a move of it')
    await type(page.getByRole('textbox', { name: 'What the class calls it' }), 'Lamp')
    await tap(page.getByLabel('Put it in place of what is selected'))
    await tap(page.getByRole('dialog').getByRole('button', { name: /Keep|Save/ }))
    await page.getByRole('dialog').waitFor({ state: 'detached' })

    // Hips, torso, arms, head.
    await fingers.in('Layer', 'Hips')
    await at('R:0', 'hips', 2)
    await search('und', /^pelvic undulation/)
    await fingers.in('Length, counts', '6')
    await search('drop', /^hip drop R/)
    await button('All about it')
    await tap(page.getByText('More about it'))
    await type(page.getByRole('textbox', { name: 'Called here' }), 'plop')
    await at('R:0', 'torso', 8)
    await search('pop', /^chest pop/)
    await at('R:0', 'arms', 2)
    await button('high v')
    await fingers.in('Length, counts', '4')
    await button('low v')
    await at('R:0', 'head', 5)
    await button('left')
    await button('front')

    // A second phrase, on the own move.
    await button('Close what fits here')
    await tap(page.getByRole('button', { name: 'Add a phrase' }))
    await at('R:1', 'feet', 1 + 1)
    await search('lam', /^lamp/i)
    await fingers.in('Length, counts', '8')
    await fingers.in('Layer', 'Hips')
    await search('bump', /^hip bump/)
    await fingers.in('Length, counts', '8')
    await fingers.in('Layer', 'Torso')
    await search('shim', /^shoulder shimmy/)
    await fingers.in('Length, counts', '8')
    await fingers.in('Layer', 'Arms')
    await button('crown')
    await fingers.in('Layer', 'Head')
    await at('R:1', 'head', 2)
    await button('right')
    await button('Close what fits here')
    for (const phrase of ['A', 'B']) {
      await tap(page.getByRole('button', { name: new RegExp(`^Phrase ${phrase},`) }).first())
      await tap(page.getByRole('menuitem', { name: 'Dance it again' }))
      await page.getByRole('menu').waitFor({ state: 'detached' })
    }
    console.log(`Taps for 32 counts on five layers: ${taps()}`)
    expect(taps()).toBeLessThan(180)
    const written = canonical(readSheet(NOTEBOOK, vocabulary).combination)
    const made = canonical(await savedFrom(page))
    expect({ ...made, id: '' }).toEqual({ ...written, id: '' })
    expect(errors).toEqual([])
  })
})

describe('a finger on the braid', () => {
  it('rests and drags, makes longer by the bar at the end, and takes back at the thumb', async () => {
    const { page, errors } = await app.visit(TABLET)
    await page.getByRole('link', { name: /Copper Lantern/ }).tap()
    await page.getByRole('application').waitFor()
    const finger = await fingerOn(page)
    const hips = () => namesOn(page, 'R:3', 'hips')
    const before = ['hip bump L, 5, hips', 'hip bump R, 7, hips']
    await expect.poll(hips).toEqual(before)
    const there = await placeIn(page, 'R:3', 'hips', 5)
    const count = (await placeIn(page, 'R:3', 'hips', 6)).x - there.x
    await finger.drag(there, { x: there.x - 2 * count, y: there.y }, { rest: 900 })
    await expect.poll(hips).toEqual(['hip bump L, 3, hips', 'hip bump R, 7, hips'])
    await page.getByRole('button', { name: /^Take back: move/ }).tap()
    await expect.poll(hips).toEqual(before)
    await page.touchscreen.tap(there.x, there.y)
    await page.getByRole('button', { name: 'Close what fits here' }).tap()
    const bar = await page.locator('[data-handle]').boundingBox()
    if (!bar) throw new Error('no bar')
    expect(bar.width).toBeGreaterThanOrEqual(44)
    const grip = { x: bar.x + bar.width / 2, y: bar.y + bar.height / 2 }
    await finger.drag(grip, { x: grip.x + count, y: grip.y })
    await expect.poll(hips).toEqual(['hip bump L, 5-6, hips', 'hip bump R, 7, hips'])
    await page.getByRole('button', { name: /^Take back: stretch/ }).tap()
    await expect.poll(hips).toEqual(before)
    expect(errors).toEqual([])
  })
})

describe('in one hand, on a phone', () => {
  it('a combination is found, read, taught from, danced in class, and the class noted', async () => {
    const { page, errors } = await app.visit({
      ...TABLET,
      viewport: { width: 390, height: 844 },
      clock: 6,
    })
    const { tap, type } = fingersOn(page)
    // Found by a word, and seen whole: eight counts beside each other.
    await type(page.getByLabel('Search combinations'), 'lantern')
    await tap(page.getByRole('link', { name: /Copper Lantern/ }))
    await page.getByRole('application').waitFor()
    const line = await page.locator('[data-line="R:0"]').boundingBox()
    expect((line?.x ?? 0) + (line?.width ?? 999)).toBeLessThanOrEqual(390)
    // A touch says what stands there.
    const { x, y } = await placeIn(page, 'R:0', 'hips', 6)
    await page.touchscreen.tap(x, y)
    await page
      .getByRole('region', { name: 'What fits here' })
      .getByText('knee-driven shimmy')
      .first()
      .waitFor()
    await tap(page.getByRole('button', { name: 'Close what fits here' }))

    // Taught from, count by count.
    await tap(page.getByRole('link', { name: 'Teach' }))
    await tap(page.getByRole('button', { name: 'Next count' }))
    await page.locator('[aria-current="true"], [data-now="true"]').first().waitFor()
    await tap(page.getByRole('button', { name: 'Next step' }))
    await tap(page.getByRole('button', { name: 'Play', exact: true }))
    await tap(page.getByRole('button', { name: 'Stop', exact: true }))

    // A class of it, begun, danced for a moment, and left.
    await tap(page.getByRole('link', { name: 'Plan a class of it' }))
    await tap(page.getByRole('button', { name: 'Begin class' }))
    await tap(page.getByRole('button', { name: /^Begin Hello/ }))
    for (let i = 0; i < 3; i++) await tap(page.getByRole('button', { name: 'Next drill' }))
    await tap(page.getByRole('link', { name: 'Leave the floor' }))
    await page.getByRole('heading', { name: 'Diary' }).waitFor()
    await type(page.getByLabel('Next time'), 'Slower')
    await type(page.getByLabel('Notes'), 'Good class')
    await page.getByRole('heading', { name: 'Diary' }).tap()
    await page.reload()
    await expect.poll(() => page.getByLabel('Next time').inputValue()).toBe('Slower')
    expect(errors).toEqual([])
  })
})
