import { aloneFrom } from '../combination/dancing'
import type { Drill } from '../plan/drill'
import type { DrillRound } from '../plan/material'
import type { CountWords } from '../teaching/say'
import { TICKS_PER_COUNT } from '../time/time'
import { countsOf } from './shownDrill'

/** Where a walk is: a count, what starts on it, and what the next one begins with. */
export interface WalkCount {
  /** Tick of the count. */
  readonly at: number
  readonly phrase: string
  readonly now: CountWords | undefined
  readonly next: string | undefined
}

/** @param walked counts that are behind it, from 0. */
export function walkCount(
  { sides, layers }: Pick<Drill, 'sides' | 'layers'>,
  { material, from }: DrillRound,
  walked: number,
): WalkCount {
  const dancing = aloneFrom(sides[0] ?? 'R')
  const simulation = material.from(dancing)
  const at = from + walked * TICKS_PER_COUNT
  const pass = simulation.passes.findLast((one) => one.at <= at) ?? simulation.passes[0]
  if (!pass) return { at, phrase: '', now: undefined, next: undefined }
  const words = countsOf(simulation, material.company?.(dancing), pass, layers)
  const count = (at - pass.at) / TICKS_PER_COUNT
  const next = words[count + 1]
  return {
    at,
    phrase: pass.phrase.title || pass.phrase.name,
    now: words[count],
    next: next && [...next.feet, ...next.layers.map(({ text }) => text)][0],
  }
}
