import { LAYERS, type Layer } from '../body/layers'
import { cueWords } from '../combination/cueWords'
import { nameOf } from '../combination/names'
import type { Pass } from '../combination/passes'
import type { Simulation } from '../simulate/simulate'
import { endOf, numberOfCount, tickOfCount } from '../time/time'
import { cueText } from './cues'
import { numberWord } from './numbers'

/** What begins with a count is named by the arms before the rest of the body. */
const NAMED_FIRST: readonly Layer[] = ['arms', ...LAYERS.filter((layer) => layer !== 'arms')]

/**
 * What the caller says on a count of a pass as its combination or its phrase asks: the number,
 * the word that stands there, or the short name of what begins; the number where there is none.
 * @returns nothing where the count is to be still.
 */
export function saidOnCount(
  { combination, vocabulary }: Simulation,
  { phrase, events, remarks }: Pass,
  layers: readonly Layer[],
  count: number,
): string | undefined {
  const at = tickOfCount(count)
  const named = numberOfCount(count, phrase)
  const number = numberWord(named)
  if (remarks.some((one) => one.only && one.at <= at && at < endOf(one))) return undefined
  const { says = 'numbers', counts } = phrase.call ?? combination.call ?? {}
  switch (says) {
    case 'none':
      return undefined
    case 'numbers':
      return !counts || counts.includes(named) ? number : undefined
    case 'words': {
      const word = remarks.find((one) => one.kind === 'words' && one.at === at)?.text
      return word ?? events.find((one) => one.at === at && one.words)?.words ?? number
    }
    case 'names': {
      const [first] = NAMED_FIRST.filter((layer) => layers.includes(layer)).flatMap((layer) =>
        events.filter((one) => one.layer === layer && one.at === at),
      )
      if (!first) return number
      const [word = nameOf(first, vocabulary)] = cueWords(cueText(first, vocabulary) ?? '')
      return word
    }
  }
}
