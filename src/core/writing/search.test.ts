import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { LAYERS, type Layer } from '../body/layers'
import { sideOf } from '../combination/names'
import { vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'
import { idOfKind } from './fit'
import { findOffers } from './search'

const ALL = 9999
const offers = (layer: Layer, query: string, most = ALL) =>
  findOffers(query, { layer, side: 'R', families: ['belly'] }, vocabulary, most)
const kinds = (layer: Layer, query: string) =>
  new Set(offers(layer, query).map(({ what }) => idOfKind(what)))

const anyMove = fc.constantFrom(...vocabulary.moves)
/** Letters as fingers find them: any case, accents or none. */
const typed = (text: string, seed: number) =>
  [...text].map((letter, i) => ((seed >> (i % 16)) & 1 ? letter.toUpperCase() : letter)).join('')

describe('any name of the vocabulary', () => {
  it('brings its move when it is typed in full, whatever the case, before all others', () => {
    holds(
      fc.property(anyMove, fc.nat(), (move, seed) => {
        for (const name of [move.name, ...move.aka]) {
          // “Left” and “right” in a name say the side.
          if (/\b(r|l|right|left)\b/.test(folded(name))) continue
          const names = (id: string) => {
            const one = vocabulary.find(id)
            return one ? [one.name, ...one.aka].map(folded) : []
          }
          const first = offers(move.layer, typed(name, seed), 12)
          const bearing = first.filter(
            ({ what }) => what.kind === 'move' && names(what.move).includes(folded(name)),
          )
          const own = first.findIndex(({ what }) => what.kind === 'move' && what.move === move.id)
          // A move that is nothing but a place is offered as that place.
          if (own < 0) expect(first[0]?.what.kind).not.toBe('move')
          else expect(own).toBeLessThan(Math.max(1, bearing.length))
        }
      }),
      { numRuns: 300, seed: 41 },
    )
  })

  it('is found by the beginnings of its words, in any order', () => {
    holds(
      fc.property(anyMove, fc.nat(3), fc.boolean(), (move, cut, turned) => {
        const words = folded(move.name)
          .split(/[\s,]+/)
          .filter((word) => word !== '' && !/^(r|l|right|left)$/.test(word))
          .map((word) => word.slice(0, Math.max(2, word.length - cut)))
          .filter((word) => !/^(r|l|right|left)$/.test(word))
        const query = (turned ? words.toReversed() : words).join(' ')
        const found = offers(move.layer, query)
        const isThere = found.some(({ what }) => what.kind === 'move' && what.move === move.id)
        const asPlace = found.some(({ what }) => what.kind !== 'move')
        expect(isThere || asPlace).toBe(true)
      }),
      { numRuns: 300, seed: 42 },
    )
  })
})

describe('what is typed', () => {
  it('only ever narrows: one letter more brings nothing new', () => {
    holds(
      fc.property(fc.constantFrom(...LAYERS), anyMove, fc.nat(12), (layer, { name }, length) => {
        const query = name.slice(0, length)
        const after = name.slice(0, length + 1)
        const before = kinds(layer, query)
        // From the third letter on the other layers are looked through too.
        const own = offers(layer, after).filter((offer) => offer.layer === layer)
        for (const { what } of own) expect(before).toContain(idOfKind(what))
      }),
      { numRuns: 200, seed: 43 },
    )
  })

  it('with a side gives every offer that has one this side, and its other side otherwise', () => {
    holds(
      fc.property(
        fc.constantFrom(...LAYERS),
        fc.constantFrom('', 'hip', 'step', 'ch', 'look', 'high'),
        (layer, words) => {
          const sidesOf = (query: string) =>
            new Set(offers(layer, query).flatMap(({ what }) => sideOf(what) ?? []))
          for (const said of ['l', 'L', 'left', 'LEFT'])
            expect([...sidesOf(`${words} ${said}`)].filter((side) => side !== 'L')).toEqual([])
          expect([...sidesOf(`right ${words}`)].filter((side) => side !== 'R')).toEqual([])
          expect(kinds(layer, `${words} l`)).toEqual(kinds(layer, `${words} r`))
        },
      ),
      { numRuns: 30, seed: 44 },
    )
  })
})

describe('plain names', () => {
  it.each([
    ['hip circle', 'hips', 'small hip circle'],
    ['shimmy', 'hips', 'knee-driven shimmy'],
    ['figure 8', 'hips', 'horizontal eight, front to back'],
    ['hip roll', 'hips', '(quick|single) hip roll'],
    ['body roll', 'torso', 'body wave down'],
    ['lean forward', 'torso', 'light lean forward'],
    ['ribcage circle', 'torso', 'rib circle'],
    ['plie', 'feet', 'low'],
    ['chest lift', 'torso', 'chest lift'],
    ['step touch', 'feet', 'step-touch'],
    ['look left', 'head', 'look left'],
    // Typed in a hurry.
    ['shimmi', 'hips', 'knee-driven shimmy'],
    ['grapvine', 'feet', 'grapevine'],
    ['hip drpo', 'hips', 'hip drop'],
  ] as const)('“%s” is the plain one first, wherever it is asked for', (query, layer, name) => {
    for (const from of LAYERS) {
      const [first] = offers(from, query, 12)
      // Where the cursor stands comes first; what is called so elsewhere is found all the same.
      const there = offers(from, query, 12).find((offer) => offer.layer === layer)
      if (from === layer) expect(first?.name).toMatch(new RegExp(`^${name}`))
      else expect(there?.name).toMatch(new RegExp(`^${name}`))
    }
  })
})
