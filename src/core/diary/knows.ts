import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { thingsIn } from '../load/things'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import type { ClassEntry } from './diary'

/**
 * Keys of the things some classes have danced: what lies on the layers of a phrase that were danced,
 * as the phrase is now. What was deleted since is not known of.
 */
export function thingsDanced(
  classes: readonly ClassEntry[],
  combinations: readonly Combination[],
  base: Vocabulary,
): readonly string[] {
  const layersOf = new Map<string, Set<Layer>>()
  for (const { danced } of classes)
    for (const { combination, phrases, layers, rounds } of danced) {
      if (combination === undefined || rounds.R + rounds.L === 0) continue
      for (const { id } of phrases) {
        const key = `${combination}|${id}`
        layersOf.set(key, new Set([...(layersOf.get(key) ?? []), ...layers]))
      }
    }
  const keys = combinations.flatMap((combination) => {
    const vocabulary = vocabularyFor(combination, base)
    return combination.phrases.flatMap((phrase) => {
      const layers = layersOf.get(`${combination.id}|${phrase.id}`)
      const events = dancedIn(phrase, vocabulary).filter(({ layer }) => layers?.has(layer))
      return thingsIn(events, vocabulary).map(({ key }) => key)
    })
  })
  return [...new Set(keys)].sort()
}
