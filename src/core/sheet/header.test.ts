import { describe, expect, it } from 'vitest'
import { teachTempoOf } from '../combination/combination'
import { defaultStart } from '../combination/start'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from './readSheet'
import { writeSheet } from './writeSheet'

const read = (lines: string) => readSheet(`sway 1\n${lines}\nphrase A 8\n`, vocabulary)
const fine = (lines: string) => {
  const { combination, messages } = read(lines)
  expect(messages).toEqual([])
  // Whatever a header says is said again when it is written, and read back the same.
  expect(readSheet(writeSheet(combination, vocabulary), vocabulary).combination).toEqual(
    combination,
  )
  return combination
}
const wrong = (lines: string) =>
  read(lines)
    .messages.map(({ text }) => text)
    .join(' ')

describe('the header of a sheet', () => {
  it.each([
    ['title Copper Lantern', { title: 'Copper Lantern' }],
    ['title "Ember # 2; slow"', { title: 'Ember # 2; slow' }],
    ['title', { title: '' }],
    ['family belly', { families: ['belly'] }],
    ['family LATIN, belly, latin', { families: ['latin', 'belly'] }],
    ['tempo 120', { tempo: 120 }],
    ['tempo 96, teach 60', { tempo: 96, teachTempo: 60 }],
    ['lead L', { lead: 'L', start: defaultStart('L') }],
    ['lead right', { lead: 'R' }],
    ['level new', { level: 'new' }],
    ['pickup 2', { pickup: { counts: 2, each: false } }],
    ['pickup 1 each', { pickup: { counts: 1, each: true } }],
    ['rest 8', { rest: 8 }],
    ['keep turns', { keepTurns: true }],
    ['song Night Market', { song: 'Night Market' }],
    ['by Dancer 1', { by: 'Dancer 1' }],
    ['tags evening class, slow, "a, b"', { tags: ['evening class', 'slow', 'a, b'] }],
  ])('“%s” says %j', (line, expected) => expect(fine(line)).toMatchObject(expected))

  it.each([
    ['start weight both', { weight: 'both' }],
    ['start weight R, arms crown', { weight: 'R', arms: { R: 'crown', L: 'crown' } }],
    ['start arms R crown L low', { arms: { R: 'crown', L: 'low' } }],
    ['start arms L crown R hips', { arms: { R: 'hips', L: 'crown' } }],
    ['start arms R high-v', { arms: { R: 'high-v', L: 'low' } }],
    [
      'start weight R, arms R high-v, L hips, facing 90',
      { weight: 'R', arms: { R: 'high-v', L: 'hips' }, facing: 90 },
    ],
    ['start both crown, L high v', { arms: { R: 'crown', L: 'high-v' } }],
    ['start hips FR, ribs L', { hips: 'FR', ribs: 'L' }],
    ['start level deep, gaze over L, facing -90', { level: 'deep', gaze: 'over-L', facing: -90 }],
    ['start facing 540', { facing: 540 }],
  ])('“%s” stands so', (line, expected) => expect(fine(line).start).toMatchObject(expected))

  it.each([
    [
      'start weight R, legs low, facing 90',
      'start legs low',
      { start: { weight: 'R', facing: 90 } },
    ],
    [
      'start arms R crown, L nowhere',
      'start L nowhere',
      { start: { arms: { R: 'crown', L: 'low' } } },
    ],
    ['family belly, lattin, latin', 'family lattin', { families: ['belly', 'latin'] }],
    ['tempo 120, slow 60', 'tempo 120, slow 60', { tempo: 120 }],
    ['tempo 120, teach 300', 'tempo 120, teach 300', { tempo: 120 }],
    ['pickup 2 always', 'pickup 2 always', { pickup: { counts: 2, each: false } }],
  ])('of “%s” loses only “%s”, and points at it', (line, lost, expected) => {
    const { combination, messages } = read(line)
    expect(combination).toMatchObject(expected)
    expect(combination.unread).toEqual([{ text: lost }])
    expect(messages).toHaveLength(1)
    const typed = lost.split(' ').slice(1).join(' ')
    expect(messages[0]?.from).toBeGreaterThanOrEqual(`sway 1\n${line}`.indexOf(typed))
    expect(readSheet(writeSheet(combination, vocabulary), vocabulary).combination).toEqual(
      combination,
    )
  })

  it('has a teaching tempo only where one is written', () => {
    expect(fine('tempo 90')).not.toHaveProperty('teachTempo')
    expect(teachTempoOf(fine('tempo 90'))).toBe(60)
    expect(teachTempoOf(fine('tempo 50'))).toBe(40)
    expect(writeSheet(fine('tempo 90'), vocabulary)).toMatch(/^tempo {3}90$/m)
  })

  it('may stand anywhere, several lines long, and counts hold for phrases that say none', () => {
    const { combination, messages } = readSheet(
      'sway 1\nphrase A\n  feet 1 step\nphrase B 4\norder A\n      B*2\n  A~\ncounts 6\nlead L\ntitle Late',
      vocabulary,
    )
    expect(messages).toEqual([])
    expect(combination.phrases.map(({ counts }) => counts)).toEqual([6, 4])
    expect(
      combination.order.map(({ phrase, mirrored }) => `${phrase}${mirrored ? '~' : ''}`),
    ).toEqual(['A', 'B', 'B', 'A~'])
    expect(combination.phrases[0]?.events[0]?.what).toMatchObject({ action: { foot: 'L' } })
    expect(combination.title).toBe('Late')
  })

  it.each([
    ['tempo', 'whole number from 40 to 220'],
    ['tempo 96, slow 60', 'Write “tempo 96, teach 64”'],
    ['tempo 96, teach 600', 'A teaching tempo'],
    ['family belly, lattin', 'no family'],
    ['lead', 'R or L'],
    ['level', 'new, improver'],
    ['pickup 2 always', 'pickup 2 each'],
    ['pickup 0', 'from 1 to 16'],
    ['counts 17', 'from 1 to 16'],
    ['rest none', 'from 1 to 64'],
    ['start weight', 'what the weight is'],
    ['start colour red', 'no part of the start'],
    ['start facing north', 'A facing is degrees, whole or half'],
    ['start gaze sideways', 'no way to look'],
    ['start level floating', 'no level of the body'],
    ['move', 'move ID'],
    ['move a "A" hips path speed 3', '“speed” is not known in a move'],
    ['move a "A" hips path motion', 'the value of motion'],
    ['move a "A" hips dance motion "to(R)"', 'own move'],
    ['move a "A" feet steps', 'own move'],
  ])('“%s” gets a sentence: %s', (line, expected) => expect(wrong(line)).toContain(expected))

  it.each([
    ['phrase "No name" 4', 'P1', 4],
    ['phrase A 20', 'A', 8],
    ['phrase A "T" eight', 'A', 8],
  ])('a phrase line “%s” is read as far as it goes', (line, name, counts) => {
    const { combination, messages } = readSheet(`sway 1\n${line}`, vocabulary)
    expect(messages.length).toBeGreaterThan(0)
    expect(combination.phrases[0]).toMatchObject({ name, counts })
  })

  it('gives a second phrase of the same name a name of its own, and says so', () => {
    const { combination, messages } = readSheet(
      'sway 1\nphrase A 8\n feet 1 step\nphrase A 4\n feet 1 hold',
      vocabulary,
    )
    expect(messages.map(({ line, text }) => `${line} ${text}`)).toEqual([
      expect.stringMatching(/^4 There is a phrase A already/),
    ])
    expect(combination.phrases.map(({ name }) => name)).toEqual(['A', 'A-2'])
    expect(combination.phrases[1]?.events).toHaveLength(1)
  })

  it('keeps comments where they stood: before the header, a phrase, a line, behind a line, at the end', () => {
    const sheet = `sway 1 # first
# about the title
title   Lamp
tempo   96, teach 64
lead    R
start   weight L, arms low, facing 0

# about A
phrase A 8
  # about the feet
  feet   1 step R side # behind it
  # last in A? no: before the order

order   A
# the end
`
    const { combination } = readSheet(sheet, vocabulary)
    const written = writeSheet(combination, vocabulary)
    for (const comment of [
      'first',
      'about the title',
      'about A',
      'about the feet',
      'behind it',
      'the end',
    ])
      expect(written).toContain(`# ${comment}`)
    expect(writeSheet(readSheet(written, vocabulary).combination, vocabulary)).toBe(written)
    expect(written.indexOf('# about A')).toBeLessThan(written.indexOf('phrase A'))
    expect(written.indexOf('# about the feet')).toBeGreaterThan(written.indexOf('phrase A'))
    expect(written.trimEnd().endsWith('# the end')).toBe(true)
  })
})
