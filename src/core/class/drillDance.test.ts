import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { LAYERS, type Layer } from '../body/layers'
import { otherSide } from '../body/side'
import type { Combination } from '../combination/combination'
import { leadOf } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import type { Drill } from '../plan/drill'
import { materialsOf } from '../plan/material'
import { RHYTHMS } from '../rhythm/rhythms'
import { simulate } from '../simulate/simulate'
import { sayPass } from '../teaching/say'
import { TICKS_PER_COUNT } from '../time/time'
import { drillDanceOf, shownDrill, soundFor } from './drillDance'
import { wordsAt } from './shownDrill'
import { USUAL_SOUND } from './soundChoice'

const speech = () => 0.2
const drillOf = (one: Combination, layers: readonly Layer[] = LAYERS): Drill => ({
  id: 'drill',
  // With its flourishes.
  kind: 'free-run',
  combination: one.id,
  phrases: [],
  layers: [...layers],
  sides: [one.lead, otherSide[one.lead]],
  repeats: 1,
  tempo: 80,
  talk: 0,
  stand: 'mirror',
})

describe('a drill as it is danced', () => {
  it('says on every count of both sides what starts there, on its layers alone', () => {
    holds(
      fc.property(anyCombination(), fc.subarray([...LAYERS], { minLength: 1 }), (one, layers) => {
        const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
        const danced = drillDanceOf(drillOf(one, layers), materials, USUAL_SOUND, speech)
        if (!danced) throw new Error('no round')
        for (const [index, segment] of danced.performance.segments.entries()) {
          if (segment.round === 0) {
            expect(wordsAt(shownDrill(danced), { index, at: 0 })).toBeUndefined()
            continue
          }
          const simulation = danced.round.material.from(segment.dancing)
          expect(simulation.combination.lead).toBe(segment.dancing.side)
          for (const pass of simulation.passes) {
            const said = sayPass(simulation, pass, new Set(layers), vocabulary)
            for (const [count, words] of said.entries()) {
              const at = pass.at + count * TICKS_PER_COUNT
              expect(wordsAt(shownDrill(danced), { index, at })).toEqual(words)
              // The same until the next count, however often it is asked.
              expect(
                wordsAt(shownDrill(danced), { index, at: at + TICKS_PER_COUNT - 0.5 }),
              ).toEqual(words)
              for (const { layer } of words.layers) expect(layers).toContain(layer)
            }
          }
        }
      }),
      { numRuns: 60, seed: 98 },
    )
  })

  it('is nothing without a drill, or when its combination or phrase is gone', () => {
    holds(
      fc.property(anyCombination(), (one) => {
        const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
        const drill = drillOf(one)
        expect(drillDanceOf(undefined, materials, USUAL_SOUND, speech)).toBeUndefined()
        for (const gone of [
          { ...drill, combination: 'gone' },
          { ...drill, phrases: ['gone'] },
        ])
          expect(drillDanceOf(gone, materials, USUAL_SOUND, speech)).toBeUndefined()
      }),
      { numRuns: 20, seed: 99 },
    )
  })
})

describe('the sound of a drill', () => {
  it('has the rhythm that was chosen, none for clicks alone, or one of its family that fits', () => {
    holds(
      fc.property(anyCombination(), fc.constantFrom(...RHYTHMS), (one, chosen) => {
        const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
        const { round } = drillDanceOf(drillOf(one), materials, USUAL_SOUND, speech) ?? {}
        if (!round) throw new Error('no round')
        const heard = (rhythm: string) => soundFor({ ...USUAL_SOUND, rhythm }, round, speech).rhythm
        expect(heard(chosen.id)).toBe(chosen)
        expect(heard('none')).toBeUndefined()
        const own = heard('own')
        const counts = round.passes[0]?.phrase.counts ?? 8
        if (own) expect(counts % own.counts).toBe(0)
        else expect(RHYTHMS.every((rhythm) => counts % rhythm.counts !== 0)).toBe(true)
        // It goes with the family wherever one of the family fits.
        const fitting = RHYTHMS.filter((rhythm) => counts % rhythm.counts === 0)
        const isAtHome = (rhythm: (typeof RHYTHMS)[number]) =>
          rhythm.families.some((family) => one.families.includes(family))
        if (own && fitting.some(isAtHome)) expect(isAtHome(own)).toBe(true)
      }),
      { numRuns: 120, seed: 100 },
    )
  })

  it('is of a simulation that is danced as the combination is', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (one) => {
        const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
        const danced = drillDanceOf(drillOf(one), materials, { ...USUAL_SOUND, countIn: 8 }, speech)
        const ins = danced?.performance.segments.filter(({ round }) => round === 0) ?? []
        for (const segment of ins) expect(segment.countIn?.length).toBeGreaterThanOrEqual(8)
        const lead = danced?.round.material.from(leadOf(one))
        expect(lead?.end).toEqual(simulate(one, vocabulary).end)
      }),
      { numRuns: 40, seed: 101 },
    )
  })
})
