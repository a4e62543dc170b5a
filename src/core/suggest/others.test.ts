import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { combination } from '../../../tests/write'
import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readCombination } from '../sheet/swayJson'
import { answersTo } from './answer'
import { endsAsAsked, type PassWish } from './asked'
import { mixesOf } from './mix'
import { newFindings } from './suggest'
import { withNewIds } from './taken'
import type { Variation } from './vary'

const end = fc.constantFrom(undefined, 'switch' as const, 'repeat' as const)

/** Each can be kept, ends as asked, brings nothing of a severity, and leaves the phrases alone that were there. */
function expectGood(
  before: Combination,
  ways: readonly Variation[],
  wish: PassWish,
  { mild, changes }: { readonly mild: readonly string[]; readonly changes: boolean },
) {
  const checked = checkCombination(before, vocabulary)
  for (const { combination: made, words } of ways) {
    expect(words.length).toBeGreaterThan(3)
    const after = checkCombination(made, vocabulary)
    const fresh = newFindings(checked, after).filter((one) => !mild.includes(severityOf(one)))
    expect(fresh, words).toEqual([])
    expect(endsAsAsked(after, wish)).toBe(true)
    expect(made.order.length).toBeGreaterThanOrEqual(before.order.length)
    if (!changes) expect(before.phrases.every((phrase) => made.phrases.includes(phrase))).toBe(true)
    let id = 0
    const own = withNewIds(before, made, () => `new ${id++}`)
    expect(readCombination(JSON.parse(JSON.stringify(own)))).toEqual(own)
    const ids = own.phrases.flatMap((phrase) => phrase.events.map((event) => event.id))
    expect(new Set(ids).size).toBe(ids.length)
  }
  expect(new Set(ways.map(({ words }) => words)).size).toBe(ways.length)
}

describe('answers to a phrase', () => {
  it('stand behind it, clean, ending as asked, whatever the combination', () => {
    holds(
      fc.property(anyCombination(), fc.nat(), end, (any, nth, wanted) => {
        const wish = { pass: nth % any.order.length, seed: 1 + (nth % 50), end: wanted }
        const { ways, inTheWay } = answersTo(any, wish, vocabulary, USUAL_HOUSE)
        if (inTheWay) expect(ways).toEqual([])
        expectGood(any, ways, wish, { mild: ['note'], changes: false })
        for (const { combination: made } of ways)
          expect(made.order.length).toBe(any.order.length + 1)
      }),
      { numRuns: 30, seed: 921 },
    )
  })

  it('share a half or the feet with what they answer, and go on in their own way', () => {
    const swell = demo.find(({ title }) => title === 'Long Swell') as Combination
    const { ways } = answersTo(swell, { pass: 1, seed: 1 }, vocabulary, USUAL_HOUSE)
    expect(ways.map(({ words }) => words)).toEqual([
      'the same from the other side',
      'the same beginning, another ending',
      'its beginning from the other side, another ending',
      'another beginning, the same ending',
      'the same feet under something else',
      'its feet from the other side under something else',
    ])
    const half = (swell.phrases.find(({ id }) => id === swell.order[1]?.phrase)?.counts ?? 0) * 6
    const of = (one: Combination, pass: number) =>
      one.phrases.find(({ id }) => id === one.order[pass]?.phrase)?.events ?? []
    const first = (events: ReturnType<typeof of>) =>
      events.filter(({ at }) => at < half).map(({ id: _, ...event }) => event)
    const again = ways[1]?.combination as Combination
    expect(first(of(again, 2))).toEqual(first(of(again, 1)))
    expect(of(again, 2).length).toBeGreaterThan(first(of(again, 2)).length)
  })
})

describe('phrases of the shelf', () => {
  it('are joined without a fault or a snag, ending as asked, wherever they come from', () => {
    const mixed: number[] = []
    holds(
      fc.property(
        anyCombination(),
        fc.array(anyCombination(), { minLength: 1, maxLength: 3 }),
        fc.nat(),
        end,
        (any, others, nth, wanted) => {
          const shelf = [...others.map((one, i) => ({ ...one, id: `other ${i}` })), ...demo]
          const wish = { pass: nth % any.order.length, seed: 1 + (nth % 50), end: wanted }
          const ways = mixesOf(any, wish, shelf, vocabulary, USUAL_HOUSE)
          expectGood(any, ways, wish, { mild: ['note', 'care'], changes: true })
          mixed.push(ways.length)
        },
      ),
      { numRuns: 20, seed: 922 },
    )
    expect(Math.max(...mixed)).toBeGreaterThan(1)
  })

  it('fill an empty phrase by two or three of them, of its own family, joined by what fits', () => {
    for (const family of ['belly', 'latin']) {
      const empty = combination([[]], { families: [family], id: 'empty' })
      const ways = mixesOf(
        empty,
        { pass: 0, seed: 1, end: 'switch' },
        demo,
        vocabulary,
        USUAL_HOUSE,
      )
      expect(ways.length).toBe(5)
      const own = demo.filter(({ families }) => families.includes(family))
      for (const { combination: made, words } of ways) {
        expect(made.phrases.length).toBeGreaterThan(1)
        const from = [...words.matchAll(/“([^”]+)”/g)].map(([, title]) => title)
        expect(own.map(({ title }) => title)).toEqual(expect.arrayContaining(from))
        expect(checkCombination(made, vocabulary).findings.map(severityOf)).not.toContain('fault')
      }
    }
  })

  it('that can’t be danced here are left on the shelf', () => {
    const empty = combination([[]], { id: 'empty', tempo: 60 })
    const tooFast = demo.filter(({ tempo }) => tempo > 80)
    expect(tooFast.length).toBeGreaterThan(2)
    expect(mixesOf(empty, { pass: 0, seed: 1 }, tooFast, vocabulary, USUAL_HOUSE)).toEqual([])
  })
})
