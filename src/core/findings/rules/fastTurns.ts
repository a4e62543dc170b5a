import { factsOf } from '../../body/feet'
import { COUNT_IN_TICKS } from '../../simulate/course'
import type { DancedStep } from '../../simulate/simulate'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import { TICKS_PER_COUNT } from '../../time/time'
import { feetByPass } from '../passByPass'
import { type Danceable, spotIn } from '../rule'
import type { TempoLimit, TempoRule } from '../tempoRule'

/** Turns of more than one support carries, or faster than a level can (model 8). */
export const fastTurns: TempoRule = {
  id: 'fast-turns',
  tempoLimits(danceable) {
    const { found, carry } = turnsIn(danceable)
    const last = limitOf(carry, danceable.simulation.length, danceable)
    return worstOfRuns(last ? [...found, last] : found)
  },
}

/** A limit of what one support turns, and from when to when it turns. */
interface Supported extends TempoLimit {
  readonly from: number
  readonly to: number
  readonly isRight: boolean
}

/** Turns one way without a whole count between them are one run, and said once: where they are worst. */
function worstOfRuns(all: readonly Supported[]): readonly TempoLimit[] {
  const worst: Supported[] = []
  let before: Supported | undefined
  for (const one of all) {
    const isSameRun =
      before && one.isRight === before.isRight && one.from - before.to < TICKS_PER_COUNT
    if (!isSameRun) worst.push(one)
    else if (one.most < (worst.at(-1)?.most ?? 0)) worst[worst.length - 1] = one
    before = one
  }
  return worst
}

/** From one landing to the next: what turns in between, and the largest part of it. */
interface Turning {
  readonly from: number
  readonly degrees: number
  readonly largest: DancedStep | undefined
}

const turnsIn = feetByPass<Turning, Supported>(
  { from: -COUNT_IN_TICKS, degrees: 0, largest: undefined },
  (looked, carried) => {
    const found: Supported[] = []
    let turning = carried
    for (const danced of looked.slice.danced) {
      const turn = Math.abs(danced.action.turn ?? 0)
      if (turn > 0) {
        const { from, degrees, largest } = turning
        const isLargest = turn > Math.abs(largest?.action.turn ?? 0)
        turning = { from, degrees: degrees + turn, largest: isLargest ? danced : largest }
      }
      if (!factsOf(danced.action.primitive).lands) continue
      const limit = limitOf(turning, danced.at, looked)
      if (limit) found.push(limit)
      turning = { from: danced.at, degrees: 0, largest: undefined }
    }
    return { found, carry: turning }
  },
  (a, b) => a.from === b.from && a.degrees === b.degrees && a.largest === b.largest,
)

/** The limit of what was turned until the next landing. */
function limitOf(
  { from, degrees, largest }: Turning,
  to: number,
  { house, level }: Pick<Danceable, 'house' | 'level'>,
): Supported | undefined {
  if (!largest) return undefined
  const mostDegrees = house.limits[`turn.oneSupport.${level}`]
  const mostSpeed = house.limits[`turn.speed.${level}`]
  const ticks = to - from
  const over = house.limits['turn.over']
  const known = { at: largest.at, from, to, isRight: (largest.action.turn ?? 0) > 0 }
  const fact = {
    code: 'turn.too-fast',
    degrees,
    level,
    spot: spotIn(largest.pass, largest.at, 'feet'),
    events: [largest.event.id],
  } as const
  if (degrees > mostDegrees * over)
    return { ...known, most: 0, found: () => ({ ...fact, most: mostDegrees }) }
  return {
    ...known,
    most: tempoFor(ticks, degrees / (mostSpeed * over)),
    found: (tempo) => ({
      ...fact,
      speed: degrees / secondsOfTicks(ticks, tempo),
      most: mostSpeed,
    }),
  }
}
