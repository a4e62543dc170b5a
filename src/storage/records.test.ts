import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../tests/holds'
import { keepingIn, slots } from '../../tests/slots'
import { classOn } from '../../tests/teaching'
import { type ClassEntry, readClass } from '../core/diary/diary'
import { Database } from './database'
import { createRecords } from './records'

let names = 0

/** What two windows do, one after the other; `write` in a row all at once. */
type Act =
  | { readonly kind: 'write'; readonly window: 0 | 1; readonly id: string; readonly letter: string }
  | { readonly kind: 'remove' | 'restore' | 'read'; readonly window: 0 | 1; readonly id: string }

const anyId = fc.constantFrom('a', 'b', 'c')
const anyWindow = fc.constantFrom<0 | 1>(0, 1)
const anyAct: fc.Arbitrary<Act> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.record({
      kind: fc.constant('write' as const),
      window: anyWindow,
      id: anyId,
      letter: fc.constantFrom(...'klmnopq'),
    }),
  },
  fc.record({
    kind: fc.constantFrom('remove', 'restore', 'read'),
    window: anyWindow,
    id: anyId,
  }),
)

const sorted = (text: string) => [...text].sort().join('')

describe('records of two windows', () => {
  it('are what both have done to them, in whatever order, and nothing is left to save', async () => {
    await holds(
      fc.asyncProperty(fc.array(anyAct, { maxLength: 24 }), async (acts) => {
        const name = `records-${names++}`
        const store = slots()
        let clock = 0
        const windows = (['one', 'two'] as const).map((window) => {
          const database = new Database(name)
          return createRecords(
            database,
            database.classes,
            readClass,
            keepingIn(store, () => clock++, { window }),
          )
        })
        const of = (window: 0 | 1) => windows[window] ?? windows[0]
        const model = new Map<string, { notes: string; there: boolean }>()
        for (const id of ['a', 'b']) {
          await of(0)?.put(classOn('2026-11-25', [], { id }))
          model.set(id, { notes: '', there: true })
        }
        let writing: Promise<ClassEntry | undefined>[] = []
        const settle = async () => {
          await Promise.all(writing)
          writing = []
        }
        for (const act of acts) {
          const { id } = act
          const known = model.get(id)
          const records = of(act.window)
          if (act.kind === 'write') {
            const { letter } = act
            const made = records?.change(id, (now) => ({ ...now, notes: now.notes + letter }))
            if (made) writing.push(made)
            // Somebody is still at work on it, so it is there again.
            if (known) model.set(id, { notes: known.notes + letter, there: true })
            continue
          }
          await settle()
          if (act.kind === 'remove') await records?.remove(id)
          if (act.kind === 'restore') await records?.restore(id)
          if (act.kind !== 'read') {
            if (known) known.there = act.kind === 'restore'
            continue
          }
          const read = await records?.get(id)
          expect(read && sorted(read.notes)).toBe(known?.there ? sorted(known.notes) : undefined)
        }
        await settle()
        for (const window of [0, 1] as const) {
          const { all, unreadable } = (await of(window)?.list()) ?? { all: [], unreadable: 1 }
          expect(unreadable).toBe(0)
          expect(all.map(({ id, notes }) => [id, sorted(notes)])).toEqual(
            [...model]
              .filter(([, { there }]) => there)
              .map(([id, { notes }]) => [id, sorted(notes)]),
          )
        }
        expect(store.length).toBe(0)
      }),
      { numRuns: 60, seed: 71 },
    )
  })

  it('are not made by a change of what was never there', async () => {
    const database = new Database(`records-${names++}`)
    const store = slots()
    const records = createRecords(
      database,
      database.classes,
      readClass,
      keepingIn(store, () => 1),
    )
    expect(await records.change('a', (now) => ({ ...now, notes: 'later' }))).toBeUndefined()
    expect((await records.list()).all).toEqual([])
    expect(store.length).toBe(0)
  })
})

describe('a full disk', () => {
  it('is said, and what could not be stored is stored with the next change', async () => {
    const database = new Database(`records-${names++}`)
    const store = slots()
    const said: (string | undefined)[] = []
    const records = createRecords(
      database,
      database.classes,
      readClass,
      keepingIn(store, () => 1, { onKept: (trouble) => said.push(trouble?.message) }),
    )
    await records.put(classOn('2026-11-25', [], { id: 'a' }))
    const { put } = database.classes
    database.classes.put = () => {
      throw new Error('no room')
    }
    const failing = [
      records.change('a', (now) => ({ ...now, notes: `${now.notes}b` })),
      records.change('a', (now) => ({ ...now, next: 'slower' })),
    ]
    const outcomes = await Promise.allSettled(failing)
    expect(outcomes.map(({ status }) => status)).toEqual(['rejected', 'rejected'])
    expect(said.slice(1)).toEqual(Array(2).fill('This could not be saved in the browser.'))
    expect(store.length).toBe(1)
    database.classes.put = put
    await records.change('a', (now) => ({ ...now, notes: `${now.notes}c` }))
    expect(await records.get('a')).toMatchObject({ notes: 'bc', next: 'slower' })
    expect(said.at(-1)).toBeUndefined()
    expect(store.length).toBe(0)
  })
})
