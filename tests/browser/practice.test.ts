import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { BrowserContext, Page } from 'playwright-core'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Combination } from '../../src/core/combination/combination'
import { USUAL_RULES } from '../../src/core/house/house'
import { vocabulary } from '../../src/core/moves/vocabulary'
import { pageDataOf } from '../../src/core/practice/makePage'
import type { PageData, PageSong } from '../../src/core/practice/pageData'
import { type PageParts, practicePage } from '../../src/core/practice/practicePage'
import { fingerprintOf } from '../../src/core/song/fingerprint'
import { demo } from '../demo'
import { play } from '../pieces/song'
import { wav } from '../pieces/wav'
import { type App, bytesOf, expectAccessible, startApp } from './app'

let app: App
let parts: PageParts
const folder = mkdtempSync(join(tmpdir(), 'sway-page-'))
beforeAll(async () => {
  app = await startApp()
  parts = JSON.parse(readFileSync(join('dist', 'practice', 'page.json'), 'utf8'))
})

const MADE = '2026-11-29'
const titled = (title: string): Combination => {
  const found = demo.find((one) => one.title === title)
  if (!found) throw new Error(`the demo has no ${title}`)
  return found
}
const dataOf = (title: string): PageData =>
  pageDataOf(titled(title), vocabulary, USUAL_RULES, { made: MADE })
const saved = (name: string, html: string): string => {
  const path = join(folder, name)
  writeFileSync(path, html)
  return path
}

/** A page that was saved, opened where there is no network. */
async function openFile(context: BrowserContext, path: string) {
  const page = await context.newPage()
  const outside: string[] = []
  const wrong: string[] = []
  page.on('request', (request) => {
    if (!request.url().startsWith('file:')) outside.push(request.url())
  })
  page.on('pageerror', (error) => wrong.push(String(error)))
  page.on('dialog', (dialog) => {
    wrong.push(dialog.message())
    void dialog.dismiss()
  })
  await page.goto(`file://${path}`)
  return { page, outside, wrong }
}

const alone = (options: Parameters<App['browser']['newContext']>[0] = {}) =>
  app.browser.newContext({ offline: true, viewport: { width: 390, height: 844 }, ...options })

const press = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: true }).click()
const stopOf = (page: Page) => page.locator('h2').first().textContent()
const noSideways = async (page: Page) =>
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0)

/** All counts of a walk, by a tap or a key each. */
async function walk(page: Page, next: () => Promise<void>) {
  const title = await stopOf(page)
  const lit: (string | null)[] = []
  for (let i = 0; i < 40 && (await stopOf(page)) === title; i++) {
    await next()
    lit.push(await page.locator('.count').textContent())
  }
  return lit
}

describe('a practice page', () => {
  it('is saved in Teach, learned without a network by touch, sent back, and seen in the diary and the next plan', async () => {
    const { page: teacher, errors } = await app.visit()
    await teacher.getByRole('link', { name: 'Copper Lantern' }).click()
    await teacher.getByRole('application').waitFor()
    await teacher.goto(`${new URL(teacher.url()).origin}${new URL(teacher.url()).pathname}/teach`)
    await press(teacher, 'Practice page…')
    const form = teacher.getByRole('dialog', { name: 'Practice page' })
    await form.getByLabel('From').fill('Studio Ostwind')
    await form.getByLabel('A line on its first page').fill('Hips before arms.')
    await form.getByLabel('With the voice that calls').uncheck()
    await expectAccessible(teacher)
    const download = teacher.waitForEvent('download')
    await press(teacher, 'Save the page')
    const html = (await bytesOf(await download)).toString()
    expect((await download).suggestedFilename()).toBe('Copper Lantern.html')
    await form.getByText(/^Saved, \d+ kB/).waitFor()
    // With a voice it is a page of its own.
    await form.getByLabel('With the voice that calls').check()
    const spoken = teacher.waitForEvent('download')
    await press(teacher, 'Save the page')
    expect((await bytesOf(await spoken)).length).toBeGreaterThan(html.length + 30_000)

    // The same bytes as the core makes of the same, as the command line does.
    const made = /"made":"(.{10})"/.exec(html)?.[1] ?? ''
    const data = pageDataOf(titled('Copper Lantern'), vocabulary, USUAL_RULES, {
      made,
      by: 'Studio Ostwind',
      note: 'Hips before arms.',
    })
    expect(html).toBe(practicePage(data, parts))

    const context = await alone({ hasTouch: true })
    const { page, outside, wrong } = await openFile(context, saved('lantern.html', html))
    const figure = page.getByRole('img', { name: /^The dancer/ })
    await figure.waitFor()
    await page.getByText('Hips before arms.').waitFor()
    await expectAccessible(page)
    await page.emulateMedia({ colorScheme: 'dark' })
    await expectAccessible(page)
    await page.emulateMedia({ colorScheme: 'light' })

    // Watch it: it is danced and counted.
    await press(page, 'Start')
    expect(await stopOf(page)).toBe('Watch A')
    const still = await figure.innerHTML()
    await press(page, 'Play')
    await expect.poll(() => page.locator('.count').textContent()).toBe('2')
    expect(await figure.innerHTML()).not.toBe(still)
    await expect.poll(() => page.locator('.words li[aria-current]').textContent()).toMatch(/^\d /)
    await press(page, '8 back')
    await expect.poll(() => page.locator('.said').textContent()).toBe('Ready')
    await press(page, 'Stop')
    await press(page, 'Go on')

    // Walk it, first what is heavy by itself.
    const stops = data.chunks[0]?.stops ?? []
    for (const stop of stops.filter(({ do: kind }) => kind === 'walk')) {
      expect(await stopOf(page)).toBe(`Walk A: ${stop.layers.join(', ')}`)
      const lit = await walk(page, async () => {
        const next = page.getByRole('button', { name: 'Next count', exact: true })
        if (await next.isVisible()) await next.click()
        else await press(page, 'Go on')
      })
      expect(lit.slice(0, 8)).toEqual(['1', '2', '3', '4', '5', '6', '7', '8'])
    }
    expect(await stopOf(page)).toBe('Try A')
    await expectAccessible(page)
    await noSideways(page)
    // Not yet twice: slower, and the feet alone are offered.
    await press(page, 'Not yet')
    await press(page, 'Not yet')
    await page.getByRole('button', { name: 'Feet only once?' }).waitFor()
    await press(page, 'Not yet')
    await press(page, 'Clean')
    expect(await stopOf(page)).toBe('A, the left side')
    await press(page, 'Clean')
    await press(page, 'Clean')
    expect(await stopOf(page)).toBe('Watch B')
    await page.getByRole('button', { name: 'A, Lantern walk, clean' }).waitFor()

    // Closed and opened again it is where it was; another page knows nothing of it.
    await page.close()
    const again = await openFile(context, join(folder, 'lantern.html'))
    expect(await stopOf(again.page)).toBe('Watch B')
    await again.page.getByRole('button', { name: 'A, Lantern walk, clean' }).waitFor()
    const other = await openFile(
      context,
      saved('saffron.html', practicePage(dataOf('Saffron Steps'), parts)),
    )
    await press(other.page, 'Start')
    expect(await other.page.getByRole('button', { name: /clean$/ }).count()).toBe(0)

    // From the top comes behind a chunk that is not the first.
    await press(again.page, 'Go on')
    for (let i = 0; i < 60 && !/^From the top/.test((await stopOf(again.page)) ?? ''); i++) {
      for (const name of ['Later', 'Go on', 'Next count']) {
        const next = again.page.getByRole('button', { name, exact: true })
        if (!(await next.isVisible())) continue
        await next.click()
        break
      }
    }
    expect(await stopOf(again.page)).toBe('From the top to B')
    await press(again.page, 'Dance along')
    await press(again.page, 'Back to the stop')
    expect(await stopOf(again.page)).toBe('From the top to B')

    await press(again.page, 'Send back')
    await again.page.getByLabel('Your name, if you like').fill('Mia')
    await expectAccessible(again.page)
    const text = await again.page.getByLabel('To send back').inputValue()
    expect(text).toMatch(/^Mia practised “Copper Lantern”/)
    const file = again.page.waitForEvent('download')
    await press(again.page, 'Save as a file')
    expect((await file).suggestedFilename()).toBe('Copper Lantern.sway-practice.json')
    const sentFile = await bytesOf(await file)
    expect([...outside, ...again.outside, ...other.outside]).toEqual([])
    expect([...wrong, ...again.wrong, ...other.wrong]).toEqual([])
    await context.close()

    // The teacher opens it.
    await teacher.keyboard.press('Escape')
    await teacher.goto(new URL('/diary', teacher.url()).href)
    const sent = teacher.getByRole('region', { name: 'Sent back' })
    const next = teacher.getByRole('region', { name: 'Next class' })
    await sent
      .getByText(/nothing sent back yet/)
      .first()
      .waitFor()
    await sent.getByLabel('Paste what was sent').fill(text.slice(0, -3))
    await press(teacher, 'Open it')
    await sent.getByText(/^Cut off/).waitFor()
    await sent.getByLabel('Paste what was sent').fill(text)
    await press(teacher, 'Open it')
    await sent.getByText(/1 sent back: A right 1 of 1 not yet/).waitFor()
    await next.getByText(/Copper Lantern A: .*1 of 1 sent back not yet on the right/).waitFor()
    await teacher
      .locator('input[aria-label="Open returns"], [aria-label="Open returns"] input')
      .setInputFiles({
        name: 'x.json',
        mimeType: 'application/json',
        buffer: sentFile,
      })
    await sent.getByText('The same return is here already.').waitFor()
    await sent.locator('summary').filter({ hasText: '1 sent back' }).click()
    await expectAccessible(teacher)
    await sent.getByRole('button', { name: 'Take out what Mia sent back' }).first().click()
    await sent.getByText(/1 sent back/).waitFor({ state: 'hidden' })
    await teacher.keyboard.press('Control+z')
    await sent.getByText(/1 sent back/).waitFor()
    await teacher.reload()
    await sent.getByText(/1 sent back/).waitFor()
    expect(errors).toEqual([])
  })

  it('is gone through by keys alone, wide and narrow, with no storage too', async () => {
    const context = await alone({ viewport: { width: 1280, height: 800 } })
    await context.addInitScript(() => {
      Object.defineProperty(window, 'localStorage', {
        get() {
          throw new Error('refused')
        },
      })
    })
    const { page, wrong } = await openFile(
      context,
      saved('ember.html', practicePage(dataOf('Quick Ember'), parts)),
    )
    await page.getByText('Marks are kept while this page is open.').waitFor()
    const focusOn = (name: string) => page.getByRole('button', { name, exact: true }).focus()
    await focusOn('Start')
    await page.keyboard.press('Enter')
    await page.keyboard.press(' ')
    await page.getByRole('button', { name: 'Stop', exact: true }).waitFor()
    await page.keyboard.press('j')
    await page.keyboard.press(' ')
    await page.getByRole('button', { name: 'Play', exact: true }).waitFor()
    await focusOn('Go on')
    await page.keyboard.press('Enter')
    while (/^Walk/.test((await stopOf(page)) ?? '')) {
      const lit = await walk(page, () => page.keyboard.press('ArrowRight'))
      expect(lit.length).toBeGreaterThan(4)
    }
    expect(await stopOf(page)).toMatch(/^Try/)
    await focusOn('Clean')
    await page.keyboard.press('Enter')
    expect(await stopOf(page)).not.toMatch(/^Try/)
    for (const width of [320, 390, 1280]) {
      await page.setViewportSize({ width, height: 700 })
      await noSideways(page)
    }
    await page.emulateMedia({ reducedMotion: 'reduce' })
    await expectAccessible(page)
    expect(wrong).toEqual([])
    await context.close()
  })

  it('shows whatever is written in it as text, and says where it was changed on its way', async () => {
    const context = await alone()
    const nasty = '</script><script>alert(1)</script> --> ‮ 🙂 <img src=x onerror=alert(2)>'
    const html = practicePage({ ...dataOf('Quick Ember'), title: nasty, note: nasty }, parts)
    const hostile = await openFile(context, saved('hostile.html', html))
    expect(await hostile.page.getByRole('heading', { level: 1 }).textContent()).toBe(nasty)
    await hostile.page.getByText(nasty).nth(1).waitFor()
    expect(hostile.wrong).toEqual([])
    expect(hostile.outside).toEqual([])

    const told = 'This page was changed on its way'
    const changes = {
      data: html.replace('"tempo":', '"tempp":'),
      script: html.replace(parts.script, `${parts.script} `),
    }
    for (const [name, changed] of Object.entries(changes)) {
      expect(changed).not.toBe(html)
      const { page } = await openFile(context, saved(`${name}.html`, changed))
      await page.getByText(told).waitFor()
      expect(await page.getByRole('button').count()).toBe(0)
    }
    await context.close()
  })

  it('is danced to the student’s own copy of its song, and prints the handout of its part', async () => {
    const piece = play('tune', 'drum4', { seed: 9301, counts: 48 })
    const song: PageSong = {
      title: 'Kiln Yard',
      seconds: piece.samples.length / piece.rate,
      print: fingerprintOf(piece.samples, piece.rate),
      side: 'R',
      knots: Array.from({ length: 33 }, (_, i) => [12 * i, piece.beats[8 + i] ?? 0]),
    }
    const whole = pageDataOf(titled('Copper Lantern'), vocabulary, USUAL_RULES, {
      made: MADE,
      song,
    })
    const [first] = whole.chunks
    if (!first) throw new Error('nothing is learned')
    // Only its last stop, where it goes to the rhythm.
    const chunks = [{ ...first, stops: first.stops.filter((stop) => stop.do === 'dance') }]
    const context = await alone()
    await context.addInitScript(() => {
      const started: { when: number; offset: number; seconds: number }[] = []
      Object.assign(window, { started })
      const { start } = AudioBufferSourceNode.prototype
      AudioBufferSourceNode.prototype.start = function (when = 0, offset = 0, ...rest) {
        started.push({ when, offset, seconds: this.buffer?.duration ?? 0 })
        return start.call(this, when, offset, ...rest)
      }
    })
    const file = saved('song.html', practicePage({ ...whole, chunks }, parts))
    const { page, outside, wrong } = await openFile(context, file)
    await press(page, 'Start')
    const copy = page.getByLabel('Your own copy of Kiln Yard')
    const wavFile = (samples: Float32Array) => ({
      name: 'mine.wav',
      mimeType: 'audio/wav',
      buffer: Buffer.from(wav(samples, piece.rate)),
    })
    await copy.setInputFiles({
      name: 'words.txt',
      mimeType: 'text/plain',
      buffer: Buffer.from('la'),
    })
    await page.getByText('This browser can’t read that file.').waitFor()
    await copy.setInputFiles(wavFile(piece.samples))
    await page.getByText('It is there.').waitFor()
    await expectAccessible(page)
    await press(page, 'Dance with the song')
    await expect.poll(() => page.locator('.count').textContent()).toBe('3')
    const all = await page.evaluate(
      () =>
        (window as unknown as { started: { when: number; offset: number; seconds: number }[] })
          .started,
    )
    // Each count clicks on its beat of the song.
    const heard = all.find(({ seconds }) => seconds > 10)
    if (!heard) throw new Error('the song is not heard')
    expect(heard.offset).toBeCloseTo(piece.beats[8] ?? 0, 3)
    for (const beat of piece.beats.slice(8, 11)) {
      const due = heard.when + beat - heard.offset
      expect(
        Math.min(...all.filter((one) => one !== heard).map(({ when }) => Math.abs(when - due))),
      ).toBeLessThan(0.005)
    }
    await press(page, 'Stop')
    // Another version: its 1 is tapped.
    const later = new Float32Array(piece.samples.length + 2 * piece.rate)
    later.set(piece.samples, 2 * piece.rate)
    await copy.setInputFiles(wavFile(later))
    await page.getByText('This is another version of the song.').waitFor()
    await press(page, 'Play it')
    await page.waitForTimeout(400)
    await press(page, 'Now: 1')
    await press(page, 'Dance with the song')
    await expect.poll(() => page.locator('.count').textContent()).toBe('2')
    await press(page, 'Stop')

    const pdf = await page.pdf({ preferCSSPageSize: true })
    expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)?.length).toBeGreaterThan(0)
    await page.evaluate(() => dispatchEvent(new Event('beforeprint')))
    const paper = page.locator('.paper .handout')
    expect(await paper.locator('h1').first().textContent()).toContain('Copper Lantern')
    // Its part alone, on each side.
    expect(await paper.locator('h2').allTextContents()).toEqual([
      expect.stringContaining('A · '),
      expect.stringContaining('A · '),
    ])
    await page.evaluate(() => dispatchEvent(new Event('afterprint')))
    expect(await page.locator('.paper').count()).toBe(0)
    expect(outside).toEqual([])
    expect(wrong).toEqual([])
    await context.close()
  })
})
