import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
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
import {
  SongCounts as Counts,
  oneAt,
  placeIn,
  readSong,
  type Song,
  type SongCounts,
  songTime,
} from './song'

const song = (counts: SongCounts, more: Partial<Song> = {}): Song => ({
  kind: 'song',
  schemaVersion: 1,
  id: 'song',
  title: 'Kiln Yard',
  by: '',
  notes: '',
  media: {
    name: 'kiln.wav',
    type: 'audio/wav',
    bytes: 10,
    seconds: 60,
    picture: false,
    mark: 'a'.repeat(64),
    keep: 'here',
    shift: 0,
  },
  counts,
  sections: [],
  stops: [],
  words: [],
  ...more,
})

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
    const begun: SongCounts = {
      ms,
      by: 'found',
      fixed: [],
      sure: [],
      ones: [{ at: first, counts: length }],
      silent: [],
    }
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
        const doubled = twice(counts)
        expect(doubled.ms).toHaveLength(2 * counts.ms.length - 1)
        expect(half(doubled)).toEqual(counts)
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
    const counts: SongCounts = {
      ms: [500, 1000, 1500, 2000],
      by: 'found',
      fixed: [0],
      sure: [],
      ones: [{ at: 0, counts: 8 }],
      silent: [],
    }
    expect(() => dragged(counts, 1, 600)).toThrow(/count 2 would be 0.10 s after/)
    expect(() => nudged(counts, -900)).toThrow(/before the song/)
    expect(() => twice({ ...counts, ms: [0, 350, 700] })).toThrow(/Twice as many: count 2/)
    expect(() => half({ ...counts, ms: [0, 2500, 5000] })).toThrow(/Half as many: count 2/)
    expect(() => phraseOf(counts, 0, 17)).toThrow(/phrase of 17/)
    expect(() => readSong({ ...song(counts), schemaVersion: 2 })).toThrow(/newer version/)
    expect(() => readSong({ ...song({ ...counts, ms: [500, 400] }) })).toThrow(/behind the one/)
  })

  it('have names: the section, its phrase and the count in it', () => {
    const counts: SongCounts = {
      ms: Array.from({ length: 40 }, (_, i) => 500 * (i + 1)),
      by: 'found',
      fixed: [],
      sure: [],
      ones: [{ at: 2, counts: 8 }],
      silent: [],
    }
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
