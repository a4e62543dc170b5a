import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds as everyCase } from '../../../tests/holds'
import { PIECES } from '../../../tests/ordinary'
import { leadOf } from '../combination/dancing'
import { USUAL_HOUSE, USUAL_RULES } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import { pageDataOf } from '../practice/makePage'
import { readSheet } from '../sheet/readSheet'
import { TICKS_PER_COUNT } from '../time/time'
import { type Chapter, chaptersOf, chapterText, chapterVtt } from './chapters'
import { beginFilming, chaptersFilmed, readFilmed, stepOf, toStep } from './filmed'
import { heldAt, heldSamples, lessonFilm } from './lessonFilm'
import { lessonScript, PAUSE } from './script'

const all = [
  ...demo,
  ...PIECES.slice(0, 3).flatMap((sheet) => readSheet(sheet, vocabulary).combination ?? []),
]
const chunksOf = (one: (typeof all)[number]) =>
  pageDataOf(one, vocabulary, USUAL_RULES, { made: '2026-11-30' }).chunks

describe('the script of a lesson', () => {
  it.each(all.map((one) => [one.title, one] as const))(
    'of %s has the chunks of its page, each shown, walked, danced, and a pause behind whatever is danced',
    (_, one) => {
      const chunks = chunksOf(one)
      const script = lessonScript({ title: one.title, lead: one.lead, chunks, stand: 'mirror' })
      expect(script[0]?.say.join(' ')).toContain('my right is on your right')
      expect(script.filter(({ kind }) => kind === 'show')).toHaveLength(chunks.length)
      for (const [i, { kind }] of script.entries())
        if (kind === 'try' || kind === 'other-side' || kind === 'from-top')
          expect(script[i + 1]).toMatchObject({ kind: 'pause', say: [PAUSE] })
      const has = (kind: string) => script.some((step) => step.kind === kind)
      const stops = new Set(chunks.flatMap((chunk) => chunk.stops.map((stop) => stop.do)))
      expect(has('other-side')).toBe(stops.has('other-side'))
      expect(has('from-top')).toBe(stops.has('from-top'))
      // Everything that is said on the page is said here.
      const said = script.flatMap(({ say }) => say)
      for (const { say } of chunks) for (const line of say) expect(said).toContain(line)
    },
  )
})

describe('a lesson danced by the figure', () => {
  it.each(all.map((one) => [one.title, one] as const))(
    'of %s waits behind each part, and has its chapters where the parts begin',
    (_, one) => {
      const chunks = chunksOf(one)
      const dance = danceOf(one, vocabulary, USUAL_HOUSE)
      const film = lessonFilm(dance, chunks, {
        dancing: leadOf(one, one.parts?.[0]?.id),
        tempo: 80,
        speech: () => 0.2,
      })
      const { performance, holds, chapters, seconds } = film
      const danced = performance.time.secondsAt(performance.length)
      expect(seconds).toBeCloseTo(danced + 4 * holds.length, 6)
      for (const { at } of holds) {
        // Where it waits something has just been danced to its end.
        const { index, at: into } = performance.placeAt(performance.time.tickAt(at) - 0.01)
        expect(performance.segments[index]?.round).toBeGreaterThan(0)
        expect(into).toBeCloseTo((performance.segments[index]?.length ?? 0) - 0.01, 4)
      }
      for (const { at } of chapters) {
        const { danced: second, text } = heldAt(holds, at)
        expect(text).toBeUndefined()
        const now = performance.placeAt(performance.time.tickAt(second) + 0.01)
        expect(performance.segments[now.index]?.countIn).toBeDefined()
        expect(now.at).toBeLessThan(TICKS_PER_COUNT)
      }
      // Every chunk is danced, and at the end all of it.
      expect(chapters.length).toBeGreaterThanOrEqual(chunks.length + 1)
      const last = performance.segments.at(-1)
      expect([last?.from, last?.length]).toEqual([0, dance.lead.length])
    },
  )

  it('goes through every second of what is danced once, and stands in between', () => {
    everyCase(
      fc.property(
        fc.array(
          fc.record({
            gap: fc.integer({ min: 1, max: 40 }),
            seconds: fc.integer({ min: 1, max: 6 }),
          }),
          { maxLength: 6 },
        ),
        (gaps) => {
          const holds = gaps.map(({ seconds }, i) => ({
            at: gaps.slice(0, i + 1).reduce((sum, { gap }) => sum + gap, 0),
            seconds,
            text: 'x',
          }))
          let before = 0
          let waited = 0
          for (let second = 0; second < 300; second += 0.25) {
            const { danced, text } = heldAt(holds, second)
            expect(danced).toBeGreaterThanOrEqual(before)
            if (text !== undefined) waited += 0.25
            before = danced
          }
          const all = holds.reduce((sum, { seconds }) => sum + seconds, 0)
          expect(waited).toBe(all)
          expect(before).toBeCloseTo(299.75 - all, 9)
          // The sound is the same, with silence of that length.
          const rate = 8
          const samples = Float32Array.from({ length: 300 * rate }, (_, i) => i + 1)
          const held = heldSamples(samples, holds, rate)
          for (const [i, value] of held.entries()) {
            const own = heldAt(holds, i / rate)
            expect(value).toBe(own.text === undefined ? Math.round(own.danced * rate) + 1 : 0)
          }
        },
      ),
      { numRuns: 60, seed: 91 },
    )
  })
})

describe('chapters', () => {
  it('begin at 0:00, are ten seconds apart, and are three at least, or none', () => {
    everyCase(
      fc.property(
        fc.array(
          fc.record({ at: fc.integer({ min: 0, max: 7200 }), title: fc.string({ maxLength: 20 }) }),
          { maxLength: 12 },
        ),
        (marks) => {
          const chapters = chaptersOf(marks)
          expect(chapters.length === 0 || chapters.length >= 3).toBe(true)
          if (chapters.length > 0) expect(chapters[0]?.at).toBe(0)
          for (const [i, { at }] of chapters.entries())
            if (i > 0) expect(at - (chapters[i - 1]?.at ?? 0)).toBeGreaterThanOrEqual(10)
          const lines = chapterText(chapters).split('\n').slice(0, -1)
          expect(lines).toHaveLength(chapters.length)
          for (const line of lines) expect(line).toMatch(/^\d+:\d\d/)
          if (chapters.length > 0)
            expect(chapterVtt(chapters, 9000).match(/-->/g)).toHaveLength(chapters.length)
        },
      ),
      { numRuns: 100, seed: 92 },
    )
  })

  it('are text to paste and a file for players', () => {
    const marks: Chapter[] = [
      { at: 3, title: 'Hello' },
      { at: 40.6, title: 'A · Lantern walk' },
      { at: 44, title: 'too near' },
      { at: 3700, title: 'With the <music>' },
    ]
    const chapters = chaptersOf(marks)
    expect(chapterText(chapters)).toBe(
      '0:00 Hello\n0:40 A · Lantern walk\n1:01:40 With the music\n',
    )
    expect(chapterVtt(chapters, 4000)).toContain('00:00:40.600 --> 01:01:40.000\nA · Lantern walk')
    expect(chaptersOf(marks.slice(0, 2))).toEqual([])
  })

  it('are those of what was filmed, also of what was filmed twice', () => {
    const [one] = all
    if (!one) throw new Error('no demo')
    const script = lessonScript({
      title: one.title,
      lead: one.lead,
      chunks: chunksOf(one),
      stand: 'back',
    })
    let filmed = beginFilming('c', 'back', 1000)
    for (let step = 1; step < script.length; step++)
      filmed = toStep(filmed, step, 1000 + 20_000 * step)
    expect(readFilmed(JSON.parse(JSON.stringify(filmed)))).toEqual(filmed)
    expect(() => readFilmed({ ...filmed, schemaVersion: 2 })).toThrow(/newer version/)
    const chapters = chaptersFilmed(filmed, script)
    expect(chapters.map(({ title }) => title)).toEqual(
      script.flatMap(({ chapter }) => chapter ?? []),
    )
    const second = script.findIndex(({ chapter }, i) => i > 0 && chapter !== undefined)
    expect(chapters[1]?.at).toBe(20 * second)
    // Back to a step: it counts from there, and what came after is filmed anew.
    const again = toStep(filmed, second, 900_000)
    expect(stepOf(again)).toBe(second)
    expect(again.marks.at(-1)).toEqual({ step: second, at: 900_000 })
    expect(again.marks).toHaveLength(second + 1)
  })
})
