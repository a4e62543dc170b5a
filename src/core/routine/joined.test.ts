import { describe, expect, it } from 'vitest'
import { ORDINARY } from '../../../tests/ordinary'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import type { Combination } from '../combination/combination'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { laidOn } from './edits'
import { factsOn } from './facts'
import type { SongFact } from './fit'
import { offersFor } from './offers'
import { countsFrom } from './room'
import { sumsOf } from './sums'

const isFault = (fact: SongFact) =>
  fact.code === 'song.dance' && severityOf(fact.finding) === 'fault'

describe('a border where the foot does not fit', () => {
  it('is led over by a change that is danced there and nowhere else, nearly always', () => {
    const all = ORDINARY.map(
      (sheet, i): Combination => ({ ...readSheet(sheet, vocabulary).combination, id: `c${i}` }),
    )
    let borders = 0
    let joined = 0
    for (const [i, first] of all.entries()) {
      const next = all[(i + 7) % all.length] as Combination
      const counts = countsFrom(first)
      const song = songOf(evenMs(counts + countsFrom(next) + 2, first.tempo), [0])
      const find = (id: string) => [first, next].find((one) => one.id === id)
      const factsOf = factsOn(song, find, vocabulary, USUAL_HOUSE)
      for (const side of ['R', 'L'] as const) {
        const begun = laidOn(empty, song, first, { at: 0, side: 'R', id: 'first' })
        const routine = laidOn(begun, song, next, { at: counts, side, id: 'next' })
        const fault = factsOf(routine).find(isFault)
        if (!fault) continue
        borders++
        let id = 0
        const newId = () => `n${id++}`
        const around = { routine, song, find, factsOf, vocabulary, house: USUAL_HOUSE, newId }
        const offers = offersFor(fault, around).filter(({ made }) => made)
        if (offers.length > 0) joined++
        for (const { words, made, routine: after } of offers) {
          expect(words).toMatch(/^Here only, at Verse \d·\d: /)
          expect(factsOf(after, made).some((one) => isFault(one) && one.at === fault.at)).toBe(
            false,
          )
          const changed = after.pieces.filter(
            ({ what }) => what.kind === 'dance' && what.combination === made?.id,
          )
          // One phrase of one piece is another; all else lies where it lay.
          expect(changed).toHaveLength(1)
          expect(sumsOf(after, song)).toEqual(sumsOf(routine, song))
          const untouched = after.pieces.filter((piece) => routine.pieces.includes(piece))
          expect(untouched).toHaveLength(1)
        }
      }
    }
    expect(borders).toBeGreaterThan(30)
    expect(joined / borders).toBeGreaterThan(0.9)
  })
})
