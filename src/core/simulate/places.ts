import type { Layer } from '../body/layers'
import { ArmPlace, Compass, Gaze, mirrorCompass, mirrorGaze } from '../body/places'
import { SIDES, type Side } from '../body/side'
import type { Event, Start, What } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import type { Pass } from '../combination/passes'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'

/** Where hips, ribs, arms and gaze are (model 3). */
export interface Places {
  readonly hips: Compass
  readonly ribs: Compass
  readonly arms: Readonly<Record<Side, ArmPlace>>
  readonly gaze: Gaze
}

export const startPlaces = ({ hips, ribs, arms, gaze }: Start): Places => ({
  hips,
  ribs,
  arms,
  gaze,
})

/** What the table calls the places of the head, and what a look calls them. */
const gazeOf = (place: string): Gaze | undefined =>
  Gaze.safeParse(place.replace(/^shoulder-(?=[RL]$)/, 'over-')).data

/** The places a table cell names, turned to the side that is danced: `R`, `low`, `R:crown+L:second`. */
function placesNamed(cell: string, layer: Layer, left: boolean): Partial<Places> {
  const compass = Compass.safeParse(cell).data
  const there = compass && (left ? mirrorCompass(compass) : compass)
  if (layer === 'hips') return there ? { hips: there } : {}
  if (layer === 'torso') return there ? { ribs: there } : {}
  if (layer === 'head') {
    const gaze = gazeOf(cell)
    return gaze ? { gaze: left ? mirrorGaze(gaze) : gaze } : {}
  }
  if (layer !== 'arms') return {}
  const arms: Partial<Record<Side, ArmPlace>> = {}
  for (const part of cell.split('+')) {
    const [, arm, name = ''] = /^(?:([RL]):)?(.+)$/.exec(part) ?? []
    const place = ArmPlace.safeParse(name).data
    if (!place) continue
    for (const side of SIDES) if (!arm || arm === side) arms[left ? other(side) : side] = place
  }
  return { arms: arms as Places['arms'] }
}
const other = (side: Side): Side => (side === 'R' ? 'L' : 'R')

const isLeft = (what: What): boolean =>
  what.kind === 'move' && (what.side === 'L' || what.way === 'ccw')

interface MoveEnds {
  readonly from: Partial<Places>
  readonly to: Partial<Places>
}

const endsOfMoves = new WeakMap<Move, Readonly<Record<Side, MoveEnds>>>()

/** Where a move starts and ends on a side, read once from its row of the table. */
function endsOf(move: Move, what: What): MoveEnds {
  let known = endsOfMoves.get(move)
  if (!known) {
    const on = (left: boolean): MoveEnds => ({
      from: placesNamed(move.from, move.layer, left),
      to: placesNamed(move.to, move.layer, left),
    })
    known = { R: on(false), L: on(true) }
    endsOfMoves.set(move, known)
  }
  return known[isLeft(what) ? 'L' : 'R']
}

/** The places a move is usually begun in, also an accent. */
export const placesAtStart = (move: Move, what: What): Partial<Places> => endsOf(move, what).from

/** The places a move must start from; empty where anywhere will do, as for every accent (model 5). */
export const placesNeeded = (move: Move, what: What): Partial<Places> =>
  move.kind === 'accent' ? {} : endsOf(move, what).from

/** Whether the body is where a move starts. C is always a legal start for hips and ribs. */
export const isThere = (places: Places, { hips, ribs, arms, gaze }: Partial<Places>): boolean =>
  (!hips || places.hips === hips || places.hips === 'C') &&
  (!ribs || places.ribs === ribs || places.ribs === 'C') &&
  (!gaze || places.gaze === gaze) &&
  (!arms || SIDES.every((side) => !arms[side] || arms[side] === places.arms[side]))

/** Where an event leaves the body. */
export function placesAfter(before: Places, event: Event, vocabulary: Vocabulary): Places {
  const { what, layer } = event
  switch (what.kind) {
    case 'at':
      return layer === 'torso' ? { ...before, ribs: what.place } : { ...before, hips: what.place }
    case 'look':
      return { ...before, gaze: what.gaze }
    case 'arms':
      return {
        ...before,
        arms: { R: what.R ?? before.arms.R, L: what.L ?? before.arms.L },
      }
    case 'move': {
      const move = vocabulary.find(what.move)
      if (!move || layer === 'feet' || move.to === '=') return before
      const { to } = endsOf(move, lastRepeat(event, move))
      return to.arms ? { ...before, arms: { ...before.arms, ...to.arms } } : { ...before, ...to }
    }
    default:
      return before
  }
}

/** The side its last repeat is danced on: repeats that take turns may end on the other one. */
function lastRepeat({ what, length }: Event, move: Move): What {
  if (what.kind !== 'move' || !what.alt) return what
  const times = Math.floor(length / (what.every ?? move.length))
  return times % 2 === 0 ? mirrorWhat(what) : what
}

/** Events in the order they begin; a file may hold them in any. */
export const inTime = (events: readonly Event[]): readonly Event[] =>
  events.every(({ at }, i) => i === 0 || at >= (events[i - 1]?.at ?? Number.NEGATIVE_INFINITY))
    ? events
    : [...events].sort((a, b) => a.at - b.at)

/** Where everything is just before a tick, by all that began before it. */
export function placesBefore(
  passes: readonly Pass[],
  start: Start,
  vocabulary: Vocabulary,
  at: number,
): Places {
  let places = startPlaces(start)
  for (const pass of passes)
    for (const event of inTime(pass.events))
      if (pass.at + event.at < at) places = placesAfter(places, event, vocabulary)
  return places
}
