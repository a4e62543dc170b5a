import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { mirrorWeight } from '../body/side'
import { cuesOf } from '../calling/cues'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { writtenPerformance } from '../performance/stretches'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { type Simulation, simulate } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'
import { Combination } from './combination'
import { mirror, textsTurned } from './mirror'
import { mirrorWords } from './mirrorWords'

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
    holds(
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
    holds(
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
    holds(
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
    ['right', 'left'],
    ['Left!', 'Right!'],
    ['right, left, right', 'left, right, left'],
    ['step right', 'step left'],
    ['turn left and look right', 'turn right and look left'],
    ['to the left after 4', 'to the right after 4'],
    ['left hand held', 'right hand held'],
    ['the right front foot waits', 'the left front foot waits'],
    ['stage right, your left', 'stage left, your right'],
    ['from the right wall', 'from the left wall'],
    ['R hip, L/R', 'L hip, R/L'],
    ['hand on your right knee', 'hand on your left knee'],
    ['weight left; free foot right', 'weight right; free foot left'],
  ])('swaps the words of “%s”', (text, mirrored) => {
    expect(mirrorWords(text)).toBe(mirrored)
    expect(mirrorWords(mirrored)).toBe(text)
  })

  it.each([
    'turn left after 4',
    'what is left of the turn',
    'right on the beat',
    'all right now',
    'at the right time, in the right order',
    'there is a count left',
    'come right back',
    'that is the right one',
    'R&B feel',
    'not much left over',
    'hold, then right into the walk',
  ])('leaves “%s”: it says no side', (text) => expect(mirrorWords(text)).toBe(text))

  it('of any text of such words is its own inverse', () => {
    const word = fc.constantFrom(
      ...'right left Right LEFT R L & all foot hand to the on your step turn after of beat , . and then "'.split(
        ' ',
      ),
    )
    holds(
      fc.property(fc.array(word, { maxLength: 12 }), (words) => {
        const text = words.join(' ')
        expect(mirrorWords(mirrorWords(text))).toBe(text)
      }),
      { numRuns: 2000, seed: 14 },
    )
  })

  it('turns own names, titles, comments and what could not be read; lyrics and the title stay', () => {
    const text = [
      'sway 1',
      'title   Left hand path',
      '# the left hand leads',
      'phrase A "Right foot first" 8',
      '  feet   1 step R side as "left hand held"; 2 stepp R side',
      '  say    2 "left foot"',
      '  words  2 "left foot of the song"',
      '  note   3 "right on the beat"',
    ].join('\n')
    const { combination } = readSheet(text, vocabulary)
    const other = mirror(combination)
    const sheet = writeSheet(other, vocabulary)
    for (const said of [
      'title   Left hand path',
      'the right hand leads',
      'phrase A "Left foot first"',
      'as "right hand held"',
      '2 stepp L side',
      '"right foot"',
      '"left foot of the song"',
      '"right on the beat"',
    ])
      expect(sheet).toContain(said)
    expect(textsTurned(combination, other)).toEqual([
      { from: 'Right foot first', to: 'Left foot first' },
      { from: 'left hand held', to: 'right hand held' },
      { from: 'left foot', to: 'right foot' },
      { from: 'the left hand leads', to: 'the right hand leads' },
      { from: '2 stepp R side', to: '2 stepp L side' },
    ])
  })

  it('is said and captioned on the side a phrase is danced on', () => {
    const { combination } = readSheet(
      'sway 1\nphrase A 8\n feet 1-8 walk R\n say 2 "left foot"\norder A A~',
      vocabulary,
    )
    const said = writtenPerformance(combination, vocabulary, USUAL_HOUSE).captions.filter(
      ({ kind }) => kind === 'cue',
    )
    expect(said.map(({ dancing, text }) => `${dancing.side} ${text}`)).toEqual([
      'R 2: left foot',
      'R 2: right foot',
      'L 2: right foot',
      'L 2: left foot',
    ])
    const simulation = simulate(combination, vocabulary)
    expect(
      simulation.passes.map((pass) => cuesOf(simulation, pass, ['head']).at(-1)?.text),
    ).toEqual(['left foot', 'right foot'])
  })
})
