import type { Layer } from '../core/body/layers'
import { type Dancing, otherDancing } from '../core/combination/dancing'
import type { PartId } from '../core/combination/whose'
import type { DanceMoment } from '../core/performance/performance'
import { posedAt, type Seam } from '../core/performance/seam'
import { type Carrying, carryingOf } from '../core/pose/carrying'
import { type Dancer, dancerOf } from '../core/pose/dancer'
import type { Dancers } from '../core/pose/dancers'
import { type Joint, newPose, type Pose, placeOfJoint } from '../core/pose/joints'
import { placedAt } from '../core/pose/placedAt'
import type { View } from '../core/pose/views'
import type { Simulation } from '../core/simulate/simulate'
import type { Before } from '../core/skin/hang'
import { areaOfOne } from '../core/space/space'
import { TICKS_PER_COUNT } from '../core/time/time'
import type { OnStage, Trail } from './onStage'

/** How far apart two dancers stand at least, in metres. */
const APART = 1.35
/** How many ticks a trail goes back, and how many points it has a tick. */
const TRAIL_TICKS = 28
const POINTS_A_TICK = 2
const TRAIL_POINTS = TRAIL_TICKS * POINTS_A_TICK

/** A joint that leaves a trail, in the colour of its layer. */
interface Trailing {
  readonly joint: Joint
  readonly layer: Layer
}

/** What is in a frame beside the dancer. */
export interface FrameChoice {
  /** The way of the joints over the last counts. */
  readonly trails: boolean
  /** What shows through beside the dancer: the next count's pose, or her without the isolation. */
  readonly ghost: 'none' | 'next' | 'still'
}

/** Who stands beside the dancer. */
export interface Beside {
  readonly both: boolean
  /** She herself, held at a tick; instead of the other side. */
  readonly held?: number | undefined
  /** How far apart they stand, in metres; without it so far that they never meet. */
  readonly apart?: number | undefined
}

/** A dancer as it stands in a frame. */
export interface Standing {
  readonly dancer: Dancer
  /** Of its dance. */
  readonly tick: number
  /** Where it stands beside the others, in metres to the right of where its dance has it. */
  readonly aside: number
  /** How far it has gone over into a dance that follows, and whose that is. */
  readonly seam?: { readonly seam: Seam; readonly next: Dancer } | undefined
  /** It does not move. */
  readonly isHeld?: boolean
  /** The others are seen through its eyes. */
  readonly isViewer?: boolean
}

/** Fills a frame of the stage again and again, without making new poses. */
export interface Frames {
  readonly at: (standing: readonly Standing[], choice: FrameChoice) => readonly OnStage[]
}

const NOTHING: OnStage['carried'] = []

interface Slot {
  readonly pose: Pose
  readonly ghost: Pose
  readonly past: Pose
  readonly trails: readonly Trail[]
  /** What is carried in the dance that was drawn last. */
  carried?: { readonly of: Simulation; readonly carrying: Carrying | undefined }
}

/** @param joints which leave a trail; by a chosen layer. */
export function createFrames(joints: readonly Trailing[]): Frames {
  const slots: Slot[] = []
  const newSlot = (): Slot => ({
    pose: newPose(),
    ghost: newPose(),
    past: newPose(),
    trails: joints.map(({ layer }) => ({ layer, points: new Float64Array(3 * TRAIL_POINTS) })),
  })
  const fill = (slot: Slot, standing: Standing, choice: FrameChoice): OnStage => {
    const { dancer, tick, aside, seam, isHeld = false, isViewer = false } = standing
    posedAt(dancer, tick, seam?.seam, seam?.next ?? dancer, slot.pose, slot.past)
    if (choice.ghost === 'next')
      dancer.poseAt((Math.floor(tick / TICKS_PER_COUNT) + 1) * TICKS_PER_COUNT, slot.ghost)
    if (choice.ghost === 'still') stillOf(dancer).poseAt(tick, slot.ghost)
    const hasTrails = choice.trails && !isHeld
    if (hasTrails) fillTrails(slot, dancer, tick, joints)
    const before: Before = (ticks, into) =>
      posedAt(
        dancer,
        tick - ticks,
        seam && { ...seam.seam, tick: seam.seam.tick - ticks },
        seam?.next ?? dancer,
        into,
        slot.past,
      )
    const { simulation } = dancer
    if (slot.carried?.of !== simulation)
      slot.carried = { of: simulation, carrying: carryingOf(simulation) }
    const { carrying } = slot.carried
    carrying?.at(tick, slot.pose, isHeld ? undefined : before)
    return {
      pose: slot.pose,
      carried: carrying?.shapes ?? NOTHING,
      before: isHeld ? undefined : before,
      ticksASecond: (dancer.simulation.combination.tempo * TICKS_PER_COUNT) / 60,
      aside,
      isViewer,
      scale: dancer.options.scale,
      part: dancer.part,
      trails: hasTrails ? slot.trails : [],
      ghost: choice.ghost === 'none' || isHeld ? undefined : slot.ghost,
    }
  }
  return {
    at: (standing, choice) =>
      standing.map((one, i) => {
        slots[i] ??= newSlot()
        return fill(slots[i], one, choice)
      }),
  }
}

/**
 * Who stands in a frame of a dance: the side that is danced, or it and the other one beside it, so
 * far apart that they never meet, each on the side it dances.
 */
export function standingOf(
  dancers: Dancers,
): (moment: DanceMoment, beside: Beside) => readonly Standing[] {
  let known: { half: number; isRightBeside: boolean } | undefined
  const places = (part: PartId) => {
    if (known) return known
    const { left, right } = areaOfOne(dancers({ part, side: 'R' }).simulation)
    known = {
      half: (APART + 2 * Math.min(right, Math.max(0, -left))) / 2,
      isRightBeside: -left <= right,
    }
    return known
  }
  return ({ dancing, tick, seam }, { both, held, apart }) => {
    const stands = (one: Dancing, aside: number, next: Dancing): Standing => ({
      dancer: dancers(one),
      tick,
      aside,
      seam: seam && { seam, next: dancers(next) },
    })
    const together = dancers.together(dancing)
    // Several dancers have the floor to themselves.
    if (together.length > 1) {
      const following = seam && dancers.together(seam.dancing)
      // Her partner looks: the first of those who are not the one that is danced.
      const viewer = together.findIndex(({ part }) => part && part.id !== dancing.part)
      return together.map((dancer, i) => ({
        isViewer: i === viewer,
        dancer,
        tick,
        aside: 0,
        seam: seam && { seam, next: following?.[i] ?? dancer },
      }))
    }
    const alone = stands(dancing, 0, seam?.dancing ?? dancing)
    if (!both && held === undefined) return [alone]
    const { half: far, isRightBeside } = places(dancing.part)
    const half = apart === undefined ? far : apart / 2
    if (held !== undefined)
      return [
        { ...alone, aside: -half },
        { dancer: dancers(dancing), tick: held, aside: half, isHeld: true },
      ]
    // Beside the other one each goes on in its own side.
    return [dancing, otherDancing(dancing)].map((one) =>
      stands(one, (one.side === 'R') === isRightBeside ? half : -half, one),
    )
  }
}

/** Whether what dances the right side is seen on the right where both stand beside each other. */
export function isRightOnTheRight(
  dancers: Dancers,
  dancing: Dancing,
  beside: Beside,
  view: View,
): boolean {
  const [first] = standingOf(dancers)({ dancing, tick: 0, seam: undefined }, beside)
  const isAside = (first?.aside ?? 0) > 0
  // Facing you what stands to its right is on your left.
  return (isAside === (dancing.side === 'R')) === (view !== 'facing')
}

const stillOnes = new WeakMap<Dancer, Dancer>()

/** The same dancer with her feet alone: what an isolation is seen against. */
function stillOf(dancer: Dancer): Dancer {
  const known = stillOnes.get(dancer)
  if (known) return known
  const alone = dancerOf(dancer.simulation, { ...dancer.options, layers: new Set(['feet']) })
  const made = dancer.at ? placedAt(alone, dancer.at) : alone
  stillOnes.set(dancer, made)
  return made
}

const TRAILS: Readonly<Record<Layer, readonly Joint[]>> = {
  feet: ['toeR', 'toeL'],
  legs: ['kneeR', 'kneeL'],
  hips: ['crestR', 'crestL'],
  torso: ['chest'],
  arms: ['fingersR', 'fingersL'],
  head: ['head'],
}

/** The joints whose way is worth seeing: of a layer that is looked at, else of hips and hands. */
export const trailJoints = (only: Layer | undefined): readonly Trailing[] =>
  (only ? [only] : (['hips', 'arms'] as const)).flatMap((layer) =>
    TRAILS[layer].map((joint) => ({ joint, layer })),
  )

/** The way is carried along with the dancer, so that a circle stays a circle while she walks. */
function fillTrails(slot: Slot, dancer: Dancer, tick: number, joints: readonly Trailing[]): void {
  const { over } = slot.pose
  for (let i = 0; i < TRAIL_POINTS; i++) {
    const past = dancer.poseAt(tick - (TRAIL_POINTS - 1 - i) / POINTS_A_TICK, slot.past)
    for (const [k, { joint }] of joints.entries()) {
      const trail = slot.trails[k]?.points
      const at = placeOfJoint[joint]
      if (!trail) continue
      trail[3 * i] = (past.joints[at] ?? 0) + (over[0] ?? 0) - (past.over[0] ?? 0)
      trail[3 * i + 1] = past.joints[at + 1] ?? 0
      trail[3 * i + 2] = (past.joints[at + 2] ?? 0) + (over[1] ?? 0) - (past.over[1] ?? 0)
    }
  }
}
