import { describe, expect, it } from 'vitest'
import { readMotion } from './motion'
import table from './moves.csv?raw'
import { readPattern } from './pattern'
import { findOffers } from './search'
import { readVocabulary, vocabulary } from './vocabulary'

const wanted = { side: 'R' as const, families: ['latin' as const] }
const names = (layer: 'feet' | 'hips' | 'torso' | 'arms' | 'head', query: string) =>
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
})
