import { describe, expect, it } from 'vitest'
import type { Layer } from '../body/layers'
import { LAYERS } from '../body/layers'
import { findOffers } from '../writing/search'
import { readMotion } from './motion'
import table from './moves.csv?raw'
import { readPattern } from './pattern'
import { readVocabulary, vocabulary } from './vocabulary'

const wanted = { side: 'R' as const, families: ['latin' as const] }
const names = (layer: Layer, query: string) =>
  findOffers(query, { ...wanted, layer }, vocabulary).map(({ name }) => name)

describe('finding what to place', () => {
  it.each([
    ['feet', 'st f', 'step R forward'],
    ['feet', 'touch l tog', 'touch L together'],
    ['feet', 'side together side', 'double step-touch R'],
    ['feet', 'vine', 'grapevine R'],
    ['feet', 'cha cha basic', 'cha-cha basic R'],
    ['hips', 'drop', 'hip drop R'],
    ['hips', 'DROP left', 'hip drop L'],
    ['hips', 'ami', 'ami R'],
    ['hips', 'hip circle', 'small hip circle R'],
    ['hips', 'figure 8', 'horizontal eight, front to back R'],
    ['hips', 'infinity', 'horizontal eight, front to back R'],
    ['hips', 'hip hit', 'hip bump R'],
    ['hips', 'hip roll', 'quick hip roll R'],
    ['hips', 'hip pop', 'hip bump R'],
    ['torso', 'body roll', 'body wave down'],
    ['torso', 'undulation', 'camel'],
    ['hips', 'figure eight', 'horizontal eight, front to back R'],
    ['torso', 'forward lean', 'light lean forward'],
    ['torso', 'back lean', 'light lean back'],
    ['hips', 'horseshoe over the top', 'over roll R'],
    ['feet', 'release', 'recover R'],
    ['feet', 'bell step', 'bell step R'],
    ['arms', 'mouth', 'both lips'],
    ['arms', 'chest', 'both heart'],
    ['legs', 'knee twist', 'knee twist R'],
    ['feet', 'lift heels', 'alternate heel lifts R'],
    ['hips', 'belly roll', 'belly roll'],
    ['torso', 'belly roll', 'belly roll'],
    ['hips', 'camel', 'camel'],
    ['feet', 'rock', 'forward, centre, back, centre R'],
    ['feet', 'step ball change', 'step ball change R'],
    ['hips', 'slide left', 'hips left'],
    ['torso', 'ribs s', 'ribs right'],
    ['arms', 'high v', 'both high-v'],
    ['arms', 'r high-v, l hips', 'R high-v, L hips'],
    ['arms', 'l crown r second', 'R second, L crown'],
    ['head', 'look l', 'look left'],
    ['head', 'over l', 'look over L shoulder'],
  ] as const)('%s: “%s” offers %s first', (layer, query, name) => {
    expect(names(layer, query)[0]?.replace(/['ʻ]/, '').replace(' cw', ' R')).toBe(name)
  })

  it('puts the level ring before the interior one, and says the layer of what is elsewhere', () => {
    expect(names('hips', 'hip circle').slice(0, 3)).toEqual([
      'small hip circle cw',
      'large hip circle cw',
      'interior hip circle cw',
    ])
    const [camel] = findOffers('camel', { ...wanted, layer: 'hips' }, vocabulary)
    expect(camel).toMatchObject({ layer: 'torso', what: { kind: 'move', move: 'camel' } })
    // A letter or two look only where the cursor stands.
    for (const layer of LAYERS)
      for (const query of ['', 'c', 'ca'])
        expect(
          findOffers(query, { ...wanted, layer }, vocabulary, 99).every(
            (offer) => offer.layer === layer,
          ),
        ).toBe(true)
  })

  it('offers nothing for a word nobody uses, and something for none at all', () => {
    expect(names('hips', 'xylophone')).toEqual([])
    for (const layer of ['feet', 'hips', 'torso', 'arms', 'head'] as const)
      expect(names(layer, '').length).toBeGreaterThan(5)
  })

  it('names every offer once', () => {
    for (const layer of ['feet', 'hips', 'torso', 'arms', 'head'] as const) {
      const all = findOffers('', { ...wanted, layer }, vocabulary, 999).map(({ id }) => id)
      expect(new Set(all).size).toBe(all.length)
    }
  })
})

describe('the table of moves', () => {
  const [header = '', ...rows] = table.split('\n')
  const withRow = (change: (row: string) => string) => () =>
    readVocabulary(
      [header, change(rows.find((row) => row.startsWith('hip-drop')) ?? '')].join('\n'),
    )

  it.each([
    ['a motion', (row: string) => row.replace('peak(', 'peek('), /hip-drop.*motion/s],
    ['a kind', (row: string) => row.replace('accent', 'accident'), /hip-drop/],
    ['a part of the body', (row: string) => row.replace(',pelvis,', ',pelviss,'), /hip-drop/],
    [
      'the layer’s pattern',
      (row: string) => row.replace(',hips,accent,', ',feet,steps,'),
      /pattern/,
    ],
  ])('says which row has a wrong %s', (_, change, message) =>
    expect(withRow(change)).toThrow(message),
  )

  it('refuses an id that stands twice', () =>
    expect(() => readVocabulary([header, rows[0], rows[0]].join('\n'))).toThrow(/twice/))

  it.each([
    '1 stop R',
    'step R side',
    '1 step side',
    '1 touch R upward',
    '1 pivot',
    '1 hold turn 90',
  ])('refuses the step “%s”', (pattern) => expect(() => readPattern(pattern)).toThrow())

  it.each([
    ['to(R)+peak(pelvis.rise +2 sharp)', ['to', 'peak']],
    ['arc(C>R>C>L>C)+osc(pelvis.tilt 8, 0.25/count)', ['arc', 'osc']],
    ['R:via(midline)+R:to(front-high)+L:to(front)', ['via', 'to', 'to']],
    ['wave(ribs>waist)', ['wave']],
  ])('reads the motion %s', (text, verbs) =>
    expect(readMotion(text).map(({ verb }) => verb)).toEqual(verbs),
  )
  it.each([
    'spin(cw)',
    'arc(R)',
    'arc(R>Q)',
    'to(nowhere)',
    'peak(pelvis.side)',
    'peak(pelvis.wiggle +3 sharp)',
    'osc(pelvis.tilt 4)',
    'osc(pelvis.tilt 4, 0/count)',
    'osc(pelvis.tilt 4, 2/beat)',
    'circle(sideways)',
    'circle(cw, huge, 2/hour, x',
    'eight(diagonal, outward)',
    'wave(ribs)',
    'wave(ribs>knee)',
    'via(moon)',
    'R:via(sideways)',
    'roll(up-and-down',
    '+to(R)',
    'to(R)+',
    'Q:to(low)',
  ])('refuses the motion “%s”', (text) => expect(() => readMotion(text)).toThrow(/no motion/))

  it.each([
    [
      'circle(cw, small, 2/move)',
      { verb: 'circle', way: 'cw', size: 'small', rate: { cycles: 2, per: 'move' } },
    ],
    ['both:circle(wrist, out)', { verb: 'circle', arm: 'both', joint: 'wrist', way: 'out' }],
    [
      'eight(vertical, down, large)',
      { verb: 'eight', plane: 'vertical', loops: 'down', size: 'large' },
    ],
    [
      'osc(pelvis.tilt -4, 1.5/count, -90)',
      {
        verb: 'osc',
        channel: 'pelvis.tilt',
        amount: -4,
        rate: { cycles: 1.5, per: 'count' },
        phase: -90,
      },
    ],
    ['peak(head.nod +35 sharp)', { verb: 'peak', channel: 'head.nod', amount: 35, sharp: true }],
    [
      'wave(ribs>waist>pelvis, side)',
      { verb: 'wave', parts: ['ribs', 'waist', 'pelvis'], plane: 'side' },
    ],
    [
      'both:roll(in, 1/count)',
      { verb: 'roll', arm: 'both', way: 'in', rate: { cycles: 1, per: 'count' } },
    ],
    ['both:roll', { verb: 'roll', arm: 'both' }],
    ['to(shoulder-R)', { verb: 'to', place: 'shoulder-R' }],
    ['alternate', { verb: 'alternate' }],
  ])('reads “%s” to the last word', (text, expected) =>
    expect(readMotion(text)).toEqual([expected]),
  )

  it('joins what goes together and parts what comes after', () => {
    expect(
      readMotion('to(R)&peak(pelvis.rise +2 sharp)+to(L)').map(
        (item) => 'with' in item && item.with === true,
      ),
    ).toEqual([false, true, false])
  })
})
