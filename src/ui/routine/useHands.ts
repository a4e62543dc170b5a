import { useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import type { Pace } from '../../core/combination/pace'
import {
  filledWith,
  laidOn,
  lengthened,
  lockToggled,
  moved,
  pacedTo,
  removed,
  restedOn,
  turned,
} from '../../core/routine/edits'
import type { Offer } from '../../core/routine/offers'
import { freeFrom } from '../../core/routine/room'
import { type Piece, REST_WORDS, type RestHow, type Routine } from '../../core/routine/routine'
import { oneAt, type Song } from '../../core/song/song'
import type { ScreenKey } from '../parts/keys'
import { inWords } from '../parts/Problem'
import { useServices } from '../stores/services'
import type { ChangeRoutine } from './useRoutine'

/** What can be done to a routine where the cursor is. */
export interface Hands {
  readonly phrase: number
  readonly lay: (combination: Combination, side: Side) => void
  readonly rest: (how: RestHow) => void
  readonly move: (by: number) => void
  readonly longer: (by: number) => void
  readonly turn: () => void
  readonly remove: () => void
  /** Twice as fast, half as fast, or as it is written. */
  readonly pace: (pace: Pace | 1) => void
  readonly lock: () => void
  /** Makes up something slow for the free counts, keeps it among the combinations, and lays it. */
  readonly makeUp: () => void
  /** Takes an offer, and keeps the combination it brings. */
  readonly take: (offer: Offer) => void
}

export function useHands({
  routine,
  song,
  at,
  piece,
  select,
  change,
  say,
  find,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly at: number
  /** What lies there. */
  readonly piece: Piece | undefined
  readonly select: (at: number) => void
  readonly change: ChangeRoutine
  readonly say: (text: string) => void
  readonly find: (id: string) => Combination | undefined
}): Hands {
  const { newId, judge, combinations } = useServices()
  const queries = useQueryClient()
  const seed = useRef(0)
  const from = freeFrom(routine, at)
  const keep = async (made: Combination) => {
    await combinations.add(made)
    await queries.invalidateQueries({ queryKey: ['all combinations'] })
  }
  const sayWhatFailed = (error: unknown) => {
    const { what, toDo } = inWords(error)
    say(`${what} ${toDo}`)
  }
  const onPiece = (label: string, make: (now: Routine, id: string) => Routine) => {
    if (!piece) {
      say('Select a piece first: touch it, or go to it with the arrows.')
      return
    }
    const { id } = piece
    change(label, (now) => make(now, id), `${label} ${id}`)
  }
  return {
    phrase: oneAt(song.counts, at).counts,
    lay(combination, side) {
      change(`lay ${combination.title}`, (now) =>
        laidOn(now, song, combination, { at: from, side, id: newId() }),
      )
      select(from)
    },
    rest: (how) =>
      change(REST_WORDS[how].toLowerCase(), (now) =>
        restedOn(now, song, { at: from, how, id: newId() }),
      ),
    move(by) {
      onPiece('move', (now, id) => moved(now, song, id, by))
      if (piece) select(at + by)
    },
    longer: (by) => onPiece('length', (now, id) => lengthened(now, song, id, by)),
    async makeUp() {
      try {
        const wish = { song, at: from, id: newId(), seed: seed.current++ }
        const made = await judge.ask('madeUp', wish)
        if (!made) {
          say('Nothing fits these few counts: hold a pose, or dance freely.')
          return
        }
        await keep(made)
        change(`make up ${made.title}`, (now) => filledWith(now, song, made, { at: from, newId }))
        say(`Made up, and kept among the combinations as “${made.title}”: change it there.`)
      } catch (error) {
        sayWhatFailed(error)
      }
    },
    async take({ words, routine: offered, made }) {
      try {
        if (made) await keep(made)
        change(words.charAt(0).toLowerCase() + words.slice(1), () => offered)
        if (made) say(`Danced otherwise, and kept among the combinations as “${made.title}”.`)
      } catch (error) {
        sayWhatFailed(error)
      }
    },
    pace: (pace) =>
      onPiece('pace', (now, id) => {
        const { what } = piece ?? {}
        const own = what?.kind === 'dance' ? find(what.combination) : undefined
        return own ? pacedTo(now, song, own, id, pace) : now
      }),
    lock: () => onPiece(piece?.locked ? 'unlock' : 'lock', lockToggled),
    turn: () => onPiece('other side', turned),
    remove: () => onPiece('take away', removed),
  }
}

const held = { repeats: true } as const

/** The keys of the song map. */
export const routineKeys = (
  { phrase, move, longer, turn, rest, remove, lock }: Hands,
  go: (by: number) => void,
  playOrStop: () => void,
): readonly ScreenKey[] => [
  { on: [' '], does: 'play from the selected count, or stop', run: playOrStop },
  { on: ['ArrowRight'], does: 'the next count', run: () => go(1), ...held },
  { on: ['ArrowLeft'], does: 'the count before', run: () => go(-1), ...held },
  { on: ['ArrowDown', 'PageDown'], does: 'a phrase on', run: () => go(phrase), ...held },
  { on: ['ArrowUp', 'PageUp'], does: 'a phrase back', run: () => go(-phrase), ...held },
  { on: ['m'], does: 'the piece a phrase later', run: () => move(phrase) },
  { on: ['n'], does: 'the piece a phrase earlier', run: () => move(-phrase) },
  { on: ['Alt ArrowRight'], does: 'the piece a count later', run: () => move(1), ...held },
  { on: ['Alt ArrowLeft'], does: 'the piece a count earlier', run: () => move(-1), ...held },
  { on: ['Shift ArrowRight'], does: 'the piece a phrase longer', run: () => longer(phrase) },
  { on: ['Shift ArrowLeft'], does: 'the piece a phrase shorter', run: () => longer(-phrase) },
  { on: ['x'], does: 'the piece four counts shorter', run: () => longer(-4) },
  { on: ['s'], does: 'the piece from its other side', run: turn },
  { on: ['l'], does: 'lock the piece, or unlock it', run: lock },
  { on: ['p'], does: 'a pose in the free counts', run: () => rest('pose') },
  { on: ['Delete', 'Backspace'], does: 'take the piece away', run: remove },
]
