import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import type { Combination } from '../combination/combination'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { laidOn } from './edits'
import { factsOn } from './facts'
import { offersFor } from './offers'
import { countsFrom } from './room'
import { type Routine, readRoutine } from './routine'
import { sumsOf } from './sums'

describe('a combination laid on a song at its own tempo', () => {
  it('is offered ways that put it right, each tried: none brings a fault, all lose no count', () => {
    let offered = 0
    for (const [i, combination] of demo.entries()) {
      const counts = countsFrom(combination)
      const song = songOf(evenMs(3 * counts + 20, combination.tempo), [
        0,
        counts + 4,
        2 * counts + 8,
      ])
      const find = (id: string) => demo.find((one) => one.id === id)
      const other = demo[(i + 1) % demo.length] as Combination
      const routine = [
        [combination, 0],
        [other, counts + 4],
      ].reduce(
        (now, [one, at]) =>
          laidOn(now, song, one as Combination, { at: at as number, side: 'R', id: `p${at}` }),
        empty,
      )
      const factsOf = factsOn(song, find, vocabulary, USUAL_HOUSE)
      let ids = 0
      const around = {
        routine,
        song,
        find,
        factsOf,
        vocabulary,
        house: USUAL_HOUSE,
        newId: () => `new ${ids++}`,
      }
      const faults = (one: Routine) =>
        factsOf(one).filter(
          (fact) => fact.code === 'song.dance' && severityOf(fact.finding) === 'fault',
        ).length
      const before = faults(routine)
      for (const fact of factsOf(routine))
        for (const { routine: after, price } of offersFor(fact, around)) {
          offered++
          expect(price).toBeGreaterThan(0)
          expect(readRoutine(JSON.parse(JSON.stringify(after)))).toEqual(after)
          expect(faults(after)).toBeLessThanOrEqual(before)
          const { danced: laid, rest, left, counts: all } = sumsOf(after, song)
          expect(laid + rest + left).toBe(all)
          expect(
            factsOf(after).filter(({ code, at }) => code === fact.code && at === fact.at),
          ).toEqual([])
        }
    }
    expect(offered).toBeGreaterThan(20)
  })
})
