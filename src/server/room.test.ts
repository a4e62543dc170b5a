import { describe, expect, it, onTestFinished, vi } from 'vitest'
import type { FloorNews } from '../core/following/news.schema'
import type { FollowerHears } from '../core/following/room.schema'
import { bucket, isSame, wrongTries } from './allowed'
import { CLOSED, ROOM_LIMITS } from './limits'
import { openRoom } from './room'

const rest: FloorNews = { t: 'rest', n: 1, phase: 'asking', title: 'Walk', text: 'Breathe.' }
const drilled = (title: string, n: number): readonly FloorNews[] => [
  {
    t: 'drill',
    n,
    drill: `d${n}`,
    mark: 'm',
    title,
    speed: '80',
    stand: 'mirror',
    layers: ['feet'],
    times: '1 round',
    from: 0,
    isShown: false,
    parts: [],
  },
  { t: 'run', n: n + 0.5, drill: `d${n}`, at: 0, tick: 0 },
]
const piece = { t: 'piece', n: 0, mark: 'm' } as FloorNews

/** A room, and people with lines of their own who come into it. */
function madeRoom(limits: Partial<typeof ROOM_LIMITS> = {}) {
  const changed = vi.fn()
  const room = openRoom({ ...ROOM_LIMITS, ...limits }, changed)
  onTestFinished(() => room.close(true))
  const comes = (from = '10.0.0.7') => {
    const heard: FollowerHears[] = []
    const line = { closed: 0, isCut: false, waits: 0 }
    const inside = room.enter({
      from,
      send: (text) => heard.push(JSON.parse(text)),
      close: (code) => {
        line.closed = code
      },
      cut: () => {
        line.isCut = true
      },
      waiting: () => line.waits,
    })
    return {
      heard,
      line,
      says: (message: unknown) => inside.said(JSON.stringify(message), false),
      raw: inside.said,
      leaves: inside.left,
      last: () => heard.at(-1),
    }
  }
  const joins = (code = room.code, from = '10.0.0.7') => {
    const one = comes(from)
    one.says({ t: 'join', v: 1, code })
    return one
  }
  return { room, changed, comes, joins }
}

describe('a room', () => {
  it('lets in who has the code or the key, and tells who comes late all that holds', () => {
    const { room, joins } = madeRoom()
    expect(room.code).toMatch(/^\d{6}$/)
    expect(room.key).toMatch(/^[\w-]{22}$/)
    room.tell(rest)
    for (const code of [room.code, room.key])
      expect(joins(code).last()).toMatchObject({ t: 'welcome', v: 1, now: [rest] })
    expect(room.counts()).toEqual({ followers: 2, hands: 0 })
    const wrong = joins(room.code === '000000' ? '000001' : '000000')
    expect(wrong.last()).toEqual({ t: 'no', why: 'code' })
    expect(wrong.line.closed).toBe(CLOSED.no)
    // Who is not in hears nothing.
    const outside = wrong.heard.length
    room.tell({ ...rest, n: 2 })
    expect(wrong.heard).toHaveLength(outside)
  })

  it('makes who types wrong codes wait, but never who has the key', () => {
    const { room, joins } = madeRoom()
    const bad = room.code === '111111' ? '111112' : '111111'
    for (let i = 0; i < 5; i++) expect(joins(bad).last()).toEqual({ t: 'no', why: 'code' })
    expect(joins(room.code).last()).toMatchObject({ t: 'no', why: 'wait' })
    expect(joins(room.key).last()).toMatchObject({ t: 'welcome' })
    // Another address is not held up by that one, until there are too many in all.
    expect(joins(room.code, '10.0.0.8').last()).toMatchObject({ t: 'welcome' })
    for (let i = 0; i < 55; i++) joins(bad, `10.0.1.${i}`)
    expect(joins(room.code, '10.0.2.1').last()).toMatchObject({ t: 'no', why: 'wait' })
    expect(joins(room.key, '10.0.2.1').last()).toMatchObject({ t: 'welcome' })
  })

  it('is full at its number, and lets the next one in when somebody goes', () => {
    const { room, joins } = madeRoom()
    const all = Array.from({ length: 60 }, () => joins(room.key))
    const late = joins(room.key)
    expect(late.last()).toEqual({ t: 'no', why: 'full' })
    expect(late.line.closed).toBe(CLOSED.no)
    all[3]?.leaves()
    expect(joins(room.key).last()).toMatchObject({ t: 'welcome' })
    expect(room.counts().followers).toBe(60)
  })

  it('ends with who floods, sends what is no word of theirs, or does not read', () => {
    const { room, comes, joins } = madeRoom()
    const others = [joins(), joins()]
    const flood = joins()
    for (let i = 0; i < 5000; i++) flood.says({ t: 'ping', id: i })
    expect(flood.line.closed).toBe(CLOSED.flood)
    expect(flood.heard.length).toBeLessThan(30)
    for (const text of ['{"t":"run","n":9,"drill":"d","at":0,"tick":0}', 'nothing', '{}', '[]']) {
      const liar = joins()
      liar.raw(text, false)
      expect(liar.line.closed).toBe(CLOSED.not)
      // What they said was told to nobody.
      expect(others.map((one) => one.heard.length)).toEqual([1, 1])
    }
    const binary = comes()
    binary.raw('{"t":"ping","id":1}', true)
    expect(binary.line.closed).toBe(CLOSED.not)
    const deaf = joins()
    deaf.line.waits = 300_000
    room.tell(rest)
    expect(deaf.line.isCut).toBe(true)
    expect(others.map((one) => one.last())).toEqual([rest, rest])
    expect(room.counts().followers).toBe(2)
  })

  it('counts raised hands, and takes them down when something else is danced, not at another tempo', () => {
    const { room, joins, changed } = madeRoom()
    const [one, other] = [joins(), joins()]
    room.tell(piece)
    for (const news of drilled('Walk it', 10)) room.tell(news)
    one.says({ t: 'hand', up: true })
    other.says({ t: 'hand', up: true })
    expect(room.counts().hands).toBe(2)
    for (const news of drilled('Walk it', 20)) room.tell(news)
    expect(room.counts().hands).toBe(2)
    changed.mockClear()
    for (const news of drilled('All of it', 30)) room.tell(news)
    expect(room.counts().hands).toBe(0)
    expect(changed).toHaveBeenCalledOnce()
  })

  it('lets nobody stand in the door, and lets go of who is silent', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] })
    onTestFinished(() => {
      vi.useRealTimers()
    })
    const { room, comes, joins } = madeRoom()
    const idle = comes()
    const [quiet, well] = [joins(), joins()]
    for (let i = 0; i < 13; i++) {
      vi.advanceTimersByTime(2000)
      idle.says({ t: 'ping', id: i })
      well.says({ t: 'ping', id: i })
    }
    expect(idle.line.closed).toBe(CLOSED.silent)
    expect(quiet.line.closed).toBe(CLOSED.silent)
    expect(well.line.closed).toBe(0)
    expect(room.counts().followers).toBe(1)
  })

  it('tells all that it is over, and is the same again after an interruption', () => {
    const { room, joins } = madeRoom()
    const one = joins()
    room.close(true)
    expect(one.last()).toEqual({ t: 'closed' })
    expect(one.line.closed).toBe(CLOSED.over)
    const again = openRoom(ROOM_LIMITS, () => {}, { code: room.code, key: room.key })
    onTestFinished(() => again.close(true))
    expect([again.code, again.key]).toEqual([room.code, room.key])
  })
})

describe('what is allowed', () => {
  it('fills again as time goes by', () => {
    let now = 0
    const may = bucket({ atOnce: 3, aSecond: 2 }, () => now)
    expect([may(), may(), may(), may()]).toEqual([true, true, true, false])
    now = 500
    expect([may(), may()]).toEqual([true, false])
    now = 60_000
    expect([may(), may(), may(), may()]).toEqual([true, true, true, false])
  })

  it('says how long to wait, and forgets after a minute', () => {
    let now = 0
    const tries = wrongTries({ each: 2, all: 9, ms: 60_000 }, () => now)
    tries.wrong('a')
    expect(tries.wait('a')).toBe(0)
    now = 20_000
    tries.wrong('a')
    expect(tries.wait('a')).toBe(40)
    expect(tries.wait('b')).toBe(0)
    now = 60_001
    expect(tries.wait('a')).toBe(0)
  })

  it('tells texts apart, of whatever length', () => {
    expect(isSame('123456', '123456')).toBe(true)
    expect(isSame('123456', '123457')).toBe(false)
    expect(isSame('123456', '12345')).toBe(false)
  })
})
