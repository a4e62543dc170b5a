import { describe, expect, it } from 'vitest'
import { readAll } from '../../../tests/write'
import { defaultStart } from '../combination/start'
import { onSide, whatOf } from '../combination/whatOf'
import { vocabulary } from '../moves/vocabulary'
import { startPlaces } from '../simulate/places'
import { dance } from '../simulate/primitives'
import { startState } from '../simulate/start'
import { tick } from '../time/time'
import { fits, idOfKind } from '../writing/fit'
import { findOffers } from '../writing/search'
import { Direction, FootAction, factsOf, mirrorFootAction, STEP_WORDS } from './feet'
import {
  ArmPlace,
  Compass,
  compassOffset,
  Gaze,
  mirrorCompass,
  mirrorGaze,
  palmAt,
  viaPlace,
} from './places'
import { mirrorWeight, negated, otherSide, Weight } from './side'

describe('left and right', () => {
  it('change places, and twice is once again', () => {
    for (const place of Compass.options) {
      expect(mirrorCompass(mirrorCompass(place))).toBe(place)
      for (const part of ['hips', 'ribs'] as const) {
        const here = compassOffset(part, place)
        const there = compassOffset(part, mirrorCompass(place))
        expect(there.right).toBeCloseTo(0 - here.right, 12)
        expect(there.forward).toBe(here.forward)
      }
    }
    for (const gaze of Gaze.options) expect(mirrorGaze(mirrorGaze(gaze))).toBe(gaze)
    for (const weight of Weight.options) expect(mirrorWeight(mirrorWeight(weight))).toBe(weight)
    for (const place of ArmPlace.options) {
      const [right, left] = [palmAt('R', place), palmAt('L', place)]
      expect(left).toEqual({ ...right, right: negated(right.right) })
    }
    expect(Object.is(negated(0), 0)).toBe(true)
    expect(otherSide[otherSide.R]).toBe('R')
    expect(Object.values(viaPlace)).toEqual(['second', 'front', 'crown', 'prayer'])
  })

  it.each(STEP_WORDS)('%s is the same step on the other foot', (primitive) => {
    for (const action of readAll(primitive)) {
      const other = mirrorFootAction(action)
      expect(mirrorFootAction(other)).toEqual(action)
      expect(FootAction.safeParse(other).success).toBe(true)
      expect(other.direction).toBe(action.direction)
      expect(other.turn ?? 0).toBe(0 - (action.turn ?? 0) + 0)
      if (action.foot) expect(other.foot).toBe(otherSide[action.foot])
    }
  })

  it.each(STEP_WORDS)('%s takes what it needs and refuses what it does not', (primitive) => {
    const facts = factsOf(primitive)
    const base = {
      primitive,
      ...(primitive === 'jump' && { jump: 'both' }),
      ...(primitive === 'pivot' && { turn: 90 }),
    }
    const whole = {
      ...base,
      ...(facts.foot && { foot: 'R' }),
      ...(facts.direction && { direction: facts.direction }),
    }
    const ok = (action: object) => FootAction.safeParse(action).success
    expect(ok(whole)).toBe(true)
    expect(ok({ ...whole, foot: facts.foot ? undefined : 'R' })).toBe(false)
    expect(ok({ ...whole, direction: facts.direction ? undefined : 'together' })).toBe(false)
    for (const direction of facts.travels ?? []) expect(ok({ ...whole, direction })).toBe(true)
    expect(ok({ ...whole, turn: 22.25 })).toBe(false)
    expect(ok({ ...whole, shared: true })).toBe(facts.shares === true)
    expect(ok({ ...whole, jump: primitive === 'jump' ? undefined : 'out' })).toBe(false)
    expect(ok({ ...whole, turn: 5000 })).toBe(false)
    if (primitive === 'hold') expect(ok({ ...whole, turn: 90 })).toBe(false)
    if (facts.direction)
      for (const direction of Direction.options) expect(ok({ ...whole, direction })).toBe(true)
  })
})

describe('what is offered first', () => {
  const start = defaultStart('R')
  const here = (steps: readonly FootAction[], more: object = {}) => {
    let state = startState(start)
    for (const action of steps) state = dance(state, action, tick(0)).state
    return {
      state,
      places: startPlaces(start),
      at: tick(0),
      room: 96,
      tempo: 96,
      recent: [],
      ...more,
    }
  }
  const first = (query: string, wanted: Parameters<typeof findOffers>[1]) =>
    findOffers(query, wanted, vocabulary)[0]?.name
  const feet = (side: 'R' | 'L', more = {}) => ({
    layer: 'feet' as const,
    side,
    families: [],
    here: here([], more),
  })

  it('is what can be danced: a hop is for the standing foot, a step for the free one', () => {
    expect(first('step', feet('R'))).toBe('step R side')
    const onRight = {
      layer: 'feet' as const,
      side: 'R' as const,
      families: [],
      here: here([{ primitive: 'step', foot: 'R', direction: 'side' }]),
    }
    const names = findOffers('', onRight, vocabulary, 200).map(({ name }) => name)
    expect(names).toContain('step R side')
    expect(names.indexOf('hop R')).toBeLessThan(names.indexOf('step R side'))
  })

  it('is what has room and time: short figures where the next thing is near', () => {
    const names = (room: number) =>
      findOffers('', feet('R', { room }), vocabulary, 40).map(({ length }) => length)
    const late = names(12)
    expect(late.slice(0, 10).every((length) => length <= 12)).toBe(true)
    const chaine = vocabulary.find('chaine')!
    const wanted = (tempo: number, room = 48) => feet('R', { tempo, room })
    expect(fits(chaine, wanted(96), vocabulary)).toBe(true)
    expect(fits(chaine, wanted(220), vocabulary)).toBe(false)
    expect(fits(chaine, wanted(96, 24), vocabulary)).toBe(false)
  })

  it('is what was used lately, then what belongs to the family, then the plainest', () => {
    const recent = [idOfKind(whatOf(vocabulary.find('hip-drop-sweep')!))]
    const hips = (more = {}) => ({
      layer: 'hips' as const,
      side: 'R' as const,
      families: ['belly' as const],
      here: here([], more),
    })
    expect(first('drop', hips())).toBe('hip drop R')
    expect(first('drop s', hips({ recent }))).toMatch(/^hip-drop sweep/)
    const latin = findOffers(
      '',
      { layer: 'hips', side: 'R', families: ['latin'] },
      vocabulary,
      40,
    ).map(({ what }) => what.kind === 'move' && what.move)
    expect(latin.indexOf('latin-hip-action')).toBeLessThan(
      latin.indexOf('faarapu') < 0 ? 99 : latin.indexOf('faarapu'),
    )
  })

  it('has the side that is meant, and can be turned to the other', () => {
    for (const move of vocabulary.moves) {
      const what = whatOf(move)
      expect(onSide(onSide(what, 'L'), 'R')).toEqual(what)
      if (move.sided === 'none') expect(onSide(what, 'L')).toEqual(what)
      else expect(onSide(what, 'L')).not.toEqual(what)
      expect(idOfKind(onSide(what, 'L'))).toBe(idOfKind(what))
    }
  })
})
