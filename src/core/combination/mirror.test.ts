import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { mirrorWeight } from '../body/side'
import { vocabulary } from '../moves/vocabulary'
import { type Simulation, simulate } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'
import { Combination } from './combination'
import { mirror, mirrorWords } from './mirror'

const mirrorState = (state: BodyState) => ({
  weight: mirrorWeight(state.weight),
  level: state.level,
  facing: 0 - state.facing,
  R: { ...state.feet.L, place: mirrorPoint(state.feet.L.place) },
  L: { ...state.feet.R, place: mirrorPoint(state.feet.R.place) },
})
const mirrorPoint = (p: { right: number; forward: number }) => ({
  right: 0 - p.right,
  forward: p.forward,
})
const plain = ({ weight, level, facing, feet }: BodyState) => ({ weight, level, facing, ...feet })
const rounded = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value, (_, v) => (typeof v === 'number' ? Math.round(v * 1e9) / 1e9 + 0 : v)),
  )

describe('the other side', () => {
  it('of the other side is the original, kept events and words included', () => {
    fc.assert(
      fc.property(anyCombination(), (combination) => {
        expect(Combination.parse(combination)).toEqual(combination)
        expect(mirror(mirror(combination))).toEqual(combination)
        expect(Combination.safeParse(mirror(combination)).success).toBe(true)
      }),
      { numRuns: 400, seed: 11 },
    )
  })

  it('dances as the mirrored dance when nothing is kept', () => {
    const faults = (s: Simulation) => s.danced.map(({ at, fault }) => [at, fault])
    fc.assert(
      fc.property(anyCombination({ kept: false }), (combination) => {
        const here = simulate(combination, vocabulary)
        const there = simulate(mirror(combination), vocabulary)
        expect(faults(there)).toEqual(faults(here))
        expect(rounded(there.danced.map(({ after }) => plain(after)))).toEqual(
          rounded(here.danced.map(({ after }) => mirrorState(after))),
        )
      }),
      { numRuns: 400, seed: 12 },
    )
  })

  it('leaves a kept event as it was written', () => {
    fc.assert(
      fc.property(anyCombination(), (combination) => {
        const keptOf = (c: Combination) => c.phrases.flatMap((p) => p.events.filter((e) => e.kept))
        expect(keptOf(mirror(combination))).toEqual(keptOf(combination))
      }),
      { seed: 13 },
    )
  })

  it.each([
    ['Right foot, then left', 'Left foot, then right'],
    ['look R, not L', 'look L, not R'],
    ['all right, go LEFT', 'all right, go RIGHT'],
    ['say "right" to the right', 'say "right" to the left'],
    ['bright copyright r', 'bright copyright r'],
  ])('swaps the words of “%s”', (text, mirrored) => {
    expect(mirrorWords(text)).toBe(mirrored)
    expect(mirrorWords(mirrored)).toBe(text)
  })
})
