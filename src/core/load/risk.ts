import type { DancedEvent } from '../combination/lengths'
import { Risk } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { repeatsOf } from '../what/repeats'

const IMPACTS = new Set(['jump', 'leap', 'hop'])

/** What one event strains, and how often (model 10). */
export function riskOf(
  event: DancedEvent,
  vocabulary: Vocabulary,
): readonly { readonly risk: Risk; readonly times: number }[] {
  const { what } = event
  if (what.kind === 'foot') {
    if (IMPACTS.has(what.action.primitive)) return [{ risk: 'impact', times: 1 }]
    const isDeep = what.action.primitive === 'bend' && what.action.size === 'large'
    return isDeep ? [{ risk: 'knees', times: 1 }] : []
  }
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  if (!move) return []
  return move.risk.map((risk) => ({ risk, times: repeatsOf(what, event.length, move).times }))
}

export type Risks = Readonly<Record<Risk, number>>

export const NO_RISKS: Risks = { neck: 0, back: 0, knees: 0, impact: 0 }

/** How often some events strain each part that can be strained. */
export function risksOf(events: readonly DancedEvent[], vocabulary: Vocabulary): Risks {
  const sum = { ...NO_RISKS }
  for (const event of events)
    for (const { risk, times } of riskOf(event, vocabulary)) sum[risk] += times
  return sum
}

export const addRisks = (a: Risks, b: Risks, times = 1): Risks => ({
  neck: a.neck + b.neck * times,
  back: a.back + b.back * times,
  knees: a.knees + b.knees * times,
  impact: a.impact + b.impact * times,
})

/** The parts that are strained more often than a limit takes. */
export const risksOver = (risks: Risks, capOf: (risk: Risk) => number): readonly Risk[] =>
  Risk.options.filter((risk) => risks[risk] > capOf(risk))
