import { describe, expect, it } from 'vitest'
import { ORDINARY } from '../../../tests/ordinary'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import { otherSide } from '../body/side'
import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
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

const all = ORDINARY.map(
  (sheet, i): Combination => ({ ...readSheet(sheet, vocabulary).combination, id: `c${i}` }),
)

describe('a border where the foot does not fit', () => {
  it('is led over by a change that is danced there and nowhere else, nearly always', () => {
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
        const offers = offersFor(fault, around).filter(({ words }) => words.startsWith('Here only'))
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

  it('is led over in all places of a combination at once, which stays as good by itself', () => {
    let mended = 0
    for (const [i, first] of all.entries()) {
      const next = all[(i + 7) % all.length] as Combination
      const counts = countsFrom(first)
      const long = countsFrom(next)
      const song = songOf(evenMs(2 * (counts + long) + 2, first.tempo), [0, counts + long])
      const find = (id: string) => [first, next].find((one) => one.id === id)
      const factsOf = factsOn(song, find, vocabulary, USUAL_HOUSE)
      // The same border comes twice.
      const routine = [first, next, first, next].reduce(
        (now, each, nth) =>
          laidOn(now, song, each, {
            at: Math.floor(nth / 2) * (counts + long) + (nth % 2) * counts,
            side: nth % 2 === 0 ? each.lead : otherSide[each.lead],
            id: `p${nth}`,
          }),
        empty,
      )
      const fault = factsOf(routine).find(isFault)
      if (!fault) continue
      let id = 0
      const newId = () => `n${id++}`
      const around = { routine, song, find, factsOf, vocabulary, house: USUAL_HOUSE, newId }
      for (const { words, made, routine: after } of offersFor(fault, around)) {
        if (!made || !words.startsWith('In all its places')) continue
        mended++
        expect(words).toMatch(/^In all its places \(Verse \d·1, .*\), at Verse \d·\d: /)
        const now = factsOf(after, made)
        expect(now.filter(isFault).length).toBeLessThan(factsOf(routine).filter(isFault).length)
        const faults = (one: Combination) =>
          checkCombination(one, vocabulary).findings.filter((one) => severityOf(one) === 'fault')
        const [was] = [first, next].filter(({ title }) => made.title === `${title}, mended`)
        expect(faults(made).length).toBeLessThanOrEqual(faults(was as Combination).length)
        // One phrase is another, with the very same ids for all that stays.
        expect(made.phrases.filter((phrase) => !was?.phrases.includes(phrase))).toHaveLength(1)
        const ids = new Set(was?.phrases.flatMap(({ events }) => events.map((event) => event.id)))
        const events = made.phrases.flatMap((phrase) => phrase.events)
        expect(events.some((event) => ids.has(event.id))).toBe(true)
        expect(sumsOf(after, song)).toEqual(sumsOf(routine, song))
      }
    }
    expect(mended).toBeGreaterThan(10)
  })
})
