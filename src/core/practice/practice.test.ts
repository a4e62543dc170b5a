import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { LAYERS } from '../body/layers'
import { bothOf } from '../combination/dancing'
import { addDays } from '../diary/diary'
import { USUAL_HOUSE, USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { writtenPerformance } from '../performance/stretches'
import { danceOf } from '../piece/dance'
import { dancersOf } from '../pose/dancers'
import { sayPass } from '../teaching/say'
import { pageDataOf } from './makePage'
import { movesUsedBy, vocabularyOfUsed } from './movesUsed'
import { markOf, type PageData } from './pageData'
import { pageFileName, practicePage } from './practicePage'
import { type PracticeReturn, returnText } from './returned'
import {
  practisedIn,
  readReturns,
  readSentPage,
  type SentPage,
  sentPageOf,
  withReturn,
} from './sentPage'

const MADE = '2026-11-29'
const PARTS = { script: 'go()', style: 'p{}', hash: 'sha256-x' }
const pageOf = (one = demo[0]) => {
  if (!one) throw new Error('no demo')
  return pageDataOf(one, vocabulary, USUAL_RULES, { made: MADE })
}
/** What a browser finds in the page. */
const dataIn = (html: string): PageData => {
  const [, mark, text = ''] =
    /<script type="application\/json" id="data" data-mark="(\w+)">(.*?)<\/script>/s.exec(html) ?? []
  expect(markOf(text)).toBe(mark)
  return JSON.parse(text)
}

describe('what a page takes along', () => {
  it('dances and is told like the whole vocabulary, on both sides, to the last bit', () => {
    holds(
      fc.property(fc.oneof(fc.constantFrom(...demo), anyCombination()), fc.nat(1000), (one, at) => {
        const few = vocabularyOfUsed(JSON.parse(JSON.stringify(movesUsedBy(one, vocabulary))))
        const [all, some] = [vocabulary, few].map((words) => danceOf(one, words, USUAL_HOUSE))
        if (!all || !some) throw new Error('two dances')
        for (const dancing of bothOf(one)) {
          const [whole, part] = [all.from(dancing), some.from(dancing)]
          const tick = (whole.length * at) / 1000
          const pose = (dance: typeof all) => dancersOf(dance.from)(dancing).poseAt(tick).joints
          expect(pose(some)).toEqual(pose(all))
          const said = (dance: typeof whole) =>
            dance.passes.map((pass) =>
              sayPass(dance, pass, new Set(LAYERS), dance.vocabulary).map(({ feet, layers }) => [
                feet,
                layers,
              ]),
            )
          expect(said(part)).toEqual(said(whole))
        }
        expect(writtenPerformance(one, few, USUAL_HOUSE).calls).toEqual(
          writtenPerformance(one, vocabulary, USUAL_HOUSE).calls,
        )
      }),
      { numRuns: 200 },
    )
  })

  it('is the same page each time, with every phrase once, each behind what it needs', () => {
    holds(
      fc.property(fc.oneof(fc.constantFrom(...demo), anyCombination()), (one) => {
        const page = pageOf(one)
        expect(practicePage(pageOf(one), PARTS)).toBe(practicePage(page, PARTS))
        const danced = new Set(page.combination.order.map(({ phrase }) => phrase))
        expect(page.chunks.map(({ id }) => id).toSorted()).toEqual([...danced].toSorted())
        for (const [i, { need, stops }] of page.chunks.entries()) {
          expect(need).toEqual(page.chunks.slice(0, i).map(({ id }) => id))
          expect(stops[0]?.do).toBe('show')
          expect(stops.at(-1)?.do).toBe('dance')
          for (const { layers } of stops) expect(layers.length).toBeGreaterThan(0)
        }
      }),
      { numRuns: 60 },
    )
  })

  it('comes out of its file as it went in, whatever is written in it, and nothing of it ends its element', () => {
    holds(
      fc.property(
        fc.string({ unit: 'binary' }),
        fc.constantFrom(
          '</script><script>alert(1)</script>',
          '-->',
          '<!--',
          '\u2028\u202e',
          '<img onerror=x>',
        ),
        (free, nasty) => {
          const text = `${free}${nasty}`.slice(0, 200)
          const one = demo[0]
          if (!one) throw new Error('no demo')
          const page = pageDataOf(one, vocabulary, USUAL_RULES, {
            made: MADE,
            note: text,
            by: text,
          })
          const html = practicePage({ ...page, title: text }, PARTS)
          // A lone half of a sign is no text a browser could keep either.
          const whole = (said: string) => JSON.parse(JSON.stringify(said))
          expect(dataIn(html)).toEqual(JSON.parse(JSON.stringify({ ...page, title: whole(text) })))
          expect(html.match(/<script/g)).toHaveLength(2)
          expect(pageFileName({ ...page, title: text })).not.toMatch(/[\\/:*?"<>|\n]/)
        },
      ),
      { numRuns: 100 },
    )
  })
})

const day = fc.nat(600).map((days) => addDays('2026-01-01', days))
/** Anything a page can send back. */
const anyReturn = (page: SentPage): fc.Arbitrary<PracticeReturn> =>
  fc.record(
    {
      kind: fc.constant('practice' as const),
      schemaVersion: fc.constant(1 as const),
      page: fc.constant(page.id),
      title: fc.constant(page.title),
      who: fc.string({ minLength: 1, maxLength: 40 }),
      days: fc.array(fc.record({ day, minutes: fc.nat(1440) }), { maxLength: 12 }),
      rows: fc.uniqueArray(
        fc.record({
          chunk: fc.constantFrom(...page.chunks.map(({ id }) => id)),
          side: fc.constantFrom('R' as const, 'L' as const),
          percent: fc.constantFrom(50, 60, 80, 85, 100),
          clean: fc.nat(99),
          notYet: fc.nat(99),
        }),
        { maxLength: 40, selector: ({ chunk, side, percent }) => `${chunk} ${side} ${percent}` },
      ),
      note: fc
        .string({ minLength: 1, maxLength: 280, unit: 'grapheme' })
        .filter(({ length }) => length <= 280),
    },
    { requiredKeys: ['kind', 'schemaVersion', 'page', 'title', 'days', 'rows'] },
  )

describe('what is sent back', () => {
  const page = sentPageOf(pageOf(), undefined)

  it('is read as it was sent, as a file and as text; a text with one sign changed is refused', () => {
    holds(
      fc.property(
        anyReturn(page),
        fc.nat(),
        fc.constantFrom('0', '7', 'R', 'x', ' '),
        (sent, place, sign) => {
          const { who, days, rows, note } = sent
          const plain = { page: page.id, ...(who && { who }), days, rows, ...(note && { note }) }
          expect(readReturns(JSON.stringify(sent), [page])).toEqual([plain])
          const text = returnText(sent, page.chunks)
          expect(readReturns(text, [page])).toEqual([plain])
          // Several in one message.
          expect(readReturns(`${text}\n\n${text}`, [page])).toHaveLength(2)
          const line = text.lastIndexOf('#sway-practice') + '#sway-practice '.length
          const at = line + (place % (text.length - line))
          if (text[at] === sign) return
          const changed = `${text.slice(0, at)}${sign}${text.slice(at + 1)}`
          expect(() => readReturns(changed, [page])).toThrow()
        },
      ),
      { numRuns: 200 },
    )
  })

  it('is refused with a sentence where it is none, newer, of another page, cut off, or here already', () => {
    const sent: PracticeReturn = {
      kind: 'practice',
      schemaVersion: 1,
      page: page.id,
      title: 'Lantern',
      days: [],
      rows: [],
    }
    const refused = (text: string, pages = [page]) => {
      try {
        readReturns(text, pages)
      } catch (error) {
        return String((error as Error).message)
      }
      return 'read'
    }
    expect(refused('Dear teacher')).toMatch(/not a practice return/)
    expect(refused('{"kind":"class"}')).toMatch(/not a practice return/)
    expect(refused(JSON.stringify({ ...sent, schemaVersion: 2 }))).toMatch(/newer version/)
    expect(refused(JSON.stringify(sent), [])).toMatch(/page it belongs to is not here/)
    expect(refused(JSON.stringify(sent).slice(0, 60))).toMatch(/Cut off/)
    expect(refused(returnText(sent, page.chunks).split('\n')[0] ?? '')).toMatch(/Cut off/)
    const [read] = readReturns(JSON.stringify(sent), [page])
    if (!read) throw new Error('not read')
    const once = withReturn(page, read, 'a', MADE)
    expect(() => withReturn(once, read, 'b', MADE)).toThrow(/here already/)
    expect(readSentPage(JSON.parse(JSON.stringify(once)))).toEqual(once)
    expect(() => readSentPage({ ...once, schemaVersion: 2 })).toThrow(/newer version/)
  })

  it('weighs half of what is seen, two rounds a chunk, a side and a day at the most', () => {
    const [chunk] = page.chunks
    if (!chunk) throw new Error('no chunk')
    const came = (clean: number, notYet: number, days: number) => ({
      id: `${clean} ${notYet}`,
      day: MADE,
      days: Array.from({ length: days }, (_, i) => ({ day: `2026-11-0${i + 1}`, minutes: 5 })),
      rows: [{ chunk: chunk.id, side: 'L' as const, percent: 60, clean, notYet }],
    })
    const told = practisedIn([{ ...page, returns: [came(0, 1, 1), came(40, 0, 2)] }])
    // (1 / 2 + 4 / 2) / 2 people
    expect(told).toMatchObject([
      { phrase: chunk.id, of: 2, notYet: 1, side: 'L', rounds: { R: 0, L: 1.25 } },
    ])
  })
})
