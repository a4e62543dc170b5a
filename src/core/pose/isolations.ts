import type { Layer } from '../body/layers'
import {
  type Compass,
  compassOffset,
  GAZE_ANGLES,
  type Gaze,
  type HeadAngles,
  isGaze,
  mirrorCompass,
  mirrorGaze,
} from '../body/places'
import { courseOf, type Run, returnsOf } from '../simulate/course'
import { lookAngles } from '../simulate/looks'
import type { Simulation } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import { type TimeMap, ticksFrom } from '../time/timeMap'
import { around, type Held, heldThrough, type Sending, straightTo, through } from './held'
import { addSwingsOf } from './moveSwings'
import { circlePath, eightPath } from './paths'
import { type DancedRepeat, mergedRepeats, partOf, roundsOf, sharesOf, sizeOf } from './repeats'
import type { Swing } from './swings'

/** A head circle, in degrees: how far it nods and how far it tilts (house figures). */
const HEAD_CIRCLE = { small: [7, 7], usual: [24, 20], large: [28, 24] } as const

/** All that hips, ribs and head do: where they are, and what swings on top of that. */
export interface Isolations {
  readonly hips: Held
  readonly ribs: Held
  readonly head: Held
  readonly swings: readonly Swing[]
}

/** The ticks before a start in which a part goes where nobody wrote it should go. */
export function reachOf({ reach }: Run, time: TimeMap): { start: number; end: number } | undefined {
  if (!reach) return undefined
  const ahead = reach.to + ticksFrom(time, reach.to, -reach.seconds)
  return { start: Math.max(reach.from, ahead), end: Math.max(reach.to, reach.from + 1) }
}

/** What hips, ribs and head do in a simulation, with only some layers danced. */
export function isolationsOf(simulation: Simulation, layers: ReadonlySet<Layer>): Isolations {
  const { combination, house, time } = simulation
  const { start } = combination
  const offset = (part: 'hips' | 'ribs', place: Compass, by = 1) => {
    const { right, forward } = compassOffset(part, place, house.compass)
    return [right * by, forward * by, 0, 0, 0]
  }
  const held = ({ turn, nod, tilt }: HeadAngles, by = 1) => [turn * by, nod * by, tilt * by]
  const angles = (gaze: Gaze, by = 1) => held(GAZE_ANGLES[gaze], by)
  const sent = { hips: [] as Sending[], ribs: [] as Sending[], head: [] as Sending[] }
  const swings: Swing[] = []
  for (const { part, at, after } of returnsOf(simulation)) {
    const time = timeBack(at)
    if (part === 'hips' && layers.has('hips'))
      sent.hips.push({ ...time, way: straightTo(offset('hips', after.hips)) })
    if (part === 'ribs' && layers.has('torso'))
      sent.ribs.push({ ...time, way: straightTo(offset('ribs', after.ribs)) })
    if (part === 'gaze' && layers.has('head'))
      sent.head.push({ ...time, way: straightTo(angles(after.gaze)) })
  }
  const heads = layers.has('head')
    ? courseOf(simulation).filter(({ event }) => event.layer === 'head')
    : []
  for (const run of courseOf(simulation)) {
    const { event, move } = run
    if (!layers.has(event.layer) || event.layer === 'arms') continue
    const reached = reachOf(run, time)
    const to = run.reach?.needs
    if (reached && to?.hips)
      sent.hips.push({ ...reached, way: straightTo(offset('hips', to.hips)) })
    if (reached && to?.ribs)
      sent.ribs.push({ ...reached, way: straightTo(offset('ribs', to.ribs)) })
    if (reached && to?.gaze) sent.head.push({ ...reached, way: straightTo(angles(to.gaze)) })
    const by = (event.size ?? 100) / 100
    const part = event.layer === 'head' ? 'head' : event.layer === 'torso' ? 'ribs' : 'hips'
    const { what } = event
    if (what.kind === 'at' && part !== 'head')
      sent[part].push({ ...timeOf(run, time), way: straightTo(offset(part, what.place, by)) })
    else if (what.kind === 'look')
      sent.head.push({
        ...timeOf(run, time),
        way: straightTo(held(lookAngles(simulation, run, what.gaze), by)),
      })
    else if (move)
      for (const repeat of mergedRepeats(run, move, combination.lead)) {
        const headElsewhere = heads.some(({ at, end }) => at < repeat.end && end > repeat.start)
        const danced = { ...repeat, run, move, by, time, rate: event.rate, headElsewhere }
        if (part === 'head') sendHead(danced, sent.head, angles)
        else sendPart(danced, sent[part], part, house.compass[part], offset)
        addSwingsOf(danced, swings)
      }
  }
  return {
    hips: heldThrough(offset('hips', start.hips), sent.hips),
    ribs: heldThrough(offset('ribs', start.ribs), sent.ribs),
    head: heldThrough(angles(start.gaze), sent.head),
    swings,
  }
}

/** `on` is there on its tick already; anything else leaves then. */
export function timeOf(
  { event, at: start }: Run,
  time: TimeMap,
  ticks: number = event.length,
): { start: number; end: number } {
  if (!event.on) return { start, end: start + ticks }
  const ahead = Math.min(ticks, 0 - ticksFrom(time, start, -0.35))
  return { start: start - ahead, end: start }
}

/** What goes back without a word does so within a count. */
export const timeBack = (start: number): { start: number; end: number } => ({
  start,
  end: start + TICKS_PER_COUNT,
})

type Offset = (part: 'hips' | 'ribs', place: Compass, by?: number) => number[]

/** Where hips or ribs are sent by a move. */
function sendPart(
  danced: DancedRepeat,
  sent: Sending[],
  part: 'hips' | 'ribs',
  reach: Parameters<typeof circlePath>[0],
  offset: Offset,
): void {
  const { left, by, move } = danced
  const place = (name: string) => (left ? mirrorCompass(name as Compass) : (name as Compass))
  const own = move.motion.filter((item) => partOf(item) === 'own' || item.verb === 'peak')
  for (const { item, start, end } of sharesOf(own, danced)) {
    const time = { start, end }
    switch (item.verb) {
      case 'to':
        sent.push({ ...time, way: straightTo(offset(part, place(item.place), by)) })
        break
      case 'arc': {
        const places = item.places.map((name) => offset(part, place(name), by))
        const [first] = places
        // Where the part already is, the way begins with the second place.
        const begins = danced.run.before[part]
        const isThere = begins === place(item.places[0] ?? 'C')
        if (first) sent.push({ ...time, way: through(isThere ? places.slice(1) : places) })
        break
      }
      case 'circle':
        sent.push({
          ...time,
          way: circlePath(
            reach,
            sizeOf(item),
            roundsOf(item, danced),
            (item.way === 'cw') !== left,
            by,
          ),
        })
        break
      case 'eight':
        sent.push({
          ...time,
          way: eightPath(reach, {
            plane: item.plane,
            loops: item.loops,
            size: sizeOf(item),
            rounds: roundsOf(item, danced),
            left,
            by,
          }),
        })
        break
      default:
    }
  }
}

/** Where the head is sent by a move. */
function sendHead(
  danced: DancedRepeat,
  sent: Sending[],
  angles: (gaze: Gaze, by?: number) => number[],
): void {
  const { left, by, move } = danced
  const gazeOf = (place: string): Gaze => {
    const named = place.replace(/^shoulder-/, 'over-')
    const gaze = isGaze(named) ? named : 'front'
    return left ? mirrorGaze(gaze) : gaze
  }
  const own = move.motion.filter((item) => partOf(item) === 'own')
  for (const { item, start, end } of sharesOf(own, danced)) {
    const time = { start, end }
    if (item.verb === 'to') sent.push({ ...time, way: straightTo(angles(gazeOf(item.place), by)) })
    else if (item.verb === 'arc')
      sent.push({
        ...time,
        way: through(item.places.slice(1).map((one) => angles(gazeOf(one), by))),
      })
    else if (item.verb === 'circle') {
      const [nods, tilts] = HEAD_CIRCLE[sizeOf(item)]
      const rounds = roundsOf(item, danced)
      // Clockwise from above: right, back, left, front.
      const side = (item.way === 'cw') !== left ? 1 : -1
      sent.push({
        ...time,
        way: around((s, _, out) => {
          const angle = 2 * Math.PI * rounds * s
          out[0] = 0
          out[1] = -nods * Math.sin(angle) * by
          out[2] = side * tilts * Math.cos(angle) * by
        }),
      })
    }
  }
}
