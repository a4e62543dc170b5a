import type { Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Family } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { type Filling, type FillWish, fillPhrase } from './fill'

/**
 * What goes on the feet of a phrase, by family: what the family is known by first (h). The head, and
 * what nothing is said of, rest.
 */
const OVER_FEET: Readonly<Partial<Record<Family, readonly Layer[]>>> = {
  belly: ['hips', 'arms'],
  bollywood: ['arms', 'torso'],
  polynesian: ['hips', 'arms'],
  latin: ['hips', 'arms'],
}
const USUAL: readonly Layer[] = ['hips', 'arms']

/** Whole phrases for a pass whose phrase is empty: feet of figures, and on them what the family is known by. */
export function wholePhrases(
  combination: Combination,
  { pass, seed }: Pick<FillWish, 'pass' | 'seed'>,
  base: Vocabulary,
  house: House,
): readonly Filling[] {
  const family = combination.families.find((one) => OVER_FEET[one as Family])
  const layers = OVER_FEET[family as Family] ?? USUAL
  return fillPhrase(combination, { pass, layer: 'feet', seed }, base, house).map((feet, i) =>
    layers.reduce((made, layer): Filling => {
      const wish = { pass, layer, seed: seed + 31 * i }
      const [over] = fillPhrase(made.combination, wish, base, house, 1)
      if (!over) return made
      return {
        names: [...made.names, ...over.names],
        reason: `${made.reason}. ${layer}: ${over.reason}`,
        returns: made.returns || over.returns,
        combination: over.combination,
      }
    }, feet),
  )
}
