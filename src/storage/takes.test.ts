import { beforeEach, describe, expect, it } from 'vitest'
import { placeNamed } from '../../tests/place'
import { newTake } from '../core/take/take'

let names = 0
let here: ReturnType<typeof placeNamed>
beforeEach(() => {
  here = placeNamed(`takes-${names++}`)
})

const take = (id: string) =>
  newTake({
    id,
    at: '2026-11-29T10:00:00.000Z',
    title: id,
    of: { kind: 'combination', id: 'c' },
    camera: 'Front',
    nudge: 0,
    type: 'video/webm',
  })

describe('takes', () => {
  it('are their pieces in the order they came, and gone for good when they are deleted', async () => {
    const { takes } = here
    for (const id of ['a', 'b']) await takes.takes.put(take(id))
    for (const [id, text] of ['a1', 'b1', 'a2', 'b2', 'a3'].map((one) => [one[0] ?? '', one]))
      expect(await takes.add(id as string, new Blob([text as string]))).toBe(true)
    const film = await takes.film(take('a'))
    expect([await film?.text(), film?.type]).toEqual(['a1a2a3', 'video/webm'])
    expect(await takes.film(take('none'))).toBeUndefined()
    expect(await takes.erase(['a'])).toBe(6)
    expect(await takes.film(take('a'))).toBeUndefined()
    expect((await takes.takes.list()).all.map(({ id }) => id)).toEqual(['b'])
    expect(await (await takes.film(take('b')))?.text()).toBe('b1b2')
    // Not only taken out of sight.
    await takes.takes.restore('a')
    expect(await takes.takes.get('a')).toBeUndefined()
  })

  it('keep what they have where there is no room for more; those of a newer version stay, unread', async () => {
    const { takes } = here
    await takes.takes.put(take('a'))
    await takes.add('a', new Blob(['first']))
    const { takePieces } = here.database
    const add = takePieces.add.bind(takePieces)
    takePieces.add = () =>
      Promise.reject(new DOMException('no room', 'QuotaExceededError')) as never
    expect(await takes.add('a', new Blob(['second']))).toBe(false)
    takePieces.add = add
    expect(await (await takes.film(take('a')))?.text()).toBe('first')
    await here.database.takes.put({
      id: 'newer',
      changedAt: 1,
      record: { ...take('newer'), schemaVersion: 9 },
    })
    const { all, unreadable } = await takes.takes.list()
    expect([all.map(({ id }) => id), unreadable]).toEqual([['a'], 1])
    expect(await here.database.takes.get('newer')).toBeDefined()
  })
})
