import { dequal } from 'dequal'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import type { Layer } from '../body/layers'
import type { Combination, Event } from '../combination/combination'
import { dancedIn, ownLengthOf } from '../combination/lengths'
import { mirrorEvent, mirrorWhat } from '../combination/mirror'
import { whatOf } from '../combination/whatOf'
import { placeEvent } from '../edits/edits'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { COUNT } from '../time/time'
import { type Asked, asAsked, endsAsAsked, type FillWish } from './asked'
import { fillPhrase } from './fill'
import { gapsOf } from './gaps'
import { inTheWayOf } from './inTheWay'
import { isMaterial, STEADY } from './material'
import { returns, shapesOf, withoutSides } from './shapes'
import { newFindings } from './suggest'

const cleared = (combination: Combination, pass: number, layer: Layer): Combination => {
  const id = combination.order[pass]?.phrase
  return {
    ...combination,
    phrases: combination.phrases.map((phrase) =>
      phrase.id === id
        ? { ...phrase, events: phrase.events.filter((event) => event.layer !== layer) }
        : phrase,
    ),
  }
}

/** What is danced on each count of a layer, by name. */
const countByCount = (combination: Combination, pass: number, layer: Layer): readonly string[] => {
  const phrase = combination.phrases.find(({ id }) => id === combination.order[pass]?.phrase)
  if (!phrase) return []
  const events = dancedIn(phrase, vocabulary).filter((event) => event.layer === layer)
  return Array.from({ length: phrase.counts }, (_, i) => {
    const at = i * COUNT
    const event = events.find((one) => one.at <= at && at < one.at + one.length)
    return event ? `${JSON.stringify(event.what)} ${at - event.at}` : ''
  })
}

/** Whether any single move of a layer could begin where something is empty, each tried on both sides: slow and plain. */
function anyMoveStands(before: Combination, pass: number, layer: Layer): boolean {
  const checked = checkCombination(before, vocabulary)
  const phrase = before.order[pass]?.phrase ?? ''
  const isMirrored = before.order[pass]?.mirrored ?? false
  const own = vocabulary.moves.filter((move) => move.layer === layer).map(whatOf)
  return gapsOf(before, pass, layer, vocabulary).some(({ at, length }) =>
    own
      .filter((what) => isMaterial(layer, what, before.families, vocabulary))
      .flatMap((what) => [what, mirrorWhat(what)])
      .some((what) => {
        const event: Event = { id: 'tried', layer, at, what }
        if (ownLengthOf(event, vocabulary) > length) return false
        const made = placeEvent(phrase, isMirrored ? mirrorEvent(event) : event)(before)
        return newFindings(checked, checkCombination(made, vocabulary)).every(
          (one) => severityOf(one) === 'note',
        )
      }),
  )
}

/** What a group has danced: some of all there is. */
const known = fc.subarray([
  ...vocabulary.moves.map(({ layer, id }) => `${layer} ${id}`),
  ...['step side', 'step forward', 'step in-place', 'touch together', 'close'].map(
    (one) => `feet ${one}`,
  ),
])

const asked: fc.Arbitrary<Asked> = fc.record(
  {
    seed: fc.integer({ min: 1, max: 9999 }),
    end: fc.constantFrom('switch', 'repeat'),
    tempo: fc.integer({ min: 60, max: 150 }),
    level: fc.constantFrom('new', 'improver', 'intermediate', 'advanced'),
    group: fc.record({ known, news: fc.constantFrom(0, 1) }),
  },
  { requiredKeys: ['seed'] },
)

describe('a phrase filled on one layer', () => {
  const seen = { ways: 0, returning: 0, ofFigures: 0, onFeet: 0, single: 0, empty: 0 }
  const took: number[] = []

  it('is whole, clean, as asked for, composed, and differs from the others', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.constantFrom<Layer>('feet', 'hips', 'torso', 'arms', 'head'),
        fc.nat(),
        asked,
        (any, layer, nth, meant) => {
          const pass = nth % any.order.length
          const before = cleared(any, pass, layer)
          const wish = { ...meant, pass, layer }
          const since = performance.now()
          const ways = fillPhrase(before, wish, vocabulary, USUAL_HOUSE)
          took.push(performance.now() - since)
          if (meant.seed % 8 === 0)
            expect(fillPhrase(before, wish, vocabulary, USUAL_HOUSE)).toEqual(ways)
          if (ways.length === 0) {
            seen.empty++
            // Nothing but the place was asked for: then nothing at all can begin there.
            if (Object.keys(meant).length === 1)
              expect(anyMoveStands(before, pass, layer)).toBe(false)
          }
          const at = (one: Combination) => asAsked(one, meant)
          const checked = checkCombination(at(before), vocabulary)
          const counts =
            before.phrases.find(({ id }) => id === before.order[pass]?.phrase)?.counts ?? 0
          for (const { combination, names, things, isWhole, ...way } of ways) {
            const after = checkCombination(at(combination), vocabulary)
            expect(newFindings(checked, after).filter((one) => severityOf(one) !== 'note')).toEqual(
              [],
            )
            expect([combination.tempo, combination.level]).toEqual([before.tempo, before.level])
            if (meant.group) {
              const news = new Set(things.filter((key) => !meant.group?.known.includes(key)))
              expect(news.size).toBe(meant.group.news)
            }
            if (!isWhole) {
              seen.single++
              continue
            }
            expect(gapsOf(combination, pass, layer, vocabulary)).toEqual([])
            expect(endsAsAsked(after, meant)).toBe(true)
            expect(way.reason).toContain(names.at(-1))
            // In less than four counts hardly anything can come back.
            if (counts < 4) continue
            seen.ways++
            if (way.returns) seen.returning++
            if (layer !== 'feet') continue
            seen.onFeet++
            const phrase = combination.phrases.find(
              ({ id }) => id === combination.order[pass]?.phrase,
            )
            const steps = (phrase?.events ?? []).filter((event) => event.layer === 'feet')
            const single = steps.filter((event) => event.what.kind === 'foot')
            if (single.length * 2 <= names.length) seen.ofFigures++
            // The same three times in a row on the same foot is no phrase, but for what goes on and on.
            for (const [i, { what }] of steps.entries())
              if (what.kind === 'move' && !STEADY.has(what.move))
                expect(
                  [1, 2].every((by) => dequal(steps[i + by]?.what, what)),
                  way.reason,
                ).toBe(false)
          }
          for (const [i, one] of ways.entries())
            for (const other of ways.slice(i + 1)) {
              if (!one.isWhole || !other.isWhole) continue
              const [a, b] = [one, other].map((way) => countByCount(way.combination, pass, layer))
              const same = (a ?? []).filter((what, k) => what === b?.[k]).length
              expect(same * 2).toBeLessThanOrEqual((a ?? []).length)
            }
        },
      ),
      { numRuns: 150, seed: 911 },
    )
  })

  it('mostly has a motif that comes back, and feet made of figures', () => {
    expect(seen.ways).toBeGreaterThan(8)
    expect(seen.returning / seen.ways).toBeGreaterThanOrEqual(0.8)
    if (seen.onFeet > 10) expect(seen.ofFigures / seen.onFeet).toBeGreaterThanOrEqual(0.9)
    took.sort((a, b) => a - b)
    const ms = (share: number) => took[Math.floor(share * (took.length - 1))]?.toFixed(0)
    console.log(
      `${took.length} contexts: ${seen.ways} ways to fill, ${seen.returning} with a motif that comes back, ${seen.ofFigures} of ${seen.onFeet} on the feet of figures; ${seen.single} single moves, ${seen.empty} times nothing; half within ${ms(0.5)} ms, nine of ten within ${ms(0.9)}, all within ${ms(1)}`,
    )
  })
})

describe('where nothing clean is found', () => {
  const filled = (sheet: string) =>
    readSheet(`sway 1\ntempo 96\nphrase A 8\n feet 1 step; 2 step\n${sheet}`, vocabulary)
      .combination
  const why = (combination: Combination, wish: Partial<FillWish> & Pick<FillWish, 'layer'>) => {
    const asked = { pass: 0, seed: 1, ...wish }
    expect(fillPhrase(combination, asked, vocabulary, USUAL_HOUSE)).toEqual([])
    return inTheWayOf(combination, asked, vocabulary, USUAL_HOUSE)
  }

  it.each([
    [' hips 1-8 hip-circle-large', 'hips', /^No count of it is free: the hips are full\./],
    [' arms 1-8 both crown', 'arms', /^The arms are held through A8 .*: free 7-8, or keep them\.$/],
    [' torso 1-8 shoulder-shimmy', 'torso', /^The torso is held through A8 .*or keep it\.$/],
  ] as const)('says why, and what could be freed: %s', (sheet, layer, said) => {
    const before = filled(sheet)
    const { text, nearest } = why(before, { layer })
    expect(text).toMatch(said)
    if (!nearest) return
    const [held] = before.phrases[0]?.events.filter((event) => event.layer === layer) ?? []
    const now = nearest.combination.phrases[0]?.events.filter((event) => event.layer === layer)
    expect(now?.[0]).toEqual({ ...held, length: 6 * COUNT })
    expect(now?.slice(1).every(({ at }) => at >= 6 * COUNT)).toBe(true)
    expect(now?.length).toBeGreaterThan(1)
  })

  it('names what most moves run into, and offers the one with least', () => {
    const rules = [{ kind: 'stays', layer: 'hips' }] as const
    const kept = { ...filled(''), rules }
    const { text, nearest } = why(kept, { layer: 'hips' })
    expect(text).toMatch(/^Most moves there run into this: Your own rule is “hips stays”/)
    expect(nearest?.words).toMatch(/, with this: /)
  })

  it('says that what was asked for besides is in the way, with what goes without it', () => {
    const before = filled('')
    const nobody = why(before, { layer: 'hips', group: { known: [], news: 0 } })
    expect(nobody.text).toMatch(/its diary is empty/)
    expect(nobody.nearest?.combination.phrases[0]?.events.length).toBeGreaterThan(2)
    const strangers = { known: ['hips no-such-move'], news: 0 as const }
    expect(why(before, { layer: 'hips', group: strangers }).text).toMatch(/^Nothing of what/)
  })
})

describe('the shapes of a stretch', () => {
  it('are as long as it is, whatever it is, and say so without sides too', () => {
    for (let counts = 1; counts <= 16; counts++) {
      const shapes = shapesOf(counts)
      expect(shapes.length).toBeGreaterThan(0)
      for (const shape of shapes) {
        expect(shape.slots.reduce((sum, one) => sum + one.counts, 0)).toBe(counts)
        const isTurned = shape.slots.some(({ other }) => other)
        if (isTurned && returns(shape))
          expect(withoutSides(shape.words)).not.toMatch(/other side|side to side|both sides/)
      }
      expect(shapes.some(returns) || counts === 1).toBe(true)
    }
  })
})
