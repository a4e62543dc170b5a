import fc from 'fast-check'
import type { Combination } from '../src/core/combination/combination'
import { UserError } from '../src/core/errors'
import {
  laidOn,
  lengthened,
  lockToggled,
  moved,
  pacedTo,
  removed,
  restedOn,
  turned,
} from '../src/core/routine/edits'
import { emptyRoutine, type Routine } from '../src/core/routine/routine'
import type { Song } from '../src/core/song/song'
import { anyCombination } from './arbitraries'
import { countsAt, songWith } from './songs'

/** A song of these counts, with sections. */
export const songOf = (ms: readonly number[], starts: readonly number[], first = 0): Song =>
  songWith(countsAt(ms, { ones: [{ at: first, counts: 8 }] }), {
    sections: starts.map((at, i) => ({
      id: `s${i}`,
      at,
      label: 'Verse',
      kind: 'verse',
      energy: 3,
    })),
  })

export const empty = emptyRoutine('routine', { id: 'song', title: 'Yard' })

export const anySong = fc
  .record({
    gaps: fc.array(fc.integer({ min: 400, max: 900 }), { minLength: 30, maxLength: 120 }),
    starts: fc.uniqueArray(fc.integer({ min: 1, max: 110 }), { maxLength: 5 }),
    first: fc.nat(9),
  })
  .map(({ gaps, starts, first }) => {
    let at = 400
    const ms = [at, ...gaps.map((gap) => (at += gap))]
    const within = starts.filter((start) => start < ms.length).sort((a, b) => a - b)
    return songOf(ms, [0, ...within], first)
  })

export const anyLaying = anySong.chain((song) =>
  fc.record({
    song: fc.constant(song),
    combinations: fc.array(anyCombination(), { minLength: 1, maxLength: 3 }),
    steps: fc.array(
      fc.tuple(
        fc.constantFrom('lay', 'rest', 'move', 'longer', 'turn', 'pace', 'lock', 'remove'),
        fc.nat(130),
        fc.integer({ min: -9, max: 9 }),
        fc.constantFrom('R', 'L'),
      ),
      { maxLength: 14 },
    ),
  }),
)

/** A routine as it comes to be: what can't be done is refused, and changes nothing. */
export function made(
  song: Song,
  combinations: readonly Combination[],
  steps: readonly (readonly [string, number, number, string])[],
): { readonly routine: Routine; readonly all: readonly Combination[] } {
  const all = combinations.map((one, i) => ({ ...one, id: `c${i}` }))
  let routine = empty
  for (const [i, [kind, place, by, side]] of steps.entries()) {
    const at = place % song.counts.ms.length
    const piece = routine.pieces[place % Math.max(1, routine.pieces.length)]
    const combination = all[place % all.length] as Combination
    try {
      if (kind === 'lay')
        routine = laidOn(routine, song, combination, { at, side: side as 'R', id: `p${i}` })
      else if (kind === 'rest')
        routine = restedOn(routine, song, {
          at,
          counts: Math.abs(by) + 1,
          how: 'pose',
          id: `p${i}`,
        })
      else if (piece && kind === 'move') routine = moved(routine, song, piece.id, by)
      else if (piece && kind === 'longer') routine = lengthened(routine, song, piece.id, by)
      else if (piece && kind === 'turn') routine = turned(routine, piece.id)
      else if (piece && kind === 'pace') {
        const { what } = piece
        const own = all.find(({ id }) => what.kind === 'dance' && id === what.combination)
        const pace = by % 3 === 0 ? 1 : by > 0 ? 2 : 0.5
        if (own) routine = pacedTo(routine, song, own, piece.id, pace)
      } else if (piece && kind === 'lock') routine = lockToggled(routine, piece.id)
      else if (piece) routine = removed(routine, piece.id)
    } catch (error) {
      if (!(error instanceof UserError)) throw error
    }
  }
  return { routine, all }
}
