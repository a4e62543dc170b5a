import { distance } from 'fastest-levenshtein'
import { STEP_WORDS } from '../body/feet'
import type { Layer } from '../body/layers'
import type { Vocabulary } from '../moves/vocabulary'
import { folded } from '../record/folded'

/** A name without case, spaces, hyphens, accents, apostrophes or slashes, as the sheet reads it. */
export const squashed = (text: string): string =>
  // Most words are plain and small already; a sheet has thousands of them.
  /^[a-z0-9-]*$/.test(text) ? text.replaceAll('-', '') : folded(text).replace(/\s+/g, '')

/** The names of a layer's moves, squashed, and the id each one means. */
interface Dictionary {
  readonly ids: ReadonlyMap<string, string>
  /** What is offered where a word is not known: ids, and the primitives of the feet. */
  readonly known: readonly string[]
  /** How many words the longest name has. */
  readonly longest: number
}

const dictionaries = new WeakMap<Vocabulary, Map<Layer, Dictionary>>()

export function dictionaryOf(vocabulary: Vocabulary, layer: Layer): Dictionary {
  const known = dictionaries.get(vocabulary) ?? new Map<Layer, Dictionary>()
  dictionaries.set(vocabulary, known)
  const made = known.get(layer) ?? makeDictionary(vocabulary, layer)
  known.set(layer, made)
  return made
}

function makeDictionary(vocabulary: Vocabulary, layer: Layer): Dictionary {
  const moves = vocabulary.moves.filter((move) => move.layer === layer)
  const ids = new Map<string, string>()
  const add = (name: string, id: string) => {
    const key = squashed(name)
    if (key && !ids.has(key)) ids.set(key, id)
  }
  // Ids first, then names, then other names: what is more certain wins.
  for (const { id } of moves) add(id, id)
  for (const { id, name } of moves) add(name, id)
  for (const { id, aka } of moves) for (const name of aka) add(name, id)
  const names = moves.flatMap(({ name, aka }) => [name, ...aka])
  return {
    ids,
    known: [...moves.map(({ id }) => id), ...(layer === 'feet' ? STEP_WORDS : [])],
    longest: Math.max(1, ...names.map((name) => folded(name).split(/\s+/).length)),
  }
}

/** A word that may be meant: as it is offered, and squashed. */
interface Candidate {
  readonly name: string
  readonly key: string
}

const candidatesOf = new WeakMap<Dictionary, readonly Candidate[]>()

/** All names of a layer, each with the move it is offered as. */
function candidatesIn(dictionary: Dictionary): readonly Candidate[] {
  const before = candidatesOf.get(dictionary)
  if (before) return before
  const { ids, known } = dictionary
  const made = [
    ...known.map((name) => ({ name, key: squashed(name) })),
    ...[...ids].map(([key, name]) => ({ name, key })),
  ]
  candidatesOf.set(dictionary, made)
  return made
}

/**
 * What some words may mean on a layer, as the sheet writes it, the nearest first: a move by any of
 * its names, or another word that may stand there.
 */
export function nearestIn(
  dictionary: Dictionary,
  words: string,
  others: readonly string[] = [],
): readonly string[] {
  const own = others.map((name) => ({ name, key: squashed(name) }))
  const taken = new Set(own.map(({ key }) => key))
  const near = nearestOf(words, [...own, ...candidatesIn(dictionary)], 9)
  // What is a place here is no move of the same name.
  const told = near.filter((one) => own.includes(one) || !taken.has(one.key))
  return [...new Set(told.map(({ name }) => name))].slice(0, 3)
}

/** The known words nearest to one that is not known, the nearest first; none when nothing is near. */
export const nearest = (word: string, known: readonly string[], shown = 3): readonly string[] =>
  nearestOf(
    word,
    known.map((name) => ({ name, key: squashed(name) })),
    shown,
  ).map(({ name }) => name)

function nearestOf(word: string, known: readonly Candidate[], shown: number): readonly Candidate[] {
  const wanted = squashed(word)
  if (wanted === '') return []
  const most = Math.max(wanted.length > 3 ? 2 : 1, wanted.length / 3)
  const found: { readonly candidate: Candidate; readonly far: number }[] = []
  for (const candidate of known) {
    const { name, key } = candidate
    // A part is the beginning of a word: “lean” is none of “circle-and”.
    const isPart =
      wanted.length > 2 &&
      (key.startsWith(wanted) || name.includes(`-${wanted}`) || name.includes(` ${wanted}`))
    // Most are of another length, which is told sooner.
    if (!isPart && Math.abs(key.length - wanted.length) > most) continue
    const far = isPart ? 1 : distance(wanted, key)
    if (far <= most) found.push({ candidate, far })
  }
  return found
    .sort((a, b) => a.far - b.far || a.candidate.name.length - b.candidate.name.length)
    .slice(0, shown)
    .map(({ candidate }) => candidate)
}
