import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { ORDINARY } from '../../../tests/ordinary'
import { anyTeachingHouse, materials, wishesOf } from '../../../tests/teaching'
import type { Layer } from '../body/layers'
import { otherSide } from '../body/side'
import { type Combination, DancerLevel } from '../combination/combination'
import { type House, USUAL_HOUSE } from '../house/house'
import { Risk } from '../moves/move'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import type { Drill } from './drill'
import { layersIn, type Materials, materialsOf, roundOf, secondsOf } from './material'
import {
  ClassType,
  NOTHING_KNOWN,
  type PlanWishes,
  Seen,
  SidesWish,
  TeachingWay,
  wishesFor,
} from './plan'
import { planClass } from './planner'
import { spreadOver } from './spread'
import { addStrain, mostOf, NO_STRAIN, strainOf } from './strain'
import { firstPasses, layersOf, taughtKey, teachingOf } from './teaching'
import { tempoSteps } from './tempoSteps'
import { drillTitle } from './totals'
import { proposeWay } from './ways'
import { weightsOf } from './weight'

const RUNS = Number(process.env.PLAN_RUNS ?? 500)

const anyWishes = (combinations: readonly Combination[]): fc.Arbitrary<PlanWishes> =>
  fc.record({
    combinations: fc.constant(combinations.map(({ id }) => id)),
    minutes: fc.integer({ min: 10, max: 180 }),
    level: fc.constantFrom(...DancerLevel.options),
    tempoNow: fc.integer({ min: 40, max: 130 }),
    tempoTarget: fc.integer({ min: 60, max: 220 }),
    way: fc.constantFrom(...TeachingWay.options),
    seen: fc.constantFrom(...Seen.options),
    type: fc.constantFrom(...ClassType.options),
    sides: fc.constantFrom(...SidesWish.options),
    known: fc.constantFrom(
      NOTHING_KNOWN,
      ...combinations.map(({ id, lead, phrases }) => ({
        reviews: phrases.slice(0, 1).map((phrase) => ({
          combination: id,
          phrases: [phrase.id],
          layers: ['feet' as const],
          tempo: 60,
          because: 'last danced 8 days ago',
        })),
        taught: phrases.slice(0, 1).map((phrase) => taughtKey(id, phrase.id, 'feet')),
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

const sumOf = (drills: readonly Drill[], materials: Materials) =>
  drills.reduce((sum, drill) => sum + secondsOf(drill, materials), 0)

const danceOf = (drill: Drill, materials: Materials) => secondsOf(drill, materials) - drill.talk

const PIECES: ReadonlySet<Drill['kind']> = new Set(['alone', 'feet', 'on-feet', 'all'])

/** The steps a phrase is taught by, other sides and runs from the top not among them. */
function piecesOf(drills: readonly Drill[], materials: Materials) {
  const pieces = new Map<string, Drill[]>()
  for (const drill of drills.filter(({ kind }) => PIECES.has(kind)))
    for (const id of new Set(roundOf(drill, materials)?.passes.map(({ phrase }) => phrase.id)))
      pieces.set(`${drill.combination}|${id}`, [
        ...(pieces.get(`${drill.combination}|${id}`) ?? []),
        drill,
      ])
  return pieces
}

/** The longest stretch without a pause, without half of the room looking, and without open time. */
function longestStretch(drills: readonly Drill[], materials: Materials): number {
  let since = 0
  let most = 0
  for (const drill of drills) {
    const rests = drill.kind === 'pause' || drill.kind === 'open' || drill.task === 'halves'
    since = rests ? 0 : since + secondsOf(drill, materials)
    most = Math.max(most, since)
  }
  return most
}

describe('a plan of any combinations and wishes', () => {
  it('lasts exactly as long as the class, and nothing in it is longer than it may be', () => {
    always(RUNS, 61, (wishes, materials) => {
      const { drills, over } = planClass(wishes, materials)
      expect(over).toBe(0)
      expect(sumOf(drills, materials)).toBe(wishes.minutes * 60)
      expect(new Set(drills.map(({ id }) => id)).size).toBe(drills.length)
      for (const drill of drills) {
        expect(drill.talk).toBeLessThanOrEqual(90)
        if (drill.combination === undefined || drill.seconds !== undefined) continue
        expect(drill.repeats).toBeLessThanOrEqual(8)
        const once = danceOf({ ...drill, repeats: 1, sides: drill.sides.slice(0, 1) }, materials)
        const most = drill.kind === 'alone' && drill.layers.length === 1 ? 60 : 180
        if (once <= most && drill.kind !== 'show')
          expect(danceOf(drill, materials), drill.id).toBeLessThanOrEqual(most)
      }
    })
  })

  it('has nothing before what it needs: heavy alone, then on the feet, whole, from the top, faster', () => {
    const place: Partial<Record<Drill['kind'], number>> = {
      alone: 0,
      walk: 1,
      feet: 2,
      all: 3,
      walls: 4,
      'other-side': 5,
      join: 6,
    }
    always(RUNS, 62, (wishes, materials) => {
      const { drills } = planClass(wishes, materials)
      const tempos = new Map<string, number>()
      for (const id of wishes.combinations) {
        const own = drills.filter((drill) => drill.combination === id && drill.isNew)
        for (const { phrase } of firstPasses(materials.find(id)?.lead.passes ?? [])) {
          const order = own
            .filter(({ phrases }) => phrases.length === 0 || phrases.includes(phrase.id))
            .map(({ kind }) => place[kind] ?? 9)
            // A walk of the feet comes first where the layers are laid on them one by one.
            .filter((at) => wishes.way !== 'layers' || at > 2)
          if (proposed(id, wishes, materials) !== 'layers')
            expect(order).toEqual([...order].sort((a, b) => a - b))
        }
      }
      const whole = new Set<string>()
      for (const drill of drills) {
        const round = roundOf(drill, materials)
        const id = drill.combination
        if (!round || id === undefined || drill.kind === 'show') continue
        for (const { phrase } of round.passes) {
          const key = `${id}|${phrase.id}`
          const isTaught = wishes.known.taught.some((one) => one.startsWith(key))
          // A run holds only what was taught.
          if (['join', 'sides', 'run'].includes(drill.kind) && !isTaught)
            expect([...whole], `${drill.id} ${key}`).toContain(key)
          if (PIECES.has(drill.kind) || drill.kind === 'review') whole.add(key)
        }
        if (drill.kind === 'run' && !(drill.music && !drill.task)) {
          expect(drill.task).toBeDefined()
          const before = tempos.get(id) ?? drill.tempo
          expect(drill.tempo).toBeGreaterThanOrEqual(Math.min(before, wishes.tempoTarget))
          tempos.set(id, drill.tempo)
        }
      }
      const runs = drills.filter(({ kind }) => kind === 'run')
      for (const [i, run] of runs.entries()) {
        const before = runs[i - 1]
        if (
          before &&
          run.combination === before.combination &&
          run.phrases.join() === before.phrases.join() &&
          run.sides.join() === before.sides.join()
        )
          expect([run.task, run.tempo]).not.toEqual([before.task, before.tempo])
      }
    })
  })

  it('teaches each phrase by few steps, and all that is written in some of them', () => {
    always(RUNS, 63, (wishes, materials) => {
      const { drills, left } = planClass(wishes, materials)
      for (const [key, pieces] of piecesOf(drills, materials)) {
        const [id = '', phrase] = key.split('|')
        const material = materials.find(id)
        const pass = material?.lead.passes.find((one) => one.phrase.id === phrase)
        if (!material || !pass) throw new Error(`no ${key}`)
        const heavy = weightsOf(material, pass, {
          level: wishes.level,
          house: materials.house,
          tempo: wishes.tempoNow,
          met: new Set(),
        }).filter(({ weight }) => weight === 'heavy').length
        expect(pieces.length).toBeLessThanOrEqual(2 + heavy)
      }
      if (left.length > 0 || wishes.minutes < 60) return
      for (const id of wishes.combinations) {
        const material = materials.find(id)
        for (const pass of firstPasses(material?.lead.passes ?? []))
          for (const layer of layersIn([pass])) {
            const isTaught = wishes.known.taught.includes(taughtKey(id, pass.phrase.id, layer))
            const isIn = drills.some(
              (drill) =>
                drill.combination === id &&
                PIECES.has(drill.kind) &&
                drill.layers.includes(layer) &&
                (drill.phrases.length === 0 || drill.phrases.includes(pass.phrase.id)),
            )
            expect(
              isTaught ||
                isIn ||
                !material ||
                layersOf([pass], material).every((one) =>
                  wishes.known.taught.includes(taughtKey(id, pass.phrase.id, one)),
                ),
            ).toBe(true)
          }
      }
    })
  })

  it('dances both sides whole as often, and only the lead where that was wished', () => {
    always(RUNS, 64, (wishes, materials) => {
      const { drills } = planClass(wishes, materials)
      for (const id of wishes.combinations) {
        const material = materials.find(id)
        if (!material) continue
        const { which } = teachingOf(material, wishes, materials)
        const own = drills.filter(
          (drill) =>
            drill.combination === id &&
            drill.seconds === undefined &&
            !['show', 'review', 'catch-up'].includes(drill.kind),
        )
        const sides = new Set(
          own.flatMap((drill) => (drill.kind === 'switch-practice' ? [] : drill.sides)),
        )
        if (which === 'lead')
          expect([...sides].filter((side) => side !== material.combination.lead)).toEqual([])
        if (which !== 'both' || wishes.minutes < 45) continue
        const whole = { R: 0, L: 0 }
        for (const drill of own) {
          const round = roundOf(drill, materials)
          const isFeet =
            drill.kind === 'other-side' &&
            drill.layers.join() === 'feet' &&
            !own.some(
              (other) =>
                other.kind === 'all' &&
                other.layers.join() === 'feet' &&
                (drill.phrases.length === 0 ||
                  drill.phrases.some((one) => other.phrases.includes(one))),
            )
          const isTaste = drill.music && !drill.task
          if (
            !['all', 'other-side', 'join', 'sides', 'run'].includes(drill.kind) ||
            isFeet ||
            isTaste ||
            !round
          )
            continue
          // The feet before any layer are a piece.
          if (
            drill.kind === 'join' &&
            drill.sides.length === 1 &&
            layersOf(round.passes, material).length > drill.layers.length
          )
            continue
          for (const side of drill.sides) whole[side] += round.counts * drill.repeats
        }
        expect(whole.R).toBe(whole.L)
      }
    })
  })

  it('rests in time, and marks what would strain instead of dancing anything longer', () => {
    always(RUNS, 65, (wishes, materials) => {
      const { drills } = planClass(wishes, materials)
      const { limits } = materials.house
      if (wishes.minutes > 20)
        expect(longestStretch(drills, materials)).toBeLessThanOrEqual(20 * 60)
      const pauses = drills.filter(({ kind }) => kind === 'pause')
      // Open time is everybody's own.
      const open = sumOf(
        drills.filter(({ kind }) => kind === 'open'),
        materials,
      )
      expect(pauses.length).toBeGreaterThanOrEqual(
        2 * Math.floor((wishes.minutes * 60 - open) / 3600),
      )
      // Nobody dances on and on without a word that is longer than a breath.
      const most = wishes.level === 'new' || wishes.level === 'improver' ? 360 : 480
      let danced = 0
      for (const drill of drills) {
        if (drill.talk >= 15 || drill.seconds !== undefined) danced = 0
        if (drill.combination === undefined || drill.seconds !== undefined) continue
        danced += secondsOf(drill, materials)
        expect(danced, drill.id).toBeLessThanOrEqual(most)
      }
      let strained = NO_STRAIN
      for (const drill of drills) {
        const own = strainOf(drill, materials)
        strained = addStrain(strained, own)
        for (const risk of Risk.options)
          expect(mostOf(own)[risk]).toBeLessThanOrEqual(limits[`risk.drill.${risk}`])
      }
      for (const risk of Risk.options)
        expect(mostOf(strained)[risk]).toBeLessThanOrEqual(limits[`risk.class.${risk}`])
    })
  })

  it('is the same when it is made again, and a longer one never teaches less', () => {
    always(RUNS / 2, 66, (wishes, materials) => {
      const first = planClass(wishes, materials)
      expect(planClass(wishes, materials)).toEqual(first)
      if (wishes.minutes > 170) return
      const longer = planClass({ ...wishes, minutes: wishes.minutes + 10 }, materials)
      expect(longer.room.counts).toBeGreaterThanOrEqual(first.room.counts)
      const keys = ({ left }: typeof first) =>
        left.map((unit) => JSON.stringify([unit.combination, unit.kind, unit.phrases]))
      const before = keys(first)
      expect(before.slice(before.length - keys(longer).length)).toEqual(keys(longer))
    })
  })

  it('is taught to the end over several classes, each after the first with its review', () => {
    always(RUNS / 3, 67, (wishes, materials) => {
      const classes = spreadOver(wishes, materials)
      const { left } = planClass(wishes, materials)
      expect(classes.length > 1).toBe(left.length > 0 && (classes[0]?.taught.length ?? 0) > 0)
      for (const { drills } of classes) expect(sumOf(drills, materials)).toBe(wishes.minutes * 60)
      const said = classes.map((one) => JSON.stringify(one.taught))
      expect(said.some((one, i) => i > 0 && one !== '[]' && one === said[i - 1])).toBe(false)
      if (wishes.minutes < 45) return
      for (const { drills } of classes.slice(1))
        expect(drills.some(({ kind }) => kind === 'review')).toBe(true)
      const taught = classes.flatMap((one) => one.taught)
      const isTaught = (id: string, phrase: string, layer: Layer) =>
        wishes.known.taught.includes(taughtKey(id, phrase, layer)) ||
        taught.some(
          (drill) =>
            drill.combination === id &&
            (drill.phrases.length === 0 || drill.phrases.includes(phrase)) &&
            drill.layers.includes(layer),
        )
      for (const id of wishes.combinations)
        for (const pass of firstPasses(materials.find(id)?.lead.passes ?? []))
          for (const layer of layersIn([pass]))
            expect(isTaught(id, pass.phrase.id, layer)).toBe(true)
    })
  })
})

const proposed = (id: string, wishes: PlanWishes, materials: Materials) => {
  const material = materials.find(id)
  return wishes.way === 'propose' && material
    ? proposeWay(teachingOf(material, wishes, materials)).way
    : wishes.way
}

describe('ordinary combinations', () => {
  it('are taught by one or two steps a phrase, without long talk, in a quarter of an hour to one and a half', () => {
    const counts: number[] = []
    for (const sheet of ORDINARY) {
      const { combination } = readSheet(sheet, vocabulary)
      const own = materialsOf([combination], vocabulary, USUAL_HOUSE)
      for (const minutes of [15, 45, 60, 90]) {
        const level = combination.level ?? 'improver'
        const type = minutes < 20 ? 'slot' : 'drop-in'
        const { drills, room } = planClass({ ...wishesFor(combination, level), minutes, type }, own)
        expect(sumOf(drills, own)).toBe(minutes * 60)
        expect(room.counts).toBeGreaterThan(0)
        counts.push(...[...piecesOf(drills, own).values()].map(({ length }) => length))
        for (const { talk, repeats, combination: id } of drills) {
          expect(talk).toBeLessThanOrEqual(90)
          if (id !== undefined) expect(repeats).toBeLessThanOrEqual(8)
        }
      }
    }
    expect([1, 2]).toContain(counts.sort((a, b) => a - b)[counts.length >> 1])
  })
})

describe('the tempo of a class', () => {
  it('gets from any tempo to any other, none between two that are near, and arrives', () => {
    const tempo = fc.integer({ min: 40, max: 220 })
    holds(
      fc.property(tempo, tempo, fc.option(tempo, { nil: undefined }), (now, target, hurried) => {
        const steps = tempoSteps(now, target, USUAL_HOUSE, hurried)
        if (target === now) expect(steps).toEqual([])
        else expect(steps.at(-1)).toBe(target)
        if (
          target > now &&
          target <= now * 1.35 &&
          (hurried === undefined || target < hurried * 0.9)
        )
          expect(steps).toEqual([target])
        let before = now
        for (const step of steps) {
          const isNear = hurried !== undefined && before >= hurried * 0.9
          expect(step).toBeLessThanOrEqual(Math.ceil(before * (isNear ? 1.12 : 1.35)) + 1)
          if (target > now) expect(step).toBeGreaterThan(before)
          before = step
        }
      }),
    )
  })
})

describe('the demo', () => {
  it('has a way of teaching and a class for each combination', () => {
    for (const { id, title } of demo) {
      const material = materials.find(id)
      if (!material) throw new Error(`no ${title}`)
      const wishes = wishesOf(title, { minutes: 60 })
      expect(proposeWay(teachingOf(material, wishes, materials)).because).not.toBe('')
      const kinds = planClass(wishes, materials).drills.map(({ kind }) => kind)
      expect([kinds[0], kinds[1], kinds.at(-2), kinds.at(-3)]).toEqual([
        'hello',
        'show',
        'cool-down',
        'recap',
      ])
      expect(kinds).toContain('all')
      expect(kinds).toContain('run')
      for (const drill of planClass(wishes, materials).drills)
        expect(drillTitle(drill, materials)).not.toBe('')
    }
  })
})
