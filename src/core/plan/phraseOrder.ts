import type { Pass } from '../combination/passes'
import { feetSteps, type PhraseSteps, phraseSteps } from './phraseSteps'
import type { PlanWishes } from './plan'
import { partStarts } from './taughtUnits'
import { firstPasses, metBefore, type Teaching } from './teaching'
import type { Proposed } from './ways'

/** A phrase of a class as it is taught there, with the combination it is of. */
export interface TaughtPhrase {
  readonly teaching: Teaching
  readonly steps: PhraseSteps
}

/** Every phrase that is still to be taught, in the order of the ways; what was met in one is not new in the next. */
export function stepsInOrder(
  teachings: readonly Teaching[],
  ways: readonly Proposed[],
  only?: PlanWishes['only'],
): readonly TaughtPhrase[] {
  const met = new Set(metBefore(teachings))
  const taught: TaughtPhrase[] = []
  const add = (teaching: Teaching, steps: PhraseSteps | undefined) => {
    if (!steps) return
    for (const key of steps.met) met.add(key)
    taught.push({ teaching, steps })
  }
  /** Whether a phrase is taught in this class, and only its feet. */
  const asked = (teaching: Teaching, { phrase }: Pass) => {
    if (!only) return 'all'
    const own = only.find(
      (one) => one.combination === teaching.material.combination.id && one.phrase === phrase.id,
    )
    return own && (own.feet ? 'feet' : 'all')
  }
  for (const [i, teaching] of teachings.entries()) {
    const way = ways[i]?.way ?? 'phrases'
    const isFirst = () => taught.length === 0
    const starts = partStarts(teaching)
    const passes = firstPasses(teaching.material.lead.passes)
    for (const start of new Set(starts)) {
      const part = passes.filter(({ index }) => starts[index] === start)
      // The feet of a part come first, where a layer at a time is laid on them.
      if (way === 'layers' && teaching.seen !== 'all')
        for (const pass of part)
          if (asked(teaching, pass)) add(teaching, feetSteps(teaching, pass, met, isFirst()))
      for (const pass of part) {
        const how = asked(teaching, pass)
        if (how === 'all') add(teaching, phraseSteps(teaching, pass, met, isFirst(), way))
        // Where the feet do not come first anyway they are all that is taught of it today.
        else if (how === 'feet' && way !== 'layers')
          add(teaching, feetSteps(teaching, pass, met, isFirst()))
      }
    }
  }
  return taught
}
