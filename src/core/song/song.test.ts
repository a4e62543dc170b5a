import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { countsAt, evenMs, songWith as song } from '../../../tests/songs'
import type { Listened } from '../beats/listen'
import { UserError } from '../errors'
import { TICKS_PER_COUNT } from '../time/time'
import {
  countedAgain,
  dragged,
  half,
  nudged,
  phraseOf,
  restartHere,
  thisIsOne,
  twice,
  uncounted,
} from './correct'
import { countsTapped, evenCounts, isCounted } from './even'
import { countsHeard, sectionsHeard } from './heard'
import { linesOf } from './lines'
import { merged, recounted, withCounts } from './recount'
import { sectionChanged, sectionFrom, sectionJoined, sectionMoved, sectionsTaken } from './sections'
import {
  SongCounts as Counts,
  LEAST_GAP,
  oneAt,
  placeIn,
  readSong,
  type Song,
  type SongCounts,
  songTime,
  sureAt,
  unsurePlaces,
} from './song'
import { readSongJson, writeSongJson } from './songJson'

/** Counts as they come out of edits: some set by hand, some not counted, begun anew in places. */
const anyCounts = fc
  .record({
    gaps: fc.array(fc.integer({ min: 420, max: 1900 }), { minLength: 20, maxLength: 80 }),
    first: fc.integer({ min: 0, max: 7 }),
    length: fc.constantFrom(3, 4, 6, 8),
    edits: fc.array(
      fc.tuple(
        fc.constantFrom('one', 'anew', 'drag', 'silent', 'phrase'),
        fc.nat(200),
        fc.integer({ min: -80, max: 80 }),
      ),
      { maxLength: 6 },
    ),
  })
  .map(({ gaps, first, length, edits }) => {
    let at = 300
    const ms = [at, ...gaps.map((gap) => (at += gap))]
    const begun = countsAt(ms, { by: 'found', ones: [{ at: first, counts: length }] })
    return edits.reduce((now, [kind, place, by]) => {
      const index = place % now.ms.length
      if (kind === 'one') return thisIsOne(now, index)
      if (kind === 'anew') return restartHere(now, index, 'chorus')
      if (kind === 'phrase') return phraseOf(now, index, 1 + (place % 8))
      if (kind === 'drag') return dragged(now, index, (now.ms[index] as number) + by)
      return uncounted(now, {
        from: Math.min(index, now.ms.length - 4),
        to: Math.min(index, now.ms.length - 4) + 3,
      })
    }, begun)
  })

describe('the counts of a song, however they were corrected', () => {
  it('are stored as they are, in order, and their time has its inverse', () => {
    holds(
      fc.property(anyCounts, fc.integer({ min: -2000, max: 2000 }), (counts, shift) => {
        expect(Counts.parse(counts)).toEqual(counts)
        const one = song(counts)
        const moved = song(counts, { media: { ...one.media, shift } })
        expect(readSong(JSON.parse(JSON.stringify(moved)))).toEqual(moved)
        const [time, later] = [songTime(one), songTime(moved)]
        const first = counts.ones[0]?.at ?? 0
        for (const [i, ms] of counts.ms.entries()) {
          const tick = TICKS_PER_COUNT * (i - first)
          expect(time.secondsAt(tick)).toBeCloseTo(ms / 1000, 9)
          expect(time.tickAt(ms / 1000)).toBeCloseTo(tick, 6)
          expect(later.secondsAt(tick)).toBeCloseTo((ms + shift) / 1000, 9)
        }
      }),
      { numRuns: 200, seed: 51 },
    )
  })

  it('go there and back: nudged, doubled and halved, uncounted and counted again', () => {
    holds(
      fc.property(anyCounts, fc.integer({ min: -200, max: 200 }), (counts, by) => {
        expect(nudged(nudged(counts, by), -by)).toEqual(counts)
        // Counts that would be nearer than counts are stay as they are.
        const nearest = Math.min(...counts.ms.slice(1).map((ms, i) => ms - (counts.ms[i] ?? 0)))
        if (nearest < 2 * LEAST_GAP) expect(() => twice(counts)).toThrow('Twice as many')
        else {
          const doubled = twice(counts)
          expect(doubled.ms).toHaveLength(2 * counts.ms.length - 1)
          expect(half(doubled)).toEqual(counts)
        }
        const part = { from: 2, to: 6 }
        const silent = uncounted(counts, part)
        expect(silent.silent.some(({ from, to }) => from <= 2 && to >= 6)).toBe(true)
        expect(countedAgain(silent, part).silent).toEqual(countedAgain(counts, part).silent)
        // What is outside is where it was.
        for (const [i, ms] of counts.ms.entries())
          if (i <= 2 || i >= 6) expect(silent.ms[i]).toBe(ms)
      }),
      { numRuns: 200, seed: 52 },
    )
  })

  it('say 1 where that was said, to where it is counted anew, and nowhere else', () => {
    holds(
      fc.property(anyCounts, fc.nat(200), (counts, place) => {
        const at = place % counts.ms.length
        const now = thisIsOne(counts, at)
        expect(placeIn(song(now), at).count).toBe(1)
        const own = oneAt(counts, at)
        for (const [i] of counts.ms.entries())
          if (oneAt(counts, i) !== own && i >= (counts.ones[0]?.at ?? 0))
            expect(placeIn(song(now), i)).toEqual(placeIn(song(counts), i))
        const anew = restartHere(counts, at)
        expect(placeIn(song(anew), at)).toMatchObject({ phrase: 1, count: 1 })
        for (let i = 0; i < at; i++)
          if (oneAt(anew, i).at <= i)
            expect(placeIn(song(anew), i)).toEqual(placeIn(song(counts), i))
      }),
      { numRuns: 200, seed: 53 },
    )
  })

  it('that were set by hand never move when others are dragged; what can’t be is refused with its place', () => {
    holds(
      fc.property(
        anyCounts,
        fc.nat(200),
        fc.integer({ min: -60, max: 60 }),
        (counts, place, by) => {
          const index = place % counts.ms.length
          const now = dragged(counts, index, (counts.ms[index] as number) + by)
          expect(now.fixed).toContain(index)
          for (const fixed of counts.fixed)
            if (fixed !== index) expect(now.ms[fixed]).toBe(counts.ms[fixed])
          for (const [i, ms] of counts.ms.entries())
            if (Math.abs(i - index) > 4) expect(now.ms[i]).toBe(ms)
        },
      ),
      { numRuns: 200, seed: 54 },
    )
    const counts = countsAt([500, 1000, 1500, 2000], { fixed: [0] })
    expect(() => dragged(counts, 1, 600)).toThrow(/count 2 would be 0.10 s after/)
    expect(() => nudged(counts, -900)).toThrow(/before the song/)
    expect(() => twice({ ...counts, ms: [0, 350, 700] })).toThrow(/Twice as many: count 2/)
    expect(() => half({ ...counts, ms: [0, 2500, 5000] })).toThrow(/Half as many: count 2/)
    expect(() => phraseOf(counts, 0, 17)).toThrow(/phrase of 17/)
    expect(() => readSong({ ...song(counts), schemaVersion: 2 })).toThrow(/newer version/)
    expect(() => readSong({ ...song({ ...counts, ms: [500, 400] }) })).toThrow(/behind the one/)
  })

  it('have names: the section, its phrase and the count in it', () => {
    const counts = countsAt(evenMs(40, 120), { ones: [{ at: 2, counts: 8 }] })
    const section = (id: string, at: number) =>
      ({ id, at, label: id, kind: 'verse', energy: 3 }) as const
    const named = song(counts, { sections: [section('intro', 2), section('chorus', 18)] })
    const told = (at: number) => {
      const { section: own, phrase, count } = placeIn(named, at)
      return [own?.label, phrase, count]
    }
    expect(told(2)).toEqual(['intro', 1, 1])
    expect(told(17)).toEqual(['intro', 2, 8])
    expect(told(22)).toEqual(['chorus', 1, 5])
    expect(told(30)).toEqual(['chorus', 2, 5])
    expect(told(0)).toEqual([undefined, 0, -1])
  })
})

/** Counts that were found again: other gaps over the same stretch. */
const anyFound = (counts: SongCounts) =>
  fc
    .record({ gap: fc.integer({ min: 260, max: 1200 }), first: fc.integer({ min: 0, max: 600 }) })
    .map(({ gap, first }): SongCounts => {
      const end = counts.ms.at(-1) as number
      const ms = Array.from({ length: 2 + Math.ceil(end / gap) }, (_, i) => first + i * gap)
      const ones = [{ at: 1, counts: 8, found: true as const }]
      return countsAt(ms, { by: 'tapped', ones, anew: [9] })
    })

const anySong = anyCounts.chain((counts) =>
  fc
    .record({
      sections: fc.uniqueArray(fc.nat(counts.ms.length - 1), { maxLength: 5 }),
      stop: fc.nat(counts.ms.length - 1),
      words: fc.uniqueArray(fc.integer({ min: -24, max: 400 }), { maxLength: 4 }),
    })
    .map(({ sections, stop, words }) =>
      song(counts, {
        sections: [...new Set([0, ...sections])]
          .sort((a, b) => a - b)
          .map((at, i) => ({ id: `s${i}`, at, label: 'Verse', kind: 'verse', energy: 3 })),
        stops: [{ at: stop, label: '' }],
        words: [...words].sort((a, b) => a - b).map((at) => ({ at, text: 'shimmy' })),
      }),
    ),
)

describe('a song as a file', () => {
  it('is read as it was written; what is none says so, and what is newer is refused', () => {
    holds(
      fc.property(anySong, (one) => {
        expect(readSongJson(writeSongJson(one))).toEqual(one)
        expect(readSongJson(`\uFEFF${writeSongJson(one)}`)).toEqual(one)
        const text = writeSongJson(one)
        expect(() => readSongJson(text.slice(0, text.length / 2))).toThrow(/no song file/)
        expect(() => readSongJson(JSON.stringify({ ...one, schemaVersion: 9 }))).toThrow(/newer/)
        const counts = { ...one.counts, ms: [5, 4] }
        expect(() => readSongJson(JSON.stringify({ ...one, counts }))).toThrow(/damaged/)
      }),
      { numRuns: 40, seed: 66 },
    )
    for (const text of ['', 'null', '[]', '{"kind":"plan"}'])
      expect(() => readSongJson(text)).toThrow(/no song file/)
  })
})

describe('a song that is written like text', () => {
  it('has each count in one line, sections and new beginnings at its edge, and like phrases under each other', () => {
    holds(
      fc.property(anySong, fc.constantFrom(8, 16, 32), (one, most) => {
        const lines = linesOf(one, most)
        expect(
          lines.flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i)),
        ).toEqual(one.counts.ms.map((_, i) => i))
        const starts = new Set(lines.map(({ from }) => from))
        for (const { at } of [...one.sections, ...one.counts.ones]) expect(starts).toContain(at)
        expect(lines.flatMap(({ section }) => section ?? [])).toEqual(
          one.sections.filter(({ at }) => at < one.counts.ms.length),
        )
        for (const { from, to, indent } of lines) {
          const own = oneAt(one.counts, from)
          expect(to - from + indent).toBeLessThanOrEqual(Math.max(most, own.counts))
          // Where the line would begin if it were whole, a phrase begins.
          expect(Math.abs((from - indent - own.at) % own.counts)).toBe(0)
        }
      }),
      { numRuns: 150, seed: 64 },
    )
  })
})

describe('a song nobody could hear a count in', () => {
  it('is counted as it is tapped, evenly, the first tap its 1', () => {
    holds(
      fc.property(
        fc.double({ min: 0.25, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.array(fc.double({ min: -0.02, max: 0.02, noNaN: true }), {
          minLength: 8,
          maxLength: 24,
        }),
        (period, first, off) => {
          const taps = off.map((by, i) => first + 1 + i * period + by)
          const tapped = countsTapped(taps, 90)
          const heardAs = recounted(song(evenCounts(90)), merged(evenCounts(90), tapped))
          expect(isCounted(heardAs.counts)).toBe(true)
          expect(readSong(JSON.parse(JSON.stringify(heardAs)))).toEqual(heardAs)
          const { ms, ones } = heardAs.counts
          const one = ones[0]?.at ?? -1
          for (const [i, tap] of taps.entries())
            expect(Math.abs((ms[one + i] ?? Number.NaN) / 1000 - tap)).toBeLessThan(0.06)
          expect((ms[0] as number) / 1000).toBeLessThan(period + 0.001)
          expect((ms.at(-1) as number) / 1000).toBeLessThanOrEqual(90)
        },
      ),
      { numRuns: 100, seed: 65 },
    )
    expect(() => countsTapped([1, 2, 3], 90)).toThrow(/3 taps are too few/)
  })
})

describe('a song, whatever is done to its counts', () => {
  const momentOf = ({ counts }: Song, at: number) => counts.ms[at] as number

  it('keeps sections, stops and words where they are when it is counted anew, and what was set by hand', () => {
    holds(
      fc.property(
        anySong.chain((one) => fc.tuple(fc.constant(one), anyFound(one.counts))),
        fc.boolean(),
        ([before, found], isPart) => {
          const half = Math.floor(before.counts.ms.length / 2)
          const within = isPart ? { from: 2, to: half } : undefined
          const counts = merged(before.counts, found, within)
          const after = recounted(before, counts)
          expect(readSong(JSON.parse(JSON.stringify(after)))).toEqual(after)
          const set = (one: SongCounts) => one.fixed.map((at) => one.ms[at])
          expect(set(counts)).toEqual(set(before.counts))
          if (isPart) {
            expect(counts.ms.slice(0, 3)).toEqual(before.counts.ms.slice(0, 3))
            const tail = before.counts.ms.slice(half)
            expect(counts.ms.slice(-tail.length)).toEqual(tail)
          }
          // The nearest count is never farther than the next one is.
          const near = (at: number, was: number) => {
            const nearest = Math.min(...counts.ms.map((ms) => Math.abs(ms - was)))
            expect(Math.abs((counts.ms[at] as number) - was)).toBe(nearest)
          }
          for (const section of after.sections.slice(1)) {
            const old = before.sections.find(({ id }) => id === section.id)
            near(section.at, momentOf(before, old?.at ?? 0))
          }
          for (const [i, { at }] of after.stops.entries())
            near(at, momentOf(before, before.stops[i]?.at ?? 0))
          const [was, is] = [songTime(before), songTime(after)]
          for (const [i, word] of after.words.entries()) {
            const due = was.secondsAt(before.words[i]?.at ?? 0)
            const count = TICKS_PER_COUNT
            const [low, high] = [is.secondsAt(word.at - 1), is.secondsAt(word.at + 1)]
            expect(count > 0 && due >= low - 1e-6 && due <= high + 1e-6).toBe(true)
          }
        },
      ),
      { numRuns: 200, seed: 61 },
    )
  })

  it('keeps them on their counts when these are moved or numbered otherwise', () => {
    holds(
      fc.property(anySong, fc.nat(40), fc.integer({ min: -20, max: 20 }), (before, at, by) => {
        for (const edit of [
          (counts: SongCounts) => thisIsOne(counts, at % counts.ms.length),
          (counts: SongCounts) => restartHere(counts, at % counts.ms.length),
          (counts: SongCounts) => nudged(counts, by),
        ]) {
          const after = withCounts(before, edit(before.counts))
          expect(after.sections).toEqual(before.sections)
          const places = ({ counts, words }: Song) =>
            words.map((word) => word.at / TICKS_PER_COUNT + (counts.ones[0]?.at ?? 0))
          const moved = places(after)
          for (const [i, place] of places(before).entries()) expect(moved[i]).toBeCloseTo(place, 9)
        }
      }),
      { numRuns: 100, seed: 62 },
    )
  })

  it('has its sections cut, joined, moved and named, each count in one of them', () => {
    holds(
      fc.property(
        anySong,
        fc.array(fc.tuple(fc.nat(3), fc.nat(80)), { maxLength: 8 }),
        (start, edits) => {
          let now = start
          for (const [kind, place] of edits) {
            const at = place % now.counts.ms.length
            const one = now.sections[place % now.sections.length]
            if (!one) continue
            if (kind === 0) now = sectionFrom(now, at, `new ${place}`)
            if (kind === 1) now = sectionJoined(now, one.id)
            if (kind === 2)
              try {
                now = sectionMoved(now, one.id, at)
              } catch (error) {
                expect(error).toBeInstanceOf(UserError)
              }
            if (kind === 3) now = sectionChanged(now, one.id, { label: 'Chorus', kind: 'chorus' })
            expect(readSong(JSON.parse(JSON.stringify(now)))).toEqual(now)
            expect(now.sections[0]?.at).toBe(0)
            const ids = new Set(now.sections.map(({ id }) => id))
            for (const { as } of now.sections) expect(as === undefined || ids.has(as)).toBe(true)
          }
        },
      ),
      { numRuns: 150, seed: 63 },
    )
  })

  it('that was only heard is proposed: its first 1, eights, restarts and sections', () => {
    const counts = Array.from({ length: 70 }, (_, i) => 0.5 + 0.5 * i)
    const heard: Listened = {
      counts,
      bar: 4,
      bars: [2, 6, 10],
      ones: [2, 10, 18, 22, 30],
      sections: [
        { at: 2, kind: 'intro', energy: 2 },
        { at: 18, kind: 'chorus', energy: 5 },
        { at: 22, kind: 'other', energy: 3 },
        { at: 40, kind: 'chorus', energy: 5, as: 1 },
      ],
      tempo: 120,
      sure: {
        level: 1,
        counts: counts.map((_, i) => (i < 8 ? 0.2 : 0.9)),
        bars: 1,
        eights: 1,
        sections: 1,
      },
    }
    const made = countsHeard(heard)
    expect(made.ones).toEqual([{ at: 2, counts: 8, found: true }])
    expect(made.anew).toEqual([22])
    expect(made.sure.slice(0, 2)).toEqual([20, 90])
    expect([sureAt(made, 3), sureAt(made, 12)]).toEqual(['guess', 'sure'])
    expect(unsurePlaces(made)).toBe(1)
    let ids = 0
    const sections = sectionsHeard(heard, made.ms.length, () => `id${ids++}`)
    expect(sections.map(({ label, at, as }) => [label, at, as])).toEqual([
      ['Intro', 0, undefined],
      ['Chorus', 18, undefined],
      ['Part', 22, undefined],
      ['Chorus', 40, 'id1'],
    ])
    const whole = song(made, { sections })
    expect(readSong(JSON.parse(JSON.stringify(whole)))).toEqual(whole)
    expect(sectionsTaken(whole).sections.some(({ found }) => found)).toBe(false)
  })
})
