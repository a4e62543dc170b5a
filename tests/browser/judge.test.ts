import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, expectAccessibleInBoth, namesOn, placeIn, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

async function open(page: Page, title: string) {
  await page.goto(app.address)
  await page.getByRole('link', { name: new RegExp(title) }).click()
  await page.getByRole('application').waitFor()
}

/** Brings a count sheet in as a file, and opens it. */
async function openSheet(page: Page, title: string, sheet: string) {
  await page.goto(app.address)
  await page.getByRole('article').first().waitFor()
  await page.setInputFiles('input[type="file"]', {
    name: `${title}.sway`,
    mimeType: 'text/plain',
    buffer: Buffer.from(`sway 1\ntitle ${title}\n${sheet}`),
  })
  await page.getByRole('link', { name: title }).click()
  await page.getByRole('application').waitFor()
}

const findings = (page: Page) => page.getByRole('region', { name: 'Findings' })
const finding = (page: Page, code: string) => findings(page).locator(`[data-code="${code}"]`)
const undo = (page: Page) => page.getByRole('button', { name: 'Undo' }).click()
const panel = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click()

describe('the demo combination with the fault', () => {
  it('is repaired by its button, seen in the braid before it is taken; undo brings the fault back', async () => {
    const { page, errors } = await app.visit()
    await open(page, 'Find the Slip')
    const before = await namesOn(page, 'R:0', 'feet')
    const repair = finding(page, 'feet.loaded').getByRole('button', { name: /A6: touch L/ })
    await repair.hover()
    await page.locator('[data-line="R:0"] [data-fresh]').waitFor()
    // Only what would change is marked, and nothing is changed yet.
    expect(await page.locator('[data-fresh]').count()).toBe(1)
    expect(await namesOn(page, 'R:0', 'feet')).not.toEqual(before)
    expect(await page.getByRole('button', { name: 'Undo' }).isDisabled()).toBe(true)
    await page.mouse.move(5, 5)
    await page.locator('[data-fresh]').waitFor({ state: 'detached' })
    expect(await namesOn(page, 'R:0', 'feet')).toEqual(before)
    await repair.click()
    await finding(page, 'feet.loaded').waitFor({ state: 'detached' })
    expect(await namesOn(page, 'R:0', 'feet')).not.toEqual(before)
    await undo(page)
    await finding(page, 'feet.loaded').waitFor()
    expect(await namesOn(page, 'R:0', 'feet')).toEqual(before)
    expect(errors).toEqual([])
  })

  it('is repaired with the keyboard alone', async () => {
    const { page } = await app.visit()
    await open(page, 'Find the Slip')
    await finding(page, 'feet.loaded')
      .getByRole('button', { name: /A6: touch L/ })
      .waitFor()
    await finding(page, 'feet.loaded').getByRole('button', { expanded: true }).focus()
    await page.keyboard.press('Tab')
    await page.locator('[data-fresh]').waitFor()
    await page.keyboard.press('Enter')
    await finding(page, 'feet.loaded').waitFor({ state: 'detached' })
  })

  it('can be left as it is, with the reason kept over a reload, and taken up again', async () => {
    const { page } = await app.visit()
    await open(page, 'Find the Slip')
    await finding(page, 'feet.loaded').getByRole('button', { name: 'Ignore, because …' }).click()
    await page.getByRole('textbox', { name: 'Ignore, because' }).fill('we hop over it')
    await page.keyboard.press('Enter')
    await findings(page).getByText('Because: we hop over it').waitFor()
    await finding(page, 'feet.loaded').waitFor({ state: 'detached' })
    await page.locator('[data-save-state="saved"]').waitFor()
    await page.reload()
    await findings(page).getByText('Because: we hop over it').waitFor()
    await findings(page).getByRole('button', { name: 'Show it again' }).click()
    await finding(page, 'feet.loaded').waitFor()
    await undo(page)
    await findings(page).getByText('Because: we hop over it').waitFor()
  })
})

describe('a combination that does not switch', () => {
  it('is made to switch, and the strip at the end of the braid says so', async () => {
    const { page } = await app.visit()
    await open(page, 'Saffron Steps')
    const foot = page.locator('[data-join="switch"] td').first()
    expect(await foot.getAttribute('data-how')).toBe('misses')
    await finding(page, 'join.foot').getByRole('button', { expanded: false }).click()
    const repair = finding(page, 'join.foot').getByRole('button', { name: /^B8: step R/ })
    // The card of the move has opened above: the repairs are brought into sight all the same.
    await page.getByRole('region', { name: 'Selected move' }).waitFor()
    const bar = (await page.getByRole('region', { name: 'Play' }).boundingBox())?.y ?? 0
    const bottom = async () => {
      const box = await repair.boundingBox()
      return (box?.y ?? 9999) + (box?.height ?? 0)
    }
    await expect.poll(bottom).toBeLessThanOrEqual(bar)
    await repair.click()
    await expect.poll(() => foot.getAttribute('data-how')).toBe('meets')
    await findings(page).getByText('It switches sides by itself.').waitFor()
    await undo(page)
    await expect.poll(() => foot.getAttribute('data-how')).toBe('misses')
  })
})

describe('the house', () => {
  it('with a room too small makes the finding appear, on the floor map too; undo takes it back', async () => {
    const { page } = await app.visit()
    await page.getByRole('link', { name: 'House rules' }).click()
    const width = page.getByRole('textbox', { name: 'Room width' })
    await width.fill('3')
    await width.press('Tab')
    await page.goBack()
    await open(page, 'Copper Lantern')
    await finding(page, 'space.room').waitFor()
    await panel(page, 'Floor')
    await page
      .locator('[data-fit]')
      .filter({ hasText: /of 12 dancers fit/ })
      .waitFor()
    await page.getByRole('link', { name: 'Change it' }).click()
    await page.getByRole('textbox', { name: 'Room width' }).fill('8')
    await page.getByRole('textbox', { name: 'Room width' }).press('Tab')
    await open(page, 'Copper Lantern')
    await finding(page, 'join.foot').waitFor()
    expect(await finding(page, 'space.room').count()).toBe(0)
    // Another window has it too, and a reload.
    await page.goto(`${app.address}/house`)
    expect(await page.getByRole('textbox', { name: 'Room width' }).inputValue()).toBe('8 m')
    const figure = page.getByRole('textbox', { name: 'Load for intermediate dancers' })
    await figure.fill('2')
    await page.getByRole('button', { name: /Load for intermediate dancers: 7/ }).waitFor()
    await open(page, 'Copper Lantern')
    await finding(page, 'load.high').first().waitFor()
    await page.goto(`${app.address}/house`)
    await page.getByRole('button', { name: /Load for intermediate dancers: 7/ }).click()
    expect(await figure.inputValue()).toBe('7 points')
    await page.getByRole('button', { name: 'Undo' }).click()
    expect(await figure.inputValue()).toBe('2 points')
  })

  it('has what goes with what: removed, added, learned from her combinations, and taken back', async () => {
    const { page } = await app.visit()
    await page.getByRole('link', { name: 'House rules' }).click()
    const layerings = page.getByRole('list', { name: 'Layerings of belly' })
    await layerings.getByRole('listitem').first().waitFor()
    const usual = await layerings.getByRole('listitem').count()
    expect(usual).toBeGreaterThan(30)
    await layerings.getByRole('button', { name: 'Remove hip lift over step-touch' }).click()
    await page.getByLabel('Over', { exact: true }).selectOption('feet grapevine')
    await page.getByLabel('goes', { exact: true }).selectOption('hips knee-shimmy')
    await page.getByRole('button', { name: 'Add layering' }).click()
    await layerings.getByText('knee-driven shimmy over grapevine').waitFor()
    expect(await layerings.getByText('hip lift over step-touch').count()).toBe(0)
    await page.getByRole('button', { name: 'Learn from my combinations' }).click()
    await page.getByText(/1 more from your combinations: hip drop over touch together/).waitFor()
    expect(await layerings.getByRole('listitem').count()).toBe(usual + 1)
    // Another window has them, and a reload.
    await page.reload()
    await layerings.getByText('hip drop over touch together').waitFor()
    expect(await layerings.getByRole('listitem').count()).toBe(usual + 1)
    await page.getByRole('button', { name: 'Reset all layerings' }).click()
    await expect.poll(() => layerings.getByRole('listitem').count()).toBe(usual)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(() => layerings.getByRole('listitem').count()).toBe(usual + 1)
  })

  it('keeps a turn to the left on both sides, and what breaks is said on its own line', async () => {
    const { page } = await app.visit()
    await openSheet(
      page,
      'Unwind',
      'phrase A 4\n feet 1 step R cross-front ball; 2 pivot -180; 3 pivot -180; 4 close L',
    )
    expect(await finding(page, 'turn.blocked').count()).toBe(0)
    await page.getByRole('button', { name: 'Tempo, families and start' }).click()
    await page
      .getByRole('switch', { name: 'Turns keep their direction on the other side' })
      .check({ force: true })
    await page.keyboard.press('Escape')
    const blocked = finding(page, 'turn.blocked').first()
    await blocked.waitFor()
    expect(await blocked.textContent()).toMatch(
      /A2.*left side.*Your left foot is crossed in front, so a turn to the left winds you up/,
    )
    // Both sides, count under count: the turn goes left on both.
    await page.getByRole('button', { name: 'Both', exact: true }).click()
    const turning = async (side: string, words: RegExp) =>
      (await namesOn(page, `${side}:0`, 'feet')).filter((name) => words.test(name)).length
    for (const side of ['R', 'L']) await expect.poll(() => turning(side, /pivot -180/)).toBe(2)
    await undo(page)
    await finding(page, 'turn.blocked').first().waitFor({ state: 'detached' })
    await expect.poll(() => turning('L', /pivot 180/)).toBe(2)
  })
})

describe('what the eye follows', () => {
  it('is one count, in the braid, on the floor map from both views, and while it plays', async () => {
    const { page } = await app.visit()
    await open(page, 'Copper Lantern')
    await panel(page, 'Floor')
    const here = page.locator('[data-here]')
    expect(await here.getAttribute('data-here')).toBe('A1')
    const { x, y } = await placeIn(page, 'R:0', 'feet', 3)
    await page.mouse.click(x, y)
    await expect.poll(() => here.getAttribute('data-here')).toBe('A3')
    const spot = async () => {
      const box = (await here.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 }
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 }
    }
    const map = (await page.locator('[data-floor]').boundingBox()) ?? {
      x: 0,
      y: 0,
      width: 0,
      height: 0,
    }
    const dancer = await spot()
    await page.getByText('Audience’s').click()
    await page.locator('[data-floor="audience"]').waitFor()
    const audience = await spot()
    // The audience's map is the dancer's turned half round.
    expect(audience.y + dancer.y).toBeCloseTo(2 * (map.y + map.height / 2), -1)
    expect(audience.x + dancer.x).toBeCloseTo(2 * (map.x + map.width / 2), -1)
    expect(dancer.y).toBeLessThan(map.y + map.height / 2)
    expect(audience.y).toBeGreaterThan(map.y + map.height / 2)
    await page.getByRole('application').focus()
    await page.keyboard.press('Space')
    // It is there for one count only: looked for in every frame.
    await page.waitForFunction(() => document.querySelector('[data-here="A6"]'))
    await page.keyboard.press('Space')
    // In the braid's place the map is gone along by its own ruler.
    await page.getByRole('switch', { name: 'Instead of the braid' }).check({ force: true })
    await expect.poll(() => page.locator('[data-braid]').isVisible()).toBe(false)
    const ruler = page.getByRole('slider', { name: 'Count on the floor' })
    await ruler.focus()
    await page.keyboard.press('Home')
    for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight')
    await expect.poll(() => here.getAttribute('data-here')).toBe('B3')
    expect(await ruler.getAttribute('aria-valuetext')).toBe('B3')
    const large = (await page.locator('[data-floor]').boundingBox())?.width ?? 0
    expect(large).toBeGreaterThan(2 * map.width)
    await page.getByRole('switch', { name: 'Instead of the braid' }).uncheck({ force: true })
    await expect.poll(() => page.locator('[data-braid]').isVisible()).toBe(true)
  })

  it('is heat behind the counts and hair lines for ways nobody wrote, with their words', async () => {
    const { page } = await app.visit()
    await openSheet(
      page,
      'Hairs',
      'tempo 120\nphrase A 8\n feet 1 step R side; 2 touch L together\n hips 1 at R; 4-5 half-circle-front R; 7-8 hip-circle-large; 7-8 knee-shimmy\n arms 7-8 snake-arms R\n torso 7-8 shoulder-shimmy',
    )
    const hair = page.locator('[data-late]')
    expect(await hair.count()).toBe(2)
    expect(await hair.first().textContent()).toMatch(/on the way to hips left/)
    const heat = await page
      .locator('[data-heat]')
      .evaluateAll((all) => all.map((one) => Number(one.getAttribute('data-heat'))))
    expect(heat).toHaveLength(8)
    expect(Math.max(...heat)).toBe(heat[6])
    expect(await page.locator('[data-load="7"] title').textContent()).toMatch(
      /A7: load \d+\.\d of 7: /,
    )
  })
})

describe('the level and the tempo', () => {
  it('show what to swap, take it as one edit, keep it as a variant, and mark the limit of the tempo', async () => {
    const { page } = await app.visit()
    await openSheet(
      page,
      'Busy Lantern',
      `level advanced
phrase A 8
 feet 1 step R forward; 2 step L forward; 3 step R forward; 4 step L forward; 5 step R back; 6 step L back; 7 step R back; 8 step L back
 hips 1-8 three-quarter-shimmy R
 torso ~5-8 shoulder-shimmy
 arms 1-2 both second; 3-8 snake-arms`,
    )
    const most = page.locator('[data-most]')
    await expect.poll(() => most.textContent()).toMatch(/^works up to \d+$/)
    const tempo = (await most.textContent())?.replace(/\D/g, '')
    await panel(page, 'Level')
    // The line of what is enough goes with the level that is chosen.
    await page.getByText('Advanced', { exact: true }).click()
    await page.getByText(/about 10 is enough here/).waitFor()
    await page.getByText('New', { exact: true }).click()
    await page.getByText(/about 4\.5 is enough here/).waitFor()
    const version = page.locator('[data-level="new"]')
    await version.getByText('leave shoulder shimmy out').waitFor()
    await version.getByText('hip sway R').waitFor()
    const before = await namesOn(page, 'R:0', 'hips')
    await version.getByRole('button', { name: 'Keep as a variant' }).click()
    await page.getByText('is kept beside this one').waitFor()
    await version.getByRole('button', { name: 'Use these forms' }).click()
    await expect.poll(() => namesOn(page, 'R:0', 'hips')).not.toEqual(before)
    await undo(page)
    await expect.poll(() => namesOn(page, 'R:0', 'hips')).toEqual(before)
    await page
      .getByRole('listitem')
      .getByRole('button', { name: new RegExp(`above ${tempo}`) })
      .click()
    await expect.poll(() => page.locator('#braid-place').textContent()).toMatch(/^A\d/)
    await page.goto(app.address)
    const card = page.getByRole('article', { name: 'Busy Lantern, new' })
    await card.getByText('variant for new').waitFor()
    await card.getByRole('link').click()
    await page.getByRole('application').waitFor()
    expect(await page.getByRole('textbox', { name: 'Title' }).inputValue()).toBe(
      'Busy Lantern, new',
    )
  })

  it('say what is too much for a level and can’t be eased, with its place', async () => {
    const { page } = await app.visit()
    await openSheet(
      page,
      'One Spin',
      'tempo 88\nlevel advanced\nphrase A 8\n feet 3 close R; 4 step L in-place turn -360',
    )
    await panel(page, 'Level')
    await page.getByText('New', { exact: true }).click()
    const left = page.getByRole('list', { name: 'Still too much' })
    await left.getByText(/A turn of 360° on one support/).waitFor()
    expect(await left.textContent()).toMatch(/^A4.*Walk it in 3 or 4 steps/)
  })
})

describe('ideas', () => {
  it('are looked at in the braid and placed only when they are chosen; the same number brings the same', async () => {
    const { page } = await app.visit()
    await open(page, 'Saffron Steps')
    await panel(page, 'Moves')
    const { x, y } = await placeIn(page, 'R:0', 'torso', 1)
    await page.mouse.click(x, y)
    await page.getByRole('button', { name: 'Ideas for A1-4, torso' }).click()
    const ideas = page.getByRole('list', { name: 'Ideas for A1-4' })
    await ideas.getByRole('listitem').first().waitFor()
    const first = ideas.getByRole('button').first()
    const name = (await first.textContent()) ?? ''
    await first.hover()
    await page.locator('[data-fresh]').waitFor()
    await page.mouse.move(5, 5)
    expect((await namesOn(page, 'R:0', 'torso')).length).toBe(1)
    await first.click()
    await expect.poll(async () => (await namesOn(page, 'R:0', 'torso')).join()).toContain(name)
    await undo(page)
    const fill = async () => {
      await page.getByRole('button', { name: 'Fill A torso' }).click()
      const ways = page.getByRole('list', { name: 'Ways to fill A, torso' })
      await ways.getByRole('listitem').first().waitFor()
      return ways.getByRole('listitem').allTextContents()
    }
    const ways = await fill()
    expect(ways.length).toBeGreaterThan(1)
    expect(await fill()).toEqual(ways)
    await page
      .getByRole('list', { name: 'Ways to fill A, torso' })
      .getByRole('button')
      .first()
      .click()
    await expect.poll(async () => (await namesOn(page, 'R:0', 'torso')).length).toBeGreaterThan(1)
    await undo(page)
    await expect.poll(async () => (await namesOn(page, 'R:0', 'torso')).length).toBe(1)
    // Variations of what is there, each taken and undone.
    const back = page.getByRole('button', { name: 'Undo', exact: true })
    expect(await back.isDisabled()).toBe(true)
    for (const words of ['Its halves the other way round', 'With the hips too']) {
      await page.getByRole('button', { name: 'Vary A' }).click()
      const list = page.getByRole('list', { name: 'Variations of A' })
      await list.getByRole('button', { name: words }).click()
      await expect.poll(() => back.isDisabled()).toBe(false)
      await undo(page)
      await expect.poll(() => back.isDisabled()).toBe(true)
    }
    // A phrase from nothing, behind it.
    await page.getByRole('button', { name: 'Add a phrase' }).click()
    const empty = await placeIn(page, 'R:2', 'feet', 1)
    await page.mouse.click(empty.x, empty.y)
    await page.getByRole('button', { name: 'Make C up' }).click()
    const made = page.getByRole('list', { name: 'Ways to fill C' })
    await made.getByRole('button').first().click()
    await expect.poll(async () => (await namesOn(page, 'R:2', 'feet')).length).toBeGreaterThan(0)
    expect((await namesOn(page, 'R:2', 'arms')).length).toBeGreaterThan(0)
    await undo(page)
    await expect.poll(async () => (await namesOn(page, 'R:2', 'feet')).length).toBe(0)
    // By half: its feet alone, nothing on them.
    await page.mouse.click(empty.x, empty.y)
    await page.getByRole('button', { name: 'Make C up' }).click()
    await made.getByRole('button', { name: 'Feet only' }).first().click()
    await expect.poll(async () => (await namesOn(page, 'R:2', 'feet')).length).toBeGreaterThan(0)
    expect(await namesOn(page, 'R:2', 'arms')).toEqual([])
  })

  it('make a phrase up, answer it and mix it with the shelf, each danced, taken and undone', async () => {
    const { page, errors } = await app.visit()
    await open(page, 'Long Swell')
    await panel(page, 'Moves')
    const ideas = page.getByRole('region', { name: 'Ideas' })
    const passes = page.locator('[data-line^="R:"]')
    const before = await passes.count()
    // So that it switches sides: what is asked for is said on its button.
    await ideas.getByRole('button', { name: 'Ask for more …' }).click()
    await page.getByLabel('Ends').selectOption('so that it switches sides')
    await page.keyboard.press('Escape')
    await ideas.getByRole('button', { name: 'Asked: ends so that it switches sides' }).waitFor()
    // An answer to what is there, taken twice: nothing of it has the same id.
    const foot = page.locator('[data-join="switch"] td').first()
    const second = await placeIn(page, 'R:1', 'feet', 1)
    const taken = async (ask: string, label: string, at: { x: number; y: number }) => {
      const lines = await passes.count()
      for (const times of [1, 2]) {
        await page.mouse.click(at.x, at.y)
        await ideas.getByRole('button', { name: ask }).click()
        await page.getByRole('list', { name: label }).getByRole('button').first().click()
        await expect.poll(() => passes.count()).toBeGreaterThanOrEqual(lines + times)
      }
      expect(await foot.getAttribute('data-how')).toBe('meets')
      for (const _ of [1, 2]) await undo(page)
      await expect.poll(() => passes.count()).toBe(lines)
    }
    await taken('Answer B', 'Answers to B', second)
    await page.getByRole('button', { name: 'Add a phrase' }).click()
    const at = await placeIn(page, `R:${before}`, 'feet', 1)
    await page.mouse.click(at.x, at.y)
    await ideas.getByRole('button', { name: 'Make C up' }).click()
    const made = page.getByRole('list', { name: 'Ways to fill C' })
    await made.getByRole('listitem').first().waitFor()
    expect(await made.getByRole('img', { name: /danced$/ }).count()).toBe(
      await made.getByRole('listitem').count(),
    )
    // One after the other dances; the one that is pointed at goes first.
    const third = made.getByRole('listitem').nth(1)
    await third.hover()
    const counted = third.locator('[data-count]')
    await expect.poll(() => counted.getAttribute('data-count')).toBe('1')
    await expect.poll(() => counted.getAttribute('data-count')).toBe('3')
    await made.getByRole('button').first().click()
    await expect
      .poll(async () => (await namesOn(page, `R:${before}`, 'feet')).length)
      .toBeGreaterThan(0)
    expect(await foot.getAttribute('data-how')).toBe('meets')
    await taken('Mix C with the shelf', 'Mixes with C', at)
    await undo(page)
    await expect.poll(async () => (await namesOn(page, `R:${before}`, 'feet')).length).toBe(0)
    expect(errors).toEqual([])
  })

  it('keep to what a group knows by the diary, and say what is in the way with the nearest', async () => {
    const { page } = await app.visit()
    await open(page, 'Copper Lantern')
    await panel(page, 'Moves')
    const ideas = page.getByRole('region', { name: 'Ideas' })
    const { x, y } = await placeIn(page, 'R:1', 'torso', 1)
    await page.mouse.click(x, y)
    const fill = ideas.getByRole('button', { name: /^Fill B torso/ })
    const list = page.getByRole('list', { name: 'Ways to fill B, torso' })
    await fill.click()
    await list
      .getByText(/ends with/)
      .first()
      .waitFor()
    const all = await list.getByRole('listitem').allTextContents()
    await ideas.getByRole('button', { name: 'Ask for more …' }).click()
    await expectAccessibleInBoth(page)
    const groups = page.getByLabel('For', { exact: true })
    const known = groups.locator('option', { hasText: 'only what it knows' }).first()
    await groups.selectOption({ label: (await known.textContent()) ?? '' })
    await page.keyboard.press('Escape')
    await fill.click()
    await list.getByRole('listitem').first().waitFor()
    const kept = await list.getByRole('listitem').allTextContents()
    expect(kept).not.toEqual(all)
    // What the group knows fills it, or it is said why that does not, and what would.
    if (!kept.some((text) => text.includes('ends with')))
      expect(kept.join()).toMatch(/Nothing of what this group knows goes there.*The nearest/)
    await expectAccessibleInBoth(page)
  })
})

describe('turning', () => {
  it('shares a turn over the selected counts, says each facing, and goes to all four walls', async () => {
    const { page } = await app.visit()
    await openSheet(
      page,
      'Round',
      'phrase A 8\n feet 1 step R in-place; 2 step L in-place; 3 step R in-place; 4 step L in-place; 5 step R in-place; 6 step L in-place; 7 step R in-place; 8 step L in-place',
    )
    await panel(page, 'Floor')
    await page.getByRole('application').focus()
    await page.keyboard.press('1')
    for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowRight')
    await page.getByRole('button', { name: 'Share over the selected counts' }).click()
    await page.getByText('All turns together: 360°').waitFor()
    const rows = page.locator('tbody tr').filter({ hasText: '45°' })
    await expect.poll(() => rows.count()).toBe(8)
    expect(await rows.nth(1).textContent()).toMatch(/A2.*45°.*the right wall/)
    await page.getByRole('button', { name: 'All four walls, right' }).click()
    await page.getByText('All turns together: 90°').waitFor()
    await panel(page, 'Body')
    expect(await finding(page, 'join.facing').textContent()).toMatch(
      /4 rounds bring you back to front/,
    )
  })
})

describe('in both themes', () => {
  it('axe finds nothing serious on what is new', async () => {
    const { page } = await app.visit({ colorScheme: 'light' })
    await open(page, 'Find the Slip')
    await finding(page, 'feet.loaded')
      .getByRole('button', { name: /A6: touch L/ })
      .waitFor()
    await expectAccessibleInBoth(page)
    for (const name of ['Floor', 'Level']) {
      await panel(page, name)
      await page.waitForTimeout(1500)
      await expectAccessibleInBoth(page)
    }
    await page
      .getByRole('button', { name: /^Phrase A,/ })
      .first()
      .click()
    await page.getByRole('menuitem', { name: 'Options…' }).click()
    await page.getByLabel('Name of the new option').fill('still')
    await expectAccessibleInBoth(page)
    await page.getByRole('button', { name: 'Add option' }).click()
    await page.getByText('belongs to this option').waitFor()
    await expectAccessibleInBoth(page)
    await page.goto(`${app.address}/page`)
    await page.getByLabel('The page').fill('Late Lamp\n1-4 shimmy\n5 hip drpo R\nwhat Mira said')
    await page.getByText('things to look at').waitFor()
    await expectAccessibleInBoth(page)
    await page.goto(`${app.address}/house`)
    await page.getByRole('heading', { name: 'House rules' }).waitFor()
    await expectAccessibleInBoth(page)
  })
})
