import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { NOTEBOOK } from '../../../tests/pages'
import { Combination } from '../combination/combination'
import { vocabulary } from '../moves/vocabulary'
import { canonical } from '../sheet/canonical'
import { writePage } from '../sheet/writePage'
import { writeSheet } from '../sheet/writeSheet'
import { SEVERAL } from './ambiguous'
import { countsAt, piecesOf } from './counts'
import { readPage } from './page'
import { isOpen, type Page } from './read'

const openIn = ({ lines }: Page): readonly string[] =>
  lines
    .flatMap(({ pieces }) => pieces)
    .filter(isOpen)
    .map(({ typed, meanings }) => `“${typed}”: ${meanings.map(({ text }) => text).join(' | ')}`)

describe('a page from a notebook', () => {
  it.each(NOTEBOOK)(
    '$name becomes what is meant, with the choices it leaves open',
    ({ page, sheet, open }) => {
      const read = readPage(page, vocabulary)
      expect(writeSheet(read.combination, vocabulary)).toBe(sheet)
      expect(openIn(read)).toEqual(open)
    },
  )

  it('has its choices made by a touch, a line called a note, and columns that hold something else', () => {
    const circle = NOTEBOOK.find(({ page }) => page.includes('1–4 hip circle'))?.page ?? ''
    const first = readPage(circle, vocabulary)
    const [piece] = first.lines
      .flatMap(({ pieces }) => pieces)
      .filter(({ meanings }) => meanings.length > 1)
    const large = readPage(circle, vocabulary, { chosen: { [piece?.id ?? '']: 1 } })
    expect(writeSheet(large.combination, vocabulary)).toContain('1-4 hip-circle-large cw')
    const none = readPage(circle, vocabulary, { chosen: { [piece?.id ?? '']: -1 } })
    expect(writeSheet(none.combination, vocabulary)).toContain('note   1 "hip circle"')
    const line = first.lines.find(({ text }) => text.includes('hip drop'))?.number ?? 0
    const noted = readPage(circle, vocabulary, { kinds: { [line]: 'note' } })
    expect(writeSheet(noted.combination, vocabulary)).toContain('"5-6: hip drop R"')
    const rows = readPage('1\tstep R side\tout\n2\tclose L\tin\n', vocabulary, {
      columns: ['count', 'feet', 'say'],
    })
    expect(writeSheet(rows.combination, vocabulary)).toContain('say    1 "out"; 2 "in"')
    expect(rows.columns?.map(({ role }) => role)).toEqual(['count', 'feet', 'say'])
  })

  it('makes a phrase as long as a line of a sheet reaches', () => {
    const { combination } = readPage('Lane\n\nA\nfeet 1 step R side; 12 close L\n', vocabulary)
    expect(combination.phrases.map(({ counts, unread }) => [counts, unread])).toEqual([
      [16, undefined],
    ])
  })

  it.each([
    ['1-4 walk', [0], 48, 'walk'],
    ['1–4: walk', [0], 48, 'walk'],
    ['1 to 4 walk', [0], 48, 'walk'],
    ['counts 5-8 walk', [48], 96, 'walk'],
    ['5 6 clap', [48, 60], undefined, 'clap'],
    ['7, 8: clap', [72, 84], undefined, 'clap'],
    ['1&2 triple', [0, 6, 12], undefined, 'triple'],
    ['1 & 2 triple', [0, 6, 12], undefined, 'triple'],
    ['3& clap', [30], undefined, 'clap'],
    ['3) clap', [24], undefined, 'clap'],
    ['on 5 clap', [48], undefined, 'clap'],
    ['and 8 kick', [84], undefined, 'kick'],
  ] as const)('reads the counts of %s', (text, at, end, rest) => {
    expect(countsAt(text)).toMatchObject({ at, end, rest })
  })

  it('parts a line where it goes on counting, and not at a turn, a time or a figure 8', () => {
    expect(piecesOf('1-2 step touch R, 3-4 step touch L; 5 pivot 90 6 clap')).toEqual([
      '1-2 step touch R',
      '3-4 step touch L',
      '5 pivot 90',
      '6 clap',
    ])
    expect(piecesOf('1-4 figure 8, x2 (both on 5)')).toEqual(['1-4 figure 8, x2 (both on 5)'])
  })

  it('offers only moves there are, two to four of them', () => {
    for (const [name, ids] of SEVERAL) {
      expect(
        ids.filter((id) => !vocabulary.find(id)),
        name,
      ).toEqual([])
      expect(ids.length, name).toBeGreaterThan(1)
      expect(ids.length, name).toBeLessThan(5)
    }
  })

  it('is read back the same where it was printed here as plain text', () => {
    holds(
      fc.property(anyCombination(), (any) => {
        const written = {
          ...any,
          // What nobody could read, and what stands in free counts, is said to whoever reads it over.
          phrases: any.phrases.map(({ unread: _, ...phrase }) => ({
            ...phrase,
            events: phrase.events.filter(({ what }) => what.kind !== 'free'),
            ...(phrase.options && {
              options: phrase.options.map((option) => ({
                ...option,
                events: option.events.filter(({ what }) => what.kind !== 'free'),
              })),
            }),
          })),
        }
        const page = readPage(writePage(written, vocabulary), vocabulary)
        expect(page.combination).toEqual(canonical(written))
      }),
      { numRuns: 200, seed: 307 },
    )
  })

  it('loses no line and breaks on none, whatever stands on it', () => {
    const word = fc.constantFrom(
      ...[
        'step',
        'hip',
        'drop',
        'R',
        'left',
        '1-4',
        '5',
        'and',
        '8',
        ':',
        ',',
        'x2',
        'for 4',
        '(big)',
      ],
      ...[
        'grapevine',
        'shimmy',
        'A',
        'repeat',
        'arms',
        'second',
        '"out"',
        '"',
        '|',
        '\t',
        'ʻami',
        '99',
        '-',
        '#',
        ';',
      ],
      ...vocabulary.moves.slice(0, 40).map(({ name }) => name),
    )
    const line = fc.array(word, { maxLength: 8 }).map((words) => words.join(' '))
    holds(
      fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
        const read = readPage(lines.join('\n'), vocabulary)
        expect(Combination.safeParse(read.combination).error?.issues).toBeUndefined()
        const isTable = read.columns !== undefined
        const known = new Set(read.lines.map(({ number }) => number))
        if (!isTable)
          for (const [i, one] of lines.entries()) expect(known.has(i + 1)).toBe(one.trim() !== '')
        for (const { pieces, said } of read.lines)
          if (pieces.length > 0) expect(said.length).toBeGreaterThan(0)
      }),
      { numRuns: 300, seed: 311 },
    )
  })
})
