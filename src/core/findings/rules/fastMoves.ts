import { SIDES } from '../../body/side'
import { claimOf } from '../../combination/claims'
import type { DancedEvent } from '../../combination/lengths'
import { nameOf } from '../../combination/names'
import type { Move } from '../../moves/move'
import { cyclesOf } from '../../moves/rate'
import type { Vocabulary } from '../../moves/vocabulary'
import type { Simulation } from '../../simulate/simulate'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import { endOf, TICKS_PER_COUNT } from '../../time/time'
import { feetByPass } from '../passByPass'
import { spotOf } from '../rule'
import { canBeFound, type TempoLimit, type TempoRule } from '../tempoRule'

/** Moves with less time than they can be danced well in (model 8). */
export const fastMoves: TempoRule = {
  id: 'fast-moves',
  tempoLimits: (danceable) =>
    fastIn(danceable).found.flatMap((fast) => {
      if (!fast.runsOn) return [limitOf(fast)]
      const ticks = ticksOnto(fast, danceable.simulation)
      const longer = { ...fast, ticks, most: tempoFor(ticks, fast.least) }
      return canBeFound(longer.most) ? [limitOf(longer)] : []
    }),
}

interface Fast {
  readonly event: DancedEvent
  readonly pass: Simulation['passes'][number]
  readonly name: string
  /** What it lasts by itself. */
  readonly own: number
  readonly least: number
  readonly ticks: number
  readonly most: number
  readonly each: 'whole' | 'repeat' | 'swing'
  /** The end of its phrase is what cuts it: it runs on into what follows. */
  readonly runsOn: boolean
}

const fastIn = feetByPass<undefined, Fast>(undefined, ({ slice: { pass }, house, vocabulary }) => {
  const share = house.limits['reach.ofFastest']
  const found = pass.events.flatMap((event): readonly Fast[] => {
    const move = event.what.kind === 'move' && vocabulary.find(event.what.move)
    // A figure that is cut is danced as far as it goes, at its own pace.
    if (!move || event.on || (event.isCut && move.kind === 'steps')) return []
    const least = move.fastest_s * share * sizeOf(event)
    const { ticks, each } = timeGiven(event, move)
    const most = tempoFor(ticks, least)
    const runsOn = event.isCut === true && endOf(event) === pass.length
    const { name, length: own } = move
    return canBeFound(most) ? [{ event, pass, name, own, least, ticks, most, each, runsOn }] : []
  })
  const legs = fastLegs(pass, house.limits['reach.leg'], vocabulary)
  return { found: [...found, ...legs], carry: undefined }
})

/** Legs that are sent on before they can be where they were sent. */
const fastLegs = (pass: Fast['pass'], least: number, vocabulary: Vocabulary): readonly Fast[] =>
  pass.events.flatMap((event): readonly Fast[] => {
    const { what, at } = event
    if (what.kind !== 'legs') return []
    const sides = SIDES.filter((side) => what[side] !== undefined)
    const next = pass.events.flatMap((one) =>
      one.at > at && one.what.kind === 'legs' && sides.some((side) => side in one.what)
        ? one.at
        : [],
    )
    if (next.length === 0) return []
    const ticks = Math.min(...next) - at
    const most = tempoFor(ticks, least)
    const name = nameOf(event, vocabulary)
    const times = { own: ticks, least, ticks, most, each: 'whole', runsOn: false } as const
    return canBeFound(most) ? [{ event, pass, name, ...times }] : []
  })

const limitOf = ({ event, pass, name, least, ticks, most, each }: Fast): TempoLimit => ({
  at: pass.at + event.at,
  most,
  found: (tempo) => ({
    code: 'move.too-fast',
    move: name,
    seconds: secondsOfTicks(ticks, tempo),
    least,
    each,
    spot: spotOf(pass, event),
    events: [event.id],
  }),
})

/** A smaller way takes less time, down to half of it; a larger one more, up to half as much again. */
const sizeOf = ({ size = 100 }: DancedEvent): number => Math.min(1.5, Math.max(0.5, size / 100))

/** The ticks a move has for what must be danced in its fastest time: itself, a repeat, or one swing. */
function timeGiven(
  { what, length, rate }: DancedEvent,
  move: Move,
): { ticks: number; each: 'whole' | 'repeat' | 'swing' } {
  const every = what.kind === 'move' ? what.every : undefined
  if (move.kind === 'texture')
    return { ticks: TICKS_PER_COUNT / (rate ?? cyclesOf(move).perCount), each: 'swing' }
  if (rate !== undefined && move.kind === 'path')
    return { ticks: (TICKS_PER_COUNT * cyclesOf(move).inMove) / rate, each: 'repeat' }
  if (every !== undefined) return { ticks: Math.min(every, length), each: 'repeat' }
  if (move.kind === 'path' || move.kind === 'place') return { ticks: length, each: 'whole' }
  return { ticks: Math.min(move.length, length), each: length > move.length ? 'repeat' : 'whole' }
}

/**
 * The ticks to the next entry of its layer that needs one of its parts, past the end of its phrase:
 * in the phrases that follow, and from the top again. At the most its own.
 */
function ticksOnto(
  { event, pass, own }: Fast,
  { passes, combination, vocabulary, length }: Simulation,
): number {
  const { parts } = claimOf(event, vocabulary)
  const rest = (combination.rest ?? 0) * TICKS_PER_COUNT
  const from = pass.at + event.at
  for (const round of [0, length + rest])
    for (const next of passes) {
      if (round === 0 && next.index <= pass.index) continue
      const first = next.events.find(
        (one) =>
          one.at >= 0 &&
          one.layer === event.layer &&
          claimOf(one, vocabulary).kind !== 'texture' &&
          claimOf(one, vocabulary).parts.some((part) => parts.includes(part)),
      )
      if (first) return Math.min(own, round + next.at + first.at - from)
    }
  return own
}
