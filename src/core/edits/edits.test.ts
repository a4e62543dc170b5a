import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { combination, feet, move, on } from '../../../tests/write'
import { Combination } from '../combination/combination'
import { tick } from '../time/time'
import * as edits from './edits'
import { beginHistory, edit, redo, undo } from './history'

const anyEdit: fc.Arbitrary<(c: Combination) => edits.Edit> = fc
  .record({
    which: fc.nat(99),
    n: fc.integer({ min: -40, max: 40 }),
    kind: fc.nat(12),
    made: fc.uuid(),
  })
  .map(({ which, n, kind, made }) => (c) => {
    const all = c.phrases.flatMap((p) => p.events)
    const ids = all.length === 0 ? [] : [all[which % all.length]!.id]
    const phrase = c.phrases[which % c.phrases.length]!.id
    const at = which % c.order.length
    const event = {
      id: made,
      layer: 'hips' as const,
      at: tick(Math.abs(n)),
      length: tick(12),
      what: { kind: 'at' as const, place: 'R' as const },
    }
    const kinds: edits.Edit[] = [
      edits.placeEvent(phrase, event),
      edits.moveEvents(ids, n),
      edits.stretchEvents(ids, n),
      edits.removeEvents(ids),
      edits.changeSide(ids, n > 0 ? 'R' : 'L'),
      edits.keep(ids, n > 0),
      edits.addPhrase(made, at),
      edits.removePass(at),
      edits.movePass(at, Math.abs(n) % c.order.length),
      edits.repeatPass(at),
      edits.turnPass(at),
      edits.setCounts(phrase, 1 + (Math.abs(n) % 16)),
      ids[0] ? edits.moveEventTo(ids[0], phrase, tick(Math.abs(n))) : (x) => x,
    ]
    return kinds[kind]!
  })

describe('edits', () => {
  it('always leave a sound combination, and undo and redo lead back and on through every state', () => {
    fc.assert(
      fc.property(
        anyCombination(),
        fc.array(anyEdit, { minLength: 1, maxLength: 12 }),
        (start, list) => {
          let history = beginHistory(start)
          const states = [start]
          for (const make of list) {
            const changed = make(history.present)(history.present)
            expect(Combination.safeParse(changed).error?.issues).toBeUndefined()
            history = edit(history, 'change', changed)
            if (changed !== states.at(-1)) states.push(changed)
          }
          const frozen = structuredClone(states)
          for (const state of states.slice(0, -1).reverse()) {
            history = undo(history)
            expect(history.present).toBe(state)
          }
          expect(undo(history)).toBe(history)
          for (const state of states.slice(1)) {
            history = redo(history)
            expect(history.present).toBe(state)
          }
          expect(redo(history)).toBe(history)
          expect(states).toEqual(frozen)
        },
      ),
      { numRuns: 300, seed: 31 },
    )
  })

  it('make a whole drag one step back', () => {
    const start = combination([feet('1 step R side')])
    let history = beginHistory(start)
    for (const by of [3, 3, 6])
      history = edit(history, 'move', edits.moveEvents(['A:f0-0'], by)(history.present), 'drag 1')
    expect(history.present.phrases[0]?.events[0]?.at).toBe(12)
    expect(undo(history).present).toBe(start)
  })

  it('stop a move of several at the first that meets the end of its phrase', () => {
    const start = combination([[move('hip-drop', '7', 'R'), move('chest-lift', '2')]])
    const moved = edits.moveEvents(
      start.phrases[0]!.events.map((e) => e.id),
      48,
    )(start)
    expect(moved.phrases[0]?.events.map((e) => e.at)).toEqual([24, 84])
  })

  it.each([
    [move('hip-drop', '1', 'R'), 'L', { side: 'L' }],
    [on('hips', '1', { kind: 'at', place: 'FR' }), 'L', { place: 'FL' }],
    [on('hips', '1', { kind: 'at', place: 'F' }), 'L', { place: 'F' }],
    [on('arms', '1', { kind: 'arms', R: 'crown', L: 'low' }), 'L', { R: 'low', L: 'crown' }],
    [on('head', '1', { kind: 'look', gaze: 'over-L' }), 'R', { gaze: 'over-R' }],
    [
      move('hip-circle-small', '1', undefined, {
        what: { kind: 'move', move: 'hip-circle-small', way: 'cw' },
      }),
      'L',
      { way: 'ccw' },
    ],
  ] as const)('turn $what.kind to a side', (event, side, what) => {
    const start = combination([[event]])
    const id = start.phrases[0]!.events[0]!.id
    const turned = edits.changeSide([id], side)(start).phrases[0]!.events[0]!.what
    expect(turned).toMatchObject(what)
    expect(
      edits.changeSide([id], side)(edits.changeSide([id], side)(start)).phrases[0]!.events[0]!.what,
    ).toEqual(event.what.kind === 'arms' ? event.what : turned)
  })
})
