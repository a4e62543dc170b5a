import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { Combination } from '../combination/combination'
import { partOf } from '../combination/partOf'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { joinAsParts } from './joinParts'

const read = (text: string) => readSheet(text, vocabulary).combination
const danced = (one: Combination) =>
  one.phrases.map(({ events, remarks = [] }) =>
    [...events, ...remarks].map(({ id: _, who: __, ...rest }) => JSON.stringify(rest)).sort(),
  )

describe('two combinations for one, joined as parts', () => {
  it('are each danced as before; one with itself is all shared', () => {
    holds(
      fc.property(anyCombination(), anyCombination(), (one, other) => {
        const twice = joinAsParts(one)(one)
        expect(Combination.safeParse(twice).error).toBeUndefined()
        expect(twice.phrases.every(({ events }) => events.every(({ who }) => !who))).toBe(true)
        // Another one of the same shape: what is written of it, over the phrases of this one.
        const shaped: Combination = {
          ...one,
          id: 'other',
          phrases: one.phrases.map((phrase, i) => ({
            ...phrase,
            events: (other.phrases[i % other.phrases.length]?.events ?? [])
              .filter(({ at, length }) => at >= 0 && at + (length ?? 1) <= phrase.counts * 12)
              .map((event) => ({ ...event, id: `${phrase.id}${event.id}` })),
          })),
        }
        const joined = joinAsParts(shaped)(one)
        expect(Combination.safeParse(joined).error).toBeUndefined()
        expect(danced(partOf(joined, '1'))).toEqual(danced(one))
        expect(danced(partOf(joined, '2'))).toEqual(danced(shaped))
      }),
      { numRuns: 200, seed: 750 },
    )
  })

  it('shares what is the same on a tick, and is refused where the phrases are not the same', () => {
    const one = read(
      'sway 1\ntitle Amber\nphrase A 8\n  feet 1 step R side; 2 touch L together; 3 step L side',
    )
    const other = read(
      'sway 1\ntitle Blue\nstart arms crown\nphrase X 8\n  feet 1 step R side; 2 touch L together; 3 step L back',
    )
    const { parts, phrases } = joinAsParts(other)(one)
    expect(parts?.map(({ name, start }) => [name, start?.arms.R])).toEqual([
      ['Amber', undefined],
      ['Blue', 'crown'],
    ])
    expect(phrases[0]?.events.map(({ at, who }) => [at / 12 + 1, who])).toEqual([
      [1, undefined],
      [2, undefined],
      [3, ['1']],
      [3, ['2']],
    ])
    const long = read('sway 1\ntitle Long\nphrase A 8\nphrase B 8\norder A B')
    expect(() => joinAsParts(long)(one)).toThrow(/2 phrases in a row, and this one 1/)
    const odd = read('sway 1\ntitle Odd\nphrase A 6')
    expect(() => joinAsParts(odd)(one)).toThrow(/6 counts, and here 8/)
    expect(() => joinAsParts(one)(joinAsParts(other)(one))).toThrow(/for several/)
  })

  it('keeps what nobody could read of either, and never lets a move of one be danced for the other', () => {
    const sheet = (motion: string, odd: string) =>
      read(`sway 1
title Melting
move melt "Slow melt" hips path counts 2 sided none claims pelvis motion "${motion}"
phrase A 8
  hips 1 melt; 3 ${odd}`)
    const one = sheet('arc(R>C>L)', 'blorp')
    const { phrases, moves } = joinAsParts(sheet('arc(R>C>L)', 'fnord'))(one)
    expect(phrases[0]?.unread?.map(({ text }) => text)).toEqual(['3 blorp', '3 fnord'])
    expect(moves).toHaveLength(1)
    expect(joinAsParts(one)(one).phrases[0]?.unread).toHaveLength(1)
    expect(() => joinAsParts(sheet('arc(L>C>R)', 'fnord'))(one)).toThrow(/not the same/)
  })
})
