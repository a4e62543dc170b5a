import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { MOST_COUNTS } from '../combination/combination'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from './readSheet'
import { writeSheet } from './writeSheet'

const SIZES = { A: 8, B: 4, C: 16 } as const
const name = fc.constantFrom('A' as const, 'B' as const, 'C' as const)
const passes = fc.array(
  fc.record({ name, mirrored: fc.boolean(), times: fc.integer({ min: 1, max: 40 }) }),
  { minLength: 1, maxLength: 6 },
)

function read(order: string) {
  const sheet = [
    'sway 1',
    `order ${order}`,
    ...Object.entries(SIZES).map(([phrase, counts]) => `phrase ${phrase} ${counts}`),
    '',
  ].join('\n')
  return { sheet, ...readSheet(sheet, vocabulary) }
}
const danced = (order: string) =>
  read(order).combination.order.map(({ phrase, mirrored }) => phrase + (mirrored ? '~' : ''))
const token = ({ name, mirrored, times }: { name: string; mirrored: boolean; times: number }) =>
  `${name}${mirrored ? '~' : ''}*${times}`

describe('the order of a sheet', () => {
  it('is each phrase once when it is not written', () => {
    const { combination } = readSheet('sway 1\nphrase A 8\nphrase B 4\n', vocabulary)
    expect(combination.order.map(({ phrase }) => phrase)).toEqual(['A', 'B'])
  })

  it.each([
    ['A B', ['A', 'B']],
    ['A, B', ['A', 'B']],
    ['B*2 A~', ['B', 'B', 'A~']],
    ['C~*2', ['C~', 'C~']],
  ])('“%s” is danced %j', (order, expected) => expect(danced(order)).toEqual(expected))

  it('is danced as written as far as the counts go, and what is over is said and kept', () => {
    holds(
      fc.property(passes, (written) => {
        const { combination, messages } = read(written.map(token).join(' '))
        const wanted = written.flatMap((pass) =>
          Array.from({ length: pass.times }, () => pass.name + (pass.mirrored ? '~' : '')),
        )
        const got = combination.order.map(({ phrase, mirrored }) => phrase + (mirrored ? '~' : ''))
        const counts = (list: readonly string[]) =>
          list.reduce((sum, each) => sum + SIZES[each[0] as 'A'], 0)
        expect(counts(got)).toBeLessThanOrEqual(MOST_COUNTS)
        if (counts(wanted) <= MOST_COUNTS) {
          expect(got).toEqual(wanted)
          expect(messages).toEqual([])
        } else {
          const left = (combination.unread ?? []).map(({ text }) => Number(text.split('*')[1]))
          expect(left.reduce((sum, times) => sum + times, 0)).toBe(wanted.length - got.length)
          expect(messages.length).toBe(left.length)
        }
        const again = readSheet(writeSheet(combination, vocabulary), vocabulary).combination
        expect(again.order).toEqual(combination.order)
        expect(again.unread).toEqual(combination.unread)
      }),
    )
  })

  it('marks the very word that names no phrase, wherever it stands, and dances the rest', () => {
    holds(
      fc.property(fc.array(name, { maxLength: 5 }), fc.nat(5), (names, at) => {
        const place = Math.min(at, names.length)
        const words = [...names.slice(0, place), 'Zed', ...names.slice(place)]
        const { sheet, combination, messages } = read(words.join(' '))
        const said = messages.map(({ from, to, line }) => [sheet.slice(from, to), line])
        expect(said).toEqual([['Zed', 2]])
        expect(combination.order.map(({ phrase }) => phrase)).toEqual(
          names.length > 0 ? names : ['A', 'B', 'C'],
        )
        expect(combination.unread).toEqual([{ line: 'order', text: 'Zed' }])
      }),
    )
  })
})
