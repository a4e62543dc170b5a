import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { classOn, materials, newPlan, wishesOf } from '../../../tests/teaching'
import type { Drill } from '../plan/drill'
import { roundOf, secondsOf } from '../plan/material'
import {
  afterAction,
  beginClass,
  type ClassAction,
  classAfter,
  cutBy,
  drillOf,
  lateBy,
  readUnderWay,
  restOf,
  secondsLeft,
  sidesWords,
  type UnderWay,
} from './underWay'

const plan = newPlan('plan', 'Tuesday', wishesOf('Quick Ember', { way: 'phrases' }), materials)
const begun = beginClass(plan, { id: 'class', title: 'Tuesday', danced: [] })
const wholeAt = plan.drills.findIndex(({ kind }) => kind === 'all')
const entry = classOn('2026-11-25', [], { id: 'class' })

const played = (session: UnderWay, ...actions: readonly ClassAction[]) =>
  actions.reduce((now, action) => afterAction(now, action, materials), session)

const isDanced = ({ seconds, kind }: Drill) => seconds === undefined && kind !== 'show'

const anyAction: fc.Arbitrary<ClassAction> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.constantFrom<ClassAction>(
      { kind: 'round', side: 'R' },
      { kind: 'round', side: 'L' },
    ),
  },
  fc.constant<ClassAction>({ kind: 'start', now: 1000 }),
  fc
    .constantFrom(
      'finished',
      'next',
      'again',
      'slower',
      'faster',
      'other-side',
      'pause',
      'walk',
      'water',
      'to-runs',
    )
    .map((kind) => ({ kind })),
  fc.constantFrom('clean', 'not-yet').map((verdict) => ({ kind: 'verdict' as const, verdict })),
  fc.nat(30).map((index) => ({ kind: 'go' as const, index })),
  fc.nat(400).map((seconds) => ({ kind: 'cut' as const, seconds })),
  fc.nat(90_000).map((ms) => ({ kind: 'from' as const, ms })),
)

describe('a class on the floor', () => {
  it('loses no round, whatever is pressed, and survives being written down at any moment', () => {
    holds(
      fc.property(fc.array(anyAction, { maxLength: 40 }), (actions) => {
        let now = begun
        let written = entry
        let rounds = 0
        for (const action of actions) {
          const before = drillOf(now)
          // Nothing sounds in what is said or walked, and who looks dances nothing.
          if (action.kind === 'round' && before && !isDanced(before)) continue
          if (action.kind === 'round' && before && !before.moves) rounds++
          if (action.kind === 'round' && before?.moves) {
            // A round of moves has both sides in it and is danced on one.
            if (action.side === 'L') continue
            rounds += 2
          }
          now = readUnderWay(JSON.parse(JSON.stringify(afterAction(now, action, materials))))
          written = classAfter(written, now, materials)
          const { danced } = written
          expect(danced.reduce((sum, { rounds: { R, L } }) => sum + R + L, 0)).toBe(rounds)
          expect(new Set(danced.map(({ id }) => id)).size).toBe(danced.length)
          expect(now.index).toBeLessThanOrEqual(now.drills.length)
          expect(now.phase === 'over').toBe(drillOf(now) === undefined)
        }
      }),
      { numRuns: 250, seed: 95 },
    )
  })

  it('goes on where it was paused: the rounds that are left, on the sides that are left', () => {
    const index = plan.drills.findIndex(({ sides, inTurn }) => sides.length === 2 && !inTurn)
    const [first = 'R', second = 'L'] = plan.drills[index]?.sides ?? []
    const dancing = played(begun, { kind: 'go', index }, { kind: 'start', now: 5 })
    const drill = drillOf(dancing)
    if (!drill) throw new Error('no drill')
    expect(restOf(dancing)).toEqual(drill)
    const one = played(dancing, { kind: 'round', side: first }, { kind: 'pause' })
    expect(one.phase).toBe('paused')
    // One side after the other: the rest of the first, then all of the second.
    expect(restOf(one)).toMatchObject({ sides: [first], repeats: drill.repeats - 1 })
    let rest = one
    for (let i = 1; i < drill.repeats; i++) rest = played(rest, { kind: 'round', side: first })
    expect(restOf(rest)).toMatchObject({ sides: [second], repeats: drill.repeats })
    expect(played(rest, { kind: 'start', now: 9 }, { kind: 'finished' }).phase).toBe('dancing')
    for (let i = 0; i < drill.repeats; i++) rest = played(rest, { kind: 'round', side: second })
    expect(restOf(rest)).toBeUndefined()
    expect(played(rest, { kind: 'finished' }).phase).toBe('asking')
  })

  it('dances what is left whatever was danced: both sides come to the same number', () => {
    holds(
      fc.property(
        fc.nat(40),
        fc.array(fc.constantFrom('R', 'L'), { maxLength: 12 }),
        (at, rounds) => {
          const index = 1 + (at % (plan.drills.length - 2))
          let now = played(begun, { kind: 'go', index }, { kind: 'start', now: 1 })
          for (const side of rounds) now = played(now, { kind: 'round', side })
          const drill = drillOf(now)
          if (!drill) throw new Error('no drill')
          for (let stage = 0; stage < 4; stage++) {
            const rest = restOf(now)
            if (!rest) break
            expect(rest.inTurn === true && rest.sides.length === 1).toBe(false)
            for (let i = 0; i < rest.repeats; i++)
              for (const side of rest.sides) now = played(now, { kind: 'round', side })
          }
          expect(restOf(now)).toBeUndefined()
          for (const side of drill.sides)
            expect(now.rounds[side]).toBe(
              Math.max(drill.repeats, rounds.filter((one) => one === side).length),
            )
        },
      ),
      { numRuns: 150, seed: 96 },
    )
  })

  it('goes back a rung where it was not yet clean, then to an easier form, and on as planned after clean', () => {
    const index = plan.drills.findLastIndex(({ kind }) => kind === 'run')
    /** All rounds of a drill. */
    const dance = (session: UnderWay) => {
      const drill = drillOf(session)
      return played(
        session,
        { kind: 'start', now: 1 },
        ...Array.from({ length: drill?.repeats ?? 0 }, () =>
          (drill?.sides ?? []).map((side) => ({ kind: 'round' as const, side })),
        ).flat(),
        { kind: 'finished' },
      )
    }
    const asked = dance(played(begun, { kind: 'go', index }))
    expect(asked.phase).toBe('asking')
    const first = drillOf(asked)
    const below = plan.drills.filter(
      ({ kind, tempo }) => kind === 'run' && tempo < (first?.tempo ?? 0),
    )
    const slower = played(asked, { kind: 'verdict', verdict: 'not-yet' })
    expect(drillOf(slower)).toMatchObject({
      tempo: below.at(-1)?.tempo,
      layers: first?.layers,
      repeats: 2,
    })
    expect(slower.drills).toHaveLength(begun.drills.length + 1)
    const easier = played(dance(slower), { kind: 'verdict', verdict: 'not-yet' })
    const form = drillOf(easier)
    expect(form?.tempo).toBe(below.at(-1)?.tempo)
    expect(
      form?.eased !== undefined || form?.layers.length === (first?.layers.length ?? 0) - 1,
    ).toBe(true)
    expect(form && roundOf(form, materials)?.counts).toBeGreaterThan(0)
    const clean = played(dance(easier), { kind: 'verdict', verdict: 'clean' })
    expect(drillOf(clean)).toEqual(plan.drills[index + 1])
    const all = [asked, slower, easier, clean].reduce(
      (written, state) => classAfter(written, state, materials),
      entry,
    )
    expect(all.danced.map(({ verdict }) => verdict)).toEqual(['not-yet', 'not-yet', 'clean'])
  })

  it('walks a count with each touch, and writes down nothing of what was only said or looked at', () => {
    const index = plan.drills.findIndex(({ kind }) => kind === 'walk')
    const walk = plan.drills[index]
    const counts = walk && roundOf(walk, materials)?.counts
    if (!counts) throw new Error('no walk')
    let now = played(begun, { kind: 'go', index }, { kind: 'start', now: 1 })
    for (let count = 1; count < counts; count++) {
      now = played(now, { kind: 'walk' })
      expect([now.index, now.walked]).toEqual([index, count])
    }
    now = played(now, { kind: 'walk' })
    expect([now.index, now.walked, now.phase]).toEqual([index + 1, 0, 'ready'])
    const show = plan.drills.findIndex(({ kind }) => kind === 'show')
    const seen = played(
      begun,
      { kind: 'go', index: show },
      { kind: 'start', now: 1 },
      ...Array.from({ length: 2 }, () => ({ kind: 'round' as const, side: 'R' as const })),
      { kind: 'finished' },
    )
    expect([seen.index, seen.danced]).toEqual([show + 1, []])
  })

  it('has water at any time, goes to the runs, and is in time again after a cut', () => {
    holds(
      fc.property(fc.nat(40), fc.integer({ min: -300, max: 900 }), (at, late) => {
        const index = at % plan.drills.length
        const now = played(begun, { kind: 'go', index }, { kind: 'start', now: 0 })
        const water = played(now, { kind: 'water' })
        expect(drillOf(water)?.kind).toBe('pause')
        expect(drillOf(played(water, { kind: 'next' }))).toEqual(drillOf(now))
        const runs = played(now, { kind: 'to-runs' })
        if (runs !== now) expect(['run', 'sides']).toContain(drillOf(runs)?.kind)
        const rest = now.drills
          .slice(index)
          .reduce((sum, one) => sum + secondsOf(one, materials), 0)
        const clock = (now.minutes * 60 - rest + late) * 1000
        expect(lateBy(now, clock, materials)).toBeCloseTo(Math.min(late, rest), 3)
        const { drills, cut } = cutBy(now, late, materials)
        if (late <= 0) expect(cut).toEqual([])
        // What is danced now stays, and so do recap and cool-down.
        expect(drills[index]).toEqual(now.drills[index])
        for (const kind of ['recap', 'cool-down'] as const)
          expect(drills.filter((one) => one.kind === kind)).toHaveLength(
            now.drills.filter((one) => one.kind === kind).length,
          )
        const after = played(now, { kind: 'cut', seconds: late })
        const saved = lateBy(now, clock, materials) - lateBy(after, clock, materials)
        const all = played(now, { kind: 'cut', seconds: 1e6 })
        const most = lateBy(now, clock, materials) - lateBy(all, clock, materials)
        expect(saved).toBeGreaterThanOrEqual(Math.min(Math.max(0, late), most) - 1e-6)
      }),
      { numRuns: 120, seed: 97 },
    )
  })

  it('keeps what another window has written, whatever this one goes on with', () => {
    const once = played(begun, { kind: 'go', index: wholeAt }, { kind: 'round', side: 'R' })
    const [elsewhere] = classAfter(entry, once, materials).danced
    if (!elsewhere) throw new Error('nothing danced')
    const theirs = { ...elsewhere, id: 'their row' }
    holds(
      fc.property(
        fc.array(anyAction, { minLength: 4, maxLength: 40 }),
        fc.nat(40),
        (acts, when) => {
          let session = begun
          let written = entry
          for (const [i, action] of acts.entries()) {
            if (i === when % acts.length)
              written = { ...written, danced: [...written.danced, theirs] }
            session = afterAction(session, action, materials)
            written = classAfter(written, session, materials)
          }
          const alone = acts.reduce(
            ({ now, rows }, action) => {
              const next = afterAction(now, action, materials)
              return { now: next, rows: classAfter(rows, next, materials) }
            },
            { now: begun, rows: entry },
          )
          expect(written.danced).toContainEqual(theirs)
          expect(written.danced.filter(({ id }) => id !== theirs.id)).toEqual(alone.rows.danced)
        },
      ),
      { numRuns: 150, seed: 96 },
    )
  })

  it('leaves alone what was corrected or taken out of the diary by hand', () => {
    const round: readonly ClassAction[] = [
      { kind: 'start', now: 1 },
      { kind: 'round', side: 'R' },
      { kind: 'next' },
    ]
    let session = begun
    let written = entry
    for (let i = 0; i < 4; i++) {
      session = played(session, { kind: 'go', index: wholeAt }, ...round)
      written = classAfter(written, session, materials)
    }
    expect(written.danced).toHaveLength(4)
    const [first, second, ...others] = written.danced
    if (!first || !second) throw new Error('nothing danced')
    const corrected = { ...written, danced: [{ ...first, rounds: { R: 9, L: 9 } }, ...others] }
    const next = classAfter(
      corrected,
      played(session, { kind: 'go', index: wholeAt }, ...round),
      materials,
    )
    expect(next.danced).toHaveLength(4)
    expect(next.danced[0]?.rounds).toEqual({ R: 9, L: 9 })
    expect(next.danced.some(({ id }) => id === second.id)).toBe(false)
  })

  it('changes side, tempo and drill by hand, and tells the time', () => {
    const index = plan.drills.findIndex(({ kind }) => kind === 'sides')
    const there = played(begun, { kind: 'go', index })
    const other = played(there, { kind: 'other-side' })
    expect(drillOf(other)?.sides).toEqual(drillOf(there)?.sides.toReversed())
    expect(drillOf(played(there, { kind: 'faster' }))?.tempo).toBe(76)
    expect(drillOf(played(there, { kind: 'slower' }, { kind: 'slower' }))?.tempo).toBe(64)
    expect(played(there, { kind: 'go', index: 99 }).phase).toBe('over')
    expect(secondsLeft(begun, 5_000)).toBe(45 * 60)
    expect(secondsLeft(played(begun, { kind: 'start', now: 0 }), 60_000)).toBe(44 * 60)
    expect(sidesWords({ sides: ['R', 'L'], inTurn: true })).toBe('right and left')
    expect(sidesWords({ sides: ['L', 'R'] })).toBe('left, then right')
  })
})
