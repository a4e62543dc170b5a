import { describe, expect, it } from 'vitest'
import { LAYERS } from '../body/layers'
import { mirror } from '../combination/mirror'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { writeSheet } from '../sheet/writeSheet'
import { simulate } from '../simulate/simulate'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { steady } from '../time/timeMap'
import type { CalledSegment, CallMode, SpeechSeconds } from './called'
import { callsOf } from './calls'

/** A voice with words for all but what has a `z`, of a tenth of a second and a bit a letter. */
const speech: SpeechSeconds = (text, isFast) =>
  text.includes('z') ? undefined : 0.1 + text.length * (isFast ? 0.02 : 0.035)

const read = (lines: string, header = '') => {
  const { combination, messages } = readSheet(
    `sway 2\n${header}\nphrase A 8\n${lines}\n`,
    vocabulary,
  )
  expect(messages).toEqual([])
  const printed = writeSheet(combination, vocabulary)
  expect(printed).toMatch(/^sway [12]/)
  expect(readSheet(printed, vocabulary)).toMatchObject({ combination, messages: [] })
  return combination
}

interface Way {
  readonly tempo?: number
  readonly header?: string
  readonly mode?: CallMode
  readonly side?: 'lead' | 'other'
}

/** What is called in a round of a phrase, each with the tick it is said at; in brackets what is only shown. */
const called = (lines: string, { tempo = 90, header, mode = 'all', side }: Way = {}) => {
  const combination = read(lines, header)
  const round: CalledSegment = {
    kind: 'round',
    simulation: simulate(side === 'other' ? mirror(combination) : combination, vocabulary),
    range: { from: tick(0), to: tick(8 * TICKS_PER_COUNT) },
    layers: LAYERS,
    mode,
    isSwitch: false,
  }
  return callsOf([round], steady(tempo), speech).map(({ at, text, say }) =>
    say ? `${text}@${at}` : `(${text}@${at})`,
  )
}

describe('words in a move', () => {
  const WAVE = 'torso 1-4 body-wave-up cue "hips | ribs | back | lift"'
  it('are said over its length, each as that part is danced, in numbered rounds and without', () => {
    for (const side of ['lead', 'other'] as const) {
      const within = ['ribs@12', 'back@24', 'lift@36']
      expect(called(WAVE, { side })).toEqual(expect.arrayContaining(['hips@0', ...within]))
      expect(called(WAVE, { side, mode: 'cues' })).toEqual(expect.arrayContaining(within))
    }
    // Alone on its count the first of them is a lead ahead.
    const later = called(WAVE.replace('1-4', '5-8'), { mode: 'cues' })
    expect(
      later.filter((text) => text.startsWith('hips')).map((text) => text.split('@')[1]),
    ).toSatisfy(([at]: string[]) => Number(at) < 48)
    expect(called('torso 1-4 body-wave-up cue "lift"')).toContain('lift@0')
  })
  it('of a move that repeats are said over its first time', () => {
    const said = called('torso 1-8 body-wave-up every 2 cue "ribs | hips"', { mode: 'cues' })
    expect(said).toContain('hips@12')
    expect(said.filter((text) => text.startsWith('hips'))).toHaveLength(1)
  })
  it('that are too many for the tempo are shown, not spoken', () => {
    const hurried = called(
      'torso 1-2 body-wave-up cue "hips forward | ribs forward | back and up | lift the chest"',
      {
        tempo: 200,
      },
    )
    expect(hurried.filter((text) => text.startsWith('('))).not.toEqual([])
    // What was too long where it belongs is not said somewhere else.
    for (const text of hurried)
      if (/ribs|up|lift/.test(text) && !text.startsWith('(')) expect(text).toMatch(/@(6|12|18)$/)
  })
})

describe('what is said on the counts', () => {
  const numbers = (said: readonly string[]) =>
    said.filter((text) => /^(one|two|three|four|five|six|seven|eight)@/.test(text))
  const FEET = 'feet 1 step R side; 3 step L side'

  it.each([
    ['call numbers 1,3,5,7', ['one@0', 'three@24', 'five@48', 'seven@72']],
    ['call 1,3', ['one@0', 'three@24']],
    ['call none', []],
  ])('%s, of the combination or of a phrase', (line, expected) => {
    expect(numbers(called(FEET, { header: line }))).toEqual(expected)
    expect(numbers(called(`${line}\n${FEET}`))).toEqual(expected)
    expect(numbers(called(`${line}\n${FEET}`, { header: 'call words' }))).toEqual(expected)
    expect(numbers(called(FEET))).toHaveLength(8)
  })

  it('are the words that stand there, and the number of a count without one', () => {
    const words = `${FEET}\n words 1 "heart"; 3 "moon"; 5 "zest"`
    const said = called(words, { header: 'call words' })
    expect(said).toEqual(expect.arrayContaining(['heart@0', 'two@12', 'moon@24', 'four@36']))
    // What nobody has recorded is shown over its number.
    expect(said).toContain('zest@48')
    expect(numbers(called(words))).toHaveLength(8)
    expect(called(words, { header: 'call words', mode: 'cues' })).toEqual(
      called(words, { mode: 'cues' }),
    )
  })

  it('are the names of what begins, the arms first', () => {
    const lines = `${FEET}\n arms 3 both high-v`
    const said = called(lines, { header: 'call names' })
    expect(said).toEqual(expect.arrayContaining(['step R side@0', 'two@12', 'both high-v@24']))
    expect(called(lines, { header: 'call names', side: 'other' })).toContain('step L side@0')
    // Of several words the first is its name.
    const several = called('torso 3-6 body-wave-up cue "ribs | lift"', {
      header: 'call names',
      mode: 'all',
    })
    expect(several.some((text) => text.includes('|'))).toBe(false)
  })

  it('are muted where something is said alone', () => {
    const plain = called(`${FEET}\n say 2-4 "melt"`)
    const alone = called(`${FEET}\n say 2-4 "melt" only`)
    expect(numbers(plain)).toEqual(expect.arrayContaining(['three@24', 'four@36']))
    expect(numbers(alone).map((text) => text.split('@')[0])).toEqual([
      'one',
      'five',
      'six',
      'seven',
      'eight',
    ])
    expect(alone.some((text) => text.startsWith('melt'))).toBe(true)
  })

  it.each(['call', 'call loudly', 'call numbers 0', 'call words 1,2', 'call 1,17'])(
    '“%s” is answered with what to write, and kept',
    (line) => {
      for (const sheet of [
        `sway 2\n${line}\nphrase A 8\n ${FEET}`,
        `sway 2\nphrase A 8\n ${FEET}\n ${line}`,
      ]) {
        const { combination, messages } = readSheet(sheet, vocabulary)
        const isEmptyLine = line === 'call' && sheet.endsWith(line)
        expect(messages.map(({ text }) => text).join()).toMatch(
          isEmptyLine ? /^$/ : /Write what is said/,
        )
        const printed = writeSheet(combination, vocabulary)
        if (!isEmptyLine) expect(printed.replace(/ +/g, ' ')).toContain(line)
        expect(readSheet(printed, vocabulary).combination).toEqual(combination)
      }
    },
  )
})
