import type { BrowserContext, Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import { type App, drills, expectAccessible, namesOn, startApp, titlesOf, write } from './app'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const saveWord = (page: Page) => page.locator('[data-save-state]').textContent()

/** A browser that never visited, on a machine that is not as it should be. */
async function arrive(spoil: () => void): Promise<{ context: BrowserContext; page: Page }> {
  const context = await app.browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addInitScript(spoil)
  const page = await context.newPage()
  await page.goto(app.address)
  return { context, page }
}

async function openCopper(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Copper Lantern' }).click()
  await page.getByRole('application').waitFor()
}

/** Has every write fail while `window.full` is set. */
function fillable() {
  for (const method of ['put', 'add'] as const) {
    const own = IDBObjectStore.prototype[method]
    IDBObjectStore.prototype[method] = function (this: IDBObjectStore, ...given) {
      if ((window as { full?: boolean }).full) throw new DOMException('full', 'QuotaExceededError')
      return own.apply(this, given)
    }
  }
}
const setFull = (page: Page, full: boolean) =>
  page.evaluate((is) => Object.assign(window, { full: is }), full)

describe('a browser that keeps nothing', () => {
  it('says so where storage is denied, with what to do', async () => {
    const { page, context } = await arrive(() => {
      Object.defineProperty(window, 'indexedDB', {
        get() {
          throw new DOMException('denied', 'SecurityError')
        },
      })
    })
    await page.getByRole('heading', { name: /does not let the app keep anything/ }).waitFor()
    await page.getByText(/allow storage for this address/).waitFor()
    await page.getByRole('button', { name: 'Try again' }).waitFor()
    await expectAccessible(page)
    await context.close()
  })

  it.each([
    [
      'local storage',
      () =>
        Object.defineProperty(window, 'localStorage', {
          get() {
            throw new DOMException('denied', 'SecurityError')
          },
        }),
    ],
    ['locks', () => Object.defineProperty(Navigator.prototype, 'locks', { get: () => undefined })],
  ] as const)('works without %s, and keeps what was made', async (_, spoil) => {
    const { page, context } = await arrive(spoil as () => void)
    await page.getByRole('article').first().waitFor()
    await openCopper(page)
    await write(page, 'R:0', 'head', 1, 'nod')
    await expect.poll(() => saveWord(page)).toBe('saved')
    await page.reload()
    await page.locator('[data-line="R:0"] [aria-label^="nod"]').waitFor()
    await context.close()
  })

  it('waits for a window of an older version, says so, and goes on by itself', async () => {
    const context = await app.browser.newContext()
    const older = await context.newPage()
    // A page of the same address that is not the app, and does not let go.
    await older.goto(`${app.address}/nothing.txt`)
    await older.evaluate(
      () =>
        new Promise<void>((done) => {
          const asked = indexedDB.open('molten-sway', 20)
          asked.onupgradeneeded = () => {
            asked.result
              .createObjectStore('combinations', { keyPath: 'id' })
              .createIndex('changedAt', 'changedAt')
            asked.result.createObjectStore('flags', { keyPath: 'name' })
          }
          asked.onsuccess = () => {
            Object.assign(window, { held: asked.result })
            done()
          }
        }),
    )
    const page = await context.newPage()
    await page.goto(app.address)
    await page.getByRole('heading', { name: /older version of the app open/ }).waitFor()
    await older.close()
    await page.getByRole('article').first().waitFor()
    await context.close()
  })
})

describe('a disk that is full', () => {
  it('is said, asked about before the studio is left, tried again, and nothing is lost', async () => {
    const { page, context } = await arrive(fillable)
    await page.getByRole('article').first().waitFor()
    await openCopper(page)
    await setFull(page, true)
    await write(page, 'R:0', 'head', 1, 'nod')
    await expect.poll(() => saveWord(page)).toBe('not saved')
    await page
      .getByText(/Make room on the disk/)
      .first()
      .waitFor()
    const asked: string[] = []
    page.on('dialog', (dialog) => {
      asked.push(dialog.message())
      void dialog.dismiss()
    })
    await page.getByRole('link', { name: 'Plans', exact: true }).click()
    await expect.poll(() => asked.length).toBe(1)
    expect(asked[0]).toMatch(/could not be saved/)
    await page.getByRole('application').waitFor()
    await setFull(page, false)
    await expect.poll(() => saveWord(page), { timeout: 40_000 }).toBe('saved')
    await page.reload()
    await page.locator('[data-line="R:0"] [aria-label^="nod"]').waitFor()
    await context.close()
  })

  it('keeps the form of an own move, says that house rules and a plan are not kept, and keeps them later', async () => {
    const { page, context } = await arrive(fillable)
    await page.getByRole('article').first().waitFor()
    await openCopper(page)
    await page.getByRole('application').focus()
    for (let i = 0; i < 3; i++) await page.keyboard.press('Shift+ArrowRight')
    await page.keyboard.press('Control+m')
    const form = page.getByRole('dialog')
    const name = form.getByRole('textbox', { name: /What the class calls it/ })
    await name.fill('Ember walk')
    await setFull(page, true)
    await name.press('Enter')
    await page.getByText(/Make room on the disk, then do it again/).waitFor()
    expect(await name.inputValue()).toBe('Ember walk')
    await setFull(page, false)
    await name.press('Enter')
    await form.waitFor({ state: 'detached' })
    await page.getByText(/Make room on the disk/).waitFor({ state: 'detached' })

    await page.getByRole('link', { name: 'House rules' }).click()
    const wide = page.getByRole('textbox', { name: 'Room width', exact: true })
    await wide.waitFor()
    await setFull(page, true)
    await wide.fill('14')
    await wide.press('Tab')
    await page
      .getByText(/could not be saved/)
      .first()
      .waitFor()
    expect(await wide.inputValue()).toMatch(/^14/)
    await setFull(page, false)

    await page.getByRole('link', { name: 'Plans', exact: true }).click()
    await page.locator('a[href="/plan/demo-plan-tuesday"]').first().click()
    await drills(page).first().waitFor()
    await setFull(page, true)
    await page.getByRole('textbox', { name: 'Name of the plan' }).fill('Lanterns')
    await expect.poll(() => saveWord(page)).toBe('not saved')
    await setFull(page, false)
    await page.getByRole('textbox', { name: 'Name of the plan' }).fill('Lanterns low')
    await expect.poll(() => saveWord(page)).toBe('saved')
    await page.reload()
    await drills(page).first().waitFor()
    expect(await page.getByRole('textbox', { name: 'Name of the plan' }).inputValue()).toBe(
      'Lanterns low',
    )
    await context.close()
  })
})

describe('a combination that is deleted', () => {
  it('in another window is said in the open studio; a plan keeps its drills, greyed, until it is back', async () => {
    const { page, context } = await app.visit()
    await page.goto(`${app.address}/plan/demo-plan-thursday`)
    await drills(page).first().waitFor()
    const before = await titlesOf(page)
    expect(before.length).toBeGreaterThan(3)
    const studio = await context.newPage()
    await studio.goto(`${app.address}/combination/demo-saffron-steps`)
    await studio.getByRole('application').waitFor()
    const shelf = await context.newPage()
    await shelf.goto(app.address)
    await shelf.getByRole('button', { name: 'More for Saffron Steps' }).click()
    await shelf.getByRole('menuitem', { name: 'Delete' }).click()
    await studio.getByText(/was deleted in another window/).waitFor()

    await page.reload()
    await page.getByText(/“Saffron Steps” is not here any more/).waitFor()
    const greyed = await page.locator('[data-gone="true"]').count()
    expect(greyed).toBeGreaterThan(0)
    // Touched all the same: what is gone is not planned away.
    await page.getByRole('textbox', { name: 'Name of the plan' }).fill('Without it')
    await expect.poll(() => saveWord(page)).toBe('saved')
    expect(await drills(page).count()).toBe(before.length)
    await expectAccessible(page)
    // The next change in the open studio brings it back, and the plan has it again.
    await write(studio, 'R:0', 'head', 1, 'nod')
    await expect.poll(() => saveWord(studio)).toBe('saved')
    await page.reload()
    await drills(page).first().waitFor()
    expect(await titlesOf(page)).toEqual(before)
    expect(await page.locator('[data-gone="true"]').count()).toBe(0)
    expect(await namesOn(studio, 'R:0', 'head')).toContain('nod, 1, head')
    await context.close()
  })
})
