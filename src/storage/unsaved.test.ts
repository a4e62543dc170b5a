import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../tests/holds'
import { slots } from '../../tests/slots'
import { UserError } from '../core/errors'
import { readSlot, slotsFrom, writeSlot } from './slots'
import { unsavedIn } from './unsaved'

const WINDOWS = ['one', 'two', 'three'] as const
type Window = (typeof WINDOWS)[number]

const anyAct = fc.record({
  window: fc.constantFrom<Window>(...WINDOWS),
  kind: fc.constantFrom('plans', 'classes'),
  id: fc.constantFrom('a', 'b', 'with space'),
  text: fc.option(fc.string({ maxLength: 6 }), { nil: undefined }),
})

const read = ({ text }: Record<string, unknown>) => ({ text: String(text) })

describe('notes of unsaved work', () => {
  it('go to the next window exactly once, the last of each, and only from windows that are gone', async () => {
    await holds(
      fc.asyncProperty(
        fc.array(anyAct, { maxLength: 30 }),
        fc.subarray([...WINDOWS]),
        async (acts, gone) => {
          const store = slots()
          writeSlot(store, 'something else', { text: 'stays' })
          const isGone = new Set<string>(gone)
          const of = (window: string) =>
            unsavedIn(store, window, async (other, work) => {
              if (isGone.has(other)) await work()
            })
          const model = new Map<string, string>()
          for (const { window, kind, id, text } of acts) {
            const notes = of(window)(kind, read)
            const key = `${window} ${kind} ${id}`
            if (text === undefined) {
              notes.clear(id)
              model.delete(key)
            } else {
              notes.write(id, { text })
              model.set(key, text)
            }
          }
          const left = (kind: string) =>
            [...model].flatMap(([key, text]) => {
              const [window = '', of = ''] = key.split(' ')
              return of === kind && isGone.has(window) ? [text] : []
            })
          for (const kind of ['plans', 'classes']) {
            const notes = of('next')(kind, read)
            const saved: string[] = []
            const save = async ({ text }: { text: string }) => void saved.push(text)
            expect(await notes.recover(save)).toBe(left(kind).length)
            expect(saved.sort()).toEqual(left(kind).sort())
            expect(await notes.recover(save)).toBe(0)
          }
          const living = [...model.keys()].filter((key) => !isGone.has(key.split(' ')[0] ?? ''))
          expect(store.length).toBe(living.length + 1)
        },
      ),
      { numRuns: 200, seed: 111 },
    )
  })

  it('stay when they could not be saved, and are offered again', async () => {
    const store = slots()
    const here = () => unsavedIn(store, 'next', (_, work) => work())('plans', read)
    unsavedIn(store, 'gone', async () => {})('plans', read).write('a', { text: 'work' })
    await expect(
      here().recover(async () => {
        throw new Error('no disk')
      }),
    ).rejects.toThrow('no disk')
    const saved: string[] = []
    expect(await here().recover(async ({ text }) => saved.push(text))).toBe(1)
    expect(saved).toEqual(['work'])
  })
})

describe('a slot', () => {
  it('gives back what was written, whatever it is, and nothing where it can’t be read', () => {
    holds(
      fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (record) => {
        const store = slots()
        writeSlot(store, 'x', record)
        expect(readSlot(store, 'x', (one) => one)).toEqual(JSON.parse(JSON.stringify(record)))
        expect(readSlot(store, 'y', (one) => one)).toBeUndefined()
        const refuse = () => {
          throw new UserError('newer', 'update')
        }
        expect(readSlot(store, 'x', refuse)).toBeUndefined()
        const fail = () => {
          throw new RangeError('a bug')
        }
        expect(() => readSlot(store, 'x', fail)).toThrow(RangeError)
      }),
      { numRuns: 100, seed: 112 },
    )
  })

  it('is found by how its name begins, and a full store stops nothing', () => {
    const store = slots()
    for (const name of ['a 1', 'a 2', 'b 1']) writeSlot(store, name, {})
    expect([...slotsFrom(store, 'a ')].sort()).toEqual(['a 1', 'a 2'])
    expect(slotsFrom(store, 'c')).toEqual([])
    const full = slots(true)
    writeSlot(full, 'a', {})
    expect(slotsFrom(full, 'a')).toEqual([])
    store.setItem('broken', '{"a":')
    store.setItem('list', '[1]')
    for (const name of ['broken', 'list'])
      expect(readSlot(store, name, (one) => one)).toBeUndefined()
  })
})
