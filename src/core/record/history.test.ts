import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import {
  beginHistory,
  changedLike,
  edit,
  NO_CHANGES,
  noted,
  redo,
  reversed,
  stepBack,
  stepForward,
  takenOn,
  undo,
} from './history'

const anyRow = (id: string) =>
  fc.record({ id: fc.constant(id), rounds: fc.nat(9), tempo: fc.nat(99) })
/** Rows in a fixed order, some of them missing. */
const anyRows = fc
  .tuple(...['a', 'b', 'c', 'd', 'e'].map((id) => fc.option(anyRow(id), { nil: undefined })))
  .map((rows) => rows.filter((row) => row !== undefined))
interface Row {
  readonly id: string
  readonly rounds: number
  readonly tempo: number
}
interface Entry {
  readonly title: string
  readonly room: { readonly width: number; readonly depth: number }
  readonly group?: string
  readonly danced: readonly Row[]
}
const byId = ({ danced }: Entry) => danced.toSorted((a, b) => (a.id < b.id ? -1 : 1))
const anyEntry: fc.Arbitrary<Entry> = fc.record(
  {
    title: fc.string({ maxLength: 4 }),
    room: fc.record({ width: fc.nat(9), depth: fc.nat(9) }),
    group: fc.string({ maxLength: 3 }),
    danced: anyRows,
  },
  { requiredKeys: ['title', 'room', 'danced'] },
)

describe('a change of what others change too', () => {
  it('is taken back and made again exactly where nothing else happened', () => {
    holds(
      fc.property(anyEntry, anyEntry, (before, after) => {
        expect(changedLike(after, after, before)).toEqual(before)
        expect(changedLike(before, before, after)).toEqual(after)
      }),
      { numRuns: 300, seed: 81 },
    )
  })

  it('leaves alone what it did not touch, whoever has changed that since', () => {
    holds(
      fc.property(anyEntry, fc.nat(9), fc.nat(9), fc.string(), (before, width, depth, title) => {
        const after = { ...before, title, room: { ...before.room, width } }
        const since = {
          ...after,
          group: 'theirs',
          room: { ...after.room, depth },
          danced: [...after.danced, { id: 'new', rounds: 1, tempo: 80 }],
        }
        const back = changedLike(since, after, before)
        const touched = { title: before.title, room: { width: before.room.width, depth } }
        expect(back).toEqual({ ...since, ...touched })
      }),
      { numRuns: 200, seed: 82 },
    )
  })

  it('of one row keeps the rounds the floor has written to the others, and those that came', () => {
    const rows = (...all: readonly [string, number][]) => ({
      danced: all.map(([id, rounds]) => ({ id, rounds })),
    })
    const before = rows(['a', 1], ['b', 2], ['c', 3])
    const removed = rows(['a', 1], ['c', 3])
    expect(changedLike(rows(['a', 4], ['c', 3], ['d', 1]), removed, before)).toEqual(
      rows(['a', 4], ['b', 2], ['c', 3], ['d', 1]),
    )
    const corrected = rows(['a', 9], ['b', 2], ['c', 3])
    expect(changedLike(rows(['a', 9], ['b', 5], ['c', 3]), corrected, before)).toEqual(
      rows(['a', 1], ['b', 5], ['c', 3]),
    )
  })
})

describe('a document that others change too', () => {
  it('is undone and done again without what they did, also where rows were put in another order', () => {
    holds(
      fc.property(
        anyEntry,
        fc.array(anyEntry, { minLength: 1, maxLength: 5 }),
        fc.nat(4),
        (first, states, at) => {
          const ungrouped = ({ group: _, ...entry }: Entry): Entry => entry
          const theirs = (entry: Entry): Entry => ({
            ...entry,
            group: 'theirs',
            danced: [...entry.danced, { id: 'theirs', rounds: 1, tempo: 1 }],
          })
          let history = beginHistory(ungrouped(first))
          for (const [i, any] of states.entries()) {
            const state = ungrouped(any)
            const danced = i % 2 === 0 ? state.danced : state.danced.toReversed()
            const mine = { ...state, danced }
            history = edit(history, 'mine', i > at ? theirs(mine) : mine)
            if (i === at) history = takenOn(history, theirs(history.present))
          }
          const whole = history.present
          const steps = history.past.length
          for (let step = 0; step < steps; step++) history = undo(history)
          const had = at < states.length ? theirs(ungrouped(first)) : ungrouped(first)
          expect({ ...history.present, danced: byId(history.present) }).toEqual({
            ...had,
            danced: byId(had),
          })
          expect(history.present.danced.filter(({ id }) => id !== 'theirs')).toEqual(first.danced)
          for (let step = 0; step < steps; step++) history = redo(history)
          expect(history.present).toEqual(whole)
        },
      ),
      { numRuns: 200, seed: 84 },
    )
  })
})

describe('the list of changes', () => {
  const change = (before: number | undefined, after: number | undefined, mark?: string) => ({
    label: 'x',
    before,
    after,
    ...(mark !== undefined && { mark }),
  })

  it('goes back and forth through any of them, and joins what is typed in a row', () => {
    holds(
      fc.property(
        fc.array(fc.tuple(fc.nat(50), fc.constantFrom('a', 'b', undefined)), { minLength: 1 }),
        (steps) => {
          let changes = NO_CHANGES as Parameters<typeof noted<number>>[0]
          let state = 0
          for (const [to, mark] of steps) {
            changes = noted(changes, change(state, to, mark))
            state = to
          }
          const joined = steps.filter(
            ([, mark], i) => mark !== undefined && i > 0 && steps[i - 1]?.[1] === mark,
          )
          expect(changes.past).toHaveLength(steps.length - joined.length)
          const whole = changes
          for (let back = stepBack(changes); back; back = stepBack(changes)) {
            expect(back.change.after).toBe(state)
            state = back.change.before ?? -1
            changes = back.changes
          }
          expect(state).toBe(0)
          for (let on = stepForward(changes); on; on = stepForward(changes)) {
            expect(reversed(on.change).after).toBe(state)
            state = on.change.after ?? -1
            changes = on.changes
          }
          expect(state).toBe(steps.at(-1)?.[0])
          expect(changes).toEqual(whole)
          const anew = stepBack(changes)
          if (anew) expect(noted(anew.changes, change(0, 1)).future).toEqual([])
        },
      ),
      { numRuns: 150, seed: 83 },
    )
  })
})
