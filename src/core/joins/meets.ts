import type { Layer } from '../body/layers'
import { compassWord, mirrorCompass, mirrorGaze, mirrorTrunk, trunkName } from '../body/places'
import { loopTick } from '../combination/loop'
import { mirrorEvent } from '../combination/mirror'
import { roundPickup } from '../combination/passes'
import { courseOf, endPlaces, placesBefore, type Run, reachSeconds } from '../simulate/course'
import { isFree, isThere, placesNeeded, startPlaces } from '../simulate/places'
import { beforeStep, type Simulation, shiftsWeight } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import { secondsBetween } from '../time/timeMap'
import { armWords } from '../what/arms'
import { gazeName } from '../what/look'
import type { PlacePart, Places } from '../what/places'

type JoinPart = 'arms' | 'hips' | 'ribs' | 'gaze' | 'trunk' | 'legs'

/** One part of the body that does not end where what follows begins (model 7). */
export interface Gap {
  readonly part: JoinPart
  readonly layer: Layer
  readonly ends: string
  readonly starts: string
  /** The way to what comes next where it needs its own start: seconds it takes, and seconds there are. */
  readonly reach?: { readonly needs: number; readonly has: number }
}

const PARTS: readonly { readonly part: JoinPart; readonly layer: Layer }[] = [
  { part: 'hips', layer: 'hips' },
  { part: 'legs', layer: 'legs' },
  { part: 'ribs', layer: 'torso' },
  { part: 'trunk', layer: 'torso' },
  { part: 'arms', layer: 'arms' },
  { part: 'gaze', layer: 'head' },
]

/** Parts that need not meet, and still belong to a round. */
const UNJOINED: readonly { readonly part: PlacePart; readonly layer: Layer }[] = [
  { part: 'shoulders', layer: 'torso' },
  { part: 'hands', layer: 'arms' },
]

/** Places from the other side. */
export const mirrorPlaces = ({
  hips,
  ribs,
  arms,
  gaze,
  trunk,
  shoulders,
  legs,
  hands,
  free,
}: Places): Places => ({
  hips: mirrorCompass(hips),
  ribs: mirrorCompass(ribs),
  arms: { R: arms.L, L: arms.R },
  gaze: mirrorGaze(gaze),
  trunk: mirrorTrunk(trunk),
  shoulders: { R: shoulders.L, L: shoulders.R },
  legs: { R: legs.L, L: legs.R },
  hands: { R: hands.L, L: hands.R },
  ...(free && { free }),
})

function wordOf(places: Places, part: JoinPart): string {
  switch (part) {
    case 'arms':
      return armWords(places.arms)
    case 'gaze':
      return gazeName[places.gaze]
    case 'trunk':
      return trunkName[places.trunk]
    case 'legs':
      return `R ${places.legs.R}, L ${places.legs.L}`
    default:
      return compassWord[places[part]]
  }
}

const isSame = (a: Places, b: Places, part: JoinPart): boolean =>
  isFree(a, part) ||
  (part === 'arms' || part === 'legs'
    ? a[part].R === b[part].R && a[part].L === b[part].L
    : a[part] === b[part])

/**
 * What does not meet when the same side follows, or the other one. A part whose first move
 * begins anywhere on count 1 needs nothing; one that needs its own start has the time since
 * its layer's last move, and the rest between rounds.
 * @param next what follows, where it is neither: another one's part from the other side
 */
export function gapsInto(
  simulation: Simulation,
  into: 'repeat' | 'switch',
  next?: Simulation,
): readonly Gap[] {
  const { combination, house, length } = simulation
  const { begins, ends } = placesAtEnds(simulation)
  const follows = next ?? simulation
  const loop = loopTick(follows.combination)
  const starts = next
    ? placesAtEnds(next).begins
    : into === 'repeat'
      ? begins
      : mirrorPlaces(begins)
  const rest = (combination.rest ?? 0) * TICKS_PER_COUNT
  return PARTS.flatMap(({ part, layer }): readonly Gap[] => {
    if (isSame(ends, starts, part)) return []
    const until = length - roundPickup(combination, layer)
    const runsOf = (one: Simulation) =>
      courseOf(one).filter(
        ({ event, at }) =>
          event.layer === layer &&
          at < until &&
          (part === 'trunk'
            ? event.what.kind === 'trunk'
            : event.what.kind !== 'trunk' && event.what.kind !== 'shoulder'),
      )
    const runs = runsOf(simulation)
    const first = runsOf(follows).find(({ at }) => at >= (loop || until - length))
    // The first step takes the hips home before anything sends them on.
    if (part === 'hips' && isHome(follows, loop, first?.at ?? length)) return []
    // Nobody looks back where the round began to look.
    if (!first && part !== 'gaze' && part !== 'trunk' && part !== 'legs') return []
    const words = { part, layer, ends: wordOf(ends, part), starts: wordOf(starts, part) }
    if (!first) return rest > 0 ? [] : [words]
    const event = next || into === 'repeat' ? first.event : mirrorEvent(first.event)
    const needs = first.move && partOf(placesNeeded(first.move, event.what), part)
    if (needs) {
      if (isThere(ends, needs)) return []
      const takes = reachSeconds(ends, needs, house)
      const last = Math.max(...runs.filter(({ kind }) => kind !== 'texture').map(({ end }) => end))
      const again = Math.max(last, first.at + length - loop + rest)
      return [
        {
          ...words,
          starts: wordOf({ ...starts, ...needs } as Places, part),
          reach: { needs: takes, has: secondsBetween(simulation.time, last, again) },
        },
      ]
    }
    return rest > 0 || beginsAnywhere(first, loop) ? [] : [words]
  })
}

/** Whether a step of the next round takes the hips to the centre, up to a tick of it. */
const isHome = ({ slices }: Simulation, from: number, tick: number): boolean =>
  slices.some((slice) =>
    slice.danced.some(
      (step, i) => step.at >= from && step.at <= tick && shiftsWeight(beforeStep(slice, i), step),
    ),
  )

/**
 * Where all but the feet is when a round begins and when it ends. What a pickup of every round
 * dances belongs to the round it leads into.
 */
export function placesAtEnds(simulation: Simulation): {
  readonly begins: Places
  readonly ends: Places
} {
  const { combination, length } = simulation
  const loop = loopTick(combination)
  let begins = placesBefore(simulation, loop)
  let ends = endPlaces(simulation)
  for (const { part, layer } of [...PARTS, ...UNJOINED]) {
    const pickup = roundPickup(combination, layer)
    if (pickup === 0) continue
    begins = { ...begins, [part]: startPlaces(combination.start)[part] }
    ends = { ...ends, [part]: placesBefore(simulation, length - pickup)[part] }
  }
  return { begins, ends }
}

function partOf(needs: Partial<Places>, part: JoinPart): Partial<Places> | undefined {
  return needs[part] === undefined ? undefined : { [part]: needs[part] }
}

/** A place or a path on the count on which later rounds begin goes on from wherever the part is. */
const beginsAnywhere = ({ at, kind }: Run, loop: number): boolean =>
  at <= loop && (kind === 'place' || kind === 'path')
