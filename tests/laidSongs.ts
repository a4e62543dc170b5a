import fc from 'fast-check'
import type { Combination } from '../src/core/combination/combination'
import { USUAL_HOUSE } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import type { Drill } from '../src/core/plan/drill'
import { materialsOf } from '../src/core/plan/material'
import { laidOn } from '../src/core/routine/edits'
import { countsFrom } from '../src/core/routine/room'
import { emptyRoutine, type Routine } from '../src/core/routine/routine'
import { noted } from '../src/core/routine/settled'
import { withSongs } from '../src/core/routine/withSong'
import type { Song } from '../src/core/song/song'
import { demo } from './demo'
import { countsAt, songWith } from './songs'

const [first, second] = demo as readonly [Combination, Combination]
/** The one that is laid first. */
export const one: Combination = first
const other: Combination = second
/** The demo's combination of an id. */
export const find = (id: string) => demo.find((each) => each.id === id)

/** A drifting song with two combinations laid on it, from either side. */
export const anyLaid = fc
  .record({
    gaps: fc.array(fc.integer({ min: 480, max: 760 }), { minLength: 72, maxLength: 110 }),
    first: fc.nat(5),
    rest: fc.nat(8),
    sides: fc.tuple(fc.constantFrom('R', 'L'), fc.constantFrom('R', 'L')),
  })
  .map(({ gaps, first, rest, sides: [a, b] }) => {
    let at = 900
    const ms = [at, ...gaps.map((gap) => (at += gap))]
    const break_ = first + countsFrom(one) + rest
    const song = songWith(countsAt(ms, { ones: [{ at: first, counts: 8 }] }), {
      sections: [
        { id: 's0', at: 0, label: 'Verse', kind: 'verse', energy: 2 },
        { id: 's1', at: break_, label: 'Chorus', kind: 'chorus', energy: 5 },
      ],
    })
    const empty = emptyRoutine('routine', song)
    const laid = laidOn(empty, song, one, { at: first, side: a as 'R', id: 'a' })
    const routine = laidOn(laid, song, other, { at: break_, side: b as 'R', id: 'b' })
    return { song, routine: noted(routine, song), chorus: break_ }
  })

/** What a class with the demo's combinations and one routine dances. */
export const classMaterials = (song: Song, routine: Routine) =>
  materialsOf(
    demo,
    vocabulary,
    USUAL_HOUSE,
    withSongs({ routines: [routine], songs: [song] }, find, vocabulary, USUAL_HOUSE),
  )

/** A drill with a song. */
export const drillWith = (song: NonNullable<Drill['song']>, more: Partial<Drill> = {}): Drill => ({
  id: 'd',
  kind: 'song',
  phrases: [],
  layers: ['feet', 'hips'],
  sides: ['R'],
  repeats: 1,
  tempo: 100,
  talk: 0,
  stand: 'back',
  song,
  ...more,
})
