import type { Layer } from '../body/layers'
import { dictionaryOf, nearest, squashed } from '../entry/names'
import type { Move } from '../moves/move'
import { SEVERAL } from './ambiguous'
import { type Meaning, type MeaningPlace, type Meant, MOST, read } from './meant'
import { DIRECTIONS, FILLERS, SAME, type Sorted, STEPS, single, sorted } from './words'

/** A move as the words around its name tell it apart: its side, or its way round. */
function moved(
  move: Move,
  { sides, way }: Pick<Sorted, 'sides' | 'way'>,
  place: MeaningPlace,
): Meaning | undefined {
  const told = move.sided === 'side' ? (sides[0] ?? place.lead) : way
  const isTold = move.sided === 'side' || move.sided === 'direction'
  return read([move.id, isTold && told].filter(Boolean).join(' '), move.layer, place)
}

/** A name that means several moves, each on the side that is said. */
export function severalOf(
  words: readonly string[],
  place: MeaningPlace,
): readonly Meaning[] | undefined {
  const said = sorted(words)
  const ids = SEVERAL.get(said.names.join(' '))
  if (!ids) return undefined
  const meanings = ids.flatMap((id) => {
    const move = place.vocabulary.find(id)
    if (!move || (place.layer && move.layer !== place.layer)) return []
    return moved(move, said, place) ?? []
  })
  return meanings.length > 0 ? meanings.slice(0, MOST) : undefined
}

/** The longest name of a move that stands in the words, and how the others tell it apart. */
export function namedIn(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  let best: { readonly meaning: Meaning; readonly left: number; readonly taken: number } | undefined
  for (const layer of layers) {
    const { ids, longest } = dictionaryOf(place.vocabulary, layer)
    for (let size = Math.min(words.length, longest); size >= 1; size--)
      for (let i = 0; i + size <= words.length; i++) {
        const window = words.slice(i, i + size)
        const found = [window, window.map(single), window.map((word) => SAME.get(word) ?? word)]
          .map((one) => ids.get(squashed(one.join(' '))))
          .find((one) => one !== undefined)
        const move = found === undefined ? undefined : place.vocabulary.find(found)
        if (
          !move ||
          (size === 1 &&
            (FILLERS.has(window[0] ?? '') || STEPS.has(SAME.get(window[0] ?? '') ?? '')))
        )
          continue
        const said = sorted(words.filter((_, at) => at < i || at >= i + size))
        const meaning = moved(move, said, place)
        const left = said.names.filter((word) => !saysLayer(word, layer)).length
        if (meaning && (!best || size > best.taken || (size === best.taken && left < best.left)))
          best = { meaning, left, taken: size }
      }
  }
  if (!best || best.left > 2) return undefined
  return { meanings: [best.meaning], isUnsure: best.left > 0 }
}

/** Words that only say which layer moves, or nothing. */
export const LAYER_WORDS: Readonly<Record<Layer, readonly string[]>> = {
  feet: ['foot', 'feet'],
  legs: ['leg', 'knee'],
  hips: ['hip', 'pelvis'],
  torso: ['chest', 'rib', 'torso', 'body', 'shoulder'],
  arms: ['arm', 'hand'],
  head: ['head'],
}
const saysLayer = (word: string, layer: Layer): boolean =>
  LAYER_WORDS[layer].includes(word) || ['side', 'accent', 'movement', 'move'].includes(word)

/** Moves whose names have all the words: a choice, the shortest names first. */
export function containing(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  const said = sorted(words)
  const wanted = said.names.filter((word) => word.length > 2)
  const isWay = wanted.every((word) => DIRECTIONS.has(SAME.get(word) ?? word) || STEPS.has(word))
  if (wanted.length === 0 || isWay) return undefined
  const meanings = layers
    .flatMap((layer) => place.vocabulary.moves.filter((move) => move.layer === layer))
    .filter(({ name, aka }) => {
      const called = [name, ...aka].join(' ').toLowerCase()
      return wanted.every((word) => called.includes(word))
    })
    .sort((a, b) => a.name.length - b.name.length)
    .slice(0, MOST)
    .flatMap((move) => moved(move, said, place) ?? [])
  return meanings.length > 0 ? { meanings, isUnsure: true } : undefined
}

/** What was written with a slip of the pen. */
export function spelled(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  const said = sorted(words)
  const typed = said.names.join(' ')
  if (typed.length < 4) return undefined
  const meanings = layers.flatMap((layer) => {
    const { known, ids } = dictionaryOf(place.vocabulary, layer)
    const near = nearest(typed, [...ids.keys(), ...known], 2).map(
      (name) => ids.get(squashed(name)) ?? name,
    )
    return [...new Set(near)].flatMap((id) => {
      const move = place.vocabulary.find(id)
      if (move) return moved(move, said, place) ?? []
      return read([id, said.sides[0]].filter(Boolean).join(' '), layer, place) ?? []
    })
  })
  return meanings.length > 0 ? { meanings: meanings.slice(0, MOST), isUnsure: true } : undefined
}
