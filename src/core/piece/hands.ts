import { SIDES, type Side } from '../body/side'
import { type Hand, isHand, isOfHands, type Meeting } from '../combination/between'
import { claimOf } from '../combination/claims'
import type { DancedEvent } from '../combination/lengths'
import type { Pass } from '../combination/passes'
import type { Vocabulary } from '../moves/vocabulary'
import { remembered } from '../record/remembered'
import type { Simulation } from '../simulate/simulate'

/** What an arm is told to do, in ticks of the dance. */
export interface ArmTold {
  readonly event: DancedEvent
  readonly from: number
  readonly until: number
}

/** What sends a hand somewhere, in order of time. */
export const toldTo = (simulation: Simulation, side: Side): readonly ArmTold[] =>
  toldIn(simulation, undefined)[side]

type Told = Readonly<Record<Side, readonly ArmTold[]>>

const toldIn = remembered(({ passes, vocabulary }: Simulation, _: undefined): Told => {
  const told: Record<Side, ArmTold[]> = { R: [], L: [] }
  for (const pass of passes) {
    const own = toldInPass(pass, vocabulary)
    for (const side of SIDES) told[side].push(...own[side])
  }
  for (const side of SIDES) told[side].sort((a, b) => a.from - b.from)
  return told
})

const toldInPass = remembered((pass: Pass, vocabulary: Vocabulary): Told => {
  const told: Record<Side, ArmTold[]> = { R: [], L: [] }
  for (const event of pass.events) {
    if (event.layer !== 'arms') continue
    const { parts } = claimOf(event, vocabulary)
    const from = pass.at + event.at
    for (const side of SIDES)
      if (parts.includes(`arm${side}`)) told[side].push({ event, from, until: from + event.length })
  }
  return told
})

/** The hands of a meeting that are somewhere because of it; what strikes is led by the arms. */
export const handsIn = (what: Meeting): readonly Hand[] =>
  isOfHands(what) && !(what.kind === 'touch' && what.as === 'strike')
    ? [what.from, ...(isHand(what.to) ? [what.to] : [])]
    : []

/** What a hand is told while it is held: it begins within these ticks. */
export const toldWithin = (
  told: readonly ArmTold[],
  { from, until }: { readonly from: number; readonly until: number },
): readonly ArmTold[] => told.filter((one) => one.from >= from && one.from < until)
