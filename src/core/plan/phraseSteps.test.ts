import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { materials as demoMaterials, wishesOf } from '../../../tests/teaching'
import { combination, feet, move, on } from '../../../tests/write'
import { Combination, DancerLevel } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirror } from '../combination/mirror'
import { USUAL_HOUSE } from '../house/house'
import { risksOf, risksOver } from '../load/risk'
import { thingsIn } from '../load/things'
import { easierForms } from '../moves/easing'
import { vocabulary } from '../moves/vocabulary'
import { HOLDS, holdsFor } from './coolDown'
import { materialsOf, roundOf } from './material'
import { movesCombination, movesOf, together } from './moveRounds'
import type { PlanWishes } from './plan'
import { planClass } from './planner'
import { sharedOut, talkOf, triesOf } from './talk'
import { taughtKey, teachingOf } from './teaching'
import { isGentle, ladders, stageMoves } from './warmUp'
import { proposeWay } from './ways'
import { weightsOf } from './weight'

const wishesFor = (one: Combination, more: Partial<PlanWishes> = {}): PlanWishes => ({
  ...wishesOf('Copper Lantern', { minutes: 90, ...more }),
  combinations: [one.id],
})
const planned = (one: Combination, more: Partial<PlanWishes> = {}) => {
  const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
  return planClass(wishesFor(one, more), materials).drills.filter(
    (drill) => drill.combination !== undefined,
  )
}
const wayOf = (one: Combination) => {
  const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
  const material = materials.find(one.id)
  if (!material) throw new Error('no material')
  return proposeWay(teachingOf(material, wishesFor(one), materials))
}
/** `walk A feet+hips`, up to the first run. */
const told = (one: Combination, more: Partial<PlanWishes> = {}) => {
  const names = new Map(one.phrases.map(({ id, name }) => [id, name]))
  return planned(one, { level: 'improver', ...more })
    .filter(({ kind }) => kind !== 'show' && kind !== 'run' && kind !== 'sides')
    .map(({ kind, phrases, layers, half }) =>
      [
        kind,
        phrases.map((id) => names.get(id)).join('') || 'all',
        layers.join('+'),
        half && `${half.from}-${half.to}`,
      ]
        .filter(Boolean)
        .join(' '),
    )
}

const step = '1 step R side; 2 close L; 3 step R side; 4 touch L together'
const back =
  '1 step R back; 2 kick L forward; 3 step L back; 4 heel R forward; 5 step R forward; 6 brush L; 7 step L side; 8 touch R together'
const sway = move('hip-sway', '1-2')
const arms = on('arms', '1', { kind: 'arms', R: 'second', L: 'second' })
const look = on('head', '4', { kind: 'look', gaze: 'L' })
const p = (events: Parameters<typeof combination>[0]) => combination(events)

describe('a thing to learn', () => {
  it('is the same on either side and however often, and a flourish is none', () => {
    holds(
      fc.property(anyCombination(), (one) => {
        const keys = (of: Combination) =>
          of.phrases
            .flatMap((phrase) => thingsIn(dancedIn(phrase, vocabulary), vocabulary))
            .map(({ key }) => key)
            .sort()
        expect(keys(mirror(one))).toEqual(keys(one))
        const twice = { ...one, phrases: one.phrases.flatMap((phrase) => [phrase]) }
        expect(new Set(keys(twice))).toEqual(new Set(keys(one)))
        const free = {
          ...one,
          phrases: one.phrases.map((phrase) => ({
            ...phrase,
            events: phrase.events.map((event) => ({ ...event, optional: true as const })),
          })),
        }
        expect(keys(free)).toEqual([])
      }),
      { numRuns: 100, seed: 110 },
    )
  })
})

describe('the steps of a phrase', () => {
  it('say what is light with the rest: a look alone makes no step at any level', () => {
    const one = p([[...feet(step), arms, look]])
    for (const level of DancerLevel.options)
      for (const drill of planned(one, { level })) expect(drill.layers.join()).not.toBe('head')
  })

  it('are a walk and the whole; what is heavy alone first, standing, and the feet where they are worth it', () => {
    expect(told(p([[...feet(step), sway, arms]])).slice(0, 2)).toEqual([
      'walk all feet+hips+arms',
      'all all feet+hips+arms',
    ])
    const heavy = p([
      [...feet(step), sway],
      [...feet(step), move('three-quarter-shimmy', '1-8')],
    ])
    expect(told(heavy)).toContain('alone B hips')
    expect(told(heavy).indexOf('alone B hips')).toBeLessThan(told(heavy).indexOf('all B feet+hips'))
    // The same things again are said, not drilled.
    const again = p([
      [...feet(step), move('three-quarter-shimmy', '1-8')],
      [...feet(step), move('three-quarter-shimmy', '1-8')],
    ])
    expect(told(again, { level: 'advanced' }).filter((text) => text.includes('B '))).toEqual([
      'all B feet+hips',
    ])
    const feetFirst = p([
      [
        ...feet(back),
        arms,
        on('arms', '3', { kind: 'arms', R: 'crown', L: 'hips' }),
        on('arms', '5', { kind: 'arms', R: 'prayer', L: 'prayer' }),
      ],
      [sway],
    ])
    expect(told(feetFirst, { level: 'advanced' })).toContain('feet A feet')
  })

  it('teach a phrase of very many things in halves, and the feet of before not again', () => {
    const many = p([
      [
        ...feet(back),
        move('hip-twist', '1-4'),
        arms,
        on('arms', '5', { kind: 'arms', R: 'crown', L: 'hips' }),
        look,
      ],
    ])
    expect(told(many, { level: 'new' })).toEqual(
      expect.arrayContaining(['walk A feet+hips+arms+head 1-4', 'walk A feet+hips+arms+head 5-8']),
    )
    const same = p([
      [...feet(back), arms],
      [...feet(back), move('hip-twist', '1-8')],
    ])
    const steps = told(same, { way: 'phrases', level: 'intermediate' })
    expect(steps.filter((text) => text.startsWith('feet B'))).toEqual([])
    expect(steps.filter((text) => /^walk B/.test(text))).toEqual([])
  })

  it('leave the turns out until the walls are walked, but not where the turn is all there is', () => {
    const turning = p([
      [
        ...feet(
          '1 step R side; 2 close L; 3 step R side turn 90; 4 close L; 5 step R side; 6 close L',
        ),
        arms,
      ],
    ])
    const drills = planned(turning)
    expect(drills.map(({ kind }) => kind)).toContain('walls')
    const walls = drills.findIndex(({ kind }) => kind === 'walls')
    for (const [i, { kind, front }] of drills.entries())
      if (kind === 'walk' || kind === 'feet' || kind === 'all')
        expect(front).toBe(i < walls ? true : undefined)
    expect(
      planned(p([[...feet('1 step R in-place turn 90; 3 step L in-place turn 90')]])).map(
        ({ kind }) => kind,
      ),
    ).not.toContain('walls')
  })

  it('have no flourish before it is the task of a run, but show it', () => {
    const one = p([
      [...feet(step), sway, move('shoulder-shimmy', '5-8', undefined, { optional: true })],
    ])
    const own = materialsOf([one], vocabulary, USUAL_HOUSE)
    const { drills } = planClass(wishesFor(one, { level: 'advanced' }), own)
    const takes = (drill: (typeof drills)[number]) =>
      roundOf(drill, own)?.passes.some(({ events }) => events.some(({ optional }) => optional))
    const with_ = drills.filter((drill) => drill.combination && takes(drill))
    expect(new Set(with_.map(({ kind, task }) => task ?? kind))).toEqual(
      new Set(['show', 'harder']),
    )
  })

  it('go by what the diary says is taught', () => {
    const one = p([
      [...feet(step), sway, arms],
      [...feet(back), arms],
    ])
    const [a] = one.phrases
    const taught = (['feet', 'hips', 'arms'] as const).map((layer) =>
      taughtKey(one.id, a?.id ?? '', layer),
    )
    const known = { reviews: [], taught, weaker: {} }
    expect(told(one, { known }).filter((text) => /^(walk|feet|all|alone) A/.test(text))).toEqual([])
    expect(told(one, { known })).toContain('join all feet+hips+arms')
    expect(told(one, { seen: 'all' }).some((text) => text.startsWith('walk'))).toBe(false)
  })

  it('come a layer at a time where the feet repeat, a count at a time where it is gestures', () => {
    const same = p([
      [...feet(back), sway],
      [...feet(back), arms],
      [...feet(back), move('hip-twist', '1-4')],
    ])
    expect(wayOf(same)).toMatchObject({ way: 'layers' })
    const order = told(same)
    expect(order.findIndex((text) => text.startsWith('feet A'))).toBeLessThan(
      order.findIndex((text) => text.startsWith('all A')),
    )
    const gestures = p([
      [
        ...feet('1 step R side'),
        arms,
        on('arms', '3', { kind: 'arms', R: 'crown', L: 'hips' }),
        look,
        on('head', '6', { kind: 'look', gaze: 'up' }),
      ],
      [
        ...feet('1 step L forward'),
        on('arms', '1', { kind: 'arms', R: 'prayer', L: 'prayer' }),
        on('arms', '3', { kind: 'arms', R: 'front', L: 'front' }),
        on('head', '5', { kind: 'look', gaze: 'down' }),
      ],
    ])
    expect(wayOf(gestures).way).toBe('counts')
  })
})

describe('talk', () => {
  const of = (one: Combination, level: PlanWishes['level'], met: readonly string[] = []) => {
    const material = materialsOf([one], vocabulary, USUAL_HOUSE).find(one.id)
    const pass = material?.lead.passes[0]
    if (!material || !pass) throw new Error('no phrase')
    return weightsOf(material, pass, { level, house: USUAL_HOUSE, tempo: 72, met: new Set(met) })
  }
  it('grows with each new thing, more where it is hard or the class is new, and is short for what is known', () => {
    holds(
      fc.property(anyCombination(), fc.constantFrom(...DancerLevel.options), (one, level) => {
        const weights = of(one, level)
        const keys = weights.flatMap(({ things }) => things.map(({ key }) => key))
        let before = talkOf(of(one, level, keys), level, USUAL_HOUSE, false)
        expect(before).toBeLessThanOrEqual(10)
        for (let left = keys.length - 1; left >= 0; left--) {
          const now = talkOf(of(one, level, keys.slice(0, left)), level, USUAL_HOUSE, false)
          expect(now).toBeGreaterThanOrEqual(before)
          before = now
        }
        expect(talkOf(weights, level, USUAL_HOUSE, true)).toBeGreaterThanOrEqual(before)
        expect(before % 5).toBe(0)
      }),
      { numRuns: 120, seed: 111 },
    )
  })

  it('is shared among the steps by what is new in them, and parted by tries', () => {
    expect(sharedOut(90, [3, 0, 1], USUAL_HOUSE)).toEqual([70, 0, 25])
    expect(sharedOut(400, [1, 1], USUAL_HOUSE)).toEqual([90, 90])
    holds(
      fc.property(fc.integer({ min: 0, max: 90 }), (talk) => {
        const tries = triesOf(talk, USUAL_HOUSE)
        expect(tries.reduce((a, b) => a + b, 0)).toBe(talk)
        for (const piece of tries) expect(piece).toBeLessThanOrEqual(40)
        if (tries.length > 1) for (const piece of tries) expect(piece).toBeGreaterThanOrEqual(15)
      }),
    )
  })
})

describe('a warm-up', () => {
  it('leads to what is to come by its easier forms, and asks nothing of a cold body', () => {
    for (const one of demo) {
      const ids = ladders([one], vocabulary, 12)
      const moves = ids.flatMap((id) => vocabulary.find(id) ?? [])
      for (const warm of moves) expect(isGentle(warm), warm.id).toBe(true)
      const hard = one.phrases
        .flatMap(({ events }) => events)
        .flatMap(({ what, optional }) =>
          what.kind === 'move' && !optional ? (vocabulary.find(what.move) ?? []) : [],
        )
        .filter(({ demand }) => demand >= 3)
      const hardest = Math.max(...hard.map(({ demand }) => demand))
      for (const thing of hard.filter(({ demand }) => demand === hardest).slice(0, 1)) {
        const forms = [thing, ...easierForms(thing, vocabulary)].filter(isGentle)
        if (forms[0]) expect(ids, `${one.title} ${thing.id}`).toContain(forms[0].id)
      }
      for (const stage of ['pulse', 'joints', 'build'] as const) {
        const danced = stageMoves(stage, [one], vocabulary, 6)
        expect(danced.length).toBeGreaterThan(0)
        expect(danced.length).toBeLessThanOrEqual(6)
        for (const id of danced)
          for (const warm of movesOf(id, vocabulary)) expect(isGentle(warm), warm.id).toBe(true)
        expect(danced.flatMap((id) => movesOf(id, vocabulary)).length).toBeGreaterThanOrEqual(
          danced.length,
        )
      }
    }
    // The head only where the class moves it.
    expect(stageMoves('joints', [p([[...feet(step)]])], vocabulary, 9)).not.toContain('head-tilt')
  })

  it('is rounds of eight counts to each side, that can be danced', () => {
    const round = movesCombination(stageMoves('joints', [...demo], vocabulary, 9), vocabulary)
    expect(round.order.length % 2).toBe(0)
    expect(round.phrases.every(({ counts }) => counts === 8)).toBe(true)
    expect(movesCombination([], vocabulary).phrases).toHaveLength(1)
    // The last thing is two of them in one: a footwork, and what goes on it.
    const both = movesCombination([together('march', 'hip-slide'), 'gone'], vocabulary)
    expect(both.phrases.map(({ events }) => events.map(({ layer }) => layer))).toEqual([
      ['feet', 'hips'],
    ])
    expect(Combination.safeParse(both).success).toBe(true)
  })

  it('and a cool-down meet what a class strains, with words and a caution each', () => {
    for (const used of [
      'neck',
      'back',
      'knees',
      'impact',
      'feet',
      'hips',
      'torso',
      'arms',
      'head',
    ] as const) {
      const [first] = holdsFor([used], 1)
      expect(first?.for).toContain(used)
    }
    expect(holdsFor(['impact', 'hips', 'arms'], 3).map(({ id }) => id)).toEqual([
      'calf',
      'side-hip',
      'chest',
    ])
    for (const { words, caution } of HOLDS) {
      expect(words).not.toBe('')
      expect(caution).not.toBe('')
      expect(words).not.toMatch(/bounce|circle the head/i)
    }
  })
})

describe('what strains', () => {
  it('is counted once for each time it is danced, by the move and by the step', () => {
    const one = p([
      [
        ...feet('1 jump out; 3 bend large; 5 hop R'),
        move('head-roll', '1-4'),
        move('head-roll', '5-8'),
      ],
    ])
    const risks = risksOf(
      one.phrases.flatMap((phrase) => dancedIn(phrase, vocabulary)),
      vocabulary,
    )
    expect(risks).toMatchObject({ impact: 2, knees: 1, neck: 2 })
    expect(risksOver(risks, () => 1)).toEqual(['neck', 'impact'])
    expect(risksOver(risks, () => 2)).toEqual([])
  })

  it('is marked in the step, which lasts as long as without it', () => {
    const rolls = p([[...feet(step), move('head-roll', '1-4'), move('head-roll', '5-8')]])
    const drills = planned(rolls, { level: 'advanced' })
    expect(drills.some(({ marked = 0 }) => marked > 0)).toBe(true)
    for (const { marked = 0, repeats } of drills) expect(marked).toBeLessThanOrEqual(repeats)
    const tame = {
      ...USUAL_HOUSE,
      limits: { ...USUAL_HOUSE.limits, 'risk.class.neck': 600, 'risk.drill.neck': 200 },
    }
    const free = planClass(
      wishesFor(rolls, { level: 'advanced' }),
      materialsOf([rolls], vocabulary, tame),
    )
    const bound = planClass(
      wishesFor(rolls, { level: 'advanced' }),
      materialsOf([rolls], vocabulary, USUAL_HOUSE),
    )
    expect(bound.drills.map(({ repeats, talk }) => [repeats, talk])).toEqual(
      free.drills.map(({ repeats, talk }) => [repeats, talk]),
    )
    expect(demoMaterials.house).toBe(USUAL_HOUSE)
  })
})
