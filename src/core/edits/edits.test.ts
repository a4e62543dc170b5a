import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { combination, feet, move, on } from '../../../tests/write'
import { Combination } from '../combination/combination'
import { UserError } from '../errors'
import { vocabulary } from '../moves/vocabulary'
import { beginHistory, edit, redo, undo } from '../record/history'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { simulate } from '../simulate/simulate'
import { tick } from '../time/time'
import * as clips from './clip'
import type { Edit } from './edit'
import * as edits from './edits'
import * as phrases from './phrases'

let serial = 0
const anyEdit: fc.Arbitrary<(c: Combination) => Edit> = fc
  .record({
    which: fc.nat(99),
    n: fc.integer({ min: -40, max: 40 }),
    kind: fc.nat(20),
    made: fc.uuid(),
  })
  .map(({ which, n, kind, made: given }) => (c) => {
    const made = `${given}${serial++}`
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
    const kinds: Edit[] = [
      edits.placeEvent(phrase, event),
      edits.moveEvents(ids, n),
      edits.stretchEvents(ids, n, vocabulary),
      edits.removeEvents(ids),
      edits.changeSide(ids, n > 0 ? 'R' : 'L'),
      edits.keep(ids, n > 0),
      phrases.addPhrase(made, at),
      phrases.removePass(at),
      phrases.movePass(at, Math.abs(n) % c.order.length),
      phrases.repeatPass(at),
      phrases.turnPass(at),
      phrases.setCounts(phrase, 1 + (Math.abs(n) % 16)),
      ids[0] ? edits.moveEventTo(ids[0], phrase, tick(Math.abs(n))) : (x) => x,
      phrases.insertCounts(phrase, 1 + (which % 4), 1 + (Math.abs(n) % 3)),
      phrases.deleteCounts(phrase, 1 + (which % 4), 1 + (Math.abs(n) % 3)),
      phrases.retime(phrase, n > 0 ? 2 : 0.5, vocabulary),
      phrases.setPickup(Math.abs(n) % 4, which % 2 === 0),
      edits.openFigure(ids[0] ?? '', vocabulary, () => `${made}${serial++}`),
      clips.paste(
        { events: all.slice(0, 4).map((event) => ({ event, offset: event.at, danced: 12 })) },
        at,
        tick(Math.abs(n)),
        () => `${made}${serial++}`,
      ),
      edits.setRemark(phrase, {
        id: `${made}r`,
        kind: 'say',
        at: tick(0),
        length: tick(12),
        text: n > 0 ? 'go' : '',
      }),
      ids[0] ? edits.changeEvent(ids[0], { cue: n > 0 ? 'now' : '', size: 50 }) : (x) => x,
    ]
    return kinds[kind]!
  })

/** Undefined where an edit is refused with a sentence. */
function refusedOr<T>(work: () => T): T | undefined {
  try {
    return work()
  } catch (error) {
    expect(error).toBeInstanceOf(UserError)
    return undefined
  }
}

describe('edits', () => {
  it('always leave a sound combination, and undo and redo lead back and on through every state', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.array(anyEdit, { minLength: 1, maxLength: 12 }),
        (start, list) => {
          let history = beginHistory(start)
          const states = [start]
          for (const make of list) {
            const changed = refusedOr(() => make(history.present)(history.present))
            if (!changed) continue
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

  const sheetOf = (lines: string, header = '') =>
    readSheet(`sway 1\n${header}\nphrase A 8\n${lines}\n`, vocabulary).combination
  const linesOf = (changed: Combination) =>
    writeSheet(changed, vocabulary)
      .split('\n')
      .filter((line) => line.startsWith('phrase') || line.startsWith('  '))
      .map((line) => line.trim().replace(/\s+/g, ' '))

  it.each([
    [
      'half the counts',
      phrases.retime('A', 0.5, vocabulary),
      ['phrase A 4', 'feet 1 step R side; 1& step L together', 'hips 1-2 hip-sway R'],
    ],
    [
      'twice the counts',
      phrases.retime('A', 2, vocabulary),
      ['phrase A 16', 'feet 1 step R side; 3 step L together', 'hips 1-8 hip-sway R'],
    ],
    [
      'two counts put in before 2',
      phrases.insertCounts('A', 2, 2),
      ['phrase A 10', 'feet 1 step R side; 4 step L together', 'hips 1-6 hip-sway R'],
    ],
    [
      'count 1 taken out',
      phrases.deleteCounts('A', 1, 1),
      ['phrase A 7', 'feet 1 step L together'],
    ],
    [
      'count 2 taken out',
      phrases.deleteCounts('A', 2, 1),
      ['phrase A 7', 'feet 1 step R side', 'hips 1-3 hip-sway R'],
    ],
  ])('move everything along: %s', (_, make, expected) => {
    const start = sheetOf('feet 1 step R side; 2 step L together\n hips 1-4 hip-sway R')
    expect(linesOf(make(start))).toEqual(expected)
  })

  it('refuse what would fall between ticks, and name it', () => {
    const start = sheetOf('feet 1 step R side; 1e step L together')
    expect(() => phrases.retime('A', 0.5, vocabulary)(start)).toThrow(
      /step L together \(1e\) would fall between/,
    )
    expect(() =>
      phrases.retime(
        'A',
        0.5,
        vocabulary,
      )(
        sheetOf('feet 1 step', 'counts 7').phrases[0]
          ? { ...start, phrases: [{ ...start.phrases[0]!, counts: 7, events: [] }] }
          : start,
      ),
    ).toThrow(/can't be halved/)
  })

  it('keep a pickup in front of whatever is danced first', () => {
    const two = readSheet(
      'sway 1\npickup 1\nphrase A 8\n feet <8 step R side; 1 step L\nphrase B 8\n feet 1 step R\norder A B',
      vocabulary,
    ).combination
    const turned = phrases.movePass(0, 1)(two)
    expect(turned.phrases.map(({ events }) => events.map(({ at }) => at))).toEqual([[0], [-12, 0]])
    expect(
      phrases
        .removePass(0)(two)
        .phrases[0]?.events.map(({ at }) => at),
    ).toEqual([-12, 0])
    expect(
      phrases
        .setPickup(
          0,
          false,
        )(two)
        .phrases[0]?.events.map(({ at }) => at),
    ).toEqual([0])
  })

  it('open a figure into its steps, which dance the same', () => {
    const start = sheetOf('feet 1-8 grapevine R')
    const opened = edits.openFigure('A.0', vocabulary, () => `n${serial++}`)(start)
    expect(linesOf(opened)[1]).toBe(
      'feet 1 step R side; 2 step L cross-behind; 3 step R side; 4 touch L together; 5 step L side;',
    )
    const danced = (c: Combination) =>
      simulate(c, vocabulary).danced.map(({ at, length, action }) => ({ at, length, action }))
    expect(danced(opened)).toEqual(danced(start))
  })

  it('paste over the phrases that follow, mirrored or as it is, and say what found no room', () => {
    const start = readSheet(
      'sway 1\nphrase A 4\n hips 1 hip-drop R; 4 hip-drop R\nphrase B 4\n torso 1 chest-pop',
      vocabulary,
    ).combination
    const events = start.phrases[0]!.events.map((event) => ({
      event,
      offset: event.at,
      danced: 12,
    }))
    const pasted = clips.paste({ events }, 1, tick(0), () => `n${serial++}`)(start)
    expect(linesOf(pasted).slice(-2)).toEqual([
      'hips 1 hip-drop R; 4 hip-drop R',
      'torso 1 chest-pop',
    ])
    const late = clips.paste({ events }, 1, tick(24), () => `n${serial++}`)(start)
    expect(late.phrases[1]?.events).toHaveLength(2)
    expect(clips.roomFor({ events }, 1, tick(24), start)).toBe(1)
    const mirrored = clips.paste(
      clips.mirroredClip({ events }),
      1,
      tick(0),
      () => `n${serial++}`,
    )(start)
    expect(linesOf(mirrored)).toContain('hips 1 hip-drop L; 4 hip-drop L')
  })
})

describe('own moves that are danced', () => {
  const own = (id: string, name: string) => ({
    id,
    name,
    layer: 'hips' as const,
    kind: 'path' as const,
    motion: 'arc(R>C>L)',
    counts: 2,
    sided: 'side' as const,
    claims: ['pelvis' as const],
  })
  const danced = (...ids: readonly string[]) =>
    combination([
      ids.map((move, i) =>
        on('hips', `${1 + 2 * i}`, { kind: 'move', move, side: 'R' }, { id: `own-${i}` }),
      ),
    ])

  it('come along once, the others stay behind, and what it brought itself stays as it is', () => {
    const all = [own('melt', 'Melt'), own('fold', 'Fold'), own('idle', 'Idle')]
    const brought = edits.bringUsed(all)(danced('melt', 'fold', 'melt'))
    expect(brought.moves?.map(({ id }) => id)).toEqual(['melt', 'fold'])
    expect(edits.bringUsed(all)(brought)).toBe(brought)
    const older = { ...danced('melt'), moves: [own('melt', 'Melt as it was')] }
    expect(edits.bringUsed(all)(older)).toBe(older)
    expect(edits.bringUsed(all)(danced()).moves).toBeUndefined()
  })
})
