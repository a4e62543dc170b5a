import Fastify from 'fastify'
import { afterEach, describe, expect, it } from 'vitest'
import WebSocket from 'ws'
import type { FloorNews } from '../core/following/news.schema'
import type { FloorHears, FollowerHears } from '../core/following/room.schema'
import { attachFloor } from './floor'
import { ROOM_LIMITS } from './limits'

const SECRET = 'only the app knows'
const closing: (() => unknown)[] = []
afterEach(async () => {
  for (const close of closing.splice(0).reverse()) await close()
})

/** The app's server on this machine, with a room people come into on this machine. */
async function studio(limits: Partial<typeof ROOM_LIMITS> = {}): Promise<string> {
  const app = Fastify({ forceCloseConnections: true })
  closing.push(() => app.close())
  await attachFloor(app, {
    secret: SECRET,
    page: { script: '', style: '', hash: 'sha256-x' },
    limits: { ...ROOM_LIMITS, ...limits },
    addresses: () => ['127.0.0.1'],
  })
  return (await app.listen({ port: 0, host: '127.0.0.1' })).replace('http://', '')
}

/** A socket that keeps all it hears. */
async function line<T extends { readonly t: string }>(host: string, path: string) {
  const socket = new WebSocket(`ws://${host}${path}`, { headers: { origin: `http://${host}` } })
  closing.push(() => socket.terminate())
  const heard: T[] = []
  socket.on('message', (data) => heard.push(JSON.parse(data.toString())))
  await new Promise((done) => socket.on('open', done))
  return {
    heard,
    socket,
    say: (message: unknown) => socket.send(JSON.stringify(message)),
    hears: async <K extends T['t']>(t: K) => {
      await expect.poll(() => heard.some((one) => one.t === t), { timeout: 10_000 }).toBe(true)
      return heard.findLast((one) => one.t === t) as Extract<T, { t: K }>
    },
  }
}

const floorOn = async (host: string) => {
  const floor = await line<FloorHears>(host, '/floor')
  floor.say({ t: 'floor', v: 1, secret: SECRET })
  return floor
}
const rest: FloorNews = { t: 'rest', n: 5, phase: 'asking', title: 'Walk it', text: 'Breathe.' }

describe('the floor and its room', () => {
  it('tells what is news, and nothing else, to who follows', async () => {
    const host = await studio()
    const floor = await floorOn(host)
    expect((await floor.hears('leads')).addresses).toEqual(['127.0.0.1'])
    floor.say({ t: 'open', address: '10.9.9.9' })
    expect((await floor.hears('cannot')).what).toContain('10.9.9.9')
    floor.say({ t: 'open', address: '127.0.0.1' })
    const { url, key } = await floor.hears('opened')
    const room = new URL(url).host
    const one = await line<FollowerHears>(room, '/ws')
    one.say({ t: 'join', v: 1, code: key })
    await one.hears('welcome')
    for (const wrong of [
      { ...rest, phase: 'dancing' },
      { ...rest, text: 'x'.repeat(5000) },
      { t: 'run', n: 1, drill: 'd' },
      { t: 'welcome', v: 1, at: 0, now: [] },
      { t: 'piece', n: 1, mark: 'm', combination: {}, moves: [], house: {} },
      'nothing',
    ])
      floor.say(wrong)
    // What is more than news goes no further than here.
    floor.say({ ...rest, secret: 'of the instructor' })
    await one.hears('rest')
    expect(one.heard.filter(({ t }) => t !== 'welcome')).toEqual([rest])
    floor.say({ t: 'close' })
    await one.hears('closed')
    await floor.hears('closed')
  })

  it('is led by one window: the other has it when it is let, or when nobody answers', async () => {
    const host = await studio({ askedMs: 1500 })
    const first = await floorOn(host)
    await first.hears('leads')
    const second = await floorOn(host)
    await second.hears('busy')
    second.say({ ...rest })
    second.say({ t: 'take' })
    await first.hears('asked')
    first.say({ t: 'let', take: false })
    await second.hears('kept')
    second.say({ t: 'take' })
    // The first says nothing: it is not there any more.
    await first.hears('taken')
    await second.hears('leads')
    // Who only knows the way, and not the secret, leads nobody.
    const stranger = await line<FloorHears>(host, '/floor')
    const ended = new Promise((done) => stranger.socket.on('close', done))
    stranger.say({ t: 'floor', v: 1, secret: 'guessed' })
    expect(await ended).toBe(4003)
  })

  it('waits for the app that is loaded again, and closes when it does not come back', async () => {
    const host = await studio({ goneMs: 2000 })
    const floor = await floorOn(host)
    await floor.hears('leads')
    floor.say({ t: 'open', address: '127.0.0.1' })
    const { url, key } = await floor.hears('opened')
    const one = await line<FollowerHears>(new URL(url).host, '/ws')
    one.say({ t: 'join', v: 1, code: key })
    await one.hears('welcome')
    floor.socket.close()
    const again = await floorOn(host)
    // The same room is still there.
    expect((await again.hears('opened')).key).toBe(key)
    expect((await again.hears('room')).followers).toBe(1)
    again.socket.close()
    await one.hears('closed')
  })
})
