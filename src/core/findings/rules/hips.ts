import { otherSide, type Side } from '../../body/side'
import type { Event } from '../../combination/combination'
import { nameOf } from '../../combination/names'
import type { Move } from '../../moves/move'
import { cyclesOf } from '../../moves/rate'
import type { Run } from '../../simulate/course'
import { type Slice, stateAt } from '../../simulate/simulate'
import type { BodyState } from '../../simulate/state'
import { tick } from '../../time/time'
import { repeatsOf } from '../../what/repeats'
import type { Found } from '../finding'
import { passByPass } from '../passByPass'
import { type Rule, spotIn, spotOf } from '../rule'

/** Hip lifts over a loaded flat foot, and shaking knees that are locked (model 8). */
export const hips: Rule = {
  id: 'hips',
  check: (danceable) => hipsIn(danceable).found,
}

const hipsIn = passByPass<undefined, Found>(undefined, ({ slice, course, vocabulary }) => {
  const found: Found[] = []
  for (const run of course.runs) {
    const { move, event, pass } = run
    if (event.layer !== 'hips' || !move) continue
    if (move.needs.includes('heel-up-working')) {
      const peak = loadedPeak(run, move, slice)
      if (peak)
        found.push({
          code: 'hips.loaded-lift',
          move: nameOf(event, vocabulary),
          hip: peak.side,
          spot: spotIn(pass, tick(peak.at), 'hips'),
          events: [event.id],
        })
    }
    const where = isKneeDriven(move) ? lockedIn(run, move, slice) : undefined
    if (where)
      found.push({
        code: 'hips.locked',
        move: move.name,
        where,
        spot: spotOf(pass, event),
        events: [event.id],
      })
  }
  return { found, carry: undefined }
})

/** The state on a tick of a pass; before its first step, as it was entered. */
const stateIn = ({ danced, entry }: Slice, at: number): BodyState =>
  stateAt({ danced, start: entry }, at)

interface Peak {
  readonly at: number
  readonly side: Side
}

/** When the working hip is at a peak that is struck, on which side, from the start of the combination. */
function peaksOf({ at, event }: Pick<Run, 'at' | 'event'>, move: Move): readonly Peak[] {
  const { what, length } = event
  if (what.kind !== 'move') return []
  const side = what.side ?? 'R'
  const { every, times } = repeatsOf(what, length, move)
  const items = move.motion.filter((item) => !('with' in item && item.with))
  // What comes up softly of itself after a drop is no lift: it goes with the foot as it takes weight.
  const isStruck = (item: (typeof items)[number]) => item.verb === 'peak' && item.sharp
  const shares = items.flatMap((item, i) => (isStruck(item) ? [i / items.length] : []))
  return Array.from({ length: times }, (_, i) =>
    (shares.length > 0 ? shares : [0]).map((share) => ({
      at: at + i * every + Math.floor(share * every),
      side: what.alt && i % 2 === 1 ? otherSide[side] : side,
    })),
  )
    .flat()
    .filter((peak) => peak.at < at + length)
}

const loadedPeak = (run: Run, move: Move, slice: Slice): Peak | undefined =>
  peaksOf(run, move).find(({ at, side }) => standsFlatOn(stateIn(slice, at), side))

/** All the weight on this foot, and its heel down: the hip above it can't go up. */
const standsFlatOn = ({ weight, feet, level }: BodyState, side: Side): boolean =>
  weight === side && feet[side].contact === 'flat' && level !== 'toes'

const isKneeDriven = ({ kind, claims, needs }: Move): boolean =>
  kind === 'texture' && claims.includes('knees') && needs.includes('soft-knees')

const JUMPS = new Set(['jump', 'leap', 'hop'])

function lockedIn({ at, end }: Run, move: Move, slice: Slice) {
  const states = [stateIn(slice, at)]
  for (const { at: when, after, action } of slice.danced) {
    if (when <= at) continue
    if (when >= end) break
    states.push(after)
    // A slow bounce goes with hops; a shake needs the floor.
    if (JUMPS.has(action.primitive) && cyclesOf(move).perCount > 1) return 'air' as const
  }
  if (states.some(({ level }) => level === 'tall')) return 'tall' as const
  return states.some(({ level }) => level === 'toes') ? ('toes' as const) : undefined
}

/** The side a move works on, where it has one. */
export const workingSide = ({ what }: Event): Side | undefined =>
  what.kind === 'move' ? what.side : undefined
