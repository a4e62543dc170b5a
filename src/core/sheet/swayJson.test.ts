import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import first from '../../../tests/fixtures/combinations-v1.json'
import second from '../../../tests/fixtures/combinations-v2.json'
import third from '../../../tests/fixtures/combinations-v3.json'
import fourth from '../../../tests/fixtures/combinations-v4.json'
import fifth from '../../../tests/fixtures/combinations-v5.json'
import sixth from '../../../tests/fixtures/combinations-v6.json'
import seventh from '../../../tests/fixtures/combinations-v7.json'
import { holds } from '../../../tests/holds'
import { combination, feet } from '../../../tests/write'
import { type Combination, type Event, SCHEMA_VERSION } from '../combination/combination'
import { UserError } from '../errors'
import { vocabulary } from '../moves/vocabulary'
import { upgrade } from '../record/upgrade'
import { readSwayJson, unknownWords, writeSwayJson } from './swayJson'

const refusal = (text: string): UserError => {
  try {
    readSwayJson(text)
  } catch (error) {
    if (error instanceof UserError) return error
    throw error
  }
  throw new Error('it was read')
}

describe('combination files', () => {
  it('of versions 3 to 6 are read as they were, and say of what they can only that', () => {
    expect([third, fourth, fifth, sixth].map(({ length }) => length)).toEqual([5, 6, 13, 7])
    for (const record of [...third, ...fourth, ...fifth, ...sixth])
      expect(readSwayJson(JSON.stringify(record)).combination).toEqual({
        ...record,
        schemaVersion: SCHEMA_VERSION,
      })
    holds(
      fc.property(anyCombination(), fc.constantFrom(3, 4), (any, version) => {
        // Then a form was the id of a move.
        const asThen = (forms: Event['easier']) => {
          const [form] = forms ?? []
          return form && 'move' in form && forms?.length === 1 ? form.move : undefined
        }
        const known = any.phrases.map((phrase) => ({
          ...phrase,
          events: phrase.events.map(({ easier, harder, ...event }) => ({
            ...event,
            ...(asThen(easier) && { easier }),
            ...(asThen(harder) && { harder }),
          })),
        }))
        const then = known.map((phrase) => ({
          ...phrase,
          events: phrase.events.map(({ easier, harder, ...event }) => ({
            ...event,
            ...(easier && { easier: asThen(easier) }),
            ...(harder && { harder: asThen(harder) }),
          })),
        }))
        const old = { ...any, schemaVersion: version, phrases: then }
        expect(readSwayJson(JSON.stringify(old)).combination).toEqual({ ...any, phrases: known })
        expect(() =>
          readSwayJson(JSON.stringify({ ...any, schemaVersion: SCHEMA_VERSION + 1 })),
        ).toThrow(/newer version/)
      }),
      { numRuns: 60, seed: 47 },
    )
  })

  it('give back what was written', () => {
    holds(
      fc.property(anyCombination(), (written) => {
        expect(readSwayJson(writeSwayJson(written))).toEqual({ combination: written, unknown: [] })
      }),
      { numRuns: 200, seed: 41 },
    )
  })

  const written = combination([feet('1 step R side'), feet('1 step R side')])
  const changed = (change: (raw: Record<string, any>) => void) => {
    const raw = JSON.parse(writeSwayJson(written))
    change(raw)
    return JSON.stringify(raw)
  }

  it.each([
    ['broken', writeSwayJson(written).slice(0, 200), /damaged/],
    ['empty', '', /damaged/],
    ['foreign', '{"kind":"recipe"}', /something else/],
    ['a list', '[1,2]', /something else/],
    [
      'newer',
      changed((raw) => {
        raw.schemaVersion = 99
      }),
      /newer version/,
    ],
    [
      'without version',
      changed((raw) => {
        delete raw.schemaVersion
      }),
      /which version/,
    ],
    [
      'a wrong foot',
      changed((raw) => {
        raw.phrases[1].events[0].what.action.foot = 'M'
      }),
      /phrase B, move 1/,
    ],
    [
      'half a tick',
      changed((raw) => {
        raw.phrases[0].events[0].at = 1.5
      }),
      /phrase A, move 1/,
    ],
    [
      'past the end',
      changed((raw) => {
        raw.phrases[0].events[0].at = 96
      }),
      /phrase A/,
    ],
    [
      'an unknown phrase',
      changed((raw) => {
        raw.order[0].phrase = 'Z'
      }),
      /its order/,
    ],
    [
      'no tempo',
      changed((raw) => {
        raw.tempo = 400
      }),
      /its tempo/,
    ],
    [
      'too long',
      changed((raw) => {
        raw.order = Array(40).fill(raw.order[0])
      }),
      /256 at the most/,
    ],
    ['too large', ' '.repeat(1_000_001), /too large/],
  ])('that are %s are refused with what is wrong and what to do', (_, text, message) => {
    const error = refusal(text)
    expect(error.message).toMatch(message)
    expect(error.whatToDo.length).toBeGreaterThan(20)
  })

  it('never throw anything but a sentence, however they are garbled', () => {
    const text = writeSwayJson(written)
    holds(
      fc.property(fc.nat(text.length), fc.nat(40), fc.string(), (from, cut, put) => {
        const garbled = text.slice(0, from) + put + text.slice(from + cut)
        try {
          readSwayJson(garbled)
        } catch (error) {
          expect(error).toBeInstanceOf(UserError)
        }
      }),
      { numRuns: 1500, seed: 42 },
    )
  })

  /** What a length of version 1 or 2 meant: how long the count alone would have lasted. */
  const meant = (event: Event, counts: number): number => {
    const part = ((event.at % 12) + 12) % 12
    if (part !== 0) return { 3: 3, 4: 4, 6: 6, 8: 4, 9: 3 }[part] ?? 1
    const { what } = event
    const move = what.kind === 'move' ? vocabulary.find(what.move)?.length : undefined
    const every = what.kind === 'move' ? what.every : undefined
    return Math.min(Math.max(move ?? 12, every ?? 0), counts * 12 - event.at)
  }

  /** Opens a record of an older version; all of it must be there, with the lengths that say something. */
  const opens = (record: Pick<Combination, 'phrases'>) => {
    const { combination: now, unknown } = readSwayJson(JSON.stringify(record))
    expect(unknown).toEqual([])
    const expected = record.phrases.map((phrase) => ({
      ...phrase,
      events: phrase.events.map((one) => {
        const { length, range, ...event } = one as Event & { range?: true }
        const isMeant = !range && length === meant(event, phrase.counts)
        return isMeant ? event : { ...event, length }
      }),
    }))
    expect(now).toEqual({ ...record, schemaVersion: SCHEMA_VERSION, phrases: expected })
  }

  it('with nothing of the newest are written as the version knew them that knew it all, so that it opens them still', () => {
    expect(seventh.flatMap(({ parts }) => parts).length).toBeGreaterThan(10)
    for (const record of [...sixth, ...seventh]) {
      const { combination: now } = readSwayJson(JSON.stringify(record))
      expect(JSON.parse(writeSwayJson(now))).toEqual(record)
    }
  })

  it('of older versions open with all they say: the demos of then, and anything they could have held', () => {
    expect(first.length).toBeGreaterThan(4)
    expect(second.length).toBeGreaterThan(4)
    let bare = 0
    for (const record of [...first, ...second] as unknown as Combination[]) {
      opens(record)
      bare += readSwayJson(JSON.stringify(record)).combination.phrases.flatMap(({ events }) =>
        events.filter(({ length }) => length === undefined),
      ).length
    }
    expect(bare).toBeGreaterThan(100)
    holds(
      fc.property(anyCombination(), fc.constantFrom(1, 2), fc.boolean(), (any, version, ranges) => {
        const record = {
          ...any,
          order: any.order.map(({ options: _, ...entry }) => entry),
          schemaVersion: version,
          ...(version === 1 && { teachTempo: 64 }),
          phrases: any.phrases.map(({ options: _, ...phrase }) => ({
            ...phrase,
            // Nobody shared a turn then.
            events: phrase.events
              .filter(({ what }) => what.kind !== 'share')
              .map((event) => ({
                ...event,
                length: event.length ?? meant(event, phrase.counts),
                ...(ranges && version === 2 && event.length === undefined && { range: true }),
              })),
          })),
        }
        opens(record as unknown as Combination)
      }),
      { numRuns: 300, seed: 43 },
    )
  })

  it('say which of their fields this version does not know, wherever they stand', () => {
    const strange = changed((raw) => {
      raw.mood = 'slow'
      raw.phrases[1].events[0].colour = 'red'
      raw.start.arms.third = 'low'
    })
    const { combination: read, unknown } = readSwayJson(strange)
    expect(read).toEqual(written)
    expect(unknown).toEqual(['start arms “third”', 'phrases 2 events 1 “colour”', '“mood”'])
    expect(unknownWords(unknown)).toMatch(/does not know .*“mood”: keep the file/)
    expect(unknownWords([])).toBe('')
  })

  it('of older versions are brought up step by step, and a gap is a bug', () => {
    const steps = [
      { from: 2, up: (r: Record<string, unknown>) => ({ ...r, c: 3 }) },
      { from: 1, up: (r: Record<string, unknown>) => ({ ...r, b: 2 }) },
    ]
    expect(upgrade({ schemaVersion: 1 }, 3, steps)).toEqual({ schemaVersion: 3, b: 2, c: 3 })
    expect(() => upgrade({ schemaVersion: 1 }, 4, steps)).toThrow(/from version 3/)
  })
})
