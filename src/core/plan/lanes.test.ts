import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { ORDINARY } from '../../../tests/ordinary'
import { levelForm } from '../forms/levels'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { danced } from '../simulate/danced'
import { stateBefore } from '../simulate/simulate'
import { endOf } from '../time/time'
import { lanesOf } from './lanes'

const all = [...demo, ...ORDINARY.map((sheet) => readSheet(sheet, vocabulary).combination)]

describe('lanes of a class of mixed levels', () => {
  it('begin and end on the foot and the wall of what is written, so that each round can choose', () => {
    let lanes = 0
    holds(
      fc.property(fc.constantFrom(...all), (one) => {
        const [plain, more] = (['new', 'advanced'] as const).map((level) =>
          levelForm(one, level, vocabulary, USUAL_HOUSE),
        )
        if (!plain || !more) throw new Error('no form')
        const found = lanesOf(one, plain, more, vocabulary, USUAL_HOUSE)
        const written = danced(one, vocabulary, USUAL_HOUSE).lead
        for (const [phrase, { plain: less, more: harder }] of found) {
          expect(less.length + harder.length).toBeGreaterThan(0)
          lanes++
          for (const [lines, form] of [
            [less, plain],
            [harder, more],
          ] as const) {
            if (lines.length === 0) continue
            const other = danced(form.combination, vocabulary, USUAL_HOUSE).lead
            for (const pass of written.passes.filter((own) => own.phrase.id === phrase))
              for (const tick of [pass.at, endOf(pass)]) {
                const [a, b] = [stateBefore(written, tick), stateBefore(other, tick)]
                expect([b.weight, b.facing]).toEqual([a.weight, a.facing])
              }
          }
        }
        // The same level twice has nothing to choose from.
        const same = levelForm(one, one.level ?? 'intermediate', vocabulary, USUAL_HOUSE)
        if (same.swaps.length === 0)
          expect(lanesOf(one, same, same, vocabulary, USUAL_HOUSE).size).toBe(0)
      }),
      { numRuns: 200, seed: 120 },
    )
    expect(lanes).toBeGreaterThan(0)
  })
})
