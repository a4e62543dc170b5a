import { describe, expect, it } from 'vitest'
import { countsAt, evenMs, songWith } from '../../../tests/songs'
import { Combination } from '../combination/combination'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { filledWith } from './edits'
import { factsOn } from './facts'
import { madeUp } from './madeUp'
import { emptyRoutine } from './routine'
import { sumsOf } from './sums'

describe('something made up for a quiet passage', () => {
  const songOf = (counts: number, tempo: number, phrase: number) =>
    songWith(countsAt(evenMs(counts + 8, tempo), { ones: [{ at: 0, counts: phrase }] }), {
      sections: [
        { id: 's', at: 0, label: 'Slow', kind: 'slow', energy: 1 },
        { id: 't', at: counts, label: 'Chorus', kind: 'chorus', energy: 5 },
      ],
    })

  it.each([
    [16, 48, 8],
    [16, 84, 8],
    [24, 66, 6],
    [8, 60, 4],
    [12, 72, 8],
  ])(
    'of %i counts at %i, phrases of %i: slow, smooth, without a fault, over standing feet',
    (counts, tempo, phrase) => {
      const song = songOf(counts, tempo, phrase)
      const sheets = new Set<string>()
      for (let seed = 0; seed < 4; seed++) {
        const made = madeUp({ song, at: 0, id: 'made', seed }, vocabulary, USUAL_HOUSE)
        if (!made) throw new Error('nothing was made up')
        expect(Combination.parse(JSON.parse(JSON.stringify(made)))).toEqual(made)
        const events = made.phrases.flatMap((one) => one.events)
        sheets.add(JSON.stringify(events.map(({ what }) => what)))
        for (const { layer, length, what } of events) {
          expect(layer).not.toBe('feet')
          expect(length).toBeGreaterThanOrEqual(24)
          const kind = what.kind === 'move' ? vocabulary.find(what.move)?.kind : 'place'
          expect(['place', 'path']).toContain(kind)
        }
        expect(
          checkCombination(made, vocabulary).findings.filter((one) =>
            ['fault', 'snag'].includes(severityOf(one)),
          ),
        ).toEqual([])
        // It fills the passage, and nothing is said of it there.
        let ids = 0
        const routine = filledWith(emptyRoutine('r', song), song, made, {
          at: 0,
          newId: () => `n${ids++}`,
        })
        expect(sumsOf(routine, song).danced).toBe(counts)
        const facts = factsOn(song, () => made, vocabulary, USUAL_HOUSE)(routine)
        expect(facts.filter(({ code }) => code === 'song.dance')).toEqual([])
      }
      expect(sheets.size).toBeGreaterThan(1)
    },
  )
})

describe('something made up for a section with a beat', () => {
  const chorus = (counts: number, tempo: number, phrase: number, energy: number) =>
    songWith(countsAt(evenMs(counts + 8, tempo), { ones: [{ at: 0, counts: phrase }] }), {
      family: 'latin',
      sections: [
        { id: 's', at: 0, label: 'Chorus', kind: 'chorus', energy },
        { id: 't', at: counts, label: 'End', kind: 'end', energy: 1 },
      ],
    })

  it.each([
    [32, 104, 8],
    [24, 96, 6],
    [8, 120, 8],
    [16, 90, 4],
  ])(
    'of %i counts at %i, phrases of %i: feet and more, clean, from both sides where there is room',
    (counts, tempo, phrase) => {
      const song = chorus(counts, tempo, phrase, 4)
      const feet = new Set<string>()
      for (let seed = 0; seed < 4; seed++) {
        const made = madeUp({ song, at: 0, id: 'made', seed }, vocabulary, USUAL_HOUSE)
        if (!made) throw new Error('nothing was made up')
        expect(Combination.parse(JSON.parse(JSON.stringify(made)))).toEqual(made)
        const events = made.phrases.flatMap((one) => one.events)
        expect(new Set(events.map(({ layer }) => layer)).size).toBeGreaterThan(1)
        const own = events.filter(({ layer }) => layer === 'feet')
        expect(own.length).toBeGreaterThan(0)
        feet.add(JSON.stringify(own.map(({ what }) => what)))
        expect(made.order.map(({ mirrored }) => mirrored)).toEqual(
          counts >= 2 * phrase ? [false, true] : [false],
        )
        const { findings } = checkCombination(made, vocabulary)
        expect(findings.filter((one) => ['fault', 'snag'].includes(severityOf(one)))).toEqual([])
      }
      expect(feet.size).toBeGreaterThan(1)
    },
  )

  it('is harder where the section is stronger', () => {
    const mean = (energy: number) => {
      const song = chorus(32, 104, 8, energy)
      const loads = [0, 1, 2, 3, 4, 5].flatMap((seed) => {
        const made = madeUp({ song, at: 0, id: 'made', seed }, vocabulary, USUAL_HOUSE)
        return made ? checkCombination(made, vocabulary).loads.map(({ total }) => total) : []
      })
      return loads.reduce((sum, load) => sum + load, 0) / loads.length
    }
    expect(mean(5)).toBeGreaterThan(mean(3))
  })
})
