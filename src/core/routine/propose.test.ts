import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import type { Combination } from '../combination/combination'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { laidOn } from './edits'
import { factsOn } from './facts'
import { proposalsFor } from './propose'
import { readRoutine } from './routine'
import { sumsOf } from './sums'

describe('a combination laid on a song at its own tempo', () => {
  it('covers a song as it is proposed: no fault, what was laid stays, equal sections alike', () => {
    const find = (id: string) => demo.find((one) => one.id === id)
    const chosen = demo.filter(({ title }) => /Copper|Saffron|Swell/.test(title))
    const parts = [
      ['intro', 16, 1],
      ['verse', 32, 2],
      ['chorus', 32, 5],
      ['verse', 36, 2],
      ['chorus', 32, 5],
      ['break', 16, 1],
      ['chorus', 32, 5],
    ] as const
    let at = 0
    const sections = parts.map(([kind, counts, energy], i) => {
      const section = { id: `s${i}`, at, label: kind, kind, energy }
      at += counts
      const like = parts.findIndex(([other]) => other === kind)
      return like < i ? { ...section, as: `s${like}` } : section
    })
    const song = { ...songOf(evenMs(at, 96), [0]), sections }
    const first = laidOn(empty, song, chosen[0] as Combination, { at: 0, side: 'R', id: 'mine' })
    const factsOf = factsOn(song, find, vocabulary, USUAL_HOUSE)
    let ids = 0
    const begun = performance.now()
    const proposed = proposalsFor({
      routine: first,
      song,
      combinations: chosen,
      factsOf,
      vocabulary,
      house: USUAL_HOUSE,
      newId: () => `new ${ids++}`,
    })
    const took = performance.now() - begun
    expect(took).toBeLessThan(20_000)
    expect(proposed.length).toBeGreaterThan(0)
    expect(
      new Set(proposed.map(({ routine }) => JSON.stringify(routine.pieces.map(({ what }) => what))))
        .size,
    ).toBe(proposed.length)
    for (const { routine, cost, words } of proposed) {
      expect(readRoutine(JSON.parse(JSON.stringify(routine)))).toEqual(routine)
      expect(cost).toBeGreaterThanOrEqual(proposed[0]?.cost ?? 0)
      expect(words).toMatch(/^all covered, sides \d+ and \d+/)
      expect(routine.pieces.find(({ id }) => id === 'mine')).toEqual(first.pieces[0])
      const facts = factsOf(routine)
      expect(
        facts.filter((fact) => fact.code === 'song.dance' && severityOf(fact.finding) === 'fault'),
      ).toEqual([])
      const { sides, left } = sumsOf(routine, song)
      expect(left).toBe(0)
      expect(Math.min(sides.R, sides.L) / Math.max(sides.R, sides.L)).toBeGreaterThan(0.6)
      // The choruses are danced alike, whatever their sides.
      const inside = (from: number, to: number) =>
        routine.pieces
          .filter((piece) => piece.at >= from && piece.at < to)
          .map(({ what, counts }) => [counts, what.kind === 'dance' ? what.combination : what.how])
      expect(inside(116, 148)).toEqual(inside(48, 80))
    }
  })

  it('is proposed as if every way had been followed, where there are few of them', () => {
    const chosen = demo.filter(({ title }) => /Copper|Saffron/.test(title))
    const find = (id: string) => demo.find((one) => one.id === id)
    const anySections = fc.array(
      fc.record({
        counts: fc.constantFrom(8, 16, 20, 32),
        energy: fc.integer({ min: 1, max: 5 }),
        kind: fc.constantFrom('verse', 'chorus', 'slow'),
      }),
      { minLength: 1, maxLength: 3 },
    )
    let differed = 0
    holds(
      fc.property(anySections, (parts) => {
        let at = 0
        const sections = parts.map(({ counts, energy, kind }, i) => {
          const section = { id: `s${i}`, at, label: kind, kind: kind as 'verse', energy }
          at += counts
          const like = parts.findIndex((other) => other.kind === kind)
          return like < i ? { ...section, as: `s${like}` } : section
        })
        const song = { ...songOf(evenMs(at, 92), [0]), sections }
        const factsOf = factsOn(song, find, vocabulary, USUAL_HOUSE)
        const proposed = (beam?: number) => {
          let ids = 0
          const wanted = { routine: empty, song, combinations: chosen, factsOf }
          return proposalsFor(
            { ...wanted, vocabulary, house: USUAL_HOUSE, newId: () => `n${ids++}` },
            beam,
          )
        }
        const all = proposed(Number.POSITIVE_INFINITY)
        expect(proposed()).toEqual(all)
        // A narrow look may miss some: it never finds anything better.
        const narrow = proposed(1)
        if (narrow[0] && all[0]) expect(narrow[0].cost).toBeGreaterThanOrEqual(all[0].cost)
        if (JSON.stringify(narrow) !== JSON.stringify(all)) differed++
      }),
      { numRuns: 12, seed: 75 },
    )
    expect(differed).toBeGreaterThan(0)
  })
})
