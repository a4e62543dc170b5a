import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { LAYERS } from '../body/layers'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { layersIn, materialsOf, roundOf } from '../plan/material'
import { teachSteps } from '../plan/teachSteps'
import { readSheet } from '../sheet/readSheet'
import { simulate } from '../simulate/simulate'
import { handout } from './handout'
import { sayPass } from './say'

const read = (lines: string) => readSheet(`sway 1\n${lines}`, vocabulary).combination
const said = (lines: string) => {
  const simulation = simulate(read(`phrase A 8\n${lines}`), vocabulary)
  return sayPass(simulation, simulation.passes[0]!, new Set(LAYERS), vocabulary)
}

describe('what to do on a count, in words', () => {
  it.each([
    ['feet 1 step R side', 'Right foot steps to the right'],
    ['feet 1 touch R together', 'Right foot touches beside the other'],
    ['feet 1 close R', 'Right foot closes'],
    ['feet 1 heel R forward', 'Right foot puts its heel forward'],
    ['feet 1 kick R cross-front', 'Right foot kicks across in front'],
    ['feet 1 step R cross-behind small', 'Right foot steps across behind small'],
    ['feet 1 step R diag-back large ball', 'Right foot steps back to the right wide on the ball'],
    ['feet 1 step R in-place turn -90', 'Right foot steps in place, turning 90° to the left'],
    ['feet 1 pivot 180', 'Stay on the spot, turning 180° to the right'],
    ['feet 1 drag R together', 'Right foot drags beside the other'],
    ['feet 1 lift R', 'Right foot lifts'],
    ['feet 1 lift R back', 'Right foot lifts back'],
    ['feet 1 sway R', 'Sway onto the right foot'],
    ['feet 1 hop L', 'Hop on the left foot'],
    ['feet 1 centre', 'Weight onto both feet'],
    ['feet 1 jump out', 'Jump onto both feet'],
    ['feet 1 rise', 'Rise onto the toes'],
    ['feet 1 straighten', 'Stand tall, knees not locked'],
    ['feet 1 bend', 'Bend the knees'],
    ['feet 1 lower', 'Heels down'],
    ['feet 1 hold', 'Hold'],
  ])('%s: %s', (line, words) => expect(said(line)[0]?.feet).toEqual([words]))

  it.each([
    ['hips 1 at FR', 'Hips to the front right'],
    ['torso 1-2 at L', 'Ribs to the left, until 2'],
    ['arms 1 both high-v via side', 'Both arms to high-v, by the side'],
    ['arms 1 R crown, L hips', 'Right arm to crown, left arm to hips'],
    ['head 1 look over L', 'Look over L shoulder'],
    ['hips 1-2 hip-circle-small cw', 'Small hip circle, clockwise, until 2'],
    ['hips 1 hip-drop L', 'Hip drop left'],
    ['hips 1 hip-drop L as "plop"', 'Plop'],
    ['hips 1-8 hip-bump R every 1 alt', 'Hip bump right, left, right …, on every count, until 8'],
    [
      'hips 1-8 hip-bump L every & alt',
      'Hip bump left, right, left …, on every half count, until 8',
    ],
    ['hips 1-8 hip-drop R every 2', 'Hip drop right, every 2 counts, until 8'],
    ['hips 1-2 half-circle-front L', 'Half circle front, to the left, until 2'],
    ['hips 1-2 half-circle-front R', 'Half circle front, to the right, until 2'],
    ['hips ~5 hip-drop R', undefined],
    ['torso ~1 chest-pop size 50%', 'If you like: chest pop, at 50 % of its size'],
    ['hips 1 at R on', 'Hips to the right, there on the count'],
    ['arms 1-2 both high-v', 'Both arms to high-v, until 2'],
  ])('%s: %s', (line, words) =>
    expect(said(line)[0]?.layers.map(({ text }) => text)).toEqual(words ? [words] : []),
  )

  it('prints on a page all that is written: the pickup, cues, lyrics, notes, props, facings, forms', () => {
    const page = handout(
      read(
        [
          'pickup 2',
          'phrase A 8',
          '  feet   <7 touch R side; <8 step R forward turn 90; 1 step L side; ~3 step R side turn -90',
          '  hips   5-8 hip-bump R every 1 alt easier hip-sway easier (at R) easier none; 1 hip-drop L harder hip-bump note "small"',
          '  arms   1 both high-v words "moon"',
          '  say    1 "left foot"; 5 "bumps"',
          '  words  5-6 "river"',
          '  note   7 "spot the front wall"',
          '  prop   1-8 "veil in both hands"',
          '  facing 3 0',
          'order A',
        ].join('\n'),
      ),
      vocabulary,
    )
    const [right = '', left = ''] = page.split('LEFT SIDE')
    for (const words of [
      'Before count 1',
      '   7  Right foot touches to the right.',
      '   8  Right foot steps forward, turning 90° to the right.',
      'If you like: right foot steps to the right, turning 90° to the left',
      'Hip bump right, left, right …, on every count, until 8',
      'easier for hip bump R: hip sway, or hips right, or nothing',
      'harder for hip drop L: hip bump; small',
      'words: “moon”',
      '“left foot”',
      '“bumps”',
      'words: “river”, until 6',
      'spot the front wall',
      'veil in both hands, until 8',
      'facing front',
    ])
      expect(right).toContain(words)
    expect(left).toContain('“right foot”')
    expect(left).toContain('   8  Left foot steps forward, turning 90° to the left.')
    expect(left).toContain('Hip bump left, right, left …')
    // Before every round is said where that is so.
    expect(
      handout(read('pickup 1 each\nphrase A 4\n feet <4 touch R; 1 step R'), vocabulary),
    ).toContain('Before every round\n   4  Right foot touches in place.')
  })

  it('says half counts where they are, the weight after each count, and cues', () => {
    const [one, two] = said('feet 1 step R side cue "go"; 1& close L; 2 centre')
    expect(one).toMatchObject({
      feet: ['Right foot steps to the right', '1&: left foot closes'],
      weight: 'left foot',
      cues: ['go'],
    })
    expect(two?.weight).toBe('both feet')
  })

  it('of the other side names the other foot on every count', () => {
    const combination = read(
      'phrase A 8\n feet 1-4 grapevine; 5-8 grapevine\n hips 1 hip-drop R\n arms 1 R crown, L low',
    )
    const words = (c: typeof combination) => {
      const simulation = simulate(c, vocabulary)
      return JSON.stringify(sayPass(simulation, simulation.passes[0]!, new Set(LAYERS), vocabulary))
    }
    const swapped = words(combination).replace(
      /right|left/gi,
      (word) => ({ right: 'left', left: 'right', Right: 'Left', Left: 'Right' })[word] ?? word,
    )
    const sorted = (text: string) => [...text.toLowerCase()].sort().join('')
    expect(words(mirror(combination))).not.toBe(words(combination))
    expect(sorted(words(mirror(combination)))).toBe(sorted(swapped))
    expect(handout(combination, vocabulary)).toMatch(/RIGHT SIDE[\s\S]*LEFT SIDE/)
  })
})

describe('the steps of teaching', () => {
  const stepsOf = (combination: Combination) => {
    const materials = materialsOf([combination], vocabulary, USUAL_HOUSE)
    const material = materials.find(combination.id)
    if (!material) throw new Error('no material')
    return { drills: teachSteps(material, materials).drills, materials }
  }

  it('are those a class would have: walked, whole, from the other side, at tempo; none of nothing', () => {
    const kinds = (lines: string) =>
      stepsOf(read(`tempo 100, teach 60\nlevel improver\nphrase A 8\n${lines}`)).drills.map(
        ({ kind }) => kind,
      )
    expect(kinds('feet 1 step\n hips 2 hip-drop\n head 1 look L')).toEqual([
      'walk',
      'all',
      'other-side',
      'switch-practice',
      'sides',
      'run',
    ])
    expect(kinds('')).toEqual([])
  })

  it('dance all that is written, end at the tempo, and are the steps of a plan', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const { drills, materials } = stepsOf(combination)
        const material = materials.find(combination.id)
        const layers = layersIn(material?.lead.passes ?? [])
        for (const layer of layers)
          expect(drills.some((drill) => drill.layers.includes(layer))).toBe(true)
        if (layers.length === 0) {
          expect(drills).toEqual([])
          return
        }
        expect(drills.at(-1)?.tempo).toBe(combination.tempo)
        for (const drill of drills) {
          expect(roundOf(drill, materials)?.counts).toBeGreaterThan(0)
          expect(drill.combination).toBe(combination.id)
        }
      }),
      { numRuns: 200, seed: 81 },
    )
  })
})
