import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { demoId, materials, newPlan, wishesOf } from '../../../tests/teaching'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { beginHistory, edit, undo } from '../record/history'
import { drillKey } from './drill'
import {
  changeDrill,
  changeWishes,
  comparePlans,
  freed,
  moveDrill,
  planAgain,
  removeDrill,
  setLocked,
  splitDrill,
} from './edits'
import { countsPerSide, materialsOf, secondsOf } from './material'
import { cautionsOf, notesOf } from './notes'
import { Plan, type PlanWishes, readPlan } from './plan'
import { drillTitle, totalsOf } from './totals'
import { wordsOfPlan } from './words'

const wishes = (more: Partial<PlanWishes> = {}) => wishesOf('Quick Ember', more)

const plan = newPlan('plan', 'Tuesday', wishes(), materials)

describe('a plan whose combination was deleted', () => {
  it('keeps its drills whatever is changed, and has them again when it is back', () => {
    const without = materialsOf([], vocabulary, USUAL_HOUSE)
    const touched = [
      (now: Plan) => changeWishes(now, { minutes: 30 }),
      (now: Plan) => freed(now),
      (now: Plan) => changeDrill(now, now.drills[2]?.id ?? '', { repeats: 3 }),
      (now: Plan) => ({ ...now, title: 'Wednesday' }),
    ]
    for (const touch of touched) {
      const { plan: now } = planAgain(touch(plan), without)
      expect(now.drills.map(({ id }) => id)).toEqual(plan.drills.map(({ id }) => id))
      // Said once for the class; nothing of its time is claimed, nothing of a drill.
      const remarks = totalsOf(now, without).remarks
      expect(remarks.filter(({ text }) => text.includes('deleted combination')).length).toBe(1)
      expect(remarks.filter(({ text }) => text.includes('are free'))).toEqual([])
      expect(remarks.filter(({ drill }) => drill !== undefined)).toEqual([])
      expect(planAgain(now, materials).plan.drills.length).toBeGreaterThan(3)
    }
    // What is no longer wished for goes, as ever.
    const other = changeWishes(plan, { combinations: [demoId('Copper Lantern')] })
    expect(
      planAgain(other, materials).plan.drills.map(({ combination }) => combination),
    ).not.toContain(demoId('Quick Ember'))
  })
})

type Hand =
  | { readonly kind: 'repeats'; readonly at: number; readonly repeats: number }
  | { readonly kind: 'tempo'; readonly at: number; readonly tempo: number }
  | { readonly kind: 'side' | 'split' | 'remove' | 'lock' | 'unlock'; readonly at: number }
  | { readonly kind: 'move'; readonly at: number; readonly to: number }

const at = fc.nat(40)
const anyHand: fc.Arbitrary<Hand> = fc.oneof(
  fc.record({ kind: fc.constant('repeats' as const), at, repeats: fc.integer({ min: 1, max: 6 }) }),
  fc.record({ kind: fc.constant('tempo' as const), at, tempo: fc.integer({ min: 40, max: 140 }) }),
  fc.record({ kind: fc.constantFrom('side', 'split', 'remove', 'lock', 'unlock'), at }),
  fc.record({ kind: fc.constant('move' as const), at, to: at }),
)

function byHand(plan: Plan, hand: Hand): Plan {
  const drill = plan.drills[hand.at % plan.drills.length]
  if (!drill) return plan
  switch (hand.kind) {
    case 'repeats':
      return changeDrill(plan, drill.id, { repeats: hand.repeats })
    case 'tempo':
      return changeDrill(plan, drill.id, { tempo: hand.tempo })
    case 'side':
      return changeDrill(plan, drill.id, { sides: drill.sides.toReversed() })
    case 'split':
      return splitDrill(plan, drill.id) ?? plan
    case 'remove':
      return removeDrill(plan, drill.id)
    case 'lock':
    case 'unlock':
      return setLocked(plan, drill.id, hand.kind === 'lock')
    case 'move':
      return moveDrill(plan, drill.id, hand.to)
  }
}

describe('a plan changed by hand', () => {
  it('keeps what is locked, brings back nothing that was taken out, and still adds up', () => {
    holds(
      fc.property(fc.array(anyHand, { minLength: 1, maxLength: 7 }), (hands) => {
        let now = plan
        for (const hand of hands) {
          const changed = byHand(now, hand)
          const { plan: again, proposal } = planAgain(changed, materials)
          const seconds = again.drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)
          expect(seconds - proposal.over).toBe(45 * 60)
          const kept = changed.drills.filter((drill) => drill.locked)
          expect(again.drills.filter((drill) => drill.locked)).toEqual(kept)
          for (const key of changed.without)
            expect(
              again.drills.filter((drill) => !drill.locked && drillKey(drill) === key),
            ).toEqual([])
          expect(Plan.safeParse(again).success).toBe(true)
          expect(readPlan(JSON.parse(JSON.stringify(again)))).toEqual(again)
          now = again
        }
        expect(planAgain(freed(now), materials).plan.drills).toEqual(plan.drills)
      }),
      { numRuns: 150, seed: 65 },
    )
  })

  it('can be undone step by step', () => {
    holds(
      fc.property(fc.array(anyHand, { minLength: 1, maxLength: 6 }), (hands) => {
        const states = [plan]
        let history = beginHistory(plan)
        for (const hand of hands) {
          history = edit(history, hand.kind, byHand(history.present, hand))
          if (history.present !== states.at(-1)) states.push(history.present)
        }
        for (const state of states.toReversed()) {
          expect(history.present).toBe(state)
          history = undo(history)
        }
      }),
      { numRuns: 60, seed: 66 },
    )
  })

  it('is parted into a side each, which take the time of both and a count-in', () => {
    const sides = plan.drills.find((one) => one.sides.length === 2 && !one.inTurn)
    if (!sides) throw new Error('none of two sides')
    const split = splitDrill(plan, sides.id)
    const halves = split?.drills.filter(
      ({ kind, phrases, tempo }) =>
        kind === sides.kind && phrases.join() === sides.phrases.join() && tempo === sides.tempo,
    )
    expect(halves?.map((half) => half.sides)).toEqual([['R'], ['L']])
    const [a, b] = halves ?? []
    if (!a || !b) throw new Error('no halves')
    const both = countsPerSide(sides, materials)
    expect(countsPerSide(a, materials).R + countsPerSide(b, materials).R).toBe(both.R)
    const whole = secondsOf(sides, materials)
    const parts = secondsOf(a, materials) + secondsOf(b, materials)
    expect(Math.abs(parts - whole)).toBeLessThanOrEqual(1)
    expect(splitDrill(plan, 'nowhere')).toBeUndefined()
  })
})

describe('what is said of a plan', () => {
  it('is nothing where it was planned, and names each slip a hand makes', () => {
    expect(totalsOf(plan, materials).remarks).toEqual([])
    const said = (changed: Plan) =>
      totalsOf(changed, materials)
        .remarks.map(({ text }) => text)
        .join(' ')
    const piece = plan.drills.find(({ kind }) => kind === 'walk' || kind === 'feet')
    const whole = plan.drills.findIndex(
      ({ kind, phrases }) => kind === 'all' && phrases.join() === piece?.phrases.join(),
    )
    const sides = plan.drills.find(({ kind }) => kind === 'sides')
    if (!piece || !sides) throw new Error('nothing to move')
    expect(said(moveDrill(plan, piece.id, whole))).toMatch(
      /is danced whole before .*: move that up/,
    )
    expect(said(changeDrill(plan, sides.id, { sides: ['R'], repeats: 40 }))).toMatch(
      /left side has \d+ counts fewer/,
    )
    expect(said(changeDrill(plan, sides.id, { repeats: 90 }))).toMatch(/too long/)
    expect(said(removeDrill(plan, sides.id))).toMatch(/ s are free|min .* are free/)
    expect(said(changeDrill(plan, sides.id, { tempo: 40 }))).not.toMatch(/at once/)
    expect(said(changeDrill(plan, piece.id, {}))).not.toMatch(/at once/)
    const all = plan.drills.find(({ kind }) => kind === 'all')
    if (!all) throw new Error('no phrase')
    expect(said(changeDrill(plan, all.id, { tempo: 48 }))).toMatch(/From 48 to 72 at once/)
    const gone = {
      ...plan,
      drills: plan.drills.map((d) => (d === sides ? { ...d, phrases: ['gone'] } : d)),
    }
    expect(said(gone)).toMatch(/no longer in the combination/)
  })

  it('counts what strains, up to the limits of a drill and of the class', () => {
    const combination = demo.find(({ phrases }) =>
      phrases.some(({ events }) =>
        events.some(
          ({ what }) => what.kind === 'move' && (vocabulary.find(what.move)?.risk.length ?? 0) > 0,
        ),
      ),
    )
    if (!combination) throw new Error('nothing in the demo strains')
    const strained = newPlan(
      'x',
      'x',
      wishes({ combinations: [combination.id], minutes: 180 }),
      materials,
    )
    const { risks } = totalsOf(strained, materials)
    const some = risks.filter(({ times }) => times > 0)
    expect(some.length).toBeGreaterThan(0)
    for (const { times, cap } of some) expect(times).toBeLessThanOrEqual(cap)
    const [first] = strained.drills.filter(({ kind }) => kind === 'sides')
    if (!first) throw new Error('no sides')
    const more = totalsOf(changeDrill(strained, first.id, { repeats: 99 }), materials)
    expect(more.remarks.map(({ text }) => text).join(' ')).toMatch(/in one drill/)
    expect(more.remarks.map(({ text }) => text).join(' ')).toMatch(/in the class/)
  })

  it('has what to watch, an easier form and cautions of the moves that are in the drill', () => {
    const notes = plan.drills.map((drill) => notesOf(drill, materials))
    expect(notes.some(({ watch }) => watch.length > 0)).toBe(true)
    expect(notes.some(({ easier }) => easier.length > 0)).toBe(true)
    for (const { watch } of notes) expect(watch.length).toBeLessThanOrEqual(2)
    const careful = newPlan('careful', 'Wednesday', wishesOf('Copper Lantern'), materials)
    const cautions = cautionsOf(careful.drills, materials)
    const lines = [...wordsOfPlan(careful, materials).values()].flatMap(({ say }) => say)
    expect(cautions.length).toBeGreaterThan(0)
    for (const caution of cautions) expect(lines.filter((line) => line === caution)).toHaveLength(1)
  })
})

describe('two plans beside each other', () => {
  it('pair what is the same, and leave nothing out', () => {
    const other = newPlan('other', 'Other', wishes({ way: 'layers', minutes: 60 }), materials)
    const pairs = comparePlans(plan, other, materials)
    expect(pairs.flatMap(({ a }) => a ?? [])).toEqual(plan.drills)
    expect(new Set(pairs.flatMap(({ b }) => b ?? []))).toEqual(new Set(other.drills))
    for (const { a, b } of pairs) if (a && b) expect(drillKey(a)).toBe(drillKey(b))
    const [sumA, sumB] = [0, 1].map((i) =>
      pairs.reduce((sum, { seconds }) => sum + (seconds[i] ?? 0), 0),
    )
    expect([sumA, sumB]).toEqual([45 * 60, 60 * 60])
    expect(comparePlans(plan, plan, materials).every(({ a, b }) => a === b)).toBe(true)
    expect(changeWishes(plan, { minutes: 60 }).wishes.minutes).toBe(60)
    expect(
      new Set(pairs.map(({ title }) => title)).has(drillTitle(plan.drills[0]!, materials)),
    ).toBe(true)
  })
})
