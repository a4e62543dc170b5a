import { ArmPlace, Compass, Gaze, mirrorCompass, mirrorGaze } from '../body/places'
import { SIDES, type Side } from '../body/side'
import type { Event, Start, What } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { Layer, Move } from '../moves/move'
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

/** The places a move must start from; empty where anywhere will do. C is always a legal start (model 5). */
export const placesNeeded = (move: Move, what: What): Partial<Places> =>
  move.from === 'C' ? {} : placesNamed(move.from, move.layer, isLeft(what))

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
      if (!move || layer === 'feet') return before
      const named = placesNamed(move.to, layer, isLeft(what))
      return { ...before, ...named, arms: { ...before.arms, ...named.arms } }
    }
    default:
      return before
  }
}

/** Where everything is just before a tick, by all that began before it. */
export function placesBefore(
  passes: readonly Pass[],
  start: Start,
  vocabulary: Vocabulary,
  at: number,
): Places {
  let places = startPlaces(start)
  for (const pass of passes)
    for (const event of pass.events)
      if (pass.at + event.at < at) places = placesAfter(places, event, vocabulary)
  return places
}
