import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import type { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { danced } from '../simulate/danced'
import { dancedTo, foundIn } from './danced'
import { laidOn, lengthened } from './edits'
import { fitOf } from './fit'
import { laidOut } from './laid'
import { countsFrom } from './room'
import { songFactText } from './words'

describe('a combination laid on a song at its own tempo', () => {
  const repeating = demo.filter((one) => checkCombination(one, vocabulary).joins.repeats)

  it('has nothing to say of the demo that follows itself well, and is danced as it is by itself', () => {
    expect(repeating.length).toBeGreaterThan(2)
    for (const combination of repeating) {
      const counts = countsFrom(combination)
      const song = songOf(evenMs(2 * counts, combination.tempo), [0])
      const { lead } = combination
      const once = laidOn(empty, song, combination, { at: 0, side: lead, id: 'p' })
      const routine = lengthened(once, song, 'p', counts)
      const laid = laidOut(routine, song, () => combination)
      const dance = dancedTo(laid, song, vocabulary, USUAL_HOUSE)
      const own = checkCombination(combination, vocabulary).findings
      const found = foundIn(dance, laid, () => own)
      expect(
        found.map((fact) => songFactText(fact, song)),
        combination.title,
      ).toEqual([])
      expect(fitOf(routine, song, laid)).toEqual([])
      const alone = danced(combination, vocabulary, USUAL_HOUSE)
      expect(dance.lead.danced.slice(0, alone.lead.danced.length).map(({ at }) => at)).toEqual(
        alone.lead.danced.map(({ at }) => at),
      )
      expect(dance.lead.slices[alone.lead.slices.length - 1]?.exit.weight).toBe(
        alone.lead.end.weight,
      )
    }
  })

  it('says where it is cut, what is left, and where its foot does not fit', () => {
    const other = demo.find((one) => !checkCombination(one, vocabulary).joins.repeats)
    if (!other) throw new Error('every combination repeats')
    const counts = countsFrom(other)
    const song = songOf(evenMs(2 * counts + 12, other.tempo), [0, 2 * counts + 4])
    const two = lengthened(
      laidOn(empty, song, other, { at: 0, side: other.lead, id: 'p' }),
      song,
      'p',
      counts - 2,
    )
    const laid = laidOut(two, song, () => other)
    const facts = fitOf(two, song, laid).map((fact) => songFactText(fact, song))
    expect(facts).toContainEqual(
      expect.stringMatching(/^Only \d+ of \d+ counts of its last phrase/),
    )
    expect(facts).toContainEqual(expect.stringMatching(/goes on for 14 counts/))
    const dance = dancedTo(laid, song, vocabulary, USUAL_HOUSE)
    const own = checkCombination(other, vocabulary).findings
    const found = foundIn(dance, laid, () => own)
    expect(found.some(({ at }) => at >= counts && at < counts + 4)).toBe(true)
  })

  it('is too fast only in the passage that is', () => {
    const quick = demo.find((one) => one.title === 'Quick Ember') ?? (demo[0] as Combination)
    const counts = countsFrom(quick)
    const slow = evenMs(counts, quick.tempo)
    const last = slow.at(-1) as number
    // The second half goes twice as fast.
    const ms = [
      ...slow,
      ...Array.from(
        { length: counts },
        (_, i) => last + Math.round(((i + 1) * 30_000) / quick.tempo),
      ),
    ]
    const song = songOf(ms, [0, counts])
    const routine = [0, counts].reduce(
      (now, at) => laidOn(now, song, quick, { at, side: quick.lead, id: `p${at}` }),
      empty,
    )
    const laid = laidOut(routine, song, () => quick)
    const own = checkCombination(quick, vocabulary).findings
    const found = foundIn(dancedTo(laid, song, vocabulary, USUAL_HOUSE), laid, () => own)
    const quickOnes = found.filter(
      (fact) => fact.code === 'song.dance' && fact.finding.code !== 'join.foot',
    )
    expect(quickOnes.some(({ at }) => at >= counts)).toBe(true)
    expect(quickOnes.filter(({ at }) => at < counts - 1)).toEqual([])
  })
})
