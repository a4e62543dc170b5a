import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, drills, fill, newPlan, startApp, titlesOf } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const sum = (page: Page) => page.locator('[data-spare]').textContent()
const tempoOf = (page: Page, title: string) =>
  page.getByRole('textbox', { name: `Tempo of ${title}`, exact: true }).inputValue()

describe('a plan', () => {
  it('follows what is wished for, minute by minute, and says what has no room', async () => {
    const { page, context, errors } = await app.visit()
    await newPlan(page, 'Copper Lantern')
    expect(await sum(page)).toBe('60 min of 60 min')
    const places = async (...titles: readonly RegExp[]) => {
      const all = await titlesOf(page)
      return titles.map((title) => all.findIndex((one) => title.test(one)))
    }
    // Layer by layer the feet of all come before any of it whole; else each phrase is finished.
    await page.getByLabel('Taught').selectOption({ label: 'layer by layer' })
    await expect
      .poll(async () => {
        const [feet = 0, whole = 0] = await places(/^Feet.* · D$/, /^All layers · A/)
        return feet > 0 && feet < whole
      })
      .toBe(true)
    await page.getByLabel('Taught').selectOption({ label: 'phrase by phrase' })
    await expect
      .poll(async () => {
        const [a = 0, b = 0] = await places(/^All layers · A/, /^All layers · B/)
        return (await titlesOf(page)).slice(a, b).every((title) => !title.startsWith('Feet'))
      })
      .toBe(true)
    // One side alone has no other side anywhere, and the class is as long.
    await page.getByLabel('Sides', { exact: true }).selectOption({ label: 'the lead side alone' })
    await expect
      .poll(async () => (await titlesOf(page)).filter((title) => title.startsWith('Other side')))
      .toEqual([])
    expect(await sum(page)).toBe('60 min of 60 min')
    await page.getByLabel('Sides', { exact: true }).selectOption({ label: 'both' })
    await expect.poll(async () => (await titlesOf(page)).join()).toContain('Other side')
    await page
      .getByLabel('Kind of class', { exact: true })
      .selectOption({ label: 'technique: three things, then their use' })
    await expect
      .poll(
        async () => (await titlesOf(page)).filter((title) => title.startsWith('Technique')).length,
      )
      .toBe(3)
    await page
      .getByLabel('Kind of class', { exact: true })
      .selectOption({ label: 'drop-in: all of it, both sides' })
    await fill(page, 'Minutes', '20')
    expect(await sum(page)).toBe('20 min of 20 min')
    const left = page.getByRole('region', { name: 'What does not fit' })
    await left.getByRole('button', { name: 'Spread it over classes' }).click()
    const classes = left.getByRole('listitem')
    await expect.poll(() => classes.count()).toBeGreaterThan(1)
    expect(await classes.nth(0).textContent()).not.toContain('Review')
    expect(await classes.nth(1).textContent()).toMatch(/^Review, then /)
    // What no class had is taught in one of them.
    const taught = (await classes.allTextContents()).join(', ')
    expect(taught).toContain('All layers · D')
    await page.getByText(/are room for/).waitFor()
    // A length that can't be is not taken; the field says what is.
    await fill(page, 'Minutes', '3')
    expect(await page.getByRole('textbox', { name: 'Minutes', exact: true }).inputValue()).toBe(
      '10',
    )
    await expect.poll(() => sum(page)).toBe('10 min of 10 min')
    expect(errors).toEqual([])
    await context.close()
  })

  it('keeps what was set by hand while the rest is planned again, and has a way back for each', async () => {
    const { page, context } = await app.visit()
    await newPlan(page, 'Saffron Steps')
    const first = await titlesOf(page)
    const drill = first.find((title) => title.startsWith('Both sides')) ?? ''
    await page.getByRole('button', { name: `Lock ${drill}`, exact: true }).click()
    const before = await tempoOf(page, drill)
    await fill(page, 'Tempo now', '50')
    await page.getByRole('button', { name: 'Undo tempo now' }).waitFor()
    expect(await tempoOf(page, drill)).toBe(before)
    const other = first.find((title) => title.startsWith('All layers')) ?? ''
    expect(await tempoOf(page, other)).toBe('50')

    await page.getByRole('button', { name: `Split ${drill}`, exact: true }).click()
    const halves = async () => (await titlesOf(page)).filter((title) => title === drill).length
    await expect.poll(halves).toBe(2)
    const sides = page.getByRole('button', { name: new RegExp(`^Sides of ${drill}`) })
    const told = await sides.first().textContent()
    await sides.first().click()
    await expect.poll(() => sides.first().textContent()).not.toBe(told)
    await page.getByRole('button', { name: drill, exact: true }).first().click()
    await page.getByText('Back to the class', { exact: true }).click()
    await fill(page, 'Talk, in seconds', '45')
    const minutes = await sum(page)
    expect(minutes).toBe('60 min of 60 min')

    // A drill goes where its handle is dragged, and shows where that is.
    const inOrder = await titlesOf(page)
    const grip = (i: number) =>
      drills(page)
        .nth(i)
        .getByRole('button', { name: /^Move / })
    await drills(page).first().scrollIntoViewIfNeeded()
    const [at, over] = [await grip(1).boundingBox(), await drills(page).nth(3).boundingBox()]
    if (!at || !over) throw new Error('no drills')
    await page.mouse.move(at.x + 5, at.y + 5)
    await page.mouse.down()
    await page.mouse.move(at.x + 5, over.y + over.height - 4, { steps: 6 })
    expect(await drills(page).nth(3).getAttribute('data-landing')).toBe('behind')
    await page.keyboard.press('Escape')
    await page.mouse.up()
    expect(await titlesOf(page)).toEqual(inOrder)
    await page.mouse.move(at.x + 5, at.y + 5)
    await page.mouse.down()
    await page.mouse.move(at.x + 5, over.y + over.height - 4, { steps: 6 })
    await page.mouse.up()
    const [warm, second, ...others] = inOrder
    await expect
      .poll(() => titlesOf(page))
      .toEqual([warm, others[0], others[1], second, ...others.slice(2)])
    await page.getByRole('button', { name: /^Undo/ }).click()
    await expect.poll(() => titlesOf(page)).toEqual(inOrder)

    // Another window shows it, and changes it; what is taken back here leaves that alone.
    const beside = await context.newPage()
    await beside.goto(page.url())
    await drills(beside).first().waitFor()
    expect(await titlesOf(beside)).toEqual(await titlesOf(page))
    const name = (one: Page) => one.getByRole('textbox', { name: 'Name of the plan' })
    await name(beside).fill('Saffron, twice')
    await expect.poll(() => name(page).inputValue()).toBe('Saffron, twice')
    await page.getByRole('button', { name: /^Undo/ }).click()
    await page.getByRole('button', { name: /^Redo/ }).click()
    await expect.poll(() => titlesOf(beside)).toEqual(await titlesOf(page))
    expect(await name(beside).inputValue()).toBe('Saffron, twice')
    await beside.close()

    for (let steps = 0; steps < 30; steps++) {
      const undo = page.getByRole('button', { name: /^Undo/ })
      if (await undo.isDisabled()) break
      await undo.click()
    }
    await expect.poll(() => titlesOf(page)).toEqual(first)
    expect(await name(page).inputValue()).toBe('Saffron, twice')
    await page.reload()
    await drills(page).first().waitFor()
    expect(await titlesOf(page)).toEqual(first)
    expect(await name(page).inputValue()).toBe('Saffron, twice')
    await context.close()
  })

  it('stands beside another one, goes, and is had back', async () => {
    const { page, context } = await app.visit()
    await newPlan(page, 'Quick Ember')
    const aside = page.getByRole('region', { name: 'Another plan beside it' })
    await aside.getByPlaceholder('another plan').click()
    await page.getByRole('option', { name: /Copper Lantern/ }).click()
    const rows = aside.getByRole('row')
    await expect.poll(() => rows.count()).toBeGreaterThan(5)
    // Both warm up; what only one of them teaches stands on its side alone.
    const cells = await rows.evaluateAll((all) =>
      all.slice(1).map((row) => [...row.children].map((cell) => cell.textContent)),
    )
    expect(cells[0]?.[0]).toBe('Hello')
    expect(cells[0]?.slice(1)).not.toContain('–')
    expect(cells.some(([, here, there]) => here !== '–' && there === '–')).toBe(true)
    expect(cells.some(([, here, there]) => here === '–' && there !== '–')).toBe(true)
    await page.getByRole('link', { name: 'Plans', exact: true }).click()
    const own = page.getByRole('link', { name: /^Quick Ember/ })
    await own.waitFor()
    await page.getByRole('button', { name: 'Delete Quick Ember' }).click()
    await expect.poll(() => own.count()).toBe(0)
    await page.getByRole('button', { name: 'Bring it back' }).click()
    await own.waitFor()
    await context.close()
  })

  it('is one page on paper, and each side of its combination on a sheet with key poses', async () => {
    const { page, context } = await app.visit()
    await page.addInitScript(() => {
      const note = () => {
        const paper = document.querySelector('article')
        document.body.dataset.printed = paper?.textContent ?? ''
        document.body.dataset.poses = String(paper?.querySelectorAll('svg').length)
      }
      Object.assign(window, { print: note })
    })
    for (const id of ['tuesday', 'thursday']) {
      await page.goto(`${app.address}/plan/demo-plan-${id}`)
      await drills(page).first().waitFor()
      await page.evaluate(() => document.fonts.ready)
      const pdf = (await page.pdf({ format: 'A4' })).toString('latin1')
      expect(pdf.match(/\/Type \/Page\b/g)).toHaveLength(1)
    }
    await page.emulateMedia({ media: 'print' })
    expect(await page.getByRole('banner').isVisible()).toBe(false)
    await page.emulateMedia({ media: 'screen' })
    const printed = async (item: RegExp) => {
      await page.evaluate(() => document.body.removeAttribute('data-printed'))
      await page.getByRole('button', { name: 'Print' }).click()
      await page.getByRole('menuitem', { name: item }).click()
      await page.locator('body[data-printed]').waitFor()
      const { printed = '', poses } = await page.evaluate(() => ({ ...document.body.dataset }))
      return { text: printed, poses: Number(poses) }
    }
    const onePage = await printed(/one page/)
    expect(onePage.text).toContain('Warm up')
    const sheet = await printed(/^Count sheet/)
    expect(sheet.text).toMatch(/right side/)
    expect(sheet.text).toMatch(/left side/)
    // Both sides have the same key poses.
    expect(sheet.poses).toBeGreaterThan(10)
    expect(sheet.poses % 2).toBe(0)
    await context.close()
  })
})
