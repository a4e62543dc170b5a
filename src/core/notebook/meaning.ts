import { distance } from 'fastest-levenshtein'
import type { Layer } from '../body/layers'
import type { Vocabulary } from '../moves/vocabulary'
import { type MeaningPlace, type Meant, MOST, read } from './meant'
import { containing, LAYER_WORDS, namedIn, severalOf, spelled } from './named'
import { ownWordsOf, stepIn } from './steps'
import { DIRECTIONS, FILLERS, SAME, STEPS, single, wordsOf } from './words'

/** Layers in the order words are tried on them. */
const TRIED: readonly Layer[] = ['feet', 'hips', 'torso', 'arms', 'head', 'legs']

/** What some words mean that say one thing that is danced; nothing where nobody knows. */
export function meantBy(typed: string, place: MeaningPlace): Meant | undefined {
  const text = typed.trim().replace(/[.!]+$/, '')
  if (text === '') return undefined
  const words = wordsOf(text)
  const several = severalOf(words, place)
  if (several) return { meanings: several, isUnsure: false }
  const layers = place.layer ? [place.layer] : TRIED
  for (const layer of layers) {
    // “Step right” goes to the right; on a sheet it only says which foot.
    const isStep = layer === 'feet' && /^(?:step|walk) (?:right|left)$/.test(words.join(' '))
    const exact = isStep ? undefined : read(text, layer, place)
    if (exact) return { meanings: [exact], isUnsure: false, isExact: true }
  }
  for (const layer of layers) {
    const made = ownWordsOf(words, layer, place)
    if (made) return made
  }
  const named = namedIn(words, layers, place)
  if (named && !named.isUnsure) return named
  // On the hips line a drop is a hip drop.
  const own =
    place.layer && LAYER_WORDS[place.layer].map((word) => namedIn([word, ...words], layers, place))
  const meant = own?.find((one) => one && !one.isUnsure)
  if (meant) return meant
  const step = stepIn(words, layers, place)
  if (step && !step.isUnsure) return step
  const near = corrected(words, place) ?? spelled(words, layers, place)
  // A slip of the pen in the name of a figure looks like a step with a strange word.
  if (step && near)
    return { meanings: [...near.meanings, ...step.meanings].slice(0, MOST), isUnsure: true }
  return step ?? named ?? containing(words, layers, place) ?? near
}

const wordsKnown = new WeakMap<Vocabulary, ReadonlySet<string>>()

/** All words that stand in names, steps and ways. */
function knownWords(vocabulary: Vocabulary): ReadonlySet<string> {
  const known = wordsKnown.get(vocabulary)
  if (known) return known
  const named = vocabulary.moves.flatMap(({ id, name, aka }) => [id, name, ...aka])
  const made = new Set([
    ...named.flatMap((name) => name.toLowerCase().split(/[^\p{L}ʻ']+/u)),
    ...STEPS,
    ...SAME.keys(),
    ...FILLERS,
    ...DIRECTIONS,
    ...['shoulder', 'look', 'over', 'behind', 'cross'],
  ])
  wordsKnown.set(vocabulary, made)
  return made
}

/** The same with each strange word in its nearest known spelling; undefined where all are known, or one is far from any. */
function corrected(words: readonly string[], place: MeaningPlace): Meant | undefined {
  const known = knownWords(place.vocabulary)
  const isKnown = (word: string) => known.has(word) || known.has(single(word)) || /\d/.test(word)
  if (words.every(isKnown)) return undefined
  const list = [...known].filter((word) => word.length > 2)
  const mended = words.map((word) =>
    isKnown(word) || word.length < 4 ? word : nearestWord(word, list),
  )
  if (mended.some((word) => word === undefined)) return undefined
  const text = mended.join(' ')
  if (text === words.join(' ')) return undefined
  const meant = meantBy(text, place)
  return meant && { meanings: meant.meanings, isUnsure: true }
}

const letters = (word: string): string => [...word].sort().join('')

const MOST_SLIPS = 2

/** The known word that is nearest, up to two slips away. */
function nearestWord(word: string, known: readonly string[]): string | undefined {
  let best: string | undefined
  let least = MOST_SLIPS + 1
  for (const one of known) {
    if (Math.abs(one.length - word.length) >= least) continue
    // Two letters that changed places are one slip.
    const far = letters(word) === letters(one) ? 1 : distance(word, one)
    if (far < least) {
      least = far
      best = one
    }
  }
  return best
}
