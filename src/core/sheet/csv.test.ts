import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { UserError } from '../errors'
import { vocabulary } from '../moves/vocabulary'
import { canonical } from './canonical'
import { readCsv, writeCsv } from './csv'
import { readCombinationFile, textOfBytes } from './files'
import { readSheet } from './readSheet'
import { writeSheet } from './writeSheet'

/** What stands within free counts is told, and is read all the same. */
const isLoss = ({ text }: { readonly text: string }) => !text.includes('are free: take this out')

describe('rows of landings', () => {
  it('give back what was written', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const { combination: again, messages } = readCsv(
          writeCsv(combination, vocabulary),
          vocabulary,
        )
        const strange = combination.phrases.flatMap(({ unread = [] }) => unread)
        expect(messages.filter(isLoss)).toHaveLength(strange.length)
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
      /phrase A 8\n {2}feet {3}1 step R side; 2 touch L in-place\n {2}hips {3}1 hip-drpo\n\nphrase B 8\n {2}feet {3}1 step L in-place\n {2}hips {3}1-2 hip-sway R/,
    )
  })

  const rowsOf = (csv: string) => {
    const { combination, messages } = readCsv(csv, vocabulary)
    expect(messages).toEqual([])
    return combination.phrases.map(
      ({ name, events }) => `${name} ${events.map(({ at }) => at / 12 + 1).join(' ')}`,
    )
  }

  it.each([
    [
      'the phrase carried down',
      'phrase,count,feet\nA,1,step side\n,2,close\nB,1,step side\n,2,close',
    ],
    [
      'semicolons and their mark',
      'sep=;\nphrase;count;feet\nA;1;step side\n;2;close\nB;1;step side\n;2;close',
    ],
    ['tabs', 'phrase\tcount\tfeet\nA\t1\tstep side\n\t2\tclose\nB\t1\tstep side\n\t2\tclose'],
    [
      'another order of columns',
      'count;feet;phrase\n1;step side;A\n2;close;\n1;step side;B\n2;close;',
    ],
  ])('are read with %s', (_, csv) => {
    expect(rowsOf(csv)).toEqual(['A 1 2', 'B 1 2'])
    // And told from a sheet or a recipe without the name of a file.
    expect(readCombinationFile('pasted text', csv, vocabulary).combination.phrases).toHaveLength(2)
  })

  it.each([
    ['1,5', 1.5],
    ['1.5', 1.5],
    ['2,25', 2.25],
    ['2.75', 2.75],
    ['3,33', 3 + 1 / 3],
    ['3.67', 3 + 2 / 3],
  ])('read the count %s as a part of a count', (count, at) => {
    const { combination } = readCsv(`phrase;count;feet\nA;${count};step side`, vocabulary)
    expect(combination.phrases[0]?.events.map((event) => event.at)).toEqual([(at - 1) * 12])
  })

  it('name the columns they have where they have others than are needed', () => {
    expect(() => readCsv('Bar;Beat;Steps\n1;1;side', vocabulary)).toThrow(
      /called “Bar”, “Beat”, “Steps”.*“phrase”, “count” and a layer/,
    )
  })

  it('hold nothing a spreadsheet would run, and give it back', () => {
    const { combination } = readSheet(
      'sway 1\nphrase A 8\n feet 1 step R side\n say 1 "=1+1"; 2 "-2"; 3 "\'=x"; 4 "@me"; 5 "plain"',
      vocabulary,
    )
    const csv = writeCsv(combination, vocabulary)
    const cells = Papa.parse<string[]>(csv).data.flat()
    expect(cells.filter((cell) => /^[=+\-@\t\r]/.test(cell) && cell !== '@')).toEqual([])
    expect(readCsv(csv, vocabulary).combination).toEqual(canonical(combination))
  })

  it('keep comments before the lines they stood before', () => {
    const { combination } = readSheet(
      'sway 1\n# of the title\ntitle T\n# above A\nphrase A 8\n # of the feet\n feet 1 step R side\n# above B\nphrase B 8\n hips 1 hip-bump R\n# last\norder A B\n# the end',
      vocabulary,
    )
    expect(combination.phrases.map(({ comments }) => comments?.map(({ text }) => text))).toEqual([
      ['above A', 'of the feet'],
      ['above B'],
    ])
    expect(readCsv(writeCsv(combination, vocabulary), vocabulary).combination).toEqual(
      canonical(combination),
    )
  })

  it('come from bytes of either kind of wide letters, and never from a workbook', () => {
    const csv = 'phrase\tcount\tfeet\nÄ\t1\tstep side'
    const decode = (bytes: Uint8Array, encoding: string) =>
      new TextDecoder(encoding, { fatal: true }).decode(bytes)
    const wide = (isBig: boolean) =>
      Uint8Array.from(
        [...`\uFEFF${csv}`].flatMap((sign) => {
          const code = sign.charCodeAt(0)
          return isBig ? [code >> 8, code & 255] : [code & 255, code >> 8]
        }),
      )
    for (const bytes of [wide(true), wide(false), new TextEncoder().encode(`\uFEFF${csv}`)])
      expect(rowsOf(textOfBytes('a.csv', bytes, decode))).toEqual(['Ä 1'])
    const book = Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0])
    expect(() => textOfBytes('class.xlsx', book, decode)).toThrow(/workbook/)
    try {
      textOfBytes('class.xlsx', book, decode)
    } catch (error) {
      expect((error as UserError).whatToDo).toContain('save it as CSV')
    }
  })

  it('never throw past a sentence, however they are garbled', () => {
    const files = fc
      .sample(anyCombination(), { numRuns: 12, seed: 62 })
      .map((combination) => writeCsv(combination, vocabulary))
    const piece = fc.oneof(fc.constantFrom(',', '"', '\n', '@', ';', '""', 'A,'), fc.string())
    holds(
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
