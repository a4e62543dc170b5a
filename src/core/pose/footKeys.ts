import type { Contact } from '../body/feet'
import type { FloorPoint } from '../body/places'
import { otherSide, type Side, signOf } from '../body/side'
import { intoRoom } from '../simulate/landing'
import type { DancedStep } from '../simulate/simulate'
import type { BodyState } from '../simulate/state'
import { FOOT_PITCH, PELVIS_UP } from './proportions'

/** Where one foot is held at a key: on the floor, or in the air. */
interface Held {
  readonly place: FloorPoint
  readonly up: number
  readonly pitch: number
}

export interface Key {
  readonly time: number
  readonly state: BodyState
  readonly feet: Readonly<Record<Side, Held>>
  readonly over: FloorPoint
  readonly height: number
}

/** A quarter of the way from the standing foot to the other one, so that it looks balanced. */
const WEIGHT_AWAY = 0.25
const MOST_AWAY = 0.14
/** A pressed foot takes half of the weight; the body is that share of the way to it. */
const PRESSED_AWAY = 0.4
/** Where a foot in the air is, seen from the standing foot: to its own side, forward, up. */
const IN_THE_AIR: Readonly<Record<string, readonly [number, number, number]>> = {
  hang: [0.16, 0.06, 0.12],
  'lift forward': [0.17, 0.24, 0.34],
  'lift back': [0.15, -0.42, 0.34],
  'lift side': [0.42, 0.04, 0.3],
  'lift across': [0.04, 0.26, 0.32],
  'kick forward': [0.16, 0.56, 0.3],
  'kick back': [0.16, -0.45, 0.34],
  'kick side': [0.58, 0.06, 0.26],
  'kick across': [-0.06, 0.52, 0.3],
  'brush forward': [0.16, 0.38, 0.1],
  'brush back': [0.16, -0.34, 0.12],
  'brush side': [0.48, 0.04, 0.1],
  'brush across': [-0.1, 0.36, 0.12],
}

export function airWord({ action }: DancedStep): string {
  const way = action.direction ?? 'forward'
  const across = way === 'cross-front' || way === 'cross-behind'
  const end = across
    ? 'across'
    : way === 'back' || way === 'diag-back'
      ? 'back'
      : way === 'side'
        ? 'side'
        : 'forward'
  return `${action.primitive} ${end}`
}

function heldOf(state: BodyState, side: Side, air: string | undefined): Held {
  const { place, contact } = state.feet[side]
  if (contact === 'air') {
    const [own, forward, up] = IN_THE_AIR[air ?? 'hang'] ?? [0.16, 0.06, 0.12]
    const support = state.feet[otherSide[side]].place
    const way = intoRoom(state.facing, own * signOf(side), forward)
    return {
      place: { right: support.right + way.right, forward: support.forward + way.forward },
      up,
      pitch: FOOT_PITCH.air,
    }
  }
  return { place, up: 0, pitch: pitchOf(contact, state) }
}

const pitchOf = (contact: Contact, { level }: BodyState): number =>
  level === 'toes' && contact !== 'heel' ? FOOT_PITCH.toes : FOOT_PITCH[contact]

function overOf(state: BodyState): FloorPoint {
  const { R, L } = state.feet
  const middle = {
    right: (R.place.right + L.place.right) / 2,
    forward: (R.place.forward + L.place.forward) / 2,
  }
  if (state.weight === 'both') return middle
  const standing = state.feet[state.weight].place
  const free = otherSide[state.weight]
  const inAir = state.feet[free].contact === 'air'
  const beside = intoRoom(state.facing, signOf(free) * 0.22, 0)
  const away = inAir
    ? beside
    : {
        right: state.feet[free].place.right - standing.right,
        forward: state.feet[free].place.forward - standing.forward,
      }
  const far = Math.hypot(away.right, away.forward)
  if (far === 0) return standing
  const by = state.pressed === free ? PRESSED_AWAY : Math.min(WEIGHT_AWAY, MOST_AWAY / far)
  return { right: standing.right + away.right * by, forward: standing.forward + away.forward * by }
}

export function footKeyOf(
  time: number,
  state: BodyState,
  air: Readonly<Record<Side, string>>,
): Key {
  const R = heldOf(state, 'R', air.R)
  const L = heldOf(state, 'L', air.L)
  return { time, state, feet: { R, L }, over: overOf(state), height: PELVIS_UP[state.level] }
}
