import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { holds } from '../../../tests/holds'
import { anyLaying, made } from '../../../tests/routines'
import { countsAt, evenMs, songWith } from '../../../tests/songs'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { isClick } from '../performance/sounds'
import { uncounted } from '../song/correct'
import { isSilent, type Song } from '../song/song'
import { TICKS_PER_COUNT } from '../time/time'
import { songCalls } from './calls'
import { dancedTo, routinePlayed } from './danced'
import { laidOut } from './laid'
import { emptyRoutine } from './routine'

/** Everything is said at once. */
const SPEECH = () => 0.1

describe('a routine, as it is called', () => {
  it('has a click and a number where the song has a count, and none where nobody hears one', () => {
    const anySilence = fc.array(fc.tuple(fc.nat(100), fc.integer({ min: 1, max: 20 })), {
      minLength: 1,
      maxLength: 3,
    })
    let hushed = 0
    holds(
      fc.property(anyLaying, anySilence, ({ song: whole, combinations, steps }, silences) => {
        const total = whole.counts.ms.length
        const counts = silences.reduce((now, [from, long]) => {
          const at = from % (total - 3)
          return uncounted(now, { from: at, to: Math.min(total, at + long) })
        }, whole.counts)
        const song: Song = { ...whole, counts }
        const { routine, all } = made(song, combinations, steps)
        const laid = laidOut(routine, song, (id) => all.find((one) => one.id === id))
        const dance = dancedTo(laid, song, vocabulary, USUAL_HOUSE)
        const played = routinePlayed(dance, laid, song, {
          from: laid.from,
          to: total,
          rate: 1,
          isLooped: false,
          mode: 'all',
          speech: SPEECH,
        })
        const [segment] = played.segments
        if (!segment) throw new Error('nothing is played')
        const clicked = new Set(
          segment.sounds
            .filter(({ kind }) => isClick(kind))
            .map(({ at }) => Math.floor(at / TICKS_PER_COUNT)),
        )
        const numbered = new Set(
          segment.calls
            .filter(({ what }) => what === 'number' || what === 'and')
            .map(({ of }) => Math.floor(of / TICKS_PER_COUNT)),
        )
        for (let i = 0; i < total - laid.from; i++) {
          const at = laid.from + i
          // The last four before it comes back are said.
          const back = counts.ms.findIndex((_, one) => one >= at && !isSilent(counts, one))
          const isHeard = back >= 0 && back - at <= 4
          expect(clicked.has(i), `count ${at}`).toBe(isHeard)
          if (!isHeard) {
            hushed++
            expect(numbered.has(i)).toBe(false)
            expect(played.momentAt(i * TICKS_PER_COUNT).count).toBe('')
          } else expect(played.momentAt(i * TICKS_PER_COUNT).count).not.toBe('')
        }
      }),
      { numRuns: 80, seed: 141 },
    )
    expect(hushed).toBeGreaterThan(10)
  })

  it('has the parts of its song called before they begin, and her own words on their counts', () => {
    const song = songWith(countsAt(evenMs(72, 100)), {
      sections: [
        { id: 'a', at: 0, label: 'Verse', kind: 'verse', energy: 2 },
        { id: 'b', at: 16, label: 'Drums', kind: 'break', energy: 2 },
        { id: 'c', at: 32, label: 'Verse', kind: 'verse', energy: 2 },
      ],
      words: [{ at: 20 * TICKS_PER_COUNT, text: 'melt' }],
    })
    const { cues } = songCalls(song, { from: 0, passes: [] })
    expect(cues).toEqual([
      { at: 0, kind: 'section', text: 'verse', or: ['verse'] },
      { at: 192, kind: 'section', text: 'drums', or: ['break'] },
      { at: 384, kind: 'section', text: 'verse again', or: ['verse again', 'verse', 'verse'] },
      { at: 240, kind: 'layer', text: 'melt' },
    ])
    const find = (id: string) => demo.find((one) => one.id === id)
    const laid = laidOut(emptyRoutine('r', song), song, find)
    const dance = dancedTo(laid, song, vocabulary, USUAL_HOUSE)
    const played = routinePlayed(dance, laid, song, {
      from: 0,
      to: 72,
      rate: 1,
      isLooped: false,
      mode: 'all',
      // Its voice knows what the app's does, and no “drums”.
      speech: (text) => (/drums/.test(text) ? undefined : 0.3),
    })
    const called = played.calls.filter(({ what }) => what === 'section' || what === 'layer')
    expect(called.map(({ of, say }) => [of, say?.text])).toEqual([
      [192, 'break'],
      [240, 'melt'],
      [384, 'verse again'],
      // The end pose stays for as long as the song still sounds.
      [864, 'hold'],
    ])
    for (const { what, at, length, of } of called)
      if (what === 'section') expect(at + length).toBeLessThanOrEqual(of - 24 + 1)
      else expect(at).toBe(of)
  })
})
