import { describe, expect, it } from 'vitest'
import { combination, feet, move } from '../../../tests/write'
import { mirrorFootAction } from '../body/feet'
import { mirrorWeight } from '../body/side'
import { defaultStart } from '../combination/start'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { tick, tickOfCount } from '../time/time'
import { placesBefore } from './course'
import { middleOf } from './landing'
import { simulate, stateAt } from './simulate'

const dance = (pattern: string, weight: 'L' | 'R' | 'both' = 'L') =>
  simulate(combination([feet(pattern)], { start: { ...defaultStart('R'), weight } }), vocabulary)

const faultsIn = (pattern: string, weight?: 'L' | 'R' | 'both') =>
  dance(pattern, weight).danced.flatMap(({ fault }) => fault ?? [])

const at = (pattern: string, foot: 'R' | 'L', weight?: 'L' | 'R' | 'both') => {
  const { right, forward } = dance(pattern, weight).end.feet[foot].place
  return [right, forward].map((metres) => Math.round(metres * 1000) / 1000 + 0)
}

describe('the weight after each primitive, from weight on L', () => {
  it.each([
    ['1 step R side', 'R', 'flat', 'flat'],
    ['1 close R', 'R', 'flat', 'flat'],
    ['1 leap R', 'R', 'flat', 'flat'],
    ['1 step R forward ball', 'R', 'ball', 'flat'],
    ['1 touch R side', 'L', 'ball', 'flat'],
    ['1 heel R forward', 'L', 'heel', 'flat'],
    ['1 stamp R', 'L', 'flat', 'flat'],
    ['1 sweep R side', 'L', 'ball', 'flat'],
    ['1 brush R', 'L', 'air', 'flat'],
    ['1 kick R', 'L', 'air', 'flat'],
    ['1 lift R', 'L', 'air', 'flat'],
    ['1 sway R', 'R', 'flat', 'flat'],
    ['1 sway L', 'L', 'flat', 'flat'],
    ['1 centre', 'both', 'flat', 'flat'],
    ['1 hop L', 'L', 'flat', 'flat'],
    ['1 jump both', 'both', 'flat', 'flat'],
    ['1 pivot 180', 'L', 'flat', 'flat'],
    ['1 hold', 'L', 'flat', 'flat'],
  ])('%s: weight %s', (pattern, weight, right, left) => {
    const { end, danced } = dance(pattern)
    expect(danced[0]?.fault).toBeUndefined()
    expect([end.weight, end.feet.R.contact, end.feet.L.contact]).toEqual([weight, right, left])
  })

  it.each([
    ['1 touch R side', 'L'],
    ['1 kick L', 'R'],
    ['1 step R side', 'R'],
    ['1 sway L', 'L'],
  ])('%s from both feet: weight %s', (pattern, weight) =>
    expect(dance(pattern, 'both').end.weight).toBe(weight),
  )
})

describe('where the weight logic breaks', () => {
  it.each([
    ['1 step L side', ['feet.loaded'], 'L'],
    ['1 step R side; 2 close R', ['feet.loaded'], 'R'],
    ['1 leap L', ['feet.loaded'], 'L'],
    ['1 touch L side', ['feet.loaded-touch'], 'R'],
    ['1 touch L side; 2 step L side', ['feet.loaded-touch'], 'L'],
    ['1 hop R', ['feet.no-support'], 'R'],
    ['1 lift R; 2 sway R', ['feet.no-support'], 'R'],
    ['1 lift R; 2 touch R together; 3 sway R', [], 'R'],
    ['1 lift R; 2 centre', ['feet.no-support'], 'both'],
    ['1 centre; 2 pivot 90', [], 'both'],
    ['1 centre; 2 rise; 3 pivot 90', [], 'both'],
    ['1 centre; 2 rise; 2 pivot 90', [], 'both'],
  ])('%s: %j, then on %s', (pattern, faults, weight) => {
    expect(faultsIn(pattern)).toEqual(faults)
    expect(dance(pattern).end.weight).toBe(weight)
  })

  it('says one slip once and goes on as the dancer would', () => {
    expect(faultsIn('1 step R side; 2 step R side; 3 step L side; 4 step R side')).toEqual([
      'feet.loaded',
    ])
  })
})

describe('where a foot lands (metres)', () => {
  it.each([
    ['1 step R side', 'R', [0.34, 0]],
    ['1 step R side small', 'R', [-0.11 + 0.45 * 0.55, 0]],
    ['1 step R side large', 'R', [-0.11 + 0.675, 0]],
    ['1 step R forward', 'R', [-0.03, 0.45]],
    ['1 step R back', 'R', [-0.03, -0.45]],
    ['1 step R diag-forward', 'R', [0.21, 0.32]],
    ['1 step R cross-front', 'R', [-0.21, 0.18]],
    ['1 touch R cross-behind', 'R', [-0.21, -0.18]],
    ['1 step R together', 'R', [0.01, 0]],
    ['1 kick R side', 'R', [0.11, 0]],
    ['1 step R side; 1& step L together; 2 step R side', 'R', [0.22 + 0.45 * 0.55, 0]],
    ['1 step R side; 1& step L forward', 'L', [0.26, 0.247]],
    ['1 jump R', 'L', [0.34, 0]],
    ['1 jump out', 'R', [0.225, 0]],
    ['1 step R side; 2 step L cross-behind; 3 step R side', 'R', [0.89, 0]],
  ] as const)('%s: %s at %j', (pattern, foot, place) => {
    const [right, forward] = at(pattern, foot)
    expect(right).toBeCloseTo(place[0], 2)
    expect(forward).toBeCloseTo(place[1], 2)
  })

  it('reads a direction in the frame before the turn of the step itself', () => {
    const { end } = dance('1 step R side turn 90; 2 step L forward turn 180; 3 step R back turn 90')
    expect(end.facing).toBe(360)
    expect(middleOf(end).right).toBeGreaterThan(1)
    expect(Math.abs(middleOf(end).forward)).toBeLessThan(0.1)
  })

  it('draws in a free foot that a turn has left on the wrong side', () => {
    const { end } = dance('1 touch R side; 2 pivot 180')
    const apart = Math.hypot(
      end.feet.R.place.right - end.feet.L.place.right,
      end.feet.R.place.forward - end.feet.L.place.forward,
    )
    expect(apart).toBeCloseTo(0.12, 6)
  })

  it('bends until the next thing the feet do, holds aside', () => {
    const dancing = dance('1 step R side; 1& bend; 2 hold; 3 step L in-place; 4 rise; 5 lower')
    const levels = [6, 12, 24, 36, 48].map((t) => stateAt(dancing, t).level)
    expect(levels).toEqual(['low', 'low', 'soft', 'toes', 'soft'])
  })
})

describe('the vocabulary', () => {
  const figures = vocabulary.moves.filter((m) => m.kind === 'steps')

  it('has all layers and all families, and knows what it points to', () => {
    expect(new Set(vocabulary.moves.map((m) => m.layer)).size).toBe(6)
    expect(new Set(vocabulary.moves.flatMap((m) => m.families)).size).toBe(5)
    const unknown = vocabulary.moves
      .flatMap((m) => [m.easier, m.harder])
      .filter((id) => id !== '' && !vocabulary.find(id))
    expect(unknown).toEqual([])
  })

  it.each(figures.map((m) => [m.id, m] as const))(
    '%s dances clean on both sides and ends as it says',
    (id, row) => {
      for (const side of ['R', 'L'] as const) {
        const weight = side === 'R' ? 'L' : 'R'
        const event = move(id, '1', row.sided === 'none' ? undefined : side)
        const written = combination([[event]], { lead: side, start: defaultStart(side) })
        const { danced, end } = simulate(written, vocabulary)
        expect(danced.flatMap(({ fault }) => fault ?? [])).toEqual([])
        const written_to = { '=': 'L', 'on-L': 'L', 'on-R': 'R', both: 'both' }[row.to]
        expect(end.weight).toBe(weight === 'L' ? written_to : mirrorWeight(written_to as 'R'))
        if (side === 'L')
          expect(danced[0]?.action).toEqual(mirrorFootAction(row.pattern[0]!.action))
      }
    },
  )

  it('repeats a figure on the foot that is free then, as often as it fits', () => {
    const event = { ...move('step-touch', '1', 'R'), length: tick(12 * 7) }
    const { danced, end } = simulate(combination([[event]]), vocabulary)
    expect(danced.map(({ at, action }) => `${at / 12 + 1}${action.foot}`)).toEqual([
      '1R',
      '2L',
      '3L',
      '4R',
      '5R',
      '6L',
    ])
    expect(end.weight).toBe('R')
  })
})

describe('what is held to a count', () => {
  it.each([
    ['arms 1 both crown until 4', { arms: { R: 'low', L: 'low' } }],
    ['arms 1 R crown, L second via side until 4', { arms: { R: 'low', L: 'low' } }],
    ['arms 1 both crown until 4; 3 L low', { arms: { R: 'low', L: 'low' } }],
    ['arms 1 both crown until 4; 4 L second', { arms: { R: 'low', L: 'second' } }],
    ['torso 1 shoulder R back until 4; 2 shoulder L up', { shoulders: { R: 'level', L: 'up' } }],
    ['legs 1 both out until 4; 5 L in', { legs: { R: 'home', L: 'in' } }],
    ['legs 1 R out; 3 R in until 6', { legs: { R: 'out', L: 'home' } }],
    // A foot that was off the floor has forgotten what was held.
    ['legs 1 R out; 3 R in until 6\n feet 4 step R side', { legs: { R: 'home', L: 'home' } }],
    ['hips 1 at R; 3 at L until 5', { hips: 'R' }],
    ['head 1 look up; 3 look R until 5', { gaze: 'up' }],
  ])('is back where it was behind it, each of a pair by itself: %s', (line, places) => {
    const { combination, messages } = readSheet(
      `sway 2\nstart arms low\nphrase A 8\n ${line}`,
      vocabulary,
    )
    expect(messages).toEqual([])
    expect(placesBefore(simulate(combination, vocabulary), tickOfCount(8))).toMatchObject(places)
  })
})
