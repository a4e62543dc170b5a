import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { type Combination, type Event, emptyCombination } from '../combination/combination'
import { defaultStart } from '../combination/start'
import { onSide, whatOf } from '../combination/whatOf'
import { USUAL_HOUSE } from '../house/house'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { placesAtStart } from '../simulate/places'
import { simulate } from '../simulate/simulate'
import { TICKS_PER_COUNT, tick } from '../time/time'
import type { Places } from '../what/places'
import { type Dancer, type DancerOptions, dancerOf } from './dancer'
import { type Joint, newPose, placeOfJoint } from './joints'
import { seen, type View } from './views'

/** One move danced again and again by itself. */
export interface MoveLoop {
  readonly dancer: Dancer
  /** The ticks after which it begins anew. */
  readonly length: number
  readonly tempo: number
  /** What moves. */
  readonly layer: Layer
  /** Only the hands dance: the arms hold them where they are seen. */
  readonly isOfHands: boolean
}

/** Whether a move says nothing of the arms but what the hands do. */
const isOfHands = ({ layer, motion }: Move): boolean =>
  layer === 'arms' &&
  motion.length > 0 &&
  motion.every(
    (part) =>
      part.verb === 'roll' ||
      part.verb === 'flick' ||
      part.verb === 'clap' ||
      part.verb === 'alternate' ||
      (part.verb === 'circle' && part.joint === 'wrist'),
  )

/** Slow enough to be read. */
const LOOP_TEMPO = 76
/** Textures tremble for so long, and what goes somewhere and stays is back after so long, in ticks. */
const TEXTURE_TICKS = 24
const AWAY_TICKS = 24

/** How long a move is shown before it begins anew: figures that change feet twice, for both sides. */
function shownTicks(move: Move): number {
  if (move.kind === 'texture') return TEXTURE_TICKS
  if (move.kind === 'steps' && move.to !== '=') return 2 * move.length
  return move.length
}

const START: Readonly<Record<string, Event['what']>> = {
  hips: { kind: 'at', place: 'C' },
  torso: { kind: 'at', place: 'C' },
  arms: { kind: 'arms', R: 'low', L: 'low' },
  head: { kind: 'look', gaze: 'front' },
}

/** Arms that hang would hide from the side what hips and ribs do. */
const OPEN: Readonly<Partial<Record<Layer, Places['arms']>>> = {
  hips: { R: 'crown', L: 'crown' },
  torso: { R: 'second', L: 'second' },
}

/** Where it is begun; gestures of the hands alone are held where they are seen. */
function startOf(move: Move, what: Event['what']): Partial<Places> {
  const needs = placesAtStart(move, what)
  const goes = move.motion.some(({ verb }) => verb === 'to')
  const isNamed = Object.keys(needs.arms ?? {}).length > 0
  if (move.layer !== 'arms' || goes || isNamed) return needs
  return { arms: isOfHands(move) ? { R: 'level', L: 'level' } : { R: 'second', L: 'second' } }
}

/** A move by itself, from where it begins, on a side. */
export function moveLoop(
  move: Move,
  side: Side,
  vocabulary: Vocabulary,
  options?: DancerOptions,
): MoveLoop {
  return loopOf({ layer: move.layer, what: onSide(whatOf(move), side) }, side, vocabulary, options)
}

/** Anything that can be written on a layer, danced by itself. */
export function loopOf(
  { layer, what }: Pick<Event, 'layer' | 'what'>,
  lead: Side,
  vocabulary: Vocabulary,
  options?: DancerOptions,
): MoveLoop {
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  const needs = move ? startOf(move, what) : {}
  const shown = move ? shownTicks(move) : TICKS_PER_COUNT
  const back = START[layer]
  const stays = move ? move.kind !== 'steps' && move.to !== '=' : true
  const home = stays && Object.keys(needs).length === 0 ? back : undefined
  const counts = Math.ceil((home ? shown + AWAY_TICKS : shown) / TICKS_PER_COUNT)
  const event: Event = { id: 'move', layer, at: tick(0), length: tick(shown), what }
  const away = {
    id: 'back',
    layer,
    at: tick(shown + TICKS_PER_COUNT),
    length: tick(TICKS_PER_COUNT),
  }
  // What the feet do not dance is shown standing on both, alike to both sides.
  const stands = layer === 'feet' ? {} : { weight: 'both' as const }
  const start = { ...defaultStart(lead), ...stands }
  const combination: Combination = {
    ...emptyCombination('loop', 'loop'),
    tempo: LOOP_TEMPO,
    lead,
    start: { ...start, ...needs, arms: { ...start.arms, ...OPEN[layer], ...needs.arms } },
    phrases: [
      {
        id: 'loop',
        name: 'A',
        title: '',
        counts,
        events: home ? [event, { ...away, what: home }] : [event],
      },
    ],
  }
  return {
    dancer: dancerOf(simulate(combination, vocabulary, USUAL_HOUSE), options),
    length: counts * TICKS_PER_COUNT,
    tempo: LOOP_TEMPO,
    layer,
    isOfHands: move !== undefined && isOfHands(move),
  }
}

/** A point of a way, seen by the dancer from over her feet: metres right, up and forward. */
export type WayPoint = readonly [number, number, number]

/**
 * The way of a joint over one dancing of a move (or of all that is shown of a texture), for
 * drawing it and for checking it against what the move says of itself.
 */
export function wayOf(
  { dancer }: MoveLoop,
  joint: Joint,
  ticks: number,
  samples = 96,
): readonly WayPoint[] {
  const pose = newPose()
  const at = placeOfJoint[joint]
  return Array.from({ length: samples + 1 }, (_, i): WayPoint => {
    const { joints, over, facing } = dancer.poseAt((i * ticks) / samples, pose)
    const x = (joints[at] ?? 0) - (over[0] ?? 0)
    const z = (joints[at + 2] ?? 0) - (over[1] ?? 0)
    const angle = (facing * Math.PI) / 180
    return [
      x * Math.cos(angle) - z * Math.sin(angle),
      joints[at + 1] ?? 0,
      x * Math.sin(angle) + z * Math.cos(angle),
    ]
  })
}

/** Joints that tell how a move looks from somewhere. */
const TELLING: readonly Joint[] = [
  'pelvis',
  'crestR',
  'crestL',
  'chest',
  'waist',
  'head',
  'shoulderR',
  'palmR',
  'palmL',
  'elbowR',
  'toeR',
  'toeL',
]
/** From behind everybody reads it as her own: another view must show half as much again. */
const BEHIND_FIRST = 1.5

/** From where a move is seen best: the view in which most of it moves across the picture. */
function bestView(loop: MoveLoop): View {
  const { dancer, length, layer } = loop
  const pose = newPose()
  const poses = Array.from({ length: 24 }, (_, i) => (i * length) / 24)
  // A face is not read from behind; a head that goes to the front only from the side.
  if (layer === 'head') {
    const { aside, up, deep } = rangesOf(
      poses.map((tick) => {
        const { right, up: high, near } = seen(dancer.poseAt(tick, pose), 'head', 'mirror')
        return [right, high, near]
      }),
    )
    return deep > DEEP && deep > 2 * (aside + up) ? 'side' : 'mirror'
  }
  if (layer === 'arms') {
    // Hands before the body are hidden from behind; from the side arms hide each other.
    const hidden = poses.filter((tick) => {
      const { right, near } = seen(dancer.poseAt(tick, pose), 'palmR', 'behind')
      return Math.abs(right) < 0.2 && near < -0.12
    })
    return hidden.length > poses.length / 3 ? 'mirror' : 'behind'
  }
  const spread = (view: View): number =>
    TELLING.reduce((sum, joint) => {
      const points = poses.map((tick) => seen(dancer.poseAt(tick, pose), joint, view))
      const range = (values: readonly number[]) => Math.max(...values) - Math.min(...values)
      return sum + range(points.map(({ right }) => right)) + range(points.map(({ up }) => up))
    }, 0)
  // What a chest does up and down is read from the side as well, and forward only there.
  const first = layer === 'torso' ? 0.99 : BEHIND_FIRST
  return spread('side') > first * spread('behind') ? 'side' : 'behind'
}

/** From where a move is seen best. */
export interface BestLook {
  readonly view: View
  /** From a little above: what goes round or twists is seen as that. */
  readonly isRaised: boolean
}

/** So far must a part go forward and back to be seen from above, in metres. */
const DEEP = 0.03
/** A ring goes at least this share as far the one way as the other. */
const RING_SHARE = 0.4
/** A twist takes the middle of the body at most this share as far as its sides. */
const TWIST_SHARE = 0.4

/** From where a move is seen best, and whether from above. */
export function bestLook(loop: MoveLoop): BestLook {
  const [crest, chest, shoulder, pelvis, neck] = (
    ['crestR', 'chest', 'shoulderR', 'pelvis', 'neck'] as const
  ).map((joint) => rangesOf(wayOf(loop, joint, loop.length, 32))) as [
    Ranges,
    Ranges,
    Ranges,
    Ranges,
    Ranges,
  ]
  const twists = (side: Ranges, middle: Ranges) =>
    side.deep > DEEP && middle.deep < TWIST_SHARE * side.deep && side.up < side.deep
  if (twists(crest, pelvis) || twists(shoulder, neck)) return { view: 'behind', isRaised: true }
  const isRing = ({ deep, aside }: Ranges) =>
    deep > DEEP && deep > RING_SHARE * aside && aside > RING_SHARE * deep
  return { view: bestView(loop), isRaised: isRing(crest) || isRing(chest) }
}

interface Ranges {
  readonly aside: number
  readonly up: number
  readonly deep: number
}

function rangesOf(way: readonly WayPoint[]): Ranges {
  const range = (i: 0 | 1 | 2) => {
    const values = way.map((point) => point[i])
    return Math.max(...values) - Math.min(...values)
  }
  return { aside: range(0), up: range(1), deep: range(2) }
}
