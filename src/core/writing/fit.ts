import { type FootAction, mirrorFootAction } from '../body/feet'
import type { Side } from '../body/side'
import { onSide } from '../combination/whatOf'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { isThere, placesNeeded } from '../simulate/places'
import { dance } from '../simulate/primitives'
import { steady } from '../time/timeMap'
import type { What } from '../what/kinds'
import type { Here, Wanted } from './wanted'
import { type Entry, moveEntry } from './written'

/** Worth of fitting: the foot is right, the place is right, there is time, it was used lately. */
const FIT = { foot: -14, place: -4, room: -2, fast: -3, recent: 3 } as const

/** How well something fits where it would stand; 0 for what fits, below for what does not. */
export function fitOf(entry: Entry, side: Side, { here }: Wanted, vocabulary: Vocabulary): number {
  if (!here) return 0
  const what = onSide(entry.what, side)
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const first = what.kind === 'foot' ? what.action : firstAction(move, side)
  let score = recentScore(entry, here)
  if (first && dance(here.state, first, here.at).fault) score += FIT.foot
  if (entry.length > here.room) score += FIT.room
  if (!move) return score
  if (!isThere(here.places, placesNeeded(move, what))) score += FIT.place
  const seconds = steady(here.tempo).secondsAt(Math.min(entry.length, here.room))
  const needed = move.kind === 'texture' ? 0 : move.fastest_s
  return seconds < needed * 0.8 ? score + FIT.fast : score
}

/** Whether a move can be danced from what comes before it, in the room and the time there is. */
export const fits = (move: Move, wanted: Wanted, vocabulary: Vocabulary): boolean =>
  fitOf(
    { ...moveEntry(move), names: [] },
    wanted.side,
    { ...wanted, here: wanted.here && { ...wanted.here, recent: [] } },
    vocabulary,
  ) >= 0

const recentScore = (entry: Entry, { recent }: Here): number => {
  const place = recent.indexOf(idOfKind(entry.what))
  return place < 0 ? 0 : FIT.recent / (1 + place)
}

/** What is the same on both sides: one id for `hip-drop R` and `hip-drop L`. */
export const idOfKind = (what: What): string => JSON.stringify(onSide(what, 'R'))

function firstAction(move: Move | undefined, side: Side): FootAction | undefined {
  const action = move?.pattern[0]?.action
  return action && (side === 'R' ? action : mirrorFootAction(action))
}
