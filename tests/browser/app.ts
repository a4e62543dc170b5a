import { buffer } from 'node:stream/consumers'
import { AxeBuilder } from '@axe-core/playwright'
import {
  type Browser,
  type BrowserContext,
  chromium,
  type Download,
  type Page,
} from 'playwright-core'
import { expect, inject, onTestFinished } from 'vitest'

/** A sound that was started: when on the audio clock, and how long its sample is. */
interface Started {
  readonly when: number
  readonly duration: number
  /** Seconds it was booked before it sounds; below 0 it was late. */
  readonly ahead: number
}

export interface App {
  readonly address: string
  readonly browser: Browser
  /** A new visitor: nothing stored yet, the demo loads. */
  readonly visit: (options?: VisitOptions) => Promise<Visit>
}

type VisitOptions = Parameters<Browser['newContext']>[0] & {
  /** Where the app is, if it is not served as usual. */
  readonly at?: string
  /** The figure is drawn by WebGL, in software here, which is slow; else flat. */
  readonly inSpace?: boolean
  /** Every frame is drawn; else some sixteen a second, which is less work. */
  readonly everyFrame?: boolean
  /** How many times as fast as it is the audio clock goes: what is danced need not be waited for. */
  readonly clock?: number
}

interface Visit {
  readonly context: BrowserContext
  readonly page: Page
  /** Requests that went anywhere but to the app itself. */
  readonly outside: readonly string[]
  readonly errors: readonly string[]
}

/** The browser of this worker, for all of its files. */
let connected: Promise<Browser> | undefined

export async function startApp(): Promise<App> {
  const address = inject('address')
  connected ??= chromium.connect(inject('browser'))
  const browser = await connected
  return {
    address,
    browser,
    async visit(options = {}) {
      const { at = address } = options
      const place = placeAgain(options) ?? (await newPlace(browser, at, options))
      const { context, page, heard } = place
      onTestFinished(() => context.close())
      await page.goto(at)
      await page.getByRole('heading', { name: 'Combinations' }).waitFor()
      await page.getByRole('article').first().waitFor()
      return { context, page, ...heard }
    },
  }
}

/** What a visitor's pages asked for and complained of. */
interface Heard {
  outside: string[]
  errors: string[]
}

/**
 * A visitor's browser. It is handed on to the next one when it is closed, as clean as a new one: a
 * page that has read the app before is there in a quarter of the processor's time.
 */
interface Place {
  readonly context: BrowserContext
  readonly page: Page
  heard: Heard
  /** Somebody visits. */
  isOpen: boolean
  /** Something was done to it that the next one would feel. */
  isMarked: boolean
}

const free = new Map<string, Place[]>()

/** What a test does to a page that the next one would feel. */
const MARKS_PAGE = [
  'addInitScript',
  'route',
  'exposeFunction',
  'setViewportSize',
  'emulateMedia',
] as const
const MARKS_CONTEXT = [
  'addInitScript',
  'route',
  'grantPermissions',
  'setOffline',
  'newCDPSession',
] as const

function onUse<T extends object>(one: T, names: readonly (keyof T)[], used: () => void): void {
  for (const name of names) {
    const method = (one[name] as (...given: unknown[]) => unknown).bind(one)
    Object.assign(one, {
      [name](...given: unknown[]) {
        used()
        return method(...given)
      },
    })
  }
}

async function newPlace(browser: Browser, address: string, options: VisitOptions): Promise<Place> {
  const { inSpace = false, everyFrame = inSpace, clock = 1, at: _, ...rest } = options
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    // Keeping the app for later is work that only its own test looks at.
    serviceWorkers: 'block',
    ...rest,
  })
  // What is not there after this long will not come: the test says what it waited for.
  context.setDefaultTimeout(20_000)
  if (clock !== 1) await context.addInitScript(fasterClock, clock)
  await context.addInitScript(recordSounds)
  if (!everyFrame) await context.addInitScript(fewerFrames)
  if (!inSpace) await context.addInitScript(withoutWebGl)
  const page = await context.newPage()
  const place: Place = {
    context,
    page,
    heard: { outside: [], errors: [] },
    isOpen: true,
    // What keeps the app would still be there.
    isMarked: rest.serviceWorkers === 'allow',
  }
  context.on('request', (request) => {
    const { protocol, origin } = new URL(request.url())
    if (protocol !== 'blob:' && origin !== address) place.heard.outside.push(request.url())
  })
  page.on('pageerror', (error) => place.heard.errors.push(error.message))
  page.on('console', (message) => {
    // The picture a place rests on has no icon, and the browser asks for one.
    const isIcon = message.location().url.endsWith('/favicon.ico')
    if (message.type() === 'error' && !isIcon) place.heard.errors.push(message.text())
  })
  const mark = () => {
    place.isMarked = true
  }
  onUse(page, MARKS_PAGE, mark)
  onUse(context, MARKS_CONTEXT, mark)
  const close = context.close.bind(context)
  const key = JSON.stringify(options)
  context.close = async () => {
    // A test may close its place itself, before it is closed for it.
    if (!place.isOpen) return
    place.isOpen = false
    const isClean = !place.isMarked && !page.isClosed() && (await wipe(place, address))
    if (isClean) free.set(key, [...(free.get(key) ?? []), place])
    else await close()
  }
  return place
}

function placeAgain(options: VisitOptions): Place | undefined {
  const place = free.get(JSON.stringify(options))?.pop()
  return place && Object.assign(place, { heard: { outside: [], errors: [] }, isOpen: true })
}

/** Leaves a place as it was found: one page, nothing stored. Whether that could be done. */
async function wipe({ context, page }: Place, address: string): Promise<boolean> {
  try {
    for (const other of context.pages()) if (other !== page) await other.close()
    await context.clearCookies()
    // Nothing runs here, so nothing holds the database.
    await page.goto(`${address}/mark.svg`)
    return await page.evaluate(async () => {
      localStorage.clear()
      sessionStorage.clear()
      const gone = (await indexedDB.databases()).map(
        ({ name = '' }) =>
          new Promise<boolean>((done) => {
            const asked = indexedDB.deleteDatabase(name)
            asked.onsuccess = () => done(true)
            asked.onerror = asked.onblocked = () => done(false)
          }),
      )
      return (await Promise.all(gone)).every(Boolean)
    })
  } catch {
    return false
  }
}

function fewerFrames() {
  const { requestAnimationFrame: ask, cancelAnimationFrame: cancel } = window
  const asked = new Map<number, number>()
  let id = 0
  window.requestAnimationFrame = (call) => {
    const own = ++id
    const timer = window.setTimeout(() => {
      asked.delete(own)
      ask.call(window, call)
    }, 60)
    asked.set(own, timer)
    return own
  }
  window.cancelAnimationFrame = (own) => {
    window.clearTimeout(asked.get(own))
    asked.delete(own)
    cancel.call(window, own)
  }
}

function withoutWebGl() {
  const get = HTMLCanvasElement.prototype.getContext
  HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string) {
    return kind.startsWith('webgl') ? null : get.call(this, kind as '2d')
  } as typeof get
}

/** Sounds are still booked on the real clock, at the moment the page means. */
function fasterClock(rate: number) {
  const clock = Object.getOwnPropertyDescriptor(BaseAudioContext.prototype, 'currentTime')
  const { start } = AudioBufferSourceNode.prototype
  Object.defineProperty(AudioContext.prototype, 'currentTime', {
    get(this: AudioContext) {
      return (clock?.get?.call(this) ?? 0) * rate
    },
  })
  AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
    return start.call(this, this.context instanceof AudioContext ? when / rate : when, ...rest)
  }
}

/** Writes down every sound the page books on its audio clock and does not take back; it sounds all the same. */
function recordSounds() {
  const started: Started[] = []
  Object.assign(window, { started })
  const noted = new WeakMap<AudioScheduledSourceNode, Started>()
  const { start } = AudioBufferSourceNode.prototype
  const { stop } = AudioScheduledSourceNode.prototype
  AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
    const ahead = when - this.context.currentTime
    const note = { when, duration: this.buffer?.duration ?? 0, ahead }
    started.push(note)
    noted.set(this, note)
    if (this.context instanceof AudioContext) Object.assign(window, { clock: this.context })
    return start.call(this, when, ...rest)
  }
  AudioScheduledSourceNode.prototype.stop = function (...when) {
    const note = noted.get(this)
    if (note && note.when > this.context.currentTime) started.splice(started.indexOf(note), 1)
    return stop.apply(this, when)
  }
}

export const soundsOf = (page: Page): Promise<readonly Started[]> =>
  page.evaluate(() => (window as unknown as { started: Started[] }).started)

/** What the page's audio clock reads now, in seconds. */
export const clockOf = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { clock: AudioContext }).clock.currentTime)

/**
 * What axe finds that is serious. In the dark theme only the colours are others, so nothing else is
 * looked at again.
 */
export async function expectAccessible(page: Page): Promise<void> {
  const isDark = await page.evaluate(
    () => document.documentElement.dataset.mantineColorScheme === 'dark',
  )
  // Nothing here is in a frame, and what passed is not looked at: a quarter of the time.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({
      resultTypes: ['violations'],
      ...(isDark && { runOnly: ['color-contrast'] }),
    })
    .analyze()
  const serious = violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)
  expect(serious).toEqual([])
}

/** The same in both themes, where a page follows what the browser wants. */
export async function expectAccessibleInBoth(page: Page): Promise<void> {
  await expectAccessible(page)
  for (const colorScheme of ['dark', 'light'] as const) {
    await page.emulateMedia({ colorScheme })
    await page.locator(`html[data-mantine-color-scheme="${colorScheme}"]`).waitFor()
    if (colorScheme === 'dark') await expectAccessible(page)
  }
}

/** The middle of a place in the braid: a line, a layer, a count from 1 that may be a half. */
export async function placeIn(
  page: Page,
  line: string,
  layer: string,
  count: number,
): Promise<{ x: number; y: number }> {
  const lane = page.locator(`[data-line="${line}"] [data-lane="${layer}"]`)
  await lane.scrollIntoViewIfNeeded()
  const box = await lane.boundingBox()
  if (!box) throw new Error(`no ${layer} in line ${line}`)
  const counts = await page.locator(`[data-line="${line}"] [data-count]`).count()
  return { x: box.x + (box.width / counts) * (count - 1 + 0.25), y: box.y + box.height / 2 }
}

/** Selects a place by a click, types, and takes the first offer. */
export async function write(
  page: Page,
  line: string,
  layer: string,
  count: number,
  text: string,
): Promise<void> {
  const { x, y } = await placeIn(page, line, layer, count)
  await page.mouse.click(x, y)
  await page.keyboard.type(text)
  await page.locator('[role="option"][data-combobox-selected]').waitFor()
  await page.keyboard.press('Enter')
  await page.locator('[role="listbox"]').waitFor({ state: 'detached' })
}

/** What stands on a layer of a line, as it is named to a screen reader. */
export async function namesOn(page: Page, line: string, layer: string): Promise<readonly string[]> {
  const names = await page
    .locator(`[data-line="${line}"] .layer-${layer}[data-event]`)
    .evaluateAll((marks) => marks.map((mark) => mark.getAttribute('aria-label') ?? ''))
  return names
}

/** What was saved: the browser is another process, so it is read from there. */
export const bytesOf = async (file: Download): Promise<Buffer> =>
  buffer(await file.createReadStream())

/** The drills of the plan that is open. */
export const drills = (page: Page) =>
  page.getByRole('region', { name: 'Drills' }).getByRole('listitem')

export const titlesOf = (page: Page) =>
  drills(page).evaluateAll((rows) => rows.map((row) => row.getAttribute('aria-label') ?? ''))

/** From a plan that is open to its class, and there past every step before the one of a title. */
export async function beginClass(page: Page, title?: string): Promise<void> {
  await page.getByRole('button', { name: 'Begin class' }).click()
  await page.getByRole('button', { name: /^Begin Hello/ }).waitFor()
  if (title === undefined) return
  const heading = page.getByRole('heading', { level: 1 })
  for (let steps = 0; steps < 60 && (await heading.textContent()) !== title; steps++)
    await page.keyboard.press('End')
  await page.getByRole('heading', { level: 1, name: title }).waitFor()
}

/** A new plan of a combination, from the shelf of plans. */
export async function newPlan(page: Page, title: string): Promise<void> {
  await page.getByRole('link', { name: 'Plans', exact: true }).click()
  await page.getByPlaceholder('A new plan from…').click()
  await page.getByRole('option', { name: title }).click()
  await drills(page).first().waitFor()
}

/** Types into a field of a name and leaves it. */
export async function fill(page: Page, name: string | RegExp, value: string) {
  const field = page.getByRole('textbox', { name, exact: typeof name === 'string' })
  await field.fill(value)
  await field.press('Tab')
}

/** Writes a whole sheet in its panel, line by line, in place of what stands there. */
export async function typeSheet(page: Page, sheet: string) {
  await page.keyboard.press('Control+s')
  const editor = page.getByRole('textbox', { name: 'Count sheet' })
  await editor.waitFor()
  await editor.click()
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  for (const [i, line] of sheet.split('\n').entries()) {
    if (i > 0) await page.keyboard.press('Enter')
    await page.keyboard.insertText(line)
    // What is offered is not wanted.
    await page.keyboard.press('Escape')
  }
}
