import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { phraseDanced } from '../combination/passes'
import type { Vocabulary } from '../moves/vocabulary'
import { COUNT, endOf, type Span, type Tick, tick } from '../time/time'
import type { Gap } from './suggest'

/**
 * The stretches of a phrase, of a count at least, in which a layer has nothing.
 * @param within only what is empty there; all of the phrase where it is not said
 */
export function gapsOf(
  combination: Combination,
  pass: number,
  layer: Layer,
  vocabulary: Vocabulary,
  within?: Span,
): readonly Gap[] {
  const phrase = phraseDanced(combination, pass)
  if (!phrase) return []
  const taken = dancedIn(phrase, vocabulary)
    .filter((event) => event.layer === layer && endOf(event) > 0)
    .sort((a, b) => a.at - b.at)
  const end = Math.min(phrase.counts * COUNT, within ? endOf(within) : Number.POSITIVE_INFINITY)
  const gaps: Gap[] = []
  let at: Tick = within?.at ?? tick(0)
  const upTo = (before: number) => {
    const until = Math.min(before, end)
    if (until - at >= COUNT) gaps.push({ pass, layer, at, length: tick(until - at) })
  }
  for (const event of taken) {
    upTo(event.at)
    at = tick(Math.max(at, endOf(event)))
  }
  upTo(end)
  return gaps
}
