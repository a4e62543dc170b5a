import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import {
  type App,
  expectAccessibleInBoth,
  namesOn,
  placeIn,
  soundsOf,
  startApp,
  write,
} from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

async function open(page: Page, title: string) {
  await page.getByRole('link', { name: new RegExp(title) }).click()
  await page.getByRole('application').waitFor()
}

describe('in both themes', () => {
  it('axe finds nothing serious on any screen, with what opens on them', async () => {
    const { page, context } = await app.visit({ colorScheme: 'light' })
    await expectAccessibleInBoth(page)
    await page.getByRole('article', { name: 'Long Swell' }).getByRole('button').click()
    await page.getByRole('menuitem', { name: 'Duplicate' }).waitFor()
    await expectAccessibleInBoth(page)
    await page.keyboard.press('Escape')
    await open(page, 'Find the Slip')
    await expectAccessibleInBoth(page)
    await page.keyboard.press('\\')
    await page.getByRole('button', { name: /A7.*Can’t be danced/ }).click()
    await page.getByRole('region', { name: 'Selected move' }).waitFor()
    await expectAccessibleInBoth(page)
    await page.keyboard.press('Enter')
    await page.getByRole('listbox').waitFor()
    await page.locator('[role="option"][data-combobox-selected]').waitFor()
    await expectAccessibleInBoth(page)
    await page.keyboard.press('Escape')
    await page.keyboard.press('?')
    await page.getByRole('dialog', { name: 'All keys' }).waitFor()
    await expectAccessibleInBoth(page)
    await page.keyboard.press('Escape')
    await page.getByRole('dialog').waitFor({ state: 'detached' })
    for (const [key, what] of [
      ['Control+k', page.getByRole('textbox', { name: 'Find an action' })],
      ['Control+m', page.getByRole('dialog', { name: /An own move/ })],
    ] as const) {
      await page.getByRole('application').focus()
      await page.keyboard.press(key)
      await what.waitFor()
      await expectAccessibleInBoth(page)
      await page.keyboard.press('Escape')
      await page.getByRole('dialog').waitFor({ state: 'detached' })
    }
    await page.getByRole('button', { name: 'Moves', exact: true }).click()
    await page.getByRole('listbox', { name: 'Moves' }).waitFor()
    await expectAccessibleInBoth(page)
    await page.getByRole('button', { name: 'Sheet', exact: true }).click()
    await page.locator('.cm-content').waitFor()
    await expectAccessibleInBoth(page)
    await page.getByRole('link', { name: 'Teach' }).click()
    await page.getByRole('list', { name: 'Steps' }).waitFor()
    await expectAccessibleInBoth(page)
    await page.getByRole('link', { name: 'Moves', exact: true }).click()
    await page.getByRole('heading', { name: 'Moves' }).waitFor()
    await expectAccessibleInBoth(page)
    await context.close()
  })
})

describe('the page', () => {
  it('is served with a policy that lets nothing in from outside', async () => {
    const { headers } = await fetch(app.address)
    const policy = headers.get('content-security-policy') ?? ''
    expect(policy).toContain("default-src 'none'")
    // Our own compiled code makes songs slower; nothing else is evaluated.
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval';")
    expect(policy.replace("'wasm-unsafe-eval'", '')).not.toMatch(/unsafe|https?:|\*|data:/)
    expect(headers.get('x-content-type-options')).toBe('nosniff')
    const { page } = await app.visit()
    const ran = await page.evaluate(async () => {
      const script = document.createElement('script')
      script.textContent = 'window.inline = true'
      document.head.append(script)
      // Later on: what asks from outside may evaluate while it asks.
      const evaluated = await new Promise((done) => {
        setTimeout(() => {
          try {
            done(new Function('return true')())
          } catch {
            done(false)
          }
        }, 50)
      })
      const fetched = await fetch('https://example.org/').then(
        () => true,
        () => false,
      )
      return { inline: 'inline' in window, evaluated, fetched }
    })
    expect(ran).toEqual({ inline: false, evaluated: false, fetched: false })
    expect((await fetch(`${app.address}/combination/x`)).status).toBe(200)
    expect((await fetch(`${app.address}/assets/none.js`)).status).toBe(404)
    const schema = await fetch(`${app.address}/schema/combination.schema.json`)
    expect(await schema.json()).toMatchObject({ title: 'Molten Sway combination' })
  })

  it('says what to do at an address that has nothing', async () => {
    const { page, context } = await app.visit()
    await page.goto(`${app.address}/combination/nothing`)
    await page.getByRole('heading', { name: 'This combination is not here.' }).waitFor()
    await page.goto(`${app.address}/nowhere`)
    await page.getByRole('heading', { name: 'There is nothing at this address.' }).waitFor()
    await context.close()
  })
})

describe('playing', () => {
  it('lights the count that sounds, loops what is chosen, and turns from side to side', async () => {
    const { page, context } = await app.visit()
    await open(page, 'Long Swell')
    const select = page.getByLabel('What to play again and again')
    await page.getByRole('application').focus()
    for (const key of ['ArrowDown', '7', 'Shift+ArrowRight']) await page.keyboard.press(key)
    await select.selectOption('selection')
    const watched = page.evaluate(async () => {
      const list: string[] = []
      const end = performance.now() + 60_000
      while (performance.now() < end && list.length < 8) {
        await new Promise(requestAnimationFrame)
        const lit = document.querySelector('[data-lit="true"]')
        const line = lit?.closest('[data-line]')?.getAttribute('data-line')
        const now = document.querySelector('[data-now]')?.textContent
        const text = `${now} ${lit?.textContent ?? ''}`.trim()
        // Empty until the first count sounds.
        if (text !== '' && list.at(-1) !== text && line !== 'none') list.push(text)
      }
      return list
    })
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    const seen = await watched
    // Two counts of phrase B on one side, then on the other, again and again, after 5 6 7 8.
    expect(seen.slice(0, 8)).toEqual(['5', '6', '7', '8', 'B 7 7', 'B 8 8', 'B 7 7', 'B 8 8'])
    // The cursor goes elsewhere and writes there: what is looped stays what it was.
    await write(page, 'R:0', 'head', 1, 'nod')
    const later = await page.evaluate(async () => {
      const heard = new Set<string>()
      const end = performance.now() + 2000
      while (performance.now() < end) {
        await new Promise(requestAnimationFrame)
        heard.add(document.querySelector('[data-now]')?.textContent ?? '')
      }
      return [...heard].sort()
    })
    expect(later).toEqual(['B 7', 'B 8'])
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    expect(await page.locator('[data-lit="true"]').count()).toBe(0)
    await context.close()
  })

  it('the figure leaves only the feet and one layer: shown, heard and danced', async () => {
    const { page, context } = await app.visit({ inSpace: true })
    await open(page, 'Copper Lantern')
    expect(await page.locator('[data-line="R:0"] .layer-arms[data-event]').count()).toBe(2)
    await page.getByRole('button', { name: 'Only the hips on the feet' }).click()
    expect(await page.locator('[data-line="R:0"] .layer-arms[data-event]').count()).toBe(0)
    expect(await page.locator('[data-line="R:0"] .layer-hips[data-event]').count()).toBe(2)
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await page.locator('[data-lit="true"]').waitFor()
    const moved = await page.evaluate(async () => {
      const canvas = document.querySelector<HTMLElement>('canvas[data-shown]')
      const heights: number[] = []
      for (let i = 0; i < 60; i++) {
        await new Promise((done) => setTimeout(done, 40))
        heights.push(Number(canvas?.dataset.shown?.split(' ')[3]))
      }
      return heights
    })
    // The palm only goes along with the step; the arms would take it up over the head.
    expect(Math.max(...moved)).toBeLessThan(1)
    // Of the layers, feet (120 ms) and hips (110 ms) sound; arms (150 ms) and head (100 ms) do not.
    const heard = new Set((await soundsOf(page)).map(({ duration }) => Math.round(duration * 1000)))
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    expect([...heard].sort((a, b) => a - b)).toEqual([40, 70, 90, 110, 120])
    await context.close()
  })

  it('walks through the steps of teaching, each layer on both sides, and shows the words of the side', async () => {
    const { page, context } = await app.visit({ clock: 4 })
    await open(page, 'Find the Slip')
    await page.getByRole('button', { name: 'Tempo, families and start' }).click()
    await page.getByRole('textbox', { name: 'Teaching tempo' }).fill('220')
    await page.keyboard.press('Escape')
    await page.locator('[data-save-state="saved"]').waitFor()
    await page.getByRole('link', { name: 'Teach' }).click()
    const words = page.getByRole('region', { name: 'What to do on each count' })
    const step = page.locator('[aria-current="step"]')
    const lit = page.locator('[data-row][data-lit="true"]')
    // A walk has no clock: each touch is a count, and then the next step.
    expect(await step.textContent()).toMatch(/^Walk it/)
    const rows = await page.locator('[data-row]').count()
    for (let count = 1; count <= rows; count++) {
      await page.getByRole('button', { name: 'Next count' }).click()
      expect(await lit.getAttribute('data-row')).toBe(String(count))
    }
    await page.getByRole('button', { name: 'On', exact: true }).click()
    await expect.poll(() => step.textContent()).not.toMatch(/^Walk it/)
    // What is counted goes on by itself, until a walk waits again.
    await page.locator('[aria-current="step"]', { hasText: 'All layers · A' }).waitFor()
    await words.getByText('Right foot steps to the right.').first().waitFor()
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await lit.waitFor()
    await page.locator('[aria-current="step"]', { hasText: 'Walk it · B' }).waitFor()
    await page.getByRole('button', { name: 'Next count' }).waitFor()
    await page
      .getByRole('list', { name: 'Steps' })
      .getByRole('button', { name: /^Other side · / })
      .last()
      .click()
    await words.getByText('Left side.').waitFor()
    await words.getByText('Left foot steps to the left.').first().waitFor()
    await page.keyboard.press('PageDown')
    await expect.poll(() => step.textContent()).not.toMatch(/^Other side · /)
    await context.close()
  })
})

describe('the braid by hand', () => {
  it('shows what fits beside a count that is clicked twice, or by its +, and places it there', async () => {
    const { page } = await app.visit()
    await page.getByRole('link', { name: /Copper Lantern/ }).click()
    await page.getByRole('application').waitFor()
    const sheet = page.getByRole('region', { name: 'What fits here' })
    const { x, y } = await placeIn(page, 'R:0', 'torso', 3)
    await page.mouse.click(x, y)
    expect(await sheet.count()).toBe(0)
    await page.mouse.click(x, y)
    await sheet.waitFor()
    await sheet.getByRole('button', { name: 'right', exact: true }).click()
    await expect.poll(() => namesOn(page, 'R:0', 'torso')).toEqual(['ribs right, 3, torso'])
    // What comes next goes behind it.
    await sheet.getByRole('button', { name: 'centre', exact: true }).click()
    await expect.poll(() => namesOn(page, 'R:0', 'torso')).toContain('ribs centre, 4, torso')
    await page.keyboard.press('Escape')
    await sheet.waitFor({ state: 'detached' })
    await page.mouse.click(x + 300, y)
    await page.getByRole('button', { name: 'Show what fits here' }).click()
    await sheet.waitFor()
    // Letters find a move, as ever.
    await page.getByRole('application').focus()
    await page.keyboard.type('che')
    await sheet.waitFor({ state: 'detached' })
    await page.locator('[role="option"][data-combobox-selected]').waitFor()
  })

  it('moves and stretches by dragging, one undo a drag, and draws only its own line', async () => {
    const { page, context } = await app.visit()
    await open(page, 'Copper Lantern')
    const hips = () => namesOn(page, 'R:3', 'hips')
    expect(await hips()).toEqual(['hip bump L, 5, hips', 'hip bump R, 7, hips'])
    const from = await placeIn(page, 'R:3', 'hips', 5)
    const to = await placeIn(page, 'R:3', 'hips', 3)
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    // An edit draws the line it is in, and no other: that is what keeps a frame short.
    await page.evaluate(() => {
      const drawn = new Set<string>()
      Object.assign(window, { drawn })
      const watch = new MutationObserver((changes) => {
        for (const { target } of changes) {
          const line = (target as Element).closest?.('[data-line]')?.getAttribute('data-line')
          if (line) drawn.add(line)
        }
      })
      watch.observe(document.body, { subtree: true, childList: true, attributes: true })
    })
    for (let i = 1; i <= 20; i++) await page.mouse.move(from.x + ((to.x - from.x) * i) / 20, from.y)
    await page.mouse.up()
    expect(await hips()).toEqual(['hip bump L, 3, hips', 'hip bump R, 7, hips'])
    const drawn = () =>
      page.evaluate(() => [...(window as unknown as { drawn: Set<string> }).drawn])
    expect(await drawn()).toEqual(['R:3'])
    const mark = page.locator('[data-line="R:3"] .layer-hips[data-event]').first()
    const box = await mark.boundingBox()
    if (!box) throw new Error('the bump is gone')
    const edge = { x: box.x + box.width - 3, y: box.y + box.height / 2 }
    await page.mouse.move(edge.x, edge.y)
    await page.mouse.down()
    await page.mouse.move(edge.x + box.width, edge.y, { steps: 6 })
    await page.mouse.up()
    expect((await hips())[0]).toBe('hip bump L, 3-4, hips')
    await page.keyboard.press('Control+z')
    expect((await hips())[0]).toBe('hip bump L, 3, hips')
    await page.keyboard.press('Control+z')
    expect((await hips())[0]).toBe('hip bump L, 5, hips')
    await page.keyboard.press('Control+y')
    expect((await hips())[0]).toBe('hip bump L, 3, hips')
    await context.close()
  })

  it('goes over counts, halves, layers and phrases by keys alone, and says where it is', async () => {
    const { page, context } = await app.visit()
    await open(page, 'Quick Ember')
    await page.getByRole('application').focus()
    const place = () => page.locator('#braid-place').textContent()
    const keys = async (...list: string[]) => {
      for (const key of list) await page.keyboard.press(key)
    }
    expect(await place()).toMatch(/^A1, Feet: cha-cha basic R/)
    await keys('ArrowDown', '3', 'ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowDown')
    expect(await place()).toMatch(/^B3, Feet: step R side/)
    await keys('&')
    expect(await place()).toMatch(/^B3&, Feet: close L/)
    await keys('ArrowRight', 'ArrowUp', 'ArrowUp', 'ArrowUp')
    expect(await place()).toMatch(/^B4, Arms: empty/)
    await keys('ArrowLeft', 'ArrowLeft', 'ArrowLeft', 'ArrowLeft')
    expect(await place()).toMatch(/^A8, Arms: empty/)
    await keys('5', '=')
    const right = page.getByLabel('Right arm')
    await right.waitFor()
    await right.selectOption('crown')
    expect(await namesOn(page, 'R:0', 'arms')).toContain('R crown, L level, 5-8, arms')
    await page.getByRole('button', { name: 'Close' }).click()
    await keys('Delete')
    expect(await namesOn(page, 'R:0', 'arms')).toEqual(['both demi-second, 1-4, arms'])
    await context.close()
  })

  it('repeats, turns, moves and takes out phrases, and says on which time round it breaks', async () => {
    const { page, context } = await app.visit()
    await open(page, 'Copper Lantern')
    const phrase = async (name: RegExp, item: string) => {
      await page.getByRole('button', { name }).first().click()
      await page.getByRole('menuitem', { name: item, exact: true }).click()
      await page.getByRole('menu').waitFor({ state: 'detached' })
    }
    await phrase(/Phrase B/, 'Dance it again')
    const findings = page.getByRole('region', { name: 'Findings' })
    await findings.getByText('B1, second time').waitFor()
    await phrase(/Phrase B, time 2/, 'Dance it from the other side')
    await findings.getByText('B1, second time').waitFor({ state: 'detached' })
    expect(await namesOn(page, 'R:2', 'hips')).toEqual(['hip bump L, 1-8, hips'])
    await phrase(/Phrase B, time 2/, 'Remove this phrase')
    await phrase(/Phrase D/, 'Earlier')
    expect(await namesOn(page, 'R:2', 'torso')).toEqual(['body wave down, 1-4, torso'])
    await phrase(/Phrase A/, 'Name and counts…')
    await page.getByRole('textbox', { name: 'Counts' }).fill('6')
    await page.keyboard.press('Escape')
    expect(await page.locator('[data-line="R:0"] [data-count]').count()).toBe(6)
    for (let i = 0; i < 5; i++)
      await page.getByRole('button', { name: 'Undo', exact: true }).click()
    expect(await page.getByRole('button', { name: 'Undo', exact: true }).isDisabled()).toBe(true)
    expect(await namesOn(page, 'R:3', 'torso')).toEqual(['body wave down, 1-4, torso'])
    await context.close()
  })
})
