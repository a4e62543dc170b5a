import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { UserError } from '../errors'
import { vocabulary } from '../moves/vocabulary'
import { canonical } from './canonical'
import { readCsv, writeCsv } from './csv'
import { readSheet } from './readSheet'
import { writeSheet } from './writeSheet'

describe('rows of landings', () => {
  it('give back what was written', () => {
    fc.assert(
      fc.property(anyCombination(), (combination) => {
        const { combination: again, messages } = readCsv(
          writeCsv(combination, vocabulary),
          vocabulary,
        )
        expect(messages).toEqual([])
        expect(again).toEqual(canonical(combination))
      }),
      { numRuns: 600, seed: 61 },
    )
  })

  it('are one a landing, with the facing and the weight it leads to', () => {
    const { combination } = readSheet(
      'sway 1\ntitle T\nphrase A 8\n feet 1 step R side turn 90; 2 touch L\n hips 1-4 hip-sway R\n say 1 "turn"',
      vocabulary,
    )
    const rows = writeCsv(combination, vocabulary)
      .split('\n')
      .filter((row) => row.startsWith('A,'))
    expect(rows).toEqual([
      'A,1,step R side turn 90,1-4 hip-sway R,,,,90,R,turn',
      'A,2,touch L in-place,,,,,90,R,',
    ])
  })

  it('are read from a plain spreadsheet, feet filled in, with the row of what is wrong', () => {
    const { combination, messages } = readCsv(
      'Phrase,Count,Feet,Hips\nA,1,step side,hip-drpo\nA,2,touch,\nB,1,step,1-2 hip sway\n',
      vocabulary,
    )
    expect(messages.map(({ line, text }) => `${line}: ${text}`)).toEqual([
      expect.stringMatching(/^2: .*Did you mean hip-drop/),
    ])
    expect(writeSheet(combination, vocabulary)).toMatch(
      /phrase A 8\n {2}feet {3}1 step R side; 2 touch L in-place\n {2}hips {3}1 hip-drpo\n\nphrase B 8\n {2}feet {3}1 step L in-place\n {2}hips {3}1 hip-sway R/,
    )
  })

  it('never throw past a sentence, however they are garbled', () => {
    const files = fc
      .sample(anyCombination(), { numRuns: 12, seed: 62 })
      .map((combination) => writeCsv(combination, vocabulary))
    const piece = fc.oneof(fc.constantFrom(',', '"', '\n', '@', ';', '""', 'A,'), fc.string())
    fc.assert(
      fc.property(fc.nat(11), fc.nat(3000), fc.nat(40), piece, (which, from, cut, put) => {
        const file = files[which] ?? ''
        const at = from % (file.length + 1)
        try {
          readCsv(file.slice(0, at) + put + file.slice(at + cut), vocabulary)
        } catch (error) {
          expect(error).toBeInstanceOf(UserError)
        }
      }),
      { numRuns: 3000, seed: 63 },
    )
    expect(() => readCsv('name,price\nsoap,2', vocabulary)).toThrow(/no combination/)
  })
})
