import type { BrowserContext, Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  type App,
  beginClass,
  bytesOf,
  clockOf,
  drills,
  expectAccessibleInBoth,
  fill,
  newPlan,
  soundsOf,
  startApp,
  titlesOf,
} from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** A new plan of a combination, so quick that a test need not wait for it. */
async function quickPlan(page: Page, title: string) {
  await newPlan(page, title)
  await fill(page, 'Minutes', '45')
  await fill(page, 'Target tempo', '210')
  await fill(page, 'Tempo now', '200')
}

const sum = (page: Page) => page.locator('[data-spare]').textContent()

const giant = (page: Page) => page.locator('[data-count]').textContent()
const asked = (page: Page) =>
  page.getByRole('button', { name: /^Not yet/ }).waitFor({ timeout: 30_000 })
const heading = (page: Page) => page.getByRole('heading', { level: 1 }).textContent()

async function saved(page: Page, button: string, context?: BrowserContext) {
  const [file] = await Promise.all([
    page.waitForEvent('download', { timeout: 60_000 }),
    page.getByRole(context ? 'menuitem' : 'button', { name: button }).click(),
  ])
  return bytesOf(file)
}

describe('a class from its plan to the diary', () => {
  it('is planned, changed by hand, danced by presenter keys, closed in the middle, gone on with, and remembered', async () => {
    const { page, context, outside, errors } = await app.visit({ clock: 2 })
    await quickPlan(page, 'Quick Ember')
    expect(await sum(page)).toBe('45 min of 45 min')
    const before = await titlesOf(page)
    expect(before.slice(0, 3)).toEqual(['Hello', 'Show it · A B C', 'Posture'])
    expect(before).toEqual(
      expect.arrayContaining(['All layers · A', 'From the top · A B', 'Recap']),
    )

    // By hand: one round a side where the test will dance; a step taken out; one moved by the keyboard.
    for (const title of ['All layers · A', 'From the top · A B'])
      await fill(page, `Repeats of ${title}, a side`, '1')
    expect(await sum(page)).toBe('45 min of 45 min')
    await page.getByRole('button', { name: 'Remove Both sides · A B C', exact: true }).click()
    await expect.poll(() => titlesOf(page)).not.toContain('Both sides · A B C')
    expect(await sum(page)).toBe('45 min of 45 min')
    const place = async () => (await titlesOf(page)).indexOf('All layers · B')
    const at = await place()
    await page.getByRole('button', { name: 'Move All layers · B', exact: true }).focus()
    await page.keyboard.press('ArrowUp')
    await expect.poll(place).toBe(at - 1)
    await page.keyboard.press('Control+z')
    await expect.poll(place).toBe(at)
    // What is said is worked out until it is written by hand, and again when that is cleared.
    await page.getByRole('button', { name: 'Hello', exact: true }).click()
    const say = page.getByRole('textbox', { name: 'Say' })
    expect(await say.inputValue()).toMatch(/^Quick Ember: \d+ counts/)
    await say.fill('Good evening, all of you')
    await say.press('Tab')
    await page.getByText('Good evening, all of you').first().waitFor()
    expect(await sum(page)).toBe('45 min of 45 min')

    // The floor, by the keys of a presenter: what is said goes on by the same key.
    await beginClass(page)
    await page.getByText('Good evening, all of you').waitFor()
    await page.keyboard.press('PageDown')
    await page.locator('[data-left]').waitFor()
    await page.keyboard.press('PageDown')
    await expect.poll(() => heading(page)).toBe('Show it · A B C')
    // A walk goes on count by count.
    for (let steps = 0; steps < 20 && !(await heading(page))?.startsWith('Walk it'); steps++)
      await page.keyboard.press('End')
    await page.keyboard.press('PageDown')
    await expect.poll(() => page.locator('[data-walk]').textContent()).toBe('1')
    await page.keyboard.press('PageDown')
    await page.keyboard.press('PageDown')
    await expect.poll(() => page.locator('[data-walk]').textContent()).toBe('3')
    // Water, whatever was planned; then on where it was.
    await page.keyboard.press('w')
    await expect.poll(() => heading(page)).toBe('Water')
    await page.keyboard.press('PageDown')
    await expect.poll(() => heading(page)).toMatch(/^Walk it/)
    for (let steps = 0; steps < 20 && (await heading(page)) !== 'All layers · A'; steps++)
      await page.keyboard.press('End')
    await page.keyboard.press('PageDown')
    await expect.poll(() => giant(page), { timeout: 10_000 }).toMatch(/^[1-8]$/)
    await asked(page)
    await page.keyboard.press('PageUp')
    await expect.poll(() => heading(page)).toBe('All layers · A')
    await page.getByText('179', { exact: true }).waitFor()
    await page.keyboard.press('PageDown')
    await asked(page)
    await page.keyboard.press('PageDown')
    for (let steps = 0; steps < 20 && (await heading(page)) !== 'From the top · A B'; steps++)
      await page.keyboard.press('End')

    // The tab is closed in the middle of it, after the first side.
    await page.keyboard.press('PageDown')
    await page.getByText('left', { exact: true }).waitFor({ timeout: 30_000 })
    await page.close()
    const again = await context.newPage()
    await again.goto(`${app.address}/diary`)
    await again.getByRole('link', { name: 'Go on with the class' }).click()
    await expect.poll(() => heading(again)).toBe('From the top · A B')
    await again.getByText('Paused.').waitFor()
    await again.keyboard.press('.')
    await asked(again)
    await again.keyboard.press('x')
    // Left after the right side of the slower one: the left side stays behind.
    await again.keyboard.press('PageDown')
    await again.getByText('left', { exact: true }).waitFor({ timeout: 30_000 })
    await again.getByRole('link', { name: 'Leave the floor' }).click()

    const rows = again.getByRole('table').first().getByRole('row')
    await expect.poll(() => rows.count()).toBe(5)
    const danced = await rows.evaluateAll((all) =>
      all
        .slice(1)
        .map((row) => [
          row.querySelector('th')?.firstChild?.textContent,
          ...[...row.querySelectorAll('input, select')].map(
            (field) => (field as HTMLInputElement).value,
          ),
        ]),
    )
    expect(danced).toEqual([
      ['All layers · A', '1', '0', '200', 'not-yet'],
      ['All layers · A', '1', '0', '179', 'clean'],
      ['From the top · A B', '1', '1', '200', 'not-yet'],
      ['From the top · A B', '1', '0', '179', ''],
    ])

    // The next class begins with what was not yet clean, on the side that is behind.
    await again.getByRole('button', { name: /\d{4}.*Quick Ember/ }).waitFor()
    await again.getByLabel('Next time').fill('Hips again, smaller')
    const next = again.getByRole('region', { name: 'Next class' })
    await next.getByText(/Quick Ember A: not yet clean today/).waitFor()
    await next.getByText(/Quick Ember begins on the left: \d+ counts behind/).waitFor()
    await next.getByRole('button', { name: 'Plan it' }).click()
    await drills(again).first().waitFor()
    const planned = await titlesOf(again)
    // Walked once, then danced once, before anything new.
    const review = planned.findIndex((title) => title.startsWith('Review · A'))
    expect(planned[review - 1]).toMatch(/^Walk it · A/)
    expect(planned.slice(0, review - 1).filter((title) => title.startsWith('All'))).toEqual([])
    const sides = await again
      .getByRole('button', { name: /^Sides of Review/ })
      .first()
      .textContent()
    expect(sides).toMatch(/^L then R/)

    expect(outside).toEqual([])
    expect(errors).toEqual([])
    await context.close()
  })

  it('is heard as it is chosen, in the instructor’s own words too, and saved as a file', async () => {
    const { page, context, errors } = await app.visit({ permissions: ['microphone'] })
    await page.goto(`${app.address}/plan/demo-plan-tuesday`)
    await beginClass(page, 'From the top · A B')
    await page.getByRole('button', { name: 'Sound' }).click()
    await page.getByLabel('Rhythm', { exact: true }).selectOption('saidi')
    await page.getByRole('textbox', { name: 'Word or cue' }).fill('Glow')
    await page.getByRole('button', { name: 'Say it' }).click()
    await page.getByText('“Glow” is kept.').waitFor()
    await page.getByRole('button', { name: 'Forget glow' }).click()
    await expect.poll(() => page.getByRole('button', { name: 'Forget glow' }).count()).toBe(0)
    const wav = await saved(page, 'Save sound (WAV)')
    expect(wav.subarray(0, 4).toString()).toBe('RIFF')
    await page.getByText(/of sound, written in/).waitFor()
    // A and B, both sides: what the plan says, less its talk, and the last sound dying away.
    const seconds = wav.readUInt32LE(24) * 2
    expect((wav.length - 100) / seconds).toBeGreaterThan(62)
    expect((wav.length - 100) / seconds).toBeLessThan(80)
    const vtt = (await saved(page, 'Save captions (VTT)')).toString()
    expect(vtt.startsWith('WEBVTT')).toBe(true)
    expect(vtt).toMatch(/other side/)
    await page.keyboard.press('Escape')
    // Chosen again after the page is loaded again.
    await page.reload()
    await page.getByRole('button', { name: 'Sound' }).click()
    expect(await page.getByLabel('Rhythm', { exact: true }).inputValue()).toBe('saidi')
    expect(errors).toEqual([])
    await context.close()
  })

  it('has a loudness for each of what sounds, heard at once while it is danced', async () => {
    const { page, context, errors } = await app.visit({ clock: 3 })
    await page.goto(`${app.address}/plan/demo-plan-tuesday`)
    await beginClass(page, 'Warm up: pulse')
    await page.keyboard.press('Space')
    await page.locator('[data-count]').waitFor()
    await page.getByRole('button', { name: 'Sound' }).click()
    await page.getByLabel('Rhythm', { exact: true }).selectOption('saidi')
    const loudness = (of: string) => page.getByRole('slider', { name: `Loudness of ${of}` })
    /** Milliseconds of the sounds that begin in some seconds, once the page has had time for a change. */
    const lengths = async () => {
      const from = (await clockOf(page)) + 3.6
      await expect.poll(() => clockOf(page), { timeout: 20_000 }).toBeGreaterThan(from + 2.5)
      const heard = (await soundsOf(page)).filter(({ when }) => when > from && when < from + 2.5)
      return new Set(heard.map(({ duration }) => Math.round(duration * 1000)))
    }
    const CLICK = 70
    const HALF = 40
    for (const of of ['half counts', 'rhythm', 'voice', 'moves']) await loudness(of).press('Home')
    expect([...(await lengths())].filter((one) => one !== 90)).toEqual([CLICK])
    await loudness('half counts').press('End')
    const halves = await lengths()
    expect(halves.has(HALF)).toBe(true)
    expect([...halves].every((one) => [CLICK, HALF, 90].includes(one))).toBe(true)
    await loudness('counts').press('Home')
    expect([...(await lengths())]).toEqual([HALF])
    // Where nothing is heard it is danced on, and what is written is what was danced.
    await loudness('half counts').press('Home')
    expect([...(await lengths())]).toEqual([])
    expect(await page.locator('[data-count]').count()).toBe(1)
    await page.keyboard.press('Escape')
    await page.reload()
    await page.getByRole('button', { name: 'Sound' }).click()
    expect(await loudness('voice').getAttribute('aria-valuenow')).toBe('0')
    expect(errors).toEqual([])
    await context.close()
  })

  it('goes out as a calendar and a table, and is corrected by hand with a way back', async () => {
    const { page, context } = await app.visit()
    await page.getByRole('link', { name: 'Diary' }).click()
    await page.getByRole('button', { name: 'Save as' }).click()
    const ics = (await saved(page, 'Class dates for a calendar (ICS)', context)).toString()
    expect(ics.match(/BEGIN:VEVENT/g)?.length).toBeGreaterThan(5)
    await page.getByRole('button', { name: 'Save as' }).click()
    const csv = (await saved(page, 'The diary as a table (CSV)', context)).toString()
    expect(csv.split('\r\n')[0]).toMatch(/^\uFEFFdate,start,minutes,group/)
    const rounds = page.getByRole('textbox', { name: /^Rounds left, Both sides/ })
    await rounds.fill('9')
    await rounds.press('Tab')
    await page.getByRole('button', { name: /^Remove All layers · B/ }).click()
    await expect.poll(() => page.getByRole('button', { name: /^Remove/ }).count()).toBe(1)
    await page.reload()
    await expect.poll(() => rounds.inputValue()).toBe('9')
    // Each step back and forth by itself, by button and by key.
    await rounds.fill('4')
    const room = page.getByRole('textbox', { name: 'Room' })
    await room.fill('Small room')
    await page.getByRole('button', { name: 'Undo the room' }).click()
    await expect.poll(() => room.inputValue()).not.toBe('Small room')
    expect(await rounds.inputValue()).toBe('4')
    await page.getByRole('heading', { name: 'Diary' }).click()
    await page.keyboard.press('Control+z')
    await expect.poll(() => rounds.inputValue()).toBe('9')
    await page.keyboard.press('Control+y')
    await page.getByRole('button', { name: 'Redo' }).click()
    await expect.poll(() => room.inputValue()).toBe('Small room')
    expect(await rounds.inputValue()).toBe('4')

    // What the floor writes meanwhile, in another window, is not taken back with it.
    const floor = await context.newPage()
    await floor.goto(`${app.address}/diary`)
    await floor.getByLabel('Next time').fill('Written elsewhere')
    await expect.poll(() => page.getByLabel('Next time').inputValue()).toBe('Written elsewhere')
    await page.getByRole('button', { name: 'Undo the room' }).click()
    await expect.poll(() => room.inputValue()).not.toBe('Small room')
    expect(await page.getByLabel('Next time').inputValue()).toBe('Written elsewhere')
    // Closed in the middle of a word: it is there in the next window.
    await floor.getByLabel('Notes').fill('Closed at once')
    await floor.close()
    await page.reload()
    await expect.poll(() => page.getByLabel('Notes').inputValue()).toBe('Closed at once')

    // What was danced without the floor is written down by hand, and can be taken back.
    const rows = page.getByRole('table').first().locator('tbody tr')
    const before = await rows.count()
    await page.getByLabel('Combination that was danced').selectOption({ label: 'Quick Ember' })
    await page.getByLabel('Phrase that was danced').selectOption({ index: 1 })
    await page.getByLabel('Layers that were danced').selectOption({ label: 'the feet' })
    await page.getByRole('button', { name: 'Add it' }).click()
    await expect.poll(() => rows.count()).toBe(before + 1)
    expect(await rows.last().locator('th').textContent()).toBe('Feet · AQuick Ember')
    await page
      .getByText(/Quick Ember A/)
      .first()
      .waitFor()
    await page.getByRole('button', { name: 'Undo writing down Feet · A' }).click()
    await expect.poll(() => rows.count()).toBe(before)

    const first = page.getByRole('navigation', { name: 'Classes' }).getByRole('button').first()
    const name = await first.textContent()
    await page.getByRole('button', { name: 'Delete this class' }).click()
    await expect.poll(() => first.textContent()).not.toBe(name)
    await page.getByRole('button', { name: 'Undo taking out the class' }).click()
    await expect.poll(() => first.textContent()).toBe(name)
    await page.getByRole('button', { name: 'New group' }).click()
    await page.getByRole('textbox', { name: 'Name of the group' }).fill('Sunday')
    await page.getByRole('button', { name: 'Keep' }).click()
    await expect
      .poll(() => page.getByLabel('Group').first().locator('option:checked').textContent())
      .toBe('Sunday')
    await page.getByRole('button', { name: 'Change group' }).click()
    await page.getByRole('button', { name: 'Delete group' }).click()
    const groups = page.getByLabel('Group').first().locator('option')
    await expect.poll(() => groups.allTextContents()).not.toContain('Sunday')
    await page.getByRole('button', { name: 'Undo taking out the group' }).click()
    await expect.poll(() => groups.allTextContents()).toContain('Sunday')
    await context.close()
  })
})

describe('in both themes', () => {
  it('axe finds nothing serious on plan, floor and diary', async () => {
    const { page, context } = await app.visit({ colorScheme: 'light' })
    await page.getByRole('link', { name: 'Plans', exact: true }).click()
    await page.getByRole('link', { name: /Saffron Steps/ }).waitFor()
    await expectAccessibleInBoth(page)
    await page.getByRole('link', { name: /Saffron Steps/ }).click()
    await page.getByRole('button', { name: 'All layers · A', exact: true }).click()
    await page.getByText('Facing, as their mirror').waitFor()
    await expectAccessibleInBoth(page)
    await beginClass(page)
    await page.keyboard.press('Space')
    await expectAccessibleInBoth(page)
    for (let steps = 0; steps < 20 && !(await heading(page))?.startsWith('Walk it'); steps++)
      await page.keyboard.press('End')
    await page.keyboard.press('Space')
    await page.locator('[data-walk]').waitFor()
    await expectAccessibleInBoth(page)
    for (let steps = 0; steps < 20 && (await heading(page)) !== 'All layers · A'; steps++)
      await page.keyboard.press('End')
    await page.keyboard.press('Space')
    await expect.poll(() => giant(page), { timeout: 15_000 }).toBe('8')
    await expectAccessibleInBoth(page)
    await page.keyboard.press('Space')
    await page.getByRole('button', { name: 'Sound' }).click()
    await page.getByText('As a file').waitFor()
    await page.waitForTimeout(400)
    await expectAccessibleInBoth(page)
    await page.keyboard.press('Escape')
    await page.getByRole('link', { name: 'Leave the floor' }).click()
    await page.getByRole('heading', { name: 'Diary' }).waitFor()
    await expectAccessibleInBoth(page)
    await context.close()
  })
})

describe('on a phone held upright', () => {
  it('plan, floor and diary fit, and every zone of the floor is large', async () => {
    const { page, context } = await app.visit({ viewport: { width: 390, height: 844 } })
    const fits = async () =>
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
        390,
      )
    await page.goto(`${app.address}/plan/demo-plan-thursday`)
    await drills(page).first().waitFor()
    await fits()
    await beginClass(page)
    await fits()
    const large = async () => {
      for (const zone of await page.locator('[data-zone]').all()) {
        const box = await zone.boundingBox()
        expect(Math.min(box?.width ?? 0, box?.height ?? 0)).toBeGreaterThanOrEqual(48)
      }
    }
    await large()
    // A tap anywhere begins, and another goes on; in what is danced it pauses.
    const tap = (name: RegExp) =>
      page
        .getByRole('button', { name })
        .first()
        .click({ position: { x: 150, y: 200 } })
    await tap(/^Begin Hello/)
    await tap(/^On from Hello/)
    await tap(/^Begin Show it/)
    await page.getByRole('button', { name: 'Pause' }).first().waitFor()
    await fits()
    await large()
    await tap(/^Pause/)
    await page.getByText('Paused.').waitFor()
    await page.goto(`${app.address}/diary`)
    await page.getByRole('heading', { name: 'Diary' }).waitFor()
    await fits()
    await context.close()
  })
})
