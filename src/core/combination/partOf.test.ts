import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyEdit } from '../../../tests/anyEdit'
import { anyPiece } from '../../../tests/anyPiece'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { forPart, lifted } from '../edits/forPart'
import { makeForSeveral, plainAlone } from '../edits/parts'
import { Combination } from './combination'
import { mirror } from './mirror'
import { partIds, partOf } from './partOf'
import { ONLY_PART } from './whose'

const idsOf = (one: Combination) => partIds(one)

describe('what a part dances', () => {
  it('is the combination itself where it is for one, and a valid one of its own where it is for several', () => {
    holds(
      fc.property(anyCombination(), (alone) => {
        expect(partOf(alone, ONLY_PART)).toBe(alone)
        expect(partIds(alone)).toEqual([ONLY_PART])
      }),
      { numRuns: 100, seed: 700 },
    )
    holds(
      fc.property(anyPiece(), (piece) => {
        expect(Combination.safeParse(piece).error).toBeUndefined()
        for (const id of idsOf(piece)) {
          const hers = partOf(piece, id)
          expect(Combination.safeParse(plainAlone(hers)).error).toBeUndefined()
          expect(hers.parts).toBeUndefined()
          expect(hers.phrases.some(({ between }) => between)).toBe(false)
          expect(partOf(hers, id)).toBe(hers)
          expect(partOf(piece, id)).toBe(hers)
          // Nobody else's, and not what she dances alone.
          for (const { events } of hers.phrases)
            for (const { who } of events)
              expect(who === undefined || (who.includes(id) && !who.includes('solo'))).toBe(true)
        }
      }),
      { numRuns: 400, seed: 701 },
    )
  })

  it('is all of it, where nothing tells the parts apart', () => {
    holds(
      fc.property(anyCombination(), (alone) => {
        const { parts: _, ...plain } = makeForSeveral(['One', 'Two', 'Three'])(alone)
        for (const id of ['1', '2', '3'])
          expect(
            partOf({ ...plain, parts: makeForSeveral(['One', 'Two', 'Three'])(alone).parts }, id),
          ).toEqual(plain)
      }),
      { numRuns: 200, seed: 702 },
    )
  })

  it('is the same seen from the other side, images, meetings and what is kept included', () => {
    holds(
      fc.property(anyPiece(), (piece) => {
        expect(mirror(mirror(piece))).toEqual({ ...piece, ...(piece.keepTurns && {}) })
        for (const id of idsOf(piece))
          expect(partOf(mirror(piece), id)).toEqual(mirror(partOf(piece, id)))
      }),
      { numRuns: 400, seed: 703 },
    )
  })
})

describe('an edit of one part', () => {
  it('is danced by her as it was made, and leaves all others the very same', () => {
    let changed = 0
    holds(
      fc.property(anyPiece(), anyEdit, fc.nat(3), (piece, edit, pick) => {
        const ids = idsOf(piece)
        const id = ids[pick % ids.length] ?? ''
        const before = partOf(piece, id)
        const wanted = edit(before)
        const after = forPart(id, edit)(piece)
        expect(Combination.safeParse(after).error).toBeUndefined()
        const isOfAll =
          wanted.order !== before.order ||
          wanted.phrases.some(
            (phrase, i) =>
              JSON.stringify({ ...phrase, events: [], remarks: [], facings: [], options: [] }) !==
              JSON.stringify({
                ...before.phrases[i],
                events: [],
                remarks: [],
                facings: [],
                options: [],
              }),
          )
        if (isOfAll) return
        // What somebody has from another one is changed there, and hers with it.
        const follows = piece.phrases.some(({ voices = [] }) =>
          voices.some(({ part }) => part === id),
        )
        if (follows) return
        if (wanted !== before) changed++
        const dances = (one: Combination) =>
          partOf(one, id).phrases.map(({ events, remarks = [] }) => [
            events.map(({ id: _, who: __, ...event }) => JSON.stringify(event)).sort(),
            remarks.map(({ id: _, who: __, ...remark }) => JSON.stringify(remark)).sort(),
          ])
        expect(dances(after)).toEqual(dances({ ...wanted }))
        const isFollowed = piece.phrases.some(({ voices }) => voices)
        for (const other of ids)
          if (other !== id && !isFollowed && wanted.tempo === before.tempo)
            expect(withoutIds(partOf(after, other))).toEqual(withoutIds(partOf(piece, other)))
      }),
      { numRuns: 600, seed: 704 },
    )
    expect(changed).toBeGreaterThan(20)
  })

  it('of all who dance it is danced by each of them', () => {
    holds(
      fc.property(anyPiece(), anyEdit, (piece, edit) => {
        const [id = ''] = idsOf(piece)
        const before = partOf(piece, id)
        const after = edit(before)
        const isOfAll =
          after.order !== before.order ||
          after.phrases.some(({ counts }, i) => counts !== before.phrases[i]?.counts)
        // What is moved to where she waits is not hers any more.
        const waits = piece.phrases.some(({ between = [] }) =>
          between.some(({ what }) => what.kind === 'wait'),
        )
        const sings = piece.phrases.some(({ voices = [] }) =>
          voices.some(({ part }) => part === id),
        )
        if (isOfAll || waits || sings || after.phrases.length !== before.phrases.length) return
        const made = lifted(piece, id, { before, after, whom: 'all' })
        expect(Combination.safeParse(made).error).toBeUndefined()
        const sorted = (one: Combination) =>
          partOf(one, id).phrases.map(({ events }) =>
            events.map(({ id: _, who: __, ...event }) => JSON.stringify(event)).sort(),
          )
        expect(sorted(made)).toEqual(sorted(after))
      }),
      { numRuns: 300, seed: 705 },
    )
  })

  it('leaves the dancing of another one the same object, so that it is not danced again', () => {
    const piece = makeForSeveral(['One', 'Two'])(
      fc.sample(anyCombination(), { numRuns: 1, seed: 9 })[0] as Combination,
    )
    const first = piece.phrases.find(({ events }) => events.length > 1)
    const event = first?.events[0]
    if (!first || !event) throw new Error('nothing is danced')
    const own: Combination = {
      ...piece,
      phrases: piece.phrases.map((phrase) =>
        phrase === first
          ? {
              ...phrase,
              events: [...phrase.events, { ...event, id: 'hers', who: ['1'] }],
            }
          : phrase,
      ),
    }
    const before = partOf(own, '2')
    const edited: Combination = {
      ...own,
      phrases: own.phrases.map((phrase) => ({
        ...phrase,
        events: phrase.events.map((one) => (one.id === 'hers' ? { ...one, cue: 'now' } : one)),
      })),
    }
    expect(partOf(edited, '1')).not.toBe(partOf(own, '1'))
    expect(partOf(edited, '2')).toBe(before)
  })
})

/** All of it but the ids, which tell what is whose own apart. */
const withoutIds = (one: Combination) =>
  one.phrases.map(({ events, remarks = [], facings = [] }) => [
    events.map(({ id: _, who: __, ...event }) => JSON.stringify(event)).sort(),
    remarks.map(({ id: _, who: __, ...remark }) => JSON.stringify(remark)).sort(),
    facings.map(({ who: _, ...facing }) => JSON.stringify(facing)).sort(),
  ])
