import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { combination, feet, move } from '../../../tests/write'
import type { Combination, Event } from '../combination/combination'
import { USUAL_HOUSE } from '../house/house'
import { readPattern } from '../moves/pattern'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { slotAt } from '../time/time'
import { applyRepair } from './apply'
import { editWords, isClear, repairFeet } from './feet'
import { contains, type FeetEdit, hundredths, type RepairGoal } from './feetEdit'
import { placesOf } from './phraseOptions'

const GOALS: readonly RepairGoal[] = ['faults', 'switch', 'repeat']
const house = USUAL_HOUSE
const ids = () => {
  let id = 0
  return () => `x${id++}`
}
const best = (written: Combination, goal: RepairGoal) => repairFeet(written, goal, vocabulary)
const told = (written: Combination, goal: RepairGoal) =>
  best(written, goal).map(({ cost, edits }) => [
    cost,
    ...edits.map((edit) => {
      const { at, from, to } = editWords(edit, written)
      return `${at} ${from} > ${to}`
    }),
  ])

/** Every set of edits there is, in the order of their price: what the search must not be dearer than. */
function exhaustive(written: Combination, goal: RepairGoal, most: number): number | undefined {
  const perStep: FeetEdit[][] = written.phrases.flatMap((phrase) =>
    placesOf(phrase, vocabulary, house).map(({ options }) =>
      options.flatMap(({ edit }) => (edit ? [{ ...edit, phrase: phrase.id }] : [])),
    ),
  )
  const turned = written.order.map((_, pass): FeetEdit[] => [
    { kind: 'other-side', pass, cost: house.limits['repair.otherSide'] },
  ])
  const links: FeetEdit[] =
    goal === 'faults'
      ? []
      : (['R', 'L'] as const).flatMap((foot) =>
          ([1, 2, 4] as const).map((counts): FeetEdit => {
            return { kind: 'link', counts, foot, cost: house.limits[`repair.link${counts}`] }
          }),
        )
  // Making one occurrence its own phrase is left out: it makes the sets too many, and only dearer.
  const places = [...perStep, ...turned, links]
  let cheapest = most
  const look = (from: number, edits: readonly FeetEdit[], cost: number) => {
    if (cost >= cheapest) return
    const repaired = applyRepair(written, edits, vocabulary, ids())
    if (isClear(repaired, goal, vocabulary, house)) cheapest = cost
    for (let i = from; i < places.length; i++)
      for (const edit of places[i] ?? [])
        look(i + 1, [...edits, edit], cost + hundredths(edit.cost))
  }
  look(0, [], 0)
  return cheapest === most ? undefined : cheapest / 100
}

const STEPS = [
  'step R side',
  'step L side',
  'close R',
  'touch R together',
  'touch L side',
  'kick L forward',
  'hold',
  'sway L',
  'hop R',
] as const

const someSteps = (most: number) =>
  fc.array(fc.option(fc.constantFrom(...STEPS), { nil: undefined, freq: 5 }), {
    minLength: 2,
    maxLength: most,
  })

function written(
  lines: readonly (readonly (string | undefined)[])[],
  order?: Combination['order'],
  keeps = false,
): Combination {
  const events = lines.map((line): readonly Event[] => {
    const text = line.flatMap((step, i) => (step ? [`${i + 1} ${step}`] : []))
    if (text.length === 0) return []
    return readPattern(text.join(';')).map(({ at, action }, i) => ({
      id: `f${i}`,
      layer: 'feet' as const,
      at,
      length: slotAt(at),
      what: { kind: 'foot' as const, action },
      ...(keeps && i === 1 && { kept: true as const }),
    }))
  })
  const made = combination(events)
  return {
    ...made,
    phrases: made.phrases.map((phrase, i) => ({
      ...phrase,
      counts: Math.max(2, lines[i]?.length ?? 2),
    })),
    ...(order && { order }),
  }
}

describe('the repair of the feet', () => {
  it.each(GOALS)(
    'for %s is never dearer than the cheapest of all sets of edits',
    (goal) => {
      holds(
        fc.property(
          fc.tuple(someSteps(4), someSteps(3)),
          fc.boolean(),
          fc.boolean(),
          (lines, keeps, again) => {
            // Where no weight is ever taken there is nothing to put right.
            fc.pre(
              lines.some((line) => line.some((step) => step && !/^(touch|kick|hold)/.test(step))),
            )
            const order = ['A', 'B', 'A'].map((phrase) => ({ phrase, mirrored: false }))
            const small = written(lines, again ? order : undefined, keeps)
            // One that mends equal slips alike may stand before the cheapest.
            const costs = best(small, goal).map(({ cost }) => cost)
            const found = costs.length > 0 ? Math.min(...costs) : undefined
            const least = exhaustive(small, goal, 650)
            if (least !== undefined) expect(found ?? 99).toBeLessThanOrEqual(least)
            if (least !== undefined && !again) expect(found).toBe(least)
            if (least === undefined && !again) expect(found ?? 99).toBeGreaterThanOrEqual(6.5)
          },
        ),
        { numRuns: 150, seed: 401 },
      )
    },
    240_000,
  )

  it('looks for what follows in the first phrase that is danced, and changes feet where none is', () => {
    const late = written([
      [undefined, undefined],
      ['step R side', undefined],
    ])
    expect(told(late, 'repeat')[0]).toEqual([0.6, 'B1 step R side > touch R side'])
    const empty = combination([[]])
    const still = { ...empty, start: { ...empty.start, weight: 'L' as const } }
    expect(told(still, 'repeat')).toEqual([[0]])
    expect(told(still, 'switch')[0]).toEqual([0.8, 'A8  > sway R'])
  })

  it('clears what it says it clears, in order of price, and none of the three holds another', () => {
    const order = [
      { phrase: 'A', mirrored: false },
      { phrase: 'B', mirrored: false },
      { phrase: 'A', mirrored: true },
      { phrase: 'B', mirrored: false },
    ]
    holds(
      fc.property(
        fc.tuple(someSteps(8), someSteps(8)),
        fc.constantFrom(...GOALS),
        fc.boolean(),
        fc.boolean(),
        ([a, b], goal, keeps, again) => {
          const any = written([a, b], again ? order : undefined, keeps)
          const repairs = best(any, goal)
          const costs = repairs.map(({ cost }) => cost)
          // One that mends equal slips alike may stand first, if it is little dearer.
          const [first = 0, ...others] = costs
          expect(others).toEqual([...others].sort((x, y) => x - y))
          expect(first).toBeLessThanOrEqual((others[0] ?? first) + 1 + 1e-9)
          for (const [i, { edits, cost }] of repairs.entries()) {
            const repaired = applyRepair(any, edits, vocabulary, ids())
            expect(isClear(repaired, goal, vocabulary, house)).toBe(true)
            expect(edits.reduce((sum, edit) => sum + edit.cost, 0)).toBeCloseTo(cost, 6)
            for (const other of repairs.slice(0, i))
              expect(contains(edits, other.edits)).toBe(false)
            if (isClear(any, goal, vocabulary, house)) expect(repairs[0]?.edits).toEqual([])
          }
        },
      ),
      { numRuns: 250, seed: 402 },
    )
  }, 240_000)

  it('makes the last step a touch, which is what an instructor does', () => {
    const stays = combination([feet('1 step R side; 2 close L; 3 step R side; 4 step L side')])
    expect(told(stays, 'switch')[0]).toEqual([0.6, 'A4 step L side > touch L side'])
    expect(told(stays, 'repeat')).toEqual([[0]])
  })

  it('offers a ball change of a step with a free half before it', () => {
    const stays = combination([
      feet('1 kick R forward; 2 step R side; 3 kick L forward; 4 step L side'),
    ])
    const phrase = { ...stays.phrases[0]!, counts: 4 }
    const full = { ...stays, phrases: [phrase] }
    expect(told(full, 'switch').flat()).toContain(
      'A4 step L side > & step L together small ball; 4 step R side',
    )
  })

  it('opens a figure before it changes a step of it', () => {
    const vine = combination([[...feet('1 step R side'), move('grapevine', '2-5', 'R')]])
    const [repair] = best(vine, 'faults')
    const repaired = applyRepair(vine, repair?.edits ?? [], vocabulary, ids())
    expect(isClear(repaired, 'faults', vocabulary, house)).toBe(true)
  })

  it('changes each occurrence of a phrase at one price, or makes one its own', () => {
    const twice = readSheet(
      'sway 1\nphrase A 3\nfeet 1 step R side; 2 close L; 3 step R side\norder A A',
      vocabulary,
    ).combination
    const found = told(twice, 'faults')
    expect(found[0]).toEqual([0.6, 'A3 step R side > touch R side'])
    expect(found.slice(1)).toContainEqual([1, 'A pass 2 > from the other side'])
  })

  const sheet = (lines: string) => readSheet(`sway 1\nphrase A 8\n${lines}`, vocabulary).combination

  it('sways where the feet are planted, the sooner where the hips go there (E1)', () => {
    const planted = sheet('feet 1 step R side; 4 touch R together\nhips 3 at L')
    expect(told(planted, 'faults')[0]).toEqual([0.5, 'A3  > sway L'])
    expect(told(sheet('feet 1 step R side; 4 touch L together'), 'faults')[0]).toEqual([0])
  })

  it('recovers before a foot comes home, and hops where a leap is on the standing foot (E2)', () => {
    expect(told(sheet('feet 1 step R forward; 2 close R'), 'faults')[0]).toEqual([
      0.9,
      'A2 close R > & step L in-place; 2 close R',
    ])
    const leap = sheet(
      'feet 1 step R side; 1& step L in-place; 2 step R in-place; 3 leap R; 4 kick L',
    )
    expect(told(leap, 'faults')).toContainEqual([1, 'A3 leap R in-place > hop R'])
    expect(told(sheet('feet 1 step R side; 2 hop R; 3 kick L'), 'faults')[0]).toEqual([0])
  })

  it('mends equal slips alike where that costs little more (E3)', () => {
    const pairs =
      'feet 3 step R forward; 4 close R; 5 step L forward; 6 close L; 7 step R forward; 8 close R'
    const [first] = best(sheet(pairs), 'faults')
    expect(first?.edits.map(({ kind }) => kind)).toEqual(['recover', 'recover', 'recover'])
    const one = best(sheet('feet 1 step R forward; 2 close R'), 'faults')
    expect(one[0]?.edits).toHaveLength(1)
  })

  it('makes a pass and its mirror twin one phrase of their own, and never one of them alone (E4)', () => {
    const bothSides = [false, false, true, true].map((mirrored) => ({ phrase: 'A', mirrored }))
    const pair = [false, true].map((mirrored) => ({ phrase: 'A', mirrored }))
    let own = 0
    holds(
      fc.property(someSteps(6), fc.constantFrom(...GOALS), (a, goal) => {
        for (const { edits, cost } of best(written([a], bothSides), goal)) {
          const sum = edits.reduce((all, edit) => all + edit.cost, 0)
          expect(sum).toBeCloseTo(cost, 9)
          for (const edit of edits)
            if (edit.kind === 'own-phrase') {
              own++
              expect([edit.pass, edit.twin]).toEqual([edit.pass, edit.pass + 2])
            }
        }
        for (const { edits } of best(written([a], pair), goal))
          expect(edits.map(({ kind }) => kind)).not.toContain('own-phrase')
      }),
      { numRuns: 150, seed: 622 },
    )
    expect(own).toBeGreaterThan(0)
  })

  it('never puts two landings closer than the tempo allows', () => {
    const fast = {
      ...combination([feet('1 touch R side; 2 step R side; 8 step R side')]),
      tempo: 220,
    }
    for (const { edits } of best(fast, 'faults'))
      for (const edit of edits) expect(edit.kind).not.toBe('ball-change')
  })
})
