import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { combination } from '../../../tests/write'
import type { Combination } from '../combination/combination'
import { phraseDanced } from '../combination/passes'
import { addPhrase } from '../edits/phrases'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { COUNT, tick } from '../time/time'
import { fillPhrase } from './fill'
import { gapsOf } from './gaps'
import { mendedIn } from './mend'
import { layersPut, withNewIds, withSome } from './taken'
import { wholePhrases } from './whole'

const eventsIn = ({ phrases }: Combination) => phrases.flatMap(({ events }) => events)

describe('a proposal that is taken', () => {
  const empty = combination([[]], { families: ['latin'] })
  const [made] = wholePhrases(empty, { pass: 0, seed: 1 }, vocabulary, USUAL_HOUSE)
  if (!made) throw new Error('nothing was made up')

  it('by half has what begins in that half, by its feet its feet, and all of what was there', () => {
    const all = eventsIn(made.combination)
    const half = withSome(empty, made.combination, ({ at }) => at < 4 * COUNT)
    expect(eventsIn(half)).toEqual(all.filter(({ at }) => at < 4 * COUNT))
    const onFeet = withSome(empty, made.combination, ({ layer }) => layer === 'feet')
    expect(new Set(eventsIn(onFeet).map(({ layer }) => layer))).toEqual(new Set(['feet']))
    expect(layersPut(empty, made.combination).size).toBeGreaterThan(1)
    // What stands there already is nobody's to leave out.
    expect(withSome(onFeet, made.combination, () => false)).toEqual(onFeet)
    expect(layersPut(made.combination, made.combination).size).toBe(0)
  })

  it('has ids nobody has, wherever it is put, and is otherwise the same', () => {
    holds(
      fc.property(anyCombination(), fc.nat(), (any, nth) => {
        const pass = nth % any.order.length
        let grown: Combination
        try {
          grown = addPhrase('answer 0', pass, 4)(any)
        } catch {
          return
        }
        let id = 0
        const own = withNewIds(any, grown, () => `new ${id++}`)
        expect(own.order.length).toBe(any.order.length + 1)
        expect(phraseDanced(own, pass + 1)?.id).toBe('new 0')
        expect({ ...phraseDanced(own, pass + 1), id: 'answer 0' }).toEqual(
          phraseDanced(grown, pass + 1),
        )
        expect(own.phrases.slice(0, -1)).toEqual(any.phrases)
        expect(withNewIds(grown, grown, () => 'never')).toEqual(grown)
      }),
      { numRuns: 60, seed: 931 },
    )
  })
})

describe('some counts of a layer', () => {
  it('are filled, and no others', () => {
    const within = { at: tick(4 * COUNT), length: tick(4 * COUNT) }
    const open = combination([[]], { families: ['belly'] })
    for (const layer of ['hips', 'torso', 'arms'] as const) {
      const ways = fillPhrase(open, { pass: 0, layer, seed: 2, within }, vocabulary, USUAL_HOUSE)
      expect(ways.length).toBe(5)
      for (const { combination: filled } of ways) {
        expect(eventsIn(filled).every(({ at }) => at >= within.at)).toBe(true)
        expect(gapsOf(filled, 0, layer, vocabulary, within)).toEqual([])
        expect(gapsOf(filled, 0, layer, vocabulary)).toEqual([
          { pass: 0, layer, at: 0, length: within.at },
        ])
      }
    }
  })
})

describe('steps danced otherwise', () => {
  const slip = demo.find(({ title }) => title === 'Find the Slip') as Combination
  const ids = slip.phrases.map(({ id }) => id)

  it('are the cheapest ones of the phrases that may change, in words', () => {
    const mended = mendedIn(slip, ids, 'faults', vocabulary, USUAL_HOUSE)
    expect(mended?.words).toBe('A6 touch L together')
    expect(mended?.combination.phrases.map(({ id }) => id)).toEqual(ids)
    // The slip is in A: B can't mend it, and where nothing is wrong nothing is changed.
    expect(mendedIn(slip, ids.slice(1), 'faults', vocabulary, USUAL_HOUSE)).toBeUndefined()
    const clean = mended?.combination as Combination
    expect(mendedIn(clean, ids, 'faults', vocabulary, USUAL_HOUSE)).toBeUndefined()
  })
})
