import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { speech } from '../../../tests/voice'
import { LAYERS } from '../body/layers'
import { drillPerformance } from '../class/drillDance'
import type { Combination } from '../combination/combination'
import { makeForSeveral } from '../edits/parts'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { materialsOf, roundOf } from '../plan/material'
import { readSheet } from '../sheet/readSheet'

describe('several dancers', () => {
  const called = (sheet: string, tempo = 60) => {
    const { combination: one } = readSheet(sheet, vocabulary)
    const materials = materialsOf([one], vocabulary, USUAL_HOUSE)
    const drill = { combination: one.id, phrases: [], layers: LAYERS, sides: ['R' as const] }
    const danced = roundOf(drill, materials)
    if (!danced) throw new Error('no round')
    const sound = { rhythm: undefined, call: 'cues' as const, speech }
    return drillPerformance({ ...drill, repeats: 1, tempo }, danced, sound)
      .segments.filter(({ round: which }) => which > 0)
      .flatMap(({ calls }) => calls.map(({ text, of, what }) => `${of / 12 + 1} ${what} ${text}`))
  }
  const PAIR = `sway 2
part @1 "Amber" at L 0.5
part @2 "Two" at R 0.5
phrase A 8
  feet 1 step R side; 2 touch L together
  hips 3 hip-drop L cue "drop"
  torso @1 5 chest-pop cue "pop"
  torso @2 5 chest-lift cue "lift"`

  it('are told together what all dance, and by name what is only one’s; a number is no name', () => {
    expect(called(PAIR)).toEqual(['3 accent drop', '5 accent second: lift', '5 accent Amber: pop'])
  })

  it('are told what they do with each other before what each dances, and whom it is for', () => {
    const meetings = `${PAIR}
  between 5-8 hold @1.R @2.L palm; 3-4 place @2 behind @1; 7-8 look @2 to @1`
    expect(called(meetings)).toEqual([
      '3 meeting second: behind',
      '3 accent drop',
      '5 meeting hold hands',
      '5 accent second: lift',
      '5 accent Amber: pop',
      '7 meeting second: look',
    ])
  })

  it('are told no more than one is, where nothing differs between them', () => {
    holds(
      fc.property(anyCombination(), (one) => {
        const piece = makeForSeveral(['Amber', 'Blue'])(one)
        const calls = (of: Combination) => {
          const materials = materialsOf([of], vocabulary, USUAL_HOUSE)
          const drill = { combination: of.id, phrases: [], layers: LAYERS, sides: [of.lead] }
          const danced = roundOf(drill, materials)
          const sound = { rhythm: undefined, call: 'all' as const, speech }
          return danced && drillPerformance({ ...drill, repeats: 2, tempo: 96 }, danced, sound)
        }
        expect(calls(piece)?.calls).toEqual(calls(one)?.calls)
        expect(calls(piece)?.captions).toEqual(calls(one)?.captions)
      }),
    )
  })
})
