import { connect as connectTo, createServer, type Socket } from 'node:net'
import { beforeAll, describe, expect, it, onTestFinished } from 'vitest'
import WebSocket from 'ws'
import { drillTold, followedDrill, followedTick } from '../../src/core/following/followed'
import { type Connection, follow } from '../../src/follow/connection'
import { type App, beginClass, startApp } from './app'
import { apart, letFollow, momentOf, startStudio } from './studio'

let app: App
beforeAll(async () => {
  app = await startApp()
})

const FOLLOWERS = 40
const serverNow = () => performance.timeOrigin + performance.now()

/** Numbers that look thrown, always the same. */
function thrown(seed: number): () => number {
  let value = seed
  return () => {
    value = (value * 16807) % 2147483647
    return value / 2147483647
  }
}

/** A net on the way to a host: each piece of what is said takes its time, in order. Returns its port. */
async function slowNet(host: string, delay: () => number): Promise<number> {
  const [address = '', port = ''] = host.split(':')
  const later = (from: Socket, to: Socket) => {
    let free = 0
    from.on('data', (data) => {
      free = Math.max(free, performance.now() + delay())
      setTimeout(() => to.writable && to.write(data), free - performance.now())
    })
    from.on('close', () => to.destroy())
    from.on('error', () => to.destroy())
  }
  const net = createServer((socket) => {
    const there = connectTo(Number(port), address)
    later(socket, there)
    later(there, socket)
  })
  await new Promise<void>((done) => net.listen(0, '127.0.0.1', done))
  onTestFinished(() => {
    net.close()
  })
  return (net.address() as { port: number }).port
}

/** Somebody who follows, with a clock that is hours off and goes a little too fast or too slow. */
function follower(
  host: string,
  port: number | undefined,
  key: string,
  next: () => number,
): Connection {
  const [offset, drift] = [(next() - 0.5) * 1.44e8, (next() - 0.5) * 8e-5]
  const begun = serverNow()
  const url = port === undefined ? `ws://${host}/ws` : `ws://127.0.0.1:${port}/ws`
  const connection = follow({
    open: () =>
      new WebSocket(url, {
        headers: { host, origin: `http://${host}` },
      }) as unknown as globalThis.WebSocket,
    code: key,
    chance: next(),
    clock: () => serverNow() + offset + (serverNow() - begun) * drift,
    changed: () => {},
  })
  onTestFinished(() => connection.leave())
  return connection
}

/** How far each is from the floor, in milliseconds, over some looks. */
async function offFloor(
  all: readonly Connection[],
  look: () => ReturnType<typeof momentOf>,
  tempo: number,
) {
  const off: number[] = []
  for (let i = 0; i < 12; i++) {
    const { index, at, when } = await look()
    for (const one of all) {
      const told = one.told()
      const known = drillTold(told)
      const now = one.now(true)
      if (told.going?.t !== 'run' || !known || now === undefined)
        throw new Error('it is not in step')
      const shown = followedDrill(known.piece, known.drill)
      // The moment of the floor's picture, by what this one takes for the floor's clock.
      const tick = followedTick(shown, told.going, when + now - serverNow())
      const place = shown.performance.placeAt(tick ?? Number.NaN)
      const ticks = place.at - at + (place.index === index ? 0 : Number.NaN)
      if (!Number.isNaN(ticks)) off.push(Math.abs((ticks * 60_000) / (tempo * 12)))
    }
    await new Promise((done) => setTimeout(done, 250))
  }
  off.sort((a, b) => a - b)
  expect(off.length).toBeGreaterThan(6 * all.length)
  return off[Math.floor(off.length * 0.95)] ?? Number.NaN
}

describe('forty who follow, and a phone', () => {
  it('are within 40 ms of the floor, in a good net and in one that takes 8 to 48 ms each way, before and after a tempo change', async () => {
    const served = await startStudio(4680)
    onTestFinished(() => served.stop())
    const { page: floor } = await app.visit({ at: served.address, everyFrame: true })
    await floor.goto(`${served.address}/plan/demo-plan-tuesday`)
    await beginClass(floor, 'All layers · A')
    const { host, key } = await letFollow(floor)
    const next = thrown(5)
    const port = await slowNet(host, () => 8 + 40 * next())
    const chance = thrown(77)
    const begun = performance.now()
    const made = (through: number | undefined) =>
      Array.from({ length: FOLLOWERS / 2 }, () => follower(host, through, key, chance))
    const nets = { good: made(undefined), slow: made(port) }
    const all = [...nets.good, ...nets.slow]
    await expect.poll(() => all.every((one) => one.standing().kind === 'in')).toBe(true)
    const joined = performance.now() - begun
    await floor.getByRole('dialog').getByText('40 are following').waitFor()
    const context = await app.browser.newContext({ viewport: { width: 390, height: 844 } })
    onTestFinished(() => context.close())
    const phone = await context.newPage()
    await phone.goto(`http://${host}/#${key}`)
    await phone.getByText('Ready.').waitFor()
    await floor.keyboard.press('Escape')
    await floor.keyboard.press('PageDown')
    await phone.locator('[data-at]').waitFor()
    // All pings of the beginning are back.
    await floor.waitForTimeout(6000)
    const look = () => momentOf(floor)
    const before = [await offFloor(nets.good, look, 64), await offFloor(nets.slow, look, 64)]
    const seen = await apart(floor, phone, 64)
    await floor.keyboard.press('ArrowDown')
    await floor.waitForTimeout(600)
    const tempo = Number(await floor.locator('[data-tempo]').textContent())
    const after = [await offFloor(nets.good, look, tempo), await offFloor(nets.slow, look, tempo)]
    const shown = (list: readonly number[]) => list.map((ms) => ms.toFixed(1)).join(' and ')
    console.log(
      `40 joined in ${joined.toFixed(0)} ms; 95 % of them within ${shown(before)} ms in a good and a slow net, ${shown(after)} after a tempo change; a phone ${seen.toFixed(1)} ms`,
    )
    for (const off of [...before, ...after]) expect(off).toBeLessThan(40)
  })
})
