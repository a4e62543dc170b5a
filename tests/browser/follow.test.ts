import { get } from 'node:http'
import { connect } from 'node:net'
import type { Page } from 'playwright-core'
import { beforeAll, describe, expect, it, onTestFinished } from 'vitest'
import WebSocket from 'ws'
import { ROOM_LIMITS, type RoomLimits } from '../../src/server/limits'
import { type App, beginClass, expectAccessible, startApp } from './app'
import { apart, FIRST_DOOR, isInNetwork, letFollow, type StudioServer, startStudio } from './studio'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const PHONE = { width: 390, height: 844 }
/** On a machine that does other things beside; follow.sound.ts measures it by itself. */
const IN_STEP_MS = 200
/** Two seconds, twice over for the same reason. */
const IN_STEP_AGAIN_MS = 4000

async function studio(port: number, limits?: RoomLimits): Promise<StudioServer> {
  const made = await startStudio(port, limits)
  onTestFinished(() => made.stop())
  return made
}

/** A browser of somebody else: nothing of the app is in it. */
async function phone(host: string, path = '/', more = {}) {
  const context = await app.browser.newContext({ viewport: PHONE, ...more })
  onTestFinished(() => context.close())
  const page = await context.newPage()
  const asked: string[] = []
  context.on('request', (request) => asked.push(request.url()))
  const errors: string[] = []
  page.on('pageerror', (error) => errors.push(error.message))
  await page.goto(`http://${host}${path}`)
  return { page, asked, errors }
}

const isOpen = (host: string): Promise<boolean> =>
  new Promise((done) => {
    const [address = '', port = ''] = host.split(':')
    const socket = connect(Number(port), address)
    socket.on('connect', () => done(true)).on('error', () => done(false))
    socket.on('connect', () => socket.destroy())
  })

/** What is answered to who asks by another name, as a page does whose name was given this address. */
const statusFor = (url: string, host: string): Promise<number | undefined> =>
  new Promise((done, fail) => {
    get(url, { headers: { host } }, ({ statusCode }) => done(statusCode)).on('error', fail)
  })

/** How a socket ends that says something, or nothing. */
const endOf = (url: string, origin: string, said?: string | Buffer): Promise<number> =>
  new Promise((done) => {
    const socket = new WebSocket(url, { headers: { origin } })
    socket.on('open', () => said !== undefined && socket.send(said))
    socket.on('close', (code) => done(code))
    socket.on('error', () => done(0))
  })

const join = async (page: Page, code: string) => {
  await page.getByLabel('The six digits from the floor’s screen').fill(code)
  await page.getByRole('button', { name: 'Join' }).click()
}

describe('a class that is followed', () => {
  it('is joined by code, seen in a mirror, kept in step through a tempo and a restart, and over', async () => {
    const served = await studio(4640)
    const { page: floor, errors } = await app.visit({ at: served.address })
    await floor.goto(`${served.address}/plan/demo-plan-tuesday`)
    await beginClass(floor, 'All layers · A')
    expect(await isOpen(FIRST_DOOR)).toBe(false)
    const { host, code, key } = await letFollow(floor)
    await expectAccessible(floor)
    const panel = floor.getByRole('dialog', { name: 'Let people follow' })

    const { page, asked, errors: told } = await phone(host)
    // Nothing that is only given to safe addresses is needed.
    expect(await page.evaluate(() => isSecureContext)).toBe(!isInNetwork)
    await expectAccessible(page)
    await join(page, code === '123456' ? '123457' : '123456')
    await page.getByText('That is not the code.').waitFor()
    await join(page, `${code.slice(0, 3)} ${code.slice(3)}`)
    await page.getByText('Ready.').waitFor()
    expect(await page.getByRole('heading').textContent()).toBe('All layers · A')
    await panel.getByText('1 is following').waitFor()
    // By the code on the wall, which nobody types.
    const wall = await phone(host, `/?wall#${key}`, { colorScheme: 'dark' })
    await wall.page.getByText('Ready.').waitFor()
    await panel.getByText('2 are following').waitFor()
    await page.getByRole('button', { name: 'Raise hand' }).click()
    await panel.getByText('1 hand up').waitFor()
    await floor.keyboard.press('Escape')

    await floor.keyboard.press('PageDown')
    await page.locator('[data-at]').waitFor()
    const side = page.locator('.side')
    expect(await side.textContent()).toBe('right')
    await page.getByText('Your mirror: its right is on your right.').waitFor()
    await page.getByRole('button', { name: 'View' }).click()
    await page.getByText('Facing you: its right is on your left.').waitFor()
    await expect.poll(() => page.locator('.now li').count()).toBeGreaterThan(0)
    expect(await apart(floor, page, 64)).toBeLessThan(IN_STEP_MS)
    // Slower: who follows goes along.
    await floor.keyboard.press('ArrowDown')
    await floor.waitForTimeout(1000)
    const tempo = Number(await floor.locator('[data-tempo]').textContent())
    expect(tempo).toBeLessThan(64)
    expect(await apart(floor, page, tempo)).toBeLessThan(IN_STEP_MS)
    await expectAccessible(page)

    // The server is gone: the count stands, it is said, and the floor goes on.
    await served.stop()
    await page.getByText('Looking for the room…').waitFor()
    expect(await floor.locator('[data-count]').count()).toBe(1)
    const again = await studio(4640)
    expect(again.address).toBe(served.address)
    await expect
      .poll(() => page.getByText('Looking for the room…').count(), { timeout: 12_000 })
      .toBe(0)
    await expect.poll(() => page.locator('[data-at]').count()).toBe(1)
    expect(await apart(floor, page, tempo)).toBeLessThan(IN_STEP_MS)

    await floor.keyboard.press('Space')
    await page.getByText('Paused.').waitFor()
    for (let i = 0; i < 60 && (await floor.getByText('Well danced.').count()) === 0; i++)
      await floor.keyboard.press('End')
    await page.getByText('Well danced.').waitFor()
    await wall.page.getByText('Well danced.').waitFor()
    await expect.poll(() => isOpen(host)).toBe(false)
    // The browser says itself that the server was gone.
    expect(errors.filter((one) => !one.includes('ERR_CONNECTION_REFUSED'))).toEqual([])
    expect(told).toEqual([])
    // The page, and nothing else, from the room itself.
    expect(new Set(asked.map((url) => new URL(url).pathname))).toEqual(new Set(['/']))
  })

  it('answers nothing but its page and its socket, and only who asks for it by its own name', async () => {
    const served = await studio(4660)
    const { page: floor } = await app.visit({ at: served.address })
    await floor.goto(`${served.address}/plan/demo-plan-tuesday`)
    await beginClass(floor)
    const { host, key } = await letFollow(floor)
    const url = `http://${host}`
    for (const path of ['/index.html', '/floor', '/assets/', '/../package.json', '/ws'])
      expect((await fetch(url + path)).status).toBe(404)
    const { status, headers } = await fetch(url)
    expect(status).toBe(200)
    expect(headers.get('content-security-policy')).toContain("default-src 'none'")
    expect(headers.get('access-control-allow-origin')).toBeNull()
    expect(await statusFor(url, 'evil.example')).toBe(403)
    expect((await fetch(url, { method: 'POST', body: 'x' })).status).toBe(404)
    const ws = `ws://${host}/ws`
    expect(await endOf(ws, 'http://evil.example')).toBe(4003)
    expect(await endOf(ws, url, `{"t":"join","v":1,"code":"${'x'.repeat(600)}"}`)).toBe(1009)
    expect(await endOf(ws, url, Buffer.from([1, 2, 3]))).toBe(4000)
    expect(await endOf(ws, url, '{"t":"run","n":1,"drill":"d","at":0,"tick":0}')).toBe(4000)
    // The app is for its own machine, and leading is for the app that was served with the secret.
    expect(await statusFor(served.address, 'evil.example')).toBe(403)
    const lead = served.address.replace('http', 'ws')
    expect(await endOf(`${lead}/floor`, url)).toBe(4003)
    expect(
      await endOf(`${lead}/floor`, served.address, `{"t":"floor","v":1,"secret":"${key}"}`),
    ).toBe(4003)

    // A second window of the instructor asks the first.
    const other = await floor.context().newPage()
    await other.goto(floor.url())
    await other.getByRole('button', { name: 'Let people follow' }).waitFor()
    await other.keyboard.press('l')
    const panel = other.getByRole('dialog', { name: 'Let people follow' })
    await panel.getByRole('button', { name: 'Lead from here' }).click()
    await floor.keyboard.press('Escape')
    await floor.getByRole('button', { name: 'Go on here' }).click()
    await panel.getByText('The other window goes on leading.').waitFor()
    await panel.getByRole('button', { name: 'Lead from here' }).click()
    await floor.getByRole('button', { name: 'Allow' }).click()
    await panel.locator('[data-code]').waitFor()
    await panel.getByRole('button', { name: 'Stop', exact: true }).click()
    await expect.poll(() => isOpen(host)).toBe(false)
  })

  it('is in step again by itself when a phone has slept through all of it', async () => {
    const served = await studio(4670, { ...ROOM_LIMITS, silentMs: 3000 })
    const { page: floor } = await app.visit({ at: served.address })
    await floor.goto(`${served.address}/plan/demo-plan-tuesday`)
    await beginClass(floor, 'All layers · A')
    const { host, key } = await letFollow(floor)
    const { page } = await phone(host, `/#${key}`)
    await page.getByText('Ready.').waitFor()
    const panel = floor.getByRole('dialog', { name: 'Let people follow' })
    await panel.getByText('1 is following').waitFor()
    const session = await page.context().newCDPSession(page)
    await session.send('Debugger.enable')
    await session.send('Debugger.pause')
    // Who says nothing is let go of.
    await panel.getByText('Nobody follows yet').waitFor()
    await floor.keyboard.press('Escape')
    await floor.keyboard.press('PageDown')
    await floor.waitForTimeout(2000)
    await session.send('Debugger.resume')
    await session.send('Debugger.disable')
    const woken = performance.now()
    await page.locator('[data-at]').waitFor()
    expect(performance.now() - woken).toBeLessThan(IN_STEP_AGAIN_MS)
    expect(await apart(floor, page, 64)).toBeLessThan(IN_STEP_MS)
  })

  it('says how to start it where the app has no room to open', async () => {
    const { page } = await app.visit()
    await page.goto(`${app.address}/plan/demo-plan-tuesday`)
    await beginClass(page)
    await page.getByRole('button', { name: 'Let people follow' }).click()
    await page.getByText('Start it with “npm run studio” instead').waitFor()
    await expectAccessible(page)
  })
})
