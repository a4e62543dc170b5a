import { describe, expect, it } from 'vitest'
import { ORDINARY } from '../../../tests/ordinary'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import { otherSide } from '../body/side'
import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { danced } from '../simulate/danced'
import { TICKS_PER_COUNT } from '../time/time'
import { dancedTo } from './danced'
import { laidOn, restedOn } from './edits'
import { factsOn } from './facts'
import type { SongFact } from './fit'
import { laidOut } from './laid'
import { offersFor } from './offers'
import { countsFrom } from './room'
import { sumsOf } from './sums'
import { songFactText } from './words'

describe('ordinary combinations laid on a song at their tempo', () => {
  const ordinary = ORDINARY.map((sheet) => readSheet(sheet, vocabulary).combination)

  it('have nothing said of them as they follow themselves but where they leave the room', () => {
    let pickups = 0
    for (const combination of ordinary) {
      const counts = countsFrom(combination)
      // An eight leads in, for what is danced before 1.
      const song = songOf(evenMs(8 + 2 * counts, combination.tempo), [0], 8)
      const { lead } = combination
      const side = checkCombination(combination, vocabulary).joins.repeats ? lead : otherSide[lead]
      const twiceLaid = [lead, side].reduce(
        (now, each, i) =>
          laidOn(now, song, combination, { at: 8 + i * counts, side: each, id: `p${i}` }),
        empty,
      )
      const { passes } = laidOut(twiceLaid, song, () => combination)
      expect(passes[0]?.isPickup).toBe(combination.pickup && true)
      pickups += combination.pickup ? 1 : 0
      const facts = factsOn(song, () => combination, vocabulary, USUAL_HOUSE)(twiceLaid)
      const travels = (fact: SongFact) =>
        fact.code === 'song.dance' && fact.finding.code === 'space.room'
      expect(
        facts.filter((fact) => !travels(fact)).map((fact) => songFactText(fact, song)),
        combination.title,
      ).toEqual([])
    }
    expect(pickups).toBeGreaterThan(1)
  })

  it('have their pickup danced in the counts of a rest before them, and said where there is none', () => {
    const combination = ordinary.find(({ pickup }) => pickup) as Combination
    const early = combination.pickup?.counts ?? 0
    const counts = countsFrom(combination)
    const song = songOf(evenMs(8 + counts, combination.tempo), [0])
    const factsOf = factsOn(song, () => combination, vocabulary, USUAL_HOUSE)
    const laidAt = (at: number) =>
      laidOn(empty, song, combination, { at, side: combination.lead, id: 'p' })
    const rested = restedOn(laidAt(8), song, { at: 0, counts: 8, how: 'pose', id: 'r' })
    for (const routine of [laidAt(8), rested]) {
      const laid = laidOut(routine, song, () => combination)
      const [lead] = laid.passes.filter(({ isPickup }) => isPickup)
      expect([lead?.at, lead?.counts]).toEqual([8 - early, early])
      const own = danced(combination, vocabulary, USUAL_HOUSE).lead.danced
      const { lead: whole } = dancedTo(laid, song, vocabulary, USUAL_HOUSE)
      const at8 = TICKS_PER_COUNT * 8
      expect(whole.danced.filter(({ at }) => at < at8 + 24).map(({ at }) => at - at8)).toEqual(
        own.filter(({ at }) => at < 24).map(({ at }) => Number(at)),
      )
      expect(sumsOf(routine, song).rest).toBe(routine === rested ? 8 : 0)
    }
    const [fact] = factsOf(laidAt(0))
    expect(fact && songFactText(fact, song)).toMatch(/pickup of \d+ counts? has no time/)
    let ids = 0
    const around = {
      routine: laidAt(0),
      song,
      find: () => combination,
      factsOf,
      vocabulary,
      house: USUAL_HOUSE,
    }
    const offers = fact && offersFor(fact, { ...around, newId: () => `n${ids++}` })
    expect(offers?.map(({ words }) => words)).toEqual([expect.stringMatching(/^Begin it/)])
  })
})
