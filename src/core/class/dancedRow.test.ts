import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { classOn } from '../../../tests/teaching'
import { LAYERS } from '../body/layers'
import { ClassEntry } from '../diary/diary'
import { reachedIn } from '../diary/reached'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { layersIn, materialsOf } from '../plan/material'
import { dancedByHand } from './dancedRow'

describe('what is written down by hand', () => {
  it('is a row like those of the floor: stored, counted, and known of the phrases it names', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.option(fc.nat(2), { nil: undefined }),
        fc.option(fc.subarray([...LAYERS], { minLength: 1 }), { nil: undefined }),
        (combination, which, layers) => {
          const materials = materialsOf([combination], vocabulary, USUAL_HOUSE)
          const { passes = [], combination: read } = materials.find(combination.id)?.lead ?? {}
          const phrase =
            which === undefined ? undefined : read?.phrases[which % read.phrases.length]?.id
          const row = dancedByHand(
            { combination: combination.id, phrase, layers },
            'by hand',
            materials,
          )
          const wanted = passes.filter((pass) => phrase === undefined || pass.phrase.id === phrase)
          const there = layersIn(phrase === undefined ? wanted : wanted.slice(0, 1))
          const danced = there.filter((layer) => !layers || layers.includes(layer))
          if (!row) {
            expect(danced).toEqual([])
            return
          }
          expect(row.layers).toEqual(danced)
          expect(new Set(row.phrases.map(({ id }) => id))).toEqual(
            new Set(wanted.map((pass) => pass.phrase.id)),
          )
          const entry = classOn('2026-11-25', [row])
          expect(ClassEntry.parse(entry)).toEqual(entry)
          const reached = reachedIn([entry])
          expect(new Set(reached.map((one) => one.phrase))).toEqual(
            new Set(row.phrases.map(({ id }) => id)),
          )
          for (const { counts } of reached) expect(counts.R).toBe(counts.L)
        },
      ),
      { numRuns: 200, seed: 97 },
    )
  })

  it('is nothing where the combination is gone', () => {
    const none = materialsOf([], vocabulary, USUAL_HOUSE)
    expect(dancedByHand({ combination: 'gone' }, 'x', none)).toBeUndefined()
  })
})
