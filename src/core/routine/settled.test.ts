import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { anyLaying, anySong, made, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import { twice } from '../song/correct'
import type { Song } from '../song/song'
import { type Routine, readRoutine } from './routine'
import { noted, settled } from './settled'
import { sumsOf } from './sums'

describe('a routine whose song is counted anew', () => {
  const all = ({ counts }: Song) => counts.ms.length

  it('is the same again when it is counted as before, and lies where it was in time meanwhile', () => {
    holds(
      fc.property(anyLaying, ({ song, combinations, steps }) => {
        const { routine } = made(song, combinations, steps)
        const kept = noted(routine, song)
        expect(settled(kept, song)).toEqual(kept)
        const doubled = { ...song, counts: twice(song.counts) }
        const moved = settled(kept, doubled)
        expect(readRoutine(JSON.parse(JSON.stringify(moved)))).toEqual(moved)
        expect(moved.of).toBe(all(doubled))
        const ids = (one: Routine) => one.pieces.map(({ id }) => id)
        expect(ids(moved)).toEqual(ids(kept))
        const last = all(song) - 1
        for (const [i, { at, counts }] of moved.pieces.entries()) {
          const was = kept.pieces[i]
          expect(at).toBe(2 * (was?.at ?? 0))
          const end = (was?.at ?? 0) + (was?.counts ?? 0)
          if (end <= last) expect(at + counts).toBe(2 * end)
        }
        expect(settled(moved, song)).toEqual(kept)
      }),
      { numRuns: 100, seed: 73 },
    )
  })

  it('loses what has no count left, and nothing lies on anything, however it is counted', () => {
    holds(
      fc.property(anyLaying, anySong, ({ song, combinations, steps }, other) => {
        const { routine } = made(song, combinations, steps)
        const now = { ...song, counts: other.counts }
        const moved = settled(noted(routine, song), now)
        expect(readRoutine(JSON.parse(JSON.stringify(moved)))).toEqual(moved)
        const order = routine.pieces.map(({ id }) => id)
        expect(moved.pieces.map(({ id }) => id)).toEqual(
          order.filter((id) => moved.pieces.some((piece) => piece.id === id)),
        )
        const sums = sumsOf(moved, now)
        expect(sums.danced + sums.rest + sums.left).toBe(sums.counts)
      }),
      { numRuns: 100, seed: 74 },
    )
  })

  it('that was stored by the first version is read as it was, and lies on the counts there are', () => {
    const first = {
      kind: 'routine',
      schemaVersion: 1,
      id: 'r',
      title: 'Yard',
      song: 'song',
      pieces: [
        {
          id: 'a',
          at: 4,
          counts: 16,
          what: { kind: 'dance', combination: 'c', from: 1, side: 'L' },
        },
        { id: 'b', at: 20, counts: 4, what: { kind: 'rest', how: 'pose', words: 'both hands' } },
      ],
    }
    const read = readRoutine(first)
    expect(read).toEqual({ ...first, schemaVersion: 5, leaves: [] })
    expect(settled(read, songOf(evenMs(40, 100), [0]))).toBe(read)
    const pieces = first.pieces.map((piece) => ({ ...piece, ms: { from: 900, to: 9000 } }))
    const second = { ...first, schemaVersion: 2, of: 40, pieces }
    expect(readRoutine(second)).toEqual({ ...second, schemaVersion: 5, leaves: [] })
    const third = { ...second, schemaVersion: 3, pieces: [{ ...pieces[0], locked: true }] }
    expect(readRoutine(third)).toEqual({ ...third, schemaVersion: 5, leaves: [] })
    const fourth = { ...third, schemaVersion: 4, leaves: [{ code: 'song.gap', of: 'a' }] }
    expect(readRoutine(fourth)).toEqual({ ...fourth, schemaVersion: 5 })
    expect(() => readRoutine({ ...first, schemaVersion: 6 })).toThrow(/newer version/)
  })
})
