import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { anyTeachingHouse, materials, wishesOf } from '../../../tests/teaching'
import { otherSide } from '../body/side'
import type { Combination } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import {
  countsPerSide,
  layersIn,
  type Material,
  type Materials,
  materialsOf,
  roundOf,
  secondsOf,
} from './material'
import { NOTHING_KNOWN, type PlanWishes } from './plan'
import { planClass } from './planner'
import { spreadOver } from './spread'
import { tempoSteps } from './tempoSteps'
import { drillTitle } from './totals'
import { firstPasses, proposeWay, taughtKey } from './units'

const RUNS = Number(process.env.PLAN_RUNS ?? 300)

const anyWishes = (combinations: readonly Combination[]): fc.Arbitrary<PlanWishes> =>
  fc.record({
    combinations: fc.constant(combinations.map(({ id }) => id)),
    minutes: fc.integer({ min: 10, max: 180 }),
    level: fc.constantFrom('new', 'improver', 'intermediate', 'advanced'),
    tempoNow: fc.integer({ min: 40, max: 130 }),
    tempoTarget: fc.integer({ min: 60, max: 220 }),
    way: fc.constantFrom('phrases', 'layers', 'propose'),
    seen: fc.constantFrom('none', 'some', 'all'),
    known: fc.constantFrom(
      NOTHING_KNOWN,
      ...combinations.map(({ id, lead }) => ({
        ...NOTHING_KNOWN,
        weaker: { [id]: { side: otherSide[lead], behind: 0 } },
      })),
    ),
  })

const anyClass = fc
  .array(anyCombination(), { minLength: 1, maxLength: 2 })
  .map((all) => all.map((one, i) => ({ ...one, id: `${one.id} ${i}` })))
  .chain((all) =>
    fc.record({ wishes: anyWishes(all), all: fc.constant(all), house: anyTeachingHouse }),
  )

type AnyClass = {
  readonly wishes: PlanWishes
  readonly all: readonly Combination[]
  readonly house: House
}

/** Holds for any class; the materials are made here, so that a counterexample stays short. */
const always = (
  runs: number,
  seed: number,
  check: (wishes: PlanWishes, materials: Materials) => void,
) =>
  holds(
    fc.property(anyClass, ({ wishes, all, house }: AnyClass) =>
      check(wishes, materialsOf(all, vocabulary, house)),
    ),
    { numRuns: Math.ceil(runs), seed },
  )

const secondsOfAll = (drills: Parameters<typeof secondsOf>[0][], materials: Materials) =>
  drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)

/** A pickup of every round stands in the last pass only, so the first dancing of a phrase is asked. */
const firstHasFeet = ({ lead }: Material, { phrase }: Pass) =>
  layersIn(lead.passes.filter((pass) => pass.phrase.id === phrase.id).slice(0, 1)).includes('feet')

describe('a plan of any combinations and wishes', () => {
  it('lasts exactly as long as the class, and has both sides alike', () => {
    always(RUNS, 61, (wishes, materials) => {
      const { drills, over } = planClass(wishes, materials)
      expect(over).toBe(0)
      expect(secondsOfAll([...drills], materials)).toBe(wishes.minutes * 60)
      const { limits } = materials.house
      for (const drill of drills) {
        const { R, L } = countsPerSide(drill, materials)
        expect(R).toBe(L)
        const usual = limits['plan.talk']
        const shown = limits['plan.talkNew']
        const isShown = drill.kind === 'feet' || drill.kind === 'alone'
        // A layer on the feet is new there where it was not danced alone before.
        const least = isShown ? shown : drill.kind === 'on-feet' ? Math.min(usual, shown) : usual
        if (!drill.moves) expect(drill.talk).toBeGreaterThanOrEqual(least)
        if (drill.kind !== 'free-run' && !drill.moves)
          expect(drill.repeats).toBeGreaterThanOrEqual(2)
      }
    })
  })

  it('never puts a layer on the feet before the feet, begins with the weaker side, and rises by 12 % at most', () => {
    always(RUNS, 62, (wishes, materials) => {
      const { drills } = planClass(wishes, materials)
      const feet = new Set<string>()
      const tempos = new Map<string, number>()
      for (const drill of drills) {
        const round = roundOf(drill, materials)
        expect(round?.counts).toBeGreaterThan(0)
        if (!round || drill.combination === undefined) continue
        const id = drill.combination
        const weaker = wishes.known.weaker[id]?.side
        if (weaker) expect(drill.sides[0]).toBe(weaker)
        for (const pass of round.passes) {
          const key = taughtKey(id, pass.phrase.id, 'feet')
          const isOnFeet = drill.layers.includes('feet') && drill.layers.length > 1
          if (isOnFeet && firstHasFeet(round.material, pass)) expect(feet).toContain(key)
          if (drill.layers.includes('feet')) feet.add(key)
        }
        const before = tempos.get(id)
        if (before !== undefined && drill.tempo > before)
          expect(drill.tempo).toBeLessThanOrEqual(Math.ceil(before * 1.12))
        tempos.set(id, Math.max(before ?? 0, drill.tempo))
      }
    })
  })

  it('is taught to the end over several classes, each after the first with its review', () => {
    always(RUNS / 3, 63, (wishes, materials) => {
      const classes = spreadOver(wishes, materials)
      const { left } = planClass(wishes, materials)
      expect(classes.length > 1).toBe(left.length > 0)
      for (const [i, { drills, taught }] of classes.entries()) {
        expect(secondsOfAll([...drills], materials)).toBe(wishes.minutes * 60)
        if (i === 0) continue
        // Only the last one may join and run what was all taught before.
        if (i < classes.length - 1) expect(taught.length).toBeGreaterThan(0)
        // Ten minutes at forty counts a minute take one new thing, and no review of a long phrase.
        if (wishes.minutes >= 20) expect(drills[1]?.kind).toBe('review')
      }
      // Ten minutes may hold a layer alone, but not on the feet; then no class says the same again.
      const said = classes.map((one) => JSON.stringify(one.taught))
      expect(said.some((one, i) => i > 0 && one !== '[]' && one === said[i - 1])).toBe(false)
      const taught = classes.flatMap((one) => one.taught)
      for (const id of wishes.minutes < 20 ? [] : wishes.combinations)
        for (const pass of firstPasses(materials.find(id)?.lead.passes ?? []))
          for (const layer of layersIn([pass]))
            expect(
              taught.some(
                (drill) =>
                  drill.phrases.length === 0 ||
                  (drill.phrases.includes(pass.phrase.id) && drill.layers.includes(layer)),
              ),
            ).toBe(true)
    })
  })

  it('dances longer what is longer and harder', () => {
    always(RUNS / 3, 64, (wishes, materials) => {
      const { drills } = planClass(wishes, materials)
      const feet = drills.filter(({ kind }) => kind === 'feet')
      const weights = feet.map((drill) => {
        const round = roundOf(drill, materials)
        if (!round) throw new Error('a drill without a round')
        const loads = round.material.loads(drill.layers, drill.tempo)
        const own = loads.filter(({ at }) => at >= round.from && at < round.to)
        return { repeats: drill.repeats, weight: own.reduce((sum, { total }) => sum + total, 0) }
      })
      for (const a of weights)
        for (const b of weights)
          if (a.weight > b.weight * 1.6 && a.repeats < 16)
            expect(a.repeats).toBeGreaterThanOrEqual(Math.min(b.repeats, 3) - 1)
    })
  })
})

describe('the tempo of a class', () => {
  it('gets from any tempo to any other by steps of 12 % at the most, and arrives', () => {
    holds(
      fc.property(
        fc.integer({ min: 40, max: 219 }),
        fc.integer({ min: 40, max: 220 }),
        (now, target) => {
          const steps = tempoSteps(now, target)
          if (target === now) expect(steps).toEqual([])
          else expect(steps.at(-1)).toBe(target)
          let before = now
          for (const step of steps) {
            expect(step).toBeLessThanOrEqual(Math.ceil(before * 1.12))
            before = step
          }
        },
      ),
    )
  })
})

describe('the demo', () => {
  it('has a way of teaching and a class for each combination', () => {
    for (const { id, title } of demo) {
      const material = materials.find(id)
      if (!material) throw new Error(`no ${title}`)
      expect(proposeWay(material).because).not.toBe('')
      const { drills } = planClass(wishesOf(title), materials)
      const titles = drills.map((drill) => drillTitle(drill, materials))
      expect(titles[0]).toBe('Warm up')
      expect(titles.at(-1)).toBe('Cool down')
      expect(titles.some((text) => text.startsWith('Feet'))).toBe(true)
      expect(titles.some((text) => text.startsWith('Both sides'))).toBe(true)
    }
  })
})
