import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import type { Drill } from '../plan/drill'
import { type Material, type Materials, materialFrom, type SongStretch } from '../plan/material'
import { placeWords } from '../song/lines'
import { type Section, type Song, secondsOfCount, songTime, tickOfCount } from '../song/song'
import { endOf, TICKS_PER_COUNT, tick } from '../time/time'
import { startingAt } from '../time/timeMap'
import { songCalls } from './calls'
import { dancedTo } from './danced'
import { endOfLaid, type Laid, laidOut } from './laid'
import type { Routine } from './routine'
import { placesIn, settled } from './settled'

/** Songs, and what is laid on them. */
export interface LaidSongs {
  readonly routines: readonly Routine[]
  readonly songs: readonly Song[]
}

/** What some drills dance with songs, and the combinations that are laid there. */
export function laidFor(
  drills: readonly Drill[],
  { routines, songs }: LaidSongs,
): LaidSongs & { readonly combinations: ReadonlySet<string> } {
  const wanted = new Set(drills.flatMap(({ song }) => song?.routine ?? []))
  const used = routines.filter(({ id }) => wanted.has(id))
  const pieces = used.flatMap((routine) => routine.pieces)
  return {
    routines: used,
    songs: songs.filter(({ id }) => used.some(({ song }) => song === id)),
    combinations: new Set(
      pieces.flatMap(({ what }) => (what.kind === 'dance' ? what.combination : [])),
    ),
  }
}

interface Danced {
  readonly song: Song
  readonly laid: Laid
  readonly material: Material
}

/** What a class dances with songs; each routine is danced once, when it is first asked for. */
export function withSongs(
  { routines, songs }: LaidSongs,
  find: (id: string) => Combination | undefined,
  vocabulary: Vocabulary,
  house: House,
): Materials['withSong'] {
  const made = new Map<string, Danced | undefined>()
  const make = (id: string): Danced | undefined => {
    const routine = routines.find((one) => one.id === id)
    const song = songs.find((one) => one.id === routine?.song)
    if (!routine || !song) return undefined
    const laid = laidOut(settled(routine, song), song, find)
    const dance = dancedTo(laid, song, vocabulary, house)
    return { song, laid, material: materialFrom(dance, laid.combination) }
  }
  return ({ routine, from, to }) => {
    if (!made.has(routine)) made.set(routine, make(routine))
    const danced = made.get(routine)
    return danced && stretchIn(danced, from, to)
  }
}

/** A stretch of a routine; undefined where the song has nothing between two moments, in milliseconds. */
function stretchIn(
  { song, laid, material }: Danced,
  from: number,
  to: number,
): SongStretch | undefined {
  const placed = placesIn(song)
  const begin = Math.max(laid.from, placed(from))
  // To its last count is to the end of what is heard.
  const end = placed(to) >= song.counts.ms.length ? endOfLaid(laid) : placed(to)
  if (end <= begin) return undefined
  const range = {
    from: tick(TICKS_PER_COUNT * (begin - laid.from)),
    to: tick(TICKS_PER_COUNT * (end - laid.from)),
  }
  const sides = { R: 0, L: 0 }
  for (const { piece, at, counts } of laid.passes) {
    const inside = Math.min(end, at + counts) - Math.max(begin, at)
    if (piece?.what.kind === 'dance' && inside > 0) sides[piece.what.side] += inside
  }
  return {
    material,
    range,
    passes: material.lead.passes.filter((pass) => pass.at < range.to && endOf(pass) > range.from),
    time: startingAt(songTime(song), tickOfCount(song, begin)),
    mark: song.media.mark,
    second: Math.max(0, secondsOfCount(song, begin)),
    sides,
    calls: songCalls(song, laid),
    title: [song.title, partOf(song, laid, begin, end)].filter(Boolean).join(', '),
    placeAt: (at) => placeWords(song, laid.from + Math.floor(at / TICKS_PER_COUNT)),
  }
}

/** The sections a stretch goes over, as they are said: `Chorus`, `Verse to Chorus`, `from chorus on`; nothing for all of the song. */
function partOf({ sections, counts }: Song, laid: Laid, from: number, to: number): string {
  if (from <= laid.from && to >= counts.ms.length) return ''
  const holding = (at: number): Section | undefined =>
    sections.findLast((section) => section.at <= at)
  const [first, last] = [holding(from), holding(to - 1)]
  if (!first || !last) return ''
  if (first === last) return first.label
  return to >= counts.ms.length
    ? `from ${first.label.toLowerCase()} on`
    : `${first.label} to ${last.label}`
}
