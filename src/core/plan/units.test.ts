import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { demoId, materials, wishesOf } from '../../../tests/teaching'
import { combination, feet, move, on } from '../../../tests/write'
import { LAYERS } from '../body/layers'
import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { USUAL_HOUSE } from '../house/house'
import { risksOf, risksOver } from '../load/risk'
import { vocabulary } from '../moves/vocabulary'
import { materialsOf } from './material'
import { movesCombination } from './moveRounds'
import type { PlanWishes } from './plan'
import { planClass } from './planner'
import { proposeWay, taughtKey, teachingOf, unitsOf } from './units'
import { coolDownMoves, warmUpMoves } from './warmUp'

const of = (one: Combination) => {
  const found = materialsOf([one], vocabulary, USUAL_HOUSE).find(one.id)
  if (!found) throw new Error('no material')
  return found
}

const unitsFor = (one: Combination, way: 'phrases' | 'layers', more: Partial<PlanWishes> = {}) => {
  const material = of(one)
  const wishes = { ...wishesOf('Copper Lantern', more), combinations: [one.id] }
  const limit = USUAL_HOUSE.limits[`load.limit.${wishes.level}`]
  return unitsOf(material, way, teachingOf(material, wishes, limit)).map(
    ({ kind, phrases, layers }) =>
      `${kind} ${phrases.join('+') || 'all'} ${layers.filter((layer) => layer !== 'feet').join('+')}`.trim(),
  )
}

const step = '1 step R side; 2 close L; 3 step R side; 4 touch L together'
const back = '1 step R back; 2 close L; 3 step R back; 4 touch L together'
const sway = move('hip-sway', '1-2')
const arms = on('arms', '1', { kind: 'arms', R: 'second', L: 'second' })
const p = (events: Parameters<typeof combination>[0]) => combination(events)
const ids = (one: Combination) => one.phrases.map(({ id }) => id)

describe('the way of teaching', () => {
  it('is layer by layer where the feet repeat under layers that change, on either side', () => {
    const same = p([
      [...feet(step), sway],
      [...feet(step), arms],
      [...feet('1 step L side; 2 close R; 3 step L side; 4 touch R together'), arms],
    ])
    expect(proposeWay(of(same))).toMatchObject({ way: 'layers' })
    expect(proposeWay(of(same)).because).toMatch(/the feet repeat in 3 of 3 phrases/)
    const others = p([
      [...feet(step), sway],
      [...feet(back), arms],
      [...feet('1 pivot 180'), arms],
    ])
    expect(proposeWay(of(others)).way).toBe('phrases')
    expect(proposeWay(of(p([[...feet(step), sway]]))).because).toMatch(/one phrase/)
  })

  it('finishes each phrase before the next, joined to it; or the feet of all before any layer', () => {
    const one = p([
      [...feet(step), sway, arms],
      [...feet(back), arms],
    ])
    const [a = '', b = ''] = ids(one)
    expect(unitsFor(one, 'phrases')).toEqual([
      `feet ${a}`,
      `on-feet ${a} hips`,
      `on-feet ${a} arms`,
      `all ${a} hips+arms`,
      `feet ${b}`,
      `on-feet ${b} arms`,
      'join all hips+arms',
    ])
    expect(unitsFor(one, 'layers')).toEqual([
      `feet ${a}`,
      `feet ${b}`,
      'join all',
      `on-feet ${a} hips`,
      `on-feet ${a} arms`,
      `on-feet ${b} arms`,
      `all ${a} hips+arms`,
    ])
  })

  it('dances a heavy layer alone first, and one without feet standing', () => {
    const alone = (level: PlanWishes['level']) =>
      unitsFor(p([[...feet(step), move('hip-drop', '1-4', 'R', { size: 100 }), arms]]), 'phrases', {
        level,
        tempoNow: 160,
      }).some((unit) => unit.startsWith('alone'))
    expect(alone('advanced')).toBe(false)
    expect(alone('new')).toBe(true)
    const still = p([[sway, arms]])
    expect(unitsFor(still, 'phrases').slice(0, 2)).toEqual(['alone all hips', 'alone all arms'])
  })

  it('leaves out what the diary says is taught, and goes faster where all have seen it', () => {
    const one = p([
      [...feet(step), sway, arms],
      [...feet(back), arms],
    ])
    const [a = '', b = ''] = ids(one)
    const taught = LAYERS.map((layer) => taughtKey(one.id, a, layer))
    const known = { reviews: [], taught, weaker: {} }
    expect(unitsFor(one, 'phrases', { known })).toEqual([
      `feet ${b}`,
      `on-feet ${b} arms`,
      'join all hips+arms',
    ])
    expect(unitsFor(one, 'phrases', { seen: 'all' })).toEqual([
      `feet ${a}`,
      `all ${a} hips+arms`,
      `feet ${b}`,
      `all ${b} arms`,
      'join all hips+arms',
    ])
  })

  it('turns its back to the class for new feet and turns, and faces it else', () => {
    const turning = p([[...feet('1 step R side; 2 pivot 180; 3 close L'), arms]])
    const wishes = { ...wishesOf('Copper Lantern'), combinations: [turning.id] }
    const { drills } = planClass(wishes, materialsOf([turning], vocabulary, USUAL_HOUSE))
    for (const drill of drills.filter(({ combination: id }) => id))
      expect(drill.stand).toBe(drill.layers.includes('feet') ? 'back' : 'mirror')
    const plain = planClass(wishesOf('Quick Ember'), materials).drills
    expect(plain.filter(({ kind }) => kind === 'feet').every(({ stand }) => stand === 'back')).toBe(
      true,
    )
    expect(
      plain.filter(({ kind }) => kind === 'on-feet').some(({ stand }) => stand === 'mirror'),
    ).toBe(true)
  })

  it('dances both sides without a stop where the whole combination switches by itself', () => {
    for (const { id, title } of demo) {
      const material = materials.find(id)
      const { drills } = planClass(wishesOf(title, { minutes: 90 }), materials)
      const whole = drills.filter(({ kind }) => kind === 'sides' || kind === 'run')
      for (const drill of whole)
        expect(drill.inTurn === true).toBe(
          material?.joins.switches === true && drill.phrases.length === 0,
        )
    }
  })
})

describe('a warm-up', () => {
  it('has the plain forms of what is to come, nothing that strains, the arms last', () => {
    for (const one of demo) {
      const ids = warmUpMoves([one], vocabulary, 12)
      const moves = ids.flatMap((id) => vocabulary.find(id) ?? [])
      expect(moves.length).toBeGreaterThanOrEqual(4)
      expect(moves.every(({ risk }) => risk.length === 0)).toBe(true)
      const firstArms = moves.findIndex(({ layer }) => layer === 'arms')
      if (firstArms >= 0)
        expect(moves.slice(firstArms).every(({ layer }) => layer === 'arms')).toBe(true)
    }
    const whips = p([[...feet(step), move('head-whip', '1-2'), move('hip-drop', '1')]])
    expect(warmUpMoves([whips], vocabulary, 12)).not.toContain('head-whip')
    expect(warmUpMoves([], vocabulary, 12).length).toBe(4)
  })

  it('and a cool-down are rounds of eight counts to each side, that can be danced', () => {
    const ids = [
      ...warmUpMoves([...demo], vocabulary, 12),
      ...coolDownMoves([...demo], vocabulary, 3),
    ]
    const round = movesCombination(ids, vocabulary)
    expect(round.order.length % 2).toBe(0)
    expect(round.phrases.every(({ counts }) => counts === 8)).toBe(true)
    const material = of(round)
    expect(material.lead.length).toBe(round.order.length * 8 * 12)
    expect(coolDownMoves([...demo], vocabulary, 3).length).toBe(3)
    const still = movesCombination([], vocabulary)
    expect(still.phrases).toHaveLength(1)
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
    const events = one.phrases.flatMap((phrase) => dancedIn(phrase, vocabulary))
    const risks = risksOf(events, vocabulary)
    expect(risks).toMatchObject({ impact: 2, knees: 1, neck: 2 })
    expect(risksOver(risks, () => 1)).toEqual(['neck', 'impact'])
    expect(risksOver(risks, () => 2)).toEqual([])
    expect(demoId('Copper Lantern')).toContain('lantern')
  })
})
