import { EASY_HAND } from '../body/hands'
import { SIDES } from '../body/side'
import type { DancedEvent } from '../combination/lengths'
import type { Start } from '../combination/start'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { kindOf, type What } from '../what/kinds'
import { ofArm, writtenSide } from '../what/move'
import { endsOf, type PlacePart, type Places } from '../what/places'

/** Where a body is at the start. */
export const startPlaces = ({
  hips,
  ribs,
  arms,
  gaze,
}: Pick<Start, 'hips' | 'ribs' | 'arms' | 'gaze'>): Places => ({
  hips,
  ribs,
  arms,
  gaze,
  trunk: 'upright',
  legs: { R: 'home', L: 'home' },
  shoulders: { R: 'level', L: 'level' },
  hands: { R: EASY_HAND, L: EASY_HAND },
})

const endsOfWhat = (move: Move, what: What) =>
  what.kind === 'move' ? ofArm(endsOf(move, writtenSide(what)), what) : endsOf(move, 'R')

/** The places a move is usually begun in, also an accent. */
export const placesAtStart = (move: Move, what: What): Partial<Places> =>
  endsOfWhat(move, what).from

/** The places a move must start from; empty where anywhere will do, as for every accent (model 5). */
export const placesNeeded = (move: Move, what: What): Partial<Places> =>
  move.kind === 'accent' ? {} : endsOfWhat(move, what).from

/** Whether a part may be anywhere. */
export const isFree = ({ free }: Places, part: PlacePart): boolean => free?.includes(part) ?? false

/** Whether the body is where a move starts. C is always a legal start for hips and ribs. */
export const isThere = (places: Places, { hips, ribs, arms, gaze }: Partial<Places>): boolean =>
  (!hips || places.hips === hips || places.hips === 'C') &&
  (!ribs || places.ribs === ribs || places.ribs === 'C') &&
  (!gaze || places.gaze === gaze || isFree(places, 'gaze')) &&
  (!arms ||
    isFree(places, 'arms') ||
    SIDES.every((side) => !arms[side] || arms[side] === places.arms[side]))

/** Where an event leaves the body. */
export const placesAfter = (
  before: Places,
  { what, layer, length }: DancedEvent,
  vocabulary: Vocabulary,
): Places => kindOf(what).leaves(what, before, { layer, length, vocabulary })

/** Events in the order they begin; a file may hold them in any. */
export const inTime = (events: readonly DancedEvent[]): readonly DancedEvent[] =>
  events.every(({ at }, i) => i === 0 || at >= (events[i - 1]?.at ?? Number.NEGATIVE_INFINITY))
    ? events
    : [...events].sort((a, b) => a.at - b.at)
