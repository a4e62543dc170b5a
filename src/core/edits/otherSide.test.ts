import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { combination, feet } from '../../../tests/write'
import { Combination, type OneSide } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { checkCombination } from '../findings/check'
import { vocabulary } from '../moves/vocabulary'
import { simulate } from '../simulate/simulate'
import { tick } from '../time/time'
import { otherSideWritten } from './otherSide'

const dancedIn = (one: OneSide) => {
  const { danced, end, length } = simulate(one, vocabulary)
  return {
    end,
    length,
    danced: danced.map(({ at, pass, action, after, fault }) => [
      at,
      pass.index,
      action,
      after,
      fault,
    ]),
  }
}

/** Repeated phrases and repeated mirror images too; all turns kept. */
const anyKept = anyCombination()
  .filter(({ pickup }) => !pickup?.each)
  .map((one): Combination => ({ ...one, keepTurns: true }))

describe('the other side, written out', () => {
  it('is danced as the other side is, whatever is kept, and can be stored', () => {
    holds(
      fc.property(fc.oneof(anyCombination(), anyKept), (one) => {
        fc.pre(!(one.pickup?.each && one.keepTurns))
        const written = otherSideWritten(one, vocabulary)
        expect(Combination.parse(written)).toEqual(written)
        expect(dancedIn(written)).toEqual(dancedIn(mirror(one)))
        const names = written.phrases.map(({ name }) => name)
        expect(new Set(names).size).toBe(names.length)
        const ids = written.phrases.flatMap(({ id, events }) => [id, ...events.map((e) => e.id)])
        expect(new Set(ids).size).toBe(ids.length)
      }),
      { numRuns: 600, seed: 91 },
    )
  })

  it('without kept turns is the mirror, and the other side of that the first again', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (one) => {
        const written = otherSideWritten(one, vocabulary)
        expect(written).toEqual(mirror(one))
        expect(otherSideWritten(written, vocabulary)).toEqual(one)
      }),
      { numRuns: 100, seed: 92 },
    )
  })

  it('says the facings it turns to, and gives a phrase that goes another way the second time a name', () => {
    const quarter = combination(
      [feet('1 step R side; 3 close L'), feet('1 step R in-place turn 90; 3 close L')],
      { keepTurns: true },
    )
    const [a, b] = quarter.phrases
    if (!a || !b) throw new Error('two phrases')
    const one: Combination = {
      ...quarter,
      phrases: [a, { ...b, facings: [{ at: tick(12), degrees: 90 }] }],
      order: [a, b, a].map(({ id }) => ({ phrase: id, mirrored: false })),
    }
    const written = otherSideWritten(one, vocabulary)
    expect(written.phrases.map(({ name }) => name)).toEqual(['A', 'B', 'A2'])
    const directions = written.phrases.map(({ events }) =>
      events.map(({ what }) => what.kind === 'foot' && what.action.direction),
    )
    // After the quarter turn that stays, what was to the left is in front: the same way over the floor.
    expect(directions[0]?.[0]).toBe('side')
    expect(directions[2]?.[0]).not.toBe('side')
    const wrong = checkCombination(written, vocabulary).findings.filter(
      ({ code }) => code === 'turn.sum',
    )
    expect(wrong).toEqual([])
  })
})
