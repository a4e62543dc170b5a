import { otherSide, sideWord } from '../core/body/side'
import { capital } from '../core/capital'
import { layerWord } from '../core/moves/vocabulary'
import type { Chunk, PageData, Stop } from '../core/practice/pageData'

/** What a stop is called, and what there is to do. */
export function stopWords(
  { do: kind, layers }: Stop,
  { name }: Chunk,
  { lead, combination: { keepTurns }, chunks }: PageData,
): { readonly title: string; readonly task: string } {
  switch (kind) {
    case 'show':
      return { title: `Watch ${name}`, task: 'Only watch: once as it is, once slowly.' }
    case 'walk': {
      const some = layers.map((layer) => layerWord[layer].toLowerCase()).join(', ')
      const isAlone = layers.length === 1 && layers[0] !== 'feet'
      return {
        title: isAlone ? `${capital(some)} alone, standing` : `Walk ${name}: ${some}`,
        task: 'One count at a time. Tap for the next count.',
      }
    }
    case 'try':
      return { title: `Try ${name}`, task: 'Dance along twice, then twice on your own.' }
    case 'other-side':
      return {
        title: `${name}, the ${sideWord[otherSide[lead]]} side`,
        task: keepTurns
          ? 'Everything from the other side; only the turns stay as they were.'
          : 'Everything from the other side: right becomes left.',
      }
    case 'from-top':
      return {
        title: `From the top to ${name}`,
        task: 'First where it goes over into this part, then all of it so far.',
      }
    case 'dance':
      return {
        title: chunks.length === 1 ? 'With the rhythm' : `${name} with the rhythm`,
        task: 'A little under its tempo first. Let the names go.',
      }
  }
}
