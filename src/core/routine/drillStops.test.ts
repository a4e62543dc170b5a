import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { anySong, empty } from '../../../tests/routines'
import type { Drill } from '../plan/drill'
import type { Song } from '../song/song'
import { leftAt, type SongPlaceLeft, stopsOf, untilStop } from './drillStops'
import { momentOf } from './settled'

const routine = { ...empty, song: 'song' }
const songsOf = (song: Song) => ({ routines: [routine], songs: [song] })

const drillOn = (song: Song, from: number, to: number): Drill => ({
  id: 'd',
  kind: 'song',
  phrases: [],
  stand: 'back',
  layers: ['feet'],
  sides: ['R'],
  repeats: 2,
  tempo: 100,
  talk: 0,
  song: { routine: routine.id, from: momentOf(song, from), to: momentOf(song, to), rate: 0.8 },
})

const anyStopping = anySong.chain((song) => {
  const last = song.counts.ms.length
  return fc
    .record({
      from: fc.integer({ min: 0, max: last - 10 }),
      more: fc.integer({ min: 8, max: last }),
      stops: fc.uniqueArray(fc.integer({ min: 0, max: last }), { maxLength: 6 }),
    })
    .map(({ from, more, stops }) => ({
      song: { ...song, stops: stops.map((at) => ({ at, label: `at ${at}` })) },
      drill: drillOn(song, from, Math.min(last, from + more)),
    }))
})

describe('a drill with stops in its song', () => {
  it('is danced from stop to stop, each a phrase earlier, until its end, and misses none', () => {
    holds(
      fc.property(anyStopping, ({ song, drill }) => {
        const songs = songsOf(song)
        const own = drill.song as NonNullable<Drill['song']>
        const met: number[] = []
        let left: SongPlaceLeft | undefined
        let heardTo = own.from
        for (let i = 0; i <= song.stops.length; i++) {
          const { drill: part, stop } = untilStop(drill, songs, left, true)
          const danced = part.song as typeof own
          expect(danced.from).toBeGreaterThanOrEqual(own.from)
          // Nothing between two stops is left out.
          expect(danced.from).toBeLessThanOrEqual(heardTo)
          expect(danced.to).toBeGreaterThan(danced.from)
          heardTo = danced.to
          if (!stop) break
          expect(part.repeats).toBe(1)
          met.push(danced.to)
          left = stop.left
        }
        expect(heardTo).toBe(own.to)
        expect(met).toEqual(stopsOf(drill, songs).map(({ ms }) => ms))
        // Who does not stop dances it as it is planned.
        expect(untilStop(drill, songs, undefined, false)).toEqual({ drill })
      }),
      { numRuns: 300 },
    )
  })

  it('goes on where the phrase began in which it was halted, whatever is heard', () => {
    holds(
      fc.property(anyStopping, fc.nat(120_000), ({ song, drill }, ms) => {
        const own = drill.song as NonNullable<Drill['song']>
        const left = leftAt(drill, songsOf(song), ms / 1000)
        if (ms <= own.from) {
          expect(left).toBeUndefined()
          return
        }
        const { drill: part } = untilStop(drill, songsOf(song), left, false)
        expect(part.song?.from).toBe(left?.from)
        expect(left?.from).toBeGreaterThanOrEqual(own.from)
        const near = ms - (left?.from ?? 0)
        // No further back than a phrase of eight, and the half count it may be nearer to.
        if (ms <= momentOf(song, song.counts.ms.length)) expect(near).toBeLessThan(8.5 * 900)
        // What comes without a song is danced as it is.
        const { song: _, ...plain } = drill
        expect(untilStop(plain, songsOf(song), left, true)).toEqual({ drill: plain })
      }),
      { numRuns: 300 },
    )
  })
})
