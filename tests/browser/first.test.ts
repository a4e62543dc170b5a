import { readFileSync, writeFileSync } from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, expectAccessible, namesOn, startApp } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

/** The numbered steps of the README, each as one line of plain words. */
function stepsOfReadme(): readonly string[] {
  const text = readFileSync(join(import.meta.dirname, '..', '..', 'README.md'), 'utf8')
  const part = /## A first combination in five steps\n([\s\S]*?)\n\n`\?`/.exec(text)?.[1] ?? ''
  return part
    .trim()
    .split(/\n(?=\d\. )/)
    .map((step) => step.replaceAll(/\s+/g, ' ').replaceAll('**', ''))
}

/** Types into whatever has the focus and takes the first offer. */
async function place(page: Page, text: string): Promise<void> {
  await page.keyboard.type(text)
  await page.locator('[role="option"][data-combobox-selected]').waitFor()
  await page.keyboard.press('Enter')
  await page.locator('[role="listbox"]').waitFor({ state: 'detached' })
}

const newCombination = async (page: Page) => {
  await page.getByRole('button', { name: 'New combination' }).click()
  await page.getByRole('application').waitFor()
}

describe('the first minute', () => {
  it('goes by the five steps of the README, word for word, with nothing clicked that they do not name', async () => {
    const { page, context, errors } = await app.visit()
    const steps: readonly (readonly [string, () => Promise<void>])[] = [
      [
        '1. New combination. The cursor stands on count 1 of the feet. Type `step side`, press Enter. The step is on the free foot, because that is the one that can; the weight ribbon swings to it.',
        async () => {
          await newCombination(page)
          await page.getByRole('region', { name: 'How to begin' }).waitFor()
          await place(page, 'step side')
          expect(await namesOn(page, 'R:0', 'feet')).toEqual(['step R side, feet'])
          expect(await page.getByRole('region', { name: 'How to begin' }).count()).toBe(0)
        },
      ],
      [
        '2. Go on with arrows. `→` is the next count, `Ctrl →` the next half, `↑` the next layer up. Type what happens there: `touch tog`, `drop l`, `r high-v, l hips`, `look l`. `Shift →` selects more counts first.',
        async () => {
          await page.keyboard.press('ArrowRight')
          await place(page, 'touch tog')
          await page.keyboard.press('ArrowUp')
          await place(page, 'drop l')
          await page.keyboard.press('ArrowUp')
          await page.keyboard.press('ArrowUp')
          await page.keyboard.press('Shift+ArrowRight')
          await place(page, 'r high-v, l hips')
          await page.keyboard.press('ArrowUp')
          await page.keyboard.press('Control+ArrowRight')
          await place(page, 'look l')
          expect(await namesOn(page, 'R:0', 'hips')).toEqual(['hip drop L, 2, hips'])
          const [arms] = await namesOn(page, 'R:0', 'arms')
          expect(arms).toMatch(/^R high-v, L hips, 2/)
          const [head] = await namesOn(page, 'R:0', 'head')
          expect(head).toBe('look left, 2&, head')
        },
      ],
      [
        '3. Read what is said. A step onto the foot you stand on leaves a gap in the ribbon and a sentence beside the braid. Click it to go there; `>` and `<` put what is selected on its right or left side. `Ctrl Z` undoes anything.',
        async () => {
          for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown')
          await page.keyboard.press('Control+ArrowLeft')
          await place(page, 'step side r')
          const finding = page.getByRole('button', { name: /right foot/i }).first()
          await finding.click()
          await page.keyboard.press('<')
          await finding.waitFor({ state: 'detached' })
          await page.keyboard.press('>')
          await finding.waitFor()
          await page.keyboard.press('Control+z')
          await finding.waitFor({ state: 'detached' })
        },
      ],
      [
        '4. See the other side. `/` flips every layer; `\\` puts both sides count under count. `!` keeps a move as written on both sides.',
        async () => {
          await page.keyboard.press('/')
          await page.locator('[data-line="L:0"] [aria-label^="step L side"]').first().waitFor()
          await page.keyboard.press('/')
          await page.keyboard.press('\\')
          await page.locator('[data-line="L:0"]').first().waitFor()
          await page.locator('[data-line="R:0"]').first().waitFor()
          await page.keyboard.press('\\')
          await page.keyboard.press('!')
          await page.keyboard.press('Control+z')
        },
      ],
      [
        '5. Dance it. Space counts you in (5 6 7 8) and plays the right side, then the left. Touch a part of the dancing figure to see, hear and dance only that layer on the feet. Teach walks through it as a class would, step by step, with the words for every count.',
        async () => {
          await page.keyboard.press('Space')
          await expect
            .poll(() => page.locator('[data-now]').textContent(), { interval: 20 })
            .toBe('5')
          await expect
            .poll(() => page.locator('[data-lit="true"]').count(), { timeout: 20_000 })
            .toBeGreaterThan(0)
          await page.keyboard.press('Space')
          await page.getByRole('link', { name: 'Teach' }).click()
          await page.getByRole('heading', { name: /^Walk it · A/ }).waitFor()
        },
      ],
    ]
    expect(stepsOfReadme()).toEqual(steps.map(([text]) => text))
    for (const [, work] of steps) await work()
    expect(errors).toEqual([])
    await context.close()
  })

  it('has the keys in the braid after every menu, dialog and panel; letters never change what is there', async () => {
    const { page, context } = await app.visit()
    await newCombination(page)
    await expectAccessible(page)
    await place(page, 'step side')
    const isBraid = () =>
      page.evaluate(() => document.activeElement?.getAttribute('role') === 'application')
    const opened: readonly (readonly [string, () => Promise<void>])[] = [
      ['More', () => page.getByRole('button', { name: 'More', exact: true }).click()],
      ['the help', () => page.keyboard.press('?')],
      ['the finder', () => page.keyboard.press('Control+k')],
      ['the help by its button', () => page.getByRole('button', { name: /^All keys/ }).click()],
    ]
    for (const [what, open] of opened) {
      await open()
      await page.locator('[role="menu"], [role="dialog"]').first().waitFor()
      await page.keyboard.press('Escape')
      await expect.poll(isBraid, { message: `after ${what}` }).toBe(true)
    }
    await page.keyboard.press('Control+s')
    await page.getByRole('textbox', { name: /sheet/i }).first().waitFor()
    await page.keyboard.press('Control+s')
    await expect.poll(isBraid).toBe(true)
    // With the step under the cursor every name can be typed.
    for (const word of ['rock', 'look', 'lunge', 'run']) {
      await page.keyboard.type(word)
      await page.locator('[role="listbox"] [role="option"]').first().waitFor()
      await page.keyboard.press('Escape')
      await expect.poll(isBraid).toBe(true)
      expect(await namesOn(page, 'R:0', 'feet')).toEqual(['step R side, feet'])
    }
    // The torso's camel is found from the hips, and placed on its own line.
    await page.keyboard.press('ArrowUp')
    await place(page, 'camel')
    expect(await namesOn(page, 'R:0', 'hips')).toEqual([])
    expect(await namesOn(page, 'R:0', 'torso')).toHaveLength(1)
    await context.close()
  })
})

describe('every page', () => {
  it('has one heading and one main part, and shows what is pressed in forced colours', async () => {
    const { page, context } = await app.visit()
    for (const path of [
      '/',
      '/plans',
      '/plan/demo-plan-tuesday',
      '/diary',
      '/moves',
      '/house',
      '/combination/demo-copper-lantern',
      '/combination/demo-copper-lantern/teach',
      '/combination/nothing',
      '/nowhere',
    ]) {
      await page.goto(app.address + path)
      await page.locator('h1').first().waitFor({ state: 'attached' })
      expect([path, await page.locator('h1').count(), await page.locator('main').count()]).toEqual([
        path,
        1,
        1,
      ])
    }
    await page.goto(`${app.address}/combination/demo-copper-lantern`)
    await page.emulateMedia({ forcedColors: 'active' })
    const outlineOf = (name: string) =>
      page
        .getByRole('button', { name, exact: true })
        .evaluate((button) => getComputedStyle(button).outlineStyle)
    await page.getByRole('button', { name: 'Right side', exact: true }).waitFor()
    expect([await outlineOf('Right side'), await outlineOf('Left side')]).toEqual(['solid', 'none'])
    await context.close()
  })
})

describe('a number', () => {
  it('is taken as it is typed, key by key, in the tempo, the room and a height', async () => {
    const { page, context } = await app.visit()
    await page.getByRole('link', { name: 'Copper Lantern' }).click()
    await page.getByRole('button', { name: 'Tempo, families and start' }).click()
    const typed = async (name: string, text: string) => {
      const field = page.getByRole('textbox', { name, exact: true })
      await field.click()
      await field.press('Control+a')
      const seen: string[] = []
      for (const key of text) {
        await page.keyboard.type(key)
        seen.push((await field.inputValue()).replace(/[^\d.]*$/, ''))
      }
      await field.press('Tab')
      return [...seen, (await field.inputValue()).replace(/[^\d.]*$/, '')]
    }
    expect(await typed('Target tempo', '120')).toEqual(['1', '12', '120', '120'])
    await page.getByText('target 120').waitFor()
    expect(await typed('Target tempo', '9')).toEqual(['9', '40'])
    await page.keyboard.press('Escape')
    await page.goto(`${app.address}/house`)
    expect(await typed('Room width', '12')).toEqual(['1', '12', '12'])
    expect(await typed('Tallest dancer', '1.95')).toEqual(['1', '1.', '1.9', '1.95', '1.95'])
    await page.getByLabel('Units').selectOption('feet')
    await expect
      .poll(() => page.getByRole('textbox', { name: 'Room width', exact: true }).inputValue())
      .toMatch(/^39/)
    await context.close()
  })
})

describe('a file', () => {
  it('can be chosen again after it was corrected', async () => {
    const { page, context } = await app.visit()
    const path = join(await mkdtemp(join(tmpdir(), 'sway-')), 'page.sway')
    writeFileSync(path, 'a letter to a friend')
    const input = page.locator('input[type="file"]').first()
    await input.setInputFiles(path)
    const reports = page.getByRole('region', { name: 'Opened files' })
    await reports.getByText(/no count sheet/).waitFor()
    // A browser says nothing when the same file is chosen again, unless the field is empty.
    expect(await input.evaluate((field: HTMLInputElement) => field.value)).toBe('')
    writeFileSync(path, 'sway 1\ntitle Mended\nphrase A 4\n feet 1 step side')
    await input.setInputFiles(path)
    await page.getByRole('article', { name: 'Mended' }).waitFor()
    await context.close()
  })
})

describe('on paper', () => {
  it('a class is one page, the braid keeps its last count, diary and moves leave their forms out', async () => {
    const { page, context } = await app.visit({ viewport: { width: 1010, height: 800 } })
    await page.goto(`${app.address}/plan/demo-plan-tuesday`)
    await page.getByRole('region', { name: 'Drills' }).getByRole('listitem').first().waitFor()
    await page.evaluate(() => document.fonts.ready)
    for (const format of ['A4', 'Letter'] as const) {
      const pdf = (await page.pdf({ format, preferCSSPageSize: true })).toString('latin1')
      expect(pdf.match(/\/Type \/Page\b/g), format).toHaveLength(1)
    }
    await page.goto(`${app.address}/combination/demo-copper-lantern`)
    await page.getByRole('application').waitFor()
    const paper = (await page.pdf({ format: 'A4', preferCSSPageSize: true })).toString('latin1')
    const [, , , width = 0, height = 0] = /\/MediaBox \[(\S+) (\S+) (\S+) (\S+)\]/.exec(paper) ?? []
    expect(Number(width)).toBeGreaterThan(Number(height))
    // As wide as A4 across between its margins.
    await page.emulateMedia({ media: 'print' })
    const ends = await page
      .locator('[data-line="R:0"] [data-count]')
      .evaluateAll((counts) => counts.map((count) => count.getBoundingClientRect().right))
    expect(ends).toHaveLength(8)
    expect(Math.max(...ends)).toBeLessThanOrEqual(1010)
    await page.goto(`${app.address}/diary`)
    await page.getByRole('heading', { name: 'Diary' }).waitFor()
    await page.getByRole('img', { name: /^Tempo reached/ }).waitFor()
    for (const name of ['Delete this class', 'To the floor', 'Plan it'])
      expect(
        await page.getByText(name, { exact: true }).or(page.getByLabel(name)).isVisible(),
      ).toBe(false)
    await page.goto(`${app.address}/moves`)
    await page.getByRole('main').waitFor()
    // The name of the move is a heading that can be typed in; what is searched with is not there.
    const fields = page.getByRole('textbox')
    await fields.first().waitFor()
    expect(await fields.evaluateAll((all) => all.map((one) => one.ariaLabel))).toEqual([
      'What the class calls it',
    ])
    await context.close()
  })
})
