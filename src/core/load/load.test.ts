import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { combination, feet, move, on } from '../../../tests/write'
import { type Combination, DancerLevel } from '../combination/combination'
import type { EventForm } from '../combination/forms'
import { mirror } from '../combination/mirror'
import { eventOf } from '../edits/edits'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { levelForm } from '../forms/levels'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { simulate } from '../simulate/simulate'
import { steady } from '../time/timeMap'
import { hardestLoad, loadsOf } from './load'

const loads = (written: Combination, tempo = 100) =>
  loadsOf(simulate(written, vocabulary), steady(tempo))

describe('the load of a count', () => {
  it('is the sum of its parts, as it is shown', () => {
    holds(
      fc.property(anyCombination(), fc.integer({ min: 40, max: 220 }), (any, tempo) => {
        for (const { total, parts, starts, turning, down } of loads(any, tempo)) {
          const sum = parts.reduce(
            (all, { own, share }) => all + own * share,
            starts + turning + down,
          )
          expect(total).toBeCloseTo(sum, 9)
          const owns = parts.map(({ own }) => own)
          expect(owns).toEqual([...owns].sort((a, b) => b - a))
          if (parts.length > 0) expect(parts[0]?.share).toBe(1)
          for (const { share } of parts) expect([0.5, 0.7, 1]).toContain(share)
        }
      }),
      { numRuns: 200, seed: 421 },
    )
  })

  it('is the same on the other side, and never easier when it is faster', () => {
    holds(
      fc.property(
        anyCombination({ kept: false }),
        fc.integer({ min: 40, max: 200 }),
        (any, tempo) => {
          const totals = (one: Combination, at: number) => loads(one, at).map(({ total }) => total)
          const here = totals(any, tempo)
          for (const [i, total] of totals(mirror(any), tempo).entries())
            expect(total).toBeCloseTo(here[i] ?? 0, 9)
          for (const [i, total] of totals(any, tempo + 20).entries())
            expect(total).toBeGreaterThanOrEqual((here[i] ?? 0) - 1e-9)
        },
      ),
      { numRuns: 150, seed: 422 },
    )
  })

  // The orientation of model 9.
  it.each([
    [
      'a step-touch with sways and simple arms, about 2.3',
      [
        move('step-touch', '1-8', 'R'),
        move('hip-sway', '1-2', 'R'),
        move('hip-sway', '3-4', 'L'),
        on('arms', '1-2', { kind: 'arms', R: 'second', L: 'second' }),
        on('arms', '3-4', { kind: 'arms', R: 'low', L: 'low' }),
      ],
      100,
      [1.7, 2.6],
    ],
    [
      'a beginner belly drill, 2.3 to 3.5',
      [
        ...feet('1 touch R in-place'),
        move('hip-drop', '1-8', 'R'),
        on('arms', '1', { kind: 'arms', R: 'second', L: 'second' }),
      ],
      96,
      [2, 3.5],
    ],
    [
      'walks with shimmy and snake arms, 5.4 to 6.5',
      [
        ...feet('1 step R forward; 2 step L forward; 3 step R forward; 4 step L forward'),
        move('knee-shimmy', '1-4'),
        move('snake-arms', '1-4', 'R'),
      ],
      110,
      [4.6, 6.6],
    ],
  ] as const)('of %s', (_, events, tempo, [low, high]) => {
    const hardest = hardestLoad(loads(combination([[...events]]), tempo))
    expect(hardest).toBeGreaterThanOrEqual(low)
    expect(hardest).toBeLessThanOrEqual(high)
  })

  it('counts a second layer less when it goes with the first, and adds turns and common starts', () => {
    const total = (...events: Parameters<typeof combination>[0][number][]) =>
      loads(combination([events.flat()]))[1]?.total ?? 0
    const bumps = move('hip-bump', '1-4', 'R')
    const walk = feet('1 step R forward; 2 step L forward; 3 step R forward; 4 step L forward')
    expect(total([bumps], walk)).toBeCloseTo(1 + 0.5, 6)
    expect(total(feet('1 step R forward; 2 step L forward turn 180'))).toBeCloseTo(1 + 1, 6)
    expect(total(walk, [move('hip-bump', '2', 'R'), move('chest-pop', '2')])).toBeCloseTo(
      1.8 + 0.5 + 0.5 + 0.3,
      6,
    )
  })
})

describe('the version for a level', () => {
  const faults = (one: Combination) =>
    checkCombination(one, vocabulary).findings.filter((found) => severityOf(found) === 'fault')
      .length

  it.each(
    demo.flatMap((one) => DancerLevel.options.map((level) => [one.title, level, one] as const)),
  )(
    '%s for %s is never harder where it was too hard, has no new fault, and says every swap',
    (_, level, written) => {
      const { combination: form, swaps, load } = levelForm(written, level, vocabulary, USUAL_HOUSE)
      expect(form.level).toBe(level)
      expect(faults(form)).toBeLessThanOrEqual(faults(written))
      if (load.before > load.limit) expect(load.after).toBeLessThanOrEqual(load.before)
      const now = (id: string) => JSON.stringify(eventOf(form, id)?.what)
      const changed = written.phrases.flatMap(({ events }) =>
        events.filter((event) => now(event.id) !== JSON.stringify(event.what)),
      )
      const own = swaps.filter(({ kind }) => kind !== 'added')
      expect(new Set(own.flatMap(({ events }) => events))).toEqual(
        new Set(changed.map(({ id }) => id)),
      )
      for (const { kind, events } of own)
        for (const event of events)
          expect(eventOf(form, event) === undefined).toBe(kind === 'dropped')
    },
  )

  it('holds for anything that is written: no new fault, nothing kept is touched, only flourishes go', () => {
    holds(
      fc.property(anyCombination(), fc.constantFrom(...DancerLevel.options), (written, level) => {
        const {
          combination: form,
          swaps,
          load,
        } = levelForm(written, level, vocabulary, USUAL_HOUSE)
        expect(faults(form)).toBeLessThanOrEqual(faults({ ...written, level }))
        expect(load.after).toBeLessThanOrEqual(Math.max(load.before, load.limit) + 1e-9)
        for (const event of written.phrases.flatMap(({ events }) => events)) {
          const after = eventOf(form, event.id)
          const mayGo = [...(event.easier ?? []), ...(event.harder ?? [])].some(
            (one) => 'none' in one,
          )
          if (after === undefined) expect(event.optional || mayGo).toBe(true)
          // A flourish that is kept may still be left out, but is never danced otherwise.
          else if (event.kept && !event.harder) expect(after.what).toEqual(event.what)
        }
        expect(form.order).toEqual(written.order)
        // Once it is eased for a level there is nothing more to ease.
        const again = levelForm(form, level, vocabulary, USUAL_HOUSE)
        expect(again.swaps.filter(({ kind }) => kind !== 'harder')).toEqual([])
        expect(again.load.after).toBeLessThanOrEqual(load.after + 1e-9)
        expect(swaps.length).toBeLessThanOrEqual(60)
      }),
      { numRuns: 60, seed: 425 },
    )
  })

  it('drops a flourish first, then takes what the instructor wrote as the easier form', () => {
    const busy = combination(
      [
        [
          ...feet('1 step R side; 2 step L side; 3 step R side; 4 step L side'),
          { ...move('three-quarter-shimmy', '1-4', 'R'), easier: [{ move: 'hip-sway' }] },
          { ...move('shoulder-shimmy', '1-4'), optional: true as const },
        ],
      ],
      { level: 'advanced', tempo: 110 },
    )
    const { swaps } = levelForm(busy, 'new', vocabulary, USUAL_HOUSE)
    expect(swaps.map(({ kind }) => kind).slice(0, 2)).toEqual(['dropped', 'easier'])
    expect(swaps[1]?.to).toContain('hip sway')
  })

  it('goes down the ladder that is written, a rung a level, and the next one where one can’t be danced', () => {
    const ladder = (rungs: readonly EventForm[], level: DancerLevel) => {
      const ring = combination(
        [
          [
            ...feet('1 step R side; 2 step L side'),
            { ...move('hip-circle-large', '3-6', 'R'), easier: rungs },
          ],
        ],
        { level: 'advanced' },
      )
      return levelForm(ring, level, vocabulary, USUAL_HOUSE).swaps.map(({ kind, to }) => [kind, to])
    }
    const rungs: readonly EventForm[] = [
      { move: 'hip-circle-small' },
      { what: { kind: 'at', place: 'R' } },
      { none: true },
    ]
    expect(ladder(rungs, 'intermediate')).toEqual([['easier', 'small hip circle cw']])
    expect(ladder(rungs, 'improver')).toEqual([['easier', 'hips right']])
    expect(ladder(rungs, 'new')).toEqual([['dropped', undefined]])
    // The last one where there are fewer.
    expect(ladder(rungs.slice(0, 1), 'new')).toEqual([['easier', 'small hip circle cw']])
  })

  it('takes a harder form that is written, when the load allows it', () => {
    const plain = combination(
      [
        [
          ...feet('1 step R side; 2 touch L together'),
          { ...move('hip-bump', '1', 'L'), harder: [{ move: 'thumka' }] },
        ],
      ],
      { level: 'new' },
    )
    const { swaps } = levelForm(plain, 'advanced', vocabulary, USUAL_HOUSE)
    expect(swaps).toEqual([expect.objectContaining({ kind: 'harder', to: 'thumka L' })])
    expect(levelForm(plain, 'new', vocabulary, USUAL_HOUSE).swaps).toEqual([])
  })
})

describe('what is done with a partner', () => {
  it('asks half a point where a hand is taken or let go, and one while weight is carried', () => {
    const written = (between: string) =>
      readSheet(
        `sway 2\ntempo 96\npart @1 "Amber" at L 0.4\npart @2 "Blue" at R 0.4\nphrase A 8\n  feet 1 step R side; 2 touch L together; 7 step L side; 8 touch R together\n${between}`,
        vocabulary,
      ).combination
    const totals = (between: string) =>
      checkCombination(written(between), vocabulary).loads.map(({ total }) => total)
    const alone = totals('')
    const more = totals('  between 1-6 hold @1.R @2.L palm waist; 2-5 support @2 of @1 20%')
    expect(more.map((total, i) => Math.round((total - alone[i]!) * 100) / 100)).toEqual([
      0.5, 1, 1, 1, 1, 0.5, 0, 0,
    ])
  })
})
