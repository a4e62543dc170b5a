import { type Combination, emptyCombination } from '../src/core/combination/combination'
import { USUAL_HOUSE } from '../src/core/house/house'
import { vocabulary } from '../src/core/moves/vocabulary'
import { readCombination } from '../src/core/sheet/swayJson'
import { answersTo } from '../src/core/suggest/answer'
import { fillPhrase } from '../src/core/suggest/fill'
import { mixesOf } from '../src/core/suggest/mix'
import { variationsOf } from '../src/core/suggest/vary'
import { wholePhrases } from '../src/core/suggest/whole'
import demo from '../src/storage/demo/demo.json'
import { row } from './measure'

/** Proposals for a combination of 64 counts, five at a time: 400 ms are allowed. */
export function benchIdeas(c64: Combination): void {
  const without = (layer: 'feet' | 'hips'): Combination => ({
    ...c64,
    phrases: c64.phrases.map((phrase, i) =>
      i === 0
        ? { ...phrase, events: phrase.events.filter((event) => event.layer !== layer) }
        : phrase,
    ),
  })
  const shelf = demo.map(readCombination)
  const wish = { pass: 0, seed: 3 }
  const empty: Combination = { ...emptyCombination('new', 'A'), families: ['latin'] }
  for (const layer of ['feet', 'hips'] as const) {
    const open = without(layer)
    row(`Five ways to fill the ${layer} of a phrase of 64 counts`, () =>
      fillPhrase(open, { ...wish, layer }, vocabulary, USUAL_HOUSE),
    )
  }
  row('Five whole phrases from nothing', () =>
    wholePhrases(empty, { ...wish, end: 'switch' }, vocabulary, USUAL_HOUSE),
  )
  row('Variations of a phrase of 64 counts', () => variationsOf(c64, wish, vocabulary, USUAL_HOUSE))
  row('Answers to a phrase of 64 counts', () => answersTo(c64, wish, vocabulary, USUAL_HOUSE))
  row('Mixes with the shelf of the demo', () =>
    mixesOf(empty, { ...wish, end: 'switch' }, shelf, vocabulary, USUAL_HOUSE),
  )
}
