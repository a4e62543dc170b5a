import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { Combination } from '../combination/combination'
import { partOf } from '../combination/partOf'
import { vocabulary } from '../moves/vocabulary'
import { canonical, withKnownIds } from './canonical'
import { readCsv, writeCsv } from './csv'
import { readSheet } from './readSheet'
import { readSwayJson, writeSwayJson } from './swayJson'
import { writeSheet } from './writeSheet'

const plain = <T>(one: T): T => JSON.parse(JSON.stringify(one)) as T
const read = (text: string) => readSheet(text, vocabulary)
const sheet = (lines: string) =>
  `sway 2\npart @1 "Amber" at L 0.5\npart @2 "Blue" at R 0.5\nphrase A 8\n${lines}`

describe('the sheet of several dancers', () => {
  it('is read as it was written, and so are rows and the whole record', () => {
    holds(
      fc.property(anyPiece(), (piece) => {
        const written = canonical(piece)
        const text = writeSheet(piece, vocabulary)
        expect(text).toMatch(/^sway 2\n/)
        const again = read(text)
        expect(plain(again.combination)).toEqual(plain(written))
        expect(Combination.safeParse(again.combination).error).toBeUndefined()
        expect(writeSheet(again.combination, vocabulary)).toBe(text)
        expect(plain(readCsv(writeCsv(piece, vocabulary), vocabulary).combination)).toEqual(
          plain(written),
        )
        const { combination, unknown } = readSwayJson(writeSwayJson(piece))
        expect(unknown).toEqual([])
        expect(combination).toEqual(plain(piece))
        const isNew = /^(carry|part .* delay )|^ +voice /m.test(
          text.replace(/"(\\.|[^"\\])*"/g, '""'),
        )
        expect(JSON.parse(writeSwayJson(piece)).schemaVersion).toBe(isNew ? 8 : 7)
      }),
      { numRuns: 500, seed: 710 },
    )
  })

  it('of one dancer says nothing of parts, and keeps its version', () => {
    holds(
      fc.property(anyCombination(), (alone) => {
        const text = writeSheet(alone, vocabulary)
        expect(text).not.toMatch(/^(part|swap)\b/m)
        expect(text).not.toMatch(/^ +between\b/m)
        expect(JSON.parse(writeSwayJson(alone)).schemaVersion).toBe(6)
      }),
      { numRuns: 100, seed: 711 },
    )
  })

  it('leaves a foot open that is free for the first who dances it, and each part has her own', () => {
    const { combination, messages } = read(
      sheet(
        '  feet 1 step side; 2 touch; 3 step\n  feet @2 1& step; 1a step\n  feet @1 4 step; 5 step',
      ),
    )
    expect(messages).toEqual([])
    const feet = (part: string) =>
      partOf(combination, part).phrases[0]?.events.map(({ what }) =>
        what.kind === 'foot' ? what.action.foot : '',
      )
    expect(feet('1')).toEqual(['R', 'L', 'L', 'R', 'L'])
    expect(feet('2')).toEqual(['R', 'L', 'R', 'L', 'L'])
  })

  it.each([
    ['  feet @3 1 step R', /There is no part @3\. There is @1, @2\./],
    ['  feet 1 step R @9', /There is no part @9/],
    ['  between 1-4 hold @1.R @1.L palm', /Nobody meets herself/],
    ['  between 1-4 hold @1.R @2.L', /Write one of palm, fingers, wrist, flat/],
    ['  between 1-4 hold @1.Q @2.L palm', /Write a hand or a place of the body/],
    ['  between 1-4 hug @1 @2', /nothing two dancers do here\. Write hold, touch/],
    ['  between 1-4 place @1 besides @2', /Write one of behind, before, left/],
    ['  between 1-4 support @1 of @2 90%', /from 5 to 60/],
    ['  between 1-4 wait @7', /There is no part @7/],
    ['  between 1-4 look @1 @2 soon', /“soon” is not known here/],
  ])('keeps what it can’t read as it was typed: %s', (line, message) => {
    const { combination, messages } = read(sheet(line))
    expect(messages.map(({ text }) => text).join()).toMatch(message)
    const again = read(writeSheet(combination, vocabulary))
    expect(plain(again.combination)).toEqual(plain(combination))
    // It is nobody else’s later.
    expect(again.combination.phrases[0]?.events).toEqual([])
  })

  it('says what is wrong with its parts, and loses none', () => {
    const alone = read('sway 2\npart @1 "Amber" at L 0.5\nphrase A 8\n feet 1 step R')
    expect(alone.messages[0]?.text).toMatch(/One part alone is no part/)
    expect(alone.combination.parts).toBeUndefined()
    expect(writeSheet(alone.combination, vocabulary)).toMatch(/part @1 "Amber"/)
    const twice = read('sway 2\npart @1 "A" at L 1\npart @1 "B" at R 1\npart @2 "C"\nphrase A 8\n')
    expect(twice.messages[0]?.text).toMatch(/There is a part @1 already/)
    expect(twice.combination.parts?.map(({ name, at }) => [name, at[0]?.right])).toEqual([
      ['A', -1],
      ['C', 0.5],
    ])
    expect(read('sway 2\nswap roles\nphrase A 8\n').messages[0]?.text).toMatch(/exactly two parts/)
  })

  it('typed anew keeps the very objects of what stayed', () => {
    const { combination } = read(
      sheet('  feet 1 step R; 2 touch L\n  feet @2 3 step L\n  between 1-4 hold @1.R @2.L palm'),
    )
    const again = withKnownIds(read(writeSheet(combination, vocabulary)).combination, combination)
    expect(again).toBe(combination)
  })
})
