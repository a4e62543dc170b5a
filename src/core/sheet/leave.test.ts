import { describe, expect, it } from 'vitest'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from './readSheet'
import { writeSheet } from './writeSheet'

const read = (lines: string) => readSheet(`sway 1\n${lines}`, vocabulary)

describe('a finding that is left, in the count sheet', () => {
  it('stands with its move or in the head of the sheet, several if need be, and is printed back', () => {
    const text = [
      'leave join.foot "it ends the show"',
      'variant "the-other-one"',
      'phrase A 8',
      ' feet 1 step R side leave feet.wide-quick "they are tall; \\"very\\"" leave move.needs "we know"',
    ].join('\n')
    const { combination, messages } = read(text)
    expect(messages).toEqual([])
    expect(combination.leave).toEqual([{ code: 'join.foot', because: 'it ends the show' }])
    expect(combination.variantOf).toBe('the-other-one')
    expect(combination.phrases[0]?.events[0]?.leave).toEqual([
      { code: 'feet.wide-quick', because: 'they are tall; "very"' },
      { code: 'move.needs', because: 'we know' },
    ])
    const sheet = writeSheet(combination, vocabulary)
    expect(sheet).toContain('leave   join.foot "it ends the show"')
    expect(writeSheet(readSheet(sheet, vocabulary).combination, vocabulary)).toBe(sheet)
  })

  it.each([
    ['phrase A 8\n feet 1 step R leave', 'the finding'],
    ['phrase A 8\n feet 1 step R leave feet.loaded', 'why it stays'],
    ['phrase A 8\n feet 1 step R leave "because"  "so"', 'no finding'],
    ['phrase A 8\n feet 1 step R leave feet.loaded "  "', 'why it stays'],
    ['leave join.foot\nphrase A 8\n feet 1 hold', 'why it stays'],
    ['variant\nphrase A 8\n feet 1 hold', 'the id of a combination'],
  ])('says what is missing in “%s”, and keeps the words', (text, expected) => {
    const { messages, combination } = read(text)
    expect(messages).toHaveLength(1)
    expect(messages[0]?.text).toContain(expected)
    expect(writeSheet(combination, vocabulary)).toMatch(/leave|variant/)
  })
})
