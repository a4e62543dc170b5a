import type { Combination, Phrase } from '../combination/combination'
import { withTried } from '../combination/options'
import { passPlaces } from '../combination/passes'
import { shippedFor } from '../moves/vocabulary'
import type { Simulation } from '../simulate/simulate'
import { endOf, TICKS_PER_COUNT, tick } from '../time/time'
import type { Finding, Found } from './finding'
import { spotIn } from './rule'
import { foundOn } from './sides'

/** How an option is looked at: all that is found in a dance, and that dance. */
export interface Looked {
  readonly findings: readonly Finding[]
  readonly lead: Simulation
}

/**
 * What is said of the options of the phrases that are danced, each looked at by itself: what its phrase
 * has not without it, and an option that ends on the other foot. What it does to what comes behind it
 * is that one thing.
 * @param look all that is found when a combination is danced
 */
export function findingsOfOptions(
  combination: Combination,
  plain: Looked,
  look: (tried: Combination) => Looked,
): readonly Finding[] {
  if (!combination.phrases.some(({ options }) => options)) return []
  const places = passPlaces(combination, shippedFor(combination))
  const isDanced = ({ id }: Phrase) => places.some(({ phrase }) => phrase.id === id)
  const known = new Set(plain.findings.map(keyOf))
  return combination.phrases
    .filter((phrase) => phrase.options && isDanced(phrase))
    .flatMap((phrase) =>
      (phrase.options ?? []).flatMap(({ name }) => {
        const tried = look(withTried(combination, phrase.id, [name]))
        const own = tried.findings.filter(
          (one) =>
            one.spot.phrase === phrase.name &&
            !one.code.startsWith('join.') &&
            !known.has(keyOf(one)),
        )
        return [...own, ...endsOtherwise(phrase, plain.lead, tried.lead)].map((one) => ({
          ...one,
          option: name,
        }))
      }),
    )
}

const keyOf = ({ code, side, spot, events }: Finding): string =>
  [code, side, spot.phrase, spot.at, spot.layer, events[0]].join(' ')

function endsOtherwise(phrase: Phrase, plain: Simulation, tried: Simulation): readonly Finding[] {
  const index = plain.passes.findIndex((pass) => pass.phrase.id === phrase.id)
  const [before, after] = [plain, tried].map(({ slices }) => slices[index])
  if (!before || !after || before.exit.weight === after.exit.weight) return []
  const { pass } = before
  const found: Found = {
    code: 'option.ends',
    weight: after.exit.weight,
    usual: before.exit.weight,
    spot: spotIn(pass, tick(endOf(pass) - TICKS_PER_COUNT), 'feet'),
    events: [],
  }
  return [foundOn(found, 'lead')]
}
