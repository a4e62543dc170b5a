import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { type Spreading, type SpreadUnit, spread } from './spread'

const anyUnits = (most: number) =>
  fc
    .array(
      fc.record({
        minutes: fc.integer({ min: 2, max: 30 }),
        load: fc.integer({ min: 1, max: 200 }),
      }),
      {
        minLength: 1,
        maxLength: most,
      },
    )
    .map((all) =>
      all.map(
        ({ minutes, load }, i): SpreadUnit => ({
          id: `u${i}`,
          seconds: 60 * minutes,
          load,
          run: 20,
        }),
      ),
    )

const anySpreading = (mostClasses: number, mostUnits: number) =>
  fc
    .record({
      units: anyUnits(mostUnits),
      minutes: fc.array(fc.integer({ min: 20, max: 90 }), { minLength: 1, maxLength: mostClasses }),
      over: fc.nat(3),
      taught: fc.nat(60),
      picks: fc.array(fc.tuple(fc.nat(), fc.nat()), { maxLength: 2 }),
      last: fc.array(fc.nat(), { maxLength: mostUnits }),
    })
    .map(({ units, minutes, over, taught, picks, last }): Spreading => {
      const classes = minutes.map((one, i) => ({
        id: `c${i}`,
        seconds: one * 60,
        fixed: one * 17,
        index: over + i,
      }))
      const idAt = (list: readonly { id: string }[], i: number) => list[i % list.length]?.id ?? ''
      return {
        units,
        classes,
        of: over + minutes.length,
        before: { seconds: over > 0 ? taught * 60 : 0, run: over > 0 ? 60 : 0 },
        locks: new Map(picks.map(([u, c]) => [idAt(units, u), idAt(classes, c)])),
        last: new Map(last.map((c, i) => [`u${i}`, idAt(classes, c)])),
      }
    })

const closedFrom = (of: number) => of - (of <= 4 ? 1 : 2)

/** What some cuts cost, worked out another way; Infinity where they can't be. */
function costOf(
  { units, classes, of, before, locks, last }: Spreading,
  cuts: readonly number[],
  isOpen: boolean,
) {
  const taken = units.slice(0, cuts.at(-1))
  const total = taken.reduce((sum, { seconds }) => sum + seconds / 60, 0)
  const loads = taken.reduce((sum, { load }) => sum + load, 0)
  const takes = (index: number) => index < closedFrom(of) && (isOpen || index % 3 !== 2)
  const even = total / Math.max(1, classes.filter(({ index }) => takes(index)).length)
  let cost = 0
  let from = 0
  for (const [i, one] of classes.entries()) {
    const to = cuts[i] ?? from
    const own = units.slice(from, to)
    const known =
      before.seconds + units.slice(0, from).reduce((sum, { seconds }) => sum + seconds, 0)
    const run = before.run + units.slice(0, from).reduce((sum, unit) => sum + unit.run, 0)
    const review =
      Math.min(0.3 * one.seconds, known === 0 ? 0 : 120 + 0.09 * known) *
      (one.index % 3 === 2 ? 1.4 : 1)
    const seconds = own.reduce((sum, unit) => sum + unit.seconds, 0)
    const room = Math.max(0, one.seconds - one.fixed - review - (one.index < 3 ? run : 0))
    if (seconds > room + 1e-6) return Infinity
    if (own.some(({ id }) => (locks.get(id) ?? one.id) !== one.id)) return Infinity
    if (!takes(one.index)) {
      if (!own.every(({ id }) => locks.has(id))) return Infinity
    } else {
      const load = (own.reduce((sum, unit) => sum + unit.load, 0) * total) / Math.max(1e-9, loads)
      cost += (seconds / 60 - even) ** 2 + (load - even) ** 2
      cost += 9 * own.filter(({ id }) => last.has(id) && last.get(id) !== one.id).length
    }
    from = to
  }
  return cost
}

/** Every way to cut a list for some classes. */
function cutsOf(classes: number, to: number, from = 0): readonly (readonly number[])[] {
  if (classes === 1) return [[to]]
  return Array.from({ length: to - from + 1 }, (_, i) => from + i).flatMap((cut) =>
    cutsOf(classes - 1, to, cut).map((rest) => [cut, ...rest]),
  )
}

const cutsIn = (found: ReturnType<typeof spread>): readonly number[] => {
  let sum = 0
  return found.classes.map(({ units }) => (sum += units.length))
}

describe('a series spread over its classes', () => {
  it('is the cheapest of all ways there are', () => {
    holds(
      fc.property(anySpreading(4, 8), (one) => {
        const found = spread(one)
        const many = one.units.length - found.left.length
        const cheapest = (some: number, isOpen: boolean) =>
          Math.min(...cutsOf(one.classes.length, some).map((cuts) => costOf(one, cuts, isOpen)))
        // No longer start would have gone.
        for (let more = many + 1; more <= one.units.length; more++)
          expect(cheapest(more, true)).toBe(Infinity)
        const isAll = many === one.units.length
        const isOpen = !isAll || cheapest(many, false) === Infinity
        if (many > 0)
          expect(costOf(one, cutsIn(found), isOpen)).toBeCloseTo(cheapest(many, isOpen), 6)
      }),
      { numRuns: 400, seed: 71 },
    )
  })

  it('teaches each thing once, in order and in its time, or names it; nothing new at the end', () => {
    holds(
      fc.property(anySpreading(12, 33), (one) => {
        const found = spread(one)
        expect([...found.classes.flatMap(({ units }) => units), ...found.left]).toEqual(
          one.units.map(({ id }) => id),
        )
        const seconds = new Map(one.units.map((unit) => [unit.id, unit.seconds]))
        for (const [i, { id, units, room }] of found.classes.entries()) {
          const own = units.reduce((sum, unit) => sum + (seconds.get(unit) ?? 0), 0)
          expect(own).toBeLessThanOrEqual(room + 1e-6)
          const { index } = one.classes[i] ?? { index: 0 }
          if (index >= closedFrom(one.of))
            for (const unit of units) expect(one.locks.get(unit)).toBe(id)
          for (const unit of units) expect(one.locks.get(unit) ?? id).toBe(id)
        }
        expect(spread(one)).toEqual(found)
        // With itself as the last plan nothing moves.
        const last = new Map(
          found.classes.flatMap(({ id, units }) => units.map((unit) => [unit, id] as const)),
        )
        expect(spread({ ...one, last }).left).toEqual(found.left)
      }),
      { numRuns: 500, seed: 72 },
    )
  })

  it('never teaches later in longer classes, and moves nothing without news', () => {
    holds(
      fc.property(anySpreading(10, 24), fc.integer({ min: 1, max: 40 }), (one, more) => {
        const free = { ...one, locks: new Map<string, string>(), last: new Map<string, string>() }
        const found = spread(free)
        const longer = spread({
          ...free,
          classes: free.classes.map((each) => ({ ...each, seconds: each.seconds + 60 * more })),
        })
        expect(longer.left.length).toBeLessThanOrEqual(found.left.length)
        const last = new Map(
          found.classes.flatMap(({ id, units }) => units.map((unit) => [unit, id] as const)),
        )
        expect(cutsIn(spread({ ...free, last }))).toEqual(cutsIn(found))
      }),
      { numRuns: 300, seed: 73 },
    )
  })

  it('is there at once, for a year of classes', () => {
    const units = Array.from({ length: 80 }, (_, i) => ({
      id: `u${i}`,
      seconds: 300 + ((i * 37) % 400),
      load: 10 + (i % 7),
      run: 20,
    }))
    const classes = Array.from({ length: 40 }, (_, i) => ({
      id: `c${i}`,
      seconds: 3600,
      fixed: 1020,
      index: i,
    }))
    const begun = performance.now()
    const found = spread({
      units,
      classes,
      of: 40,
      before: { seconds: 0, run: 0 },
      locks: new Map(),
      last: new Map(),
    })
    expect(found.left).toEqual([])
    expect(performance.now() - begun).toBeLessThan(2000)
  })
})
