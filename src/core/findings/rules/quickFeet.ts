import { factsOf } from '../../body/feet'
import { otherSide, SIDES, type Side } from '../../body/side'
import { distance } from '../../simulate/landing'
import type { DancedStep } from '../../simulate/simulate'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import { tick } from '../../time/time'
import { feetByPass } from '../passByPass'
import { spotIn } from '../rule'
import { canBeFound, type TempoLimit, type TempoRule } from '../tempoRule'

/** Landings that follow each other too soon, and strides too wide for the time (model 8). */
export const quickFeet: TempoRule = {
  id: 'quick-feet',
  tempoLimits: (danceable) => quickIn(danceable).found,
}

/** When each foot landed last. */
type Landed = Readonly<Record<Side, number>>

/** Metres by which a small step forward is longer: it goes a little aside as well. */
const SLACK = 0.02

const NEVER: Landed = { R: -Infinity, L: -Infinity }

const quickIn = feetByPass<Landed, TempoLimit>(
  NEVER,
  ({ slice, house: { limits } }, carried) => {
    const found: TempoLimit[] = []
    const landed: Record<Side, number> = { ...carried }
    let before = slice.entry
    for (const danced of slice.danced) {
      const { action, at, after } = danced
      if (factsOf(action.primitive).lands) {
        const feet = action.foot ? [action.foot] : SIDES
        const last = Math.max(landed.R, landed.L)
        const same = feet.find((foot) => at - landed[foot] <= at - last)
        const sameGap = at - Math.max(...feet.map((foot) => landed[foot]))
        const eitherGap = at - last
        // Two on one tick clash, which is said elsewhere.
        if (eitherGap > 0) {
          const sameMost = tempoFor(sameGap, limits['quick.sameFoot'])
          const eitherMost = tempoFor(eitherGap, limits['quick.eitherFoot'])
          const isSame = sameMost <= eitherMost
          if (canBeFound(Math.min(sameMost, eitherMost)))
            found.push(
              tooFast(danced, isSame ? same : undefined, isSame ? sameGap : eitherGap, [
                limits[isSame ? 'quick.sameFoot' : 'quick.eitherFoot'],
                limits[isSame ? 'quick.sameFootFault' : 'quick.eitherFootFault'],
              ]),
            )
          const { foot } = action
          if (foot && last > -Infinity) {
            const metres = Math.min(
              distance(after.feet[foot].place, after.feet[otherSide[foot]].place),
              distance(after.feet[foot].place, before.feet[foot].place),
            )
            const [stride, time] = [limits['quick.stride'], limits['quick.strideTime']]
            const most = metres > stride ? 0 : tempoFor(eitherGap, (metres * time) / stride)
            // A small step is as small as the time wants it.
            const isSmall = metres <= limits['landing.side'] * limits['landing.small'] + SLACK
            if (!isSmall && canBeFound(most))
              found.push(wide(danced, metres, eitherGap, most, stride, time))
          }
        }
        for (const foot of feet) landed[foot] = at
      }
      before = after
    }
    return { found, carry: landed }
  },
  (a, b) => a.R === b.R && a.L === b.L,
)

const placeOf = (danced: DancedStep) => ({
  spot: spotIn(danced.pass, danced.at, 'feet'),
  events: [danced.event.id],
})

function tooFast(
  danced: DancedStep,
  foot: Side | undefined,
  gap: number,
  [least, fault]: readonly [number, number],
): TempoLimit {
  const { action } = danced
  return {
    at: danced.at,
    most: tempoFor(gap, least),
    found: (tempo) => {
      const seconds = secondsOfTicks(gap, tempo)
      return {
        code: 'feet.too-fast',
        action,
        ...(foot && { foot }),
        seconds,
        least,
        severity: seconds < fault ? 'fault' : 'snag',
        ...placeOf(danced),
      }
    },
  }
}

const wide = (
  danced: DancedStep,
  metres: number,
  gap: number,
  most: number,
  stride: number,
  time: number,
): TempoLimit => ({
  at: danced.at,
  most,
  found: (tempo) => {
    const seconds = secondsOfTicks(gap, tempo)
    return {
      code: 'feet.wide-quick',
      action: danced.action,
      metres,
      seconds,
      most: stride * Math.min(1, seconds / time),
      spot: spotIn(danced.pass, tick(danced.at), 'feet'),
      events: [danced.event.id],
    }
  },
})
