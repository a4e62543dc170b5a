import type { Layer } from '../body/layers'
import type { Pass } from '../combination/passes'
import type { Drill } from '../plan/drill'
import type { Material } from '../plan/material'
import { firstPasses, layersOf } from '../plan/teaching'
import type { Taught } from '../plan/teachingSteps'
import type { Chunk, Stop } from './pageData'

const MOST_LINES = 3
const MOST_SIGNS = 140
/** Times a chunk is shown, tried and danced in one go. */
const ROUNDS = 2
/** Of the tempo of the dance: where it is tried, and where it is danced to the rhythm first (h). */
const TRIED = 60
const DANCED = 85

/**
 * What a dance is learned by at home: a chunk a phrase, in the order and with the pieces and the words
 * of the steps it is taught by. Fewer of them, never other ones.
 */
export function chunksOf(material: Material, { steps, words }: Taught): readonly Chunk[] {
  const drills = steps.map(({ drill }) => drill)
  const firsts = firstPasses(material.lead.passes)
  const isOf = ({ phrases }: Drill, { phrase }: Pass) =>
    phrases.length === 0 ? firsts.length === 1 : phrases.length === 1 && phrases[0] === phrase.id
  const place = (pass: Pass) => {
    const at = drills.findIndex((drill) => isOf(drill, pass))
    return at < 0 ? drills.length : at
  }
  const inOrder = [...firsts].sort((a, b) => place(a) - place(b) || a.index - b.index)
  const isBoth = goesToBothSides(drills)
  return inOrder.map((pass, i): Chunk => {
    const own = drills.filter((drill) => isOf(drill, pass))
    // What is said of the other side is said where it is danced.
    const said = own
      .filter(({ kind }) => kind !== 'other-side')
      .flatMap(({ id }) => words.get(id) ?? [])
    const lines = [...new Set(said.flatMap(({ say }) => say))]
    return {
      id: pass.phrase.id,
      name: pass.phrase.name,
      title: pass.phrase.title ?? '',
      say: lines.filter(({ length }) => length <= MOST_SIGNS).slice(0, MOST_LINES),
      easier: [...new Set(said.flatMap(({ easier }) => easier))].slice(0, MOST_LINES),
      stops: stopsOf(own, layersOf([pass], material), { isBoth, isFirst: pass.index === 0 }),
      need: inOrder.slice(0, i).map(({ phrase }) => phrase.id),
    }
  })
}

/** Whether the steps of a dance take it to its other side. */
const goesToBothSides = (drills: readonly Drill[]): boolean =>
  drills.some(({ kind, sides }) => kind === 'other-side' || sides.length === 2)

/** The stops of a chunk: heavy layers are walked alone first, as the steps say. */
function stopsOf(
  drills: readonly Drill[],
  all: readonly Layer[],
  { isBoth, isFirst }: { readonly isBoth: boolean; readonly isFirst: boolean },
): readonly Stop[] {
  const pieces = drills
    .filter(
      ({ kind, layers }) => (kind === 'alone' || kind === 'feet') && layers.length < all.length,
    )
    .map(({ layers }) => layers)
  const stop = (kind: Stop['do'], percent: number, layers = all, rounds = ROUNDS): Stop => ({
    do: kind,
    layers,
    rounds,
    percent,
  })
  return [
    stop('show', 100),
    ...pieces.map((layers) => stop('walk', TRIED, layers, 1)),
    stop('walk', TRIED, all, 1),
    stop('try', TRIED),
    ...(isBoth ? [stop('other-side', TRIED)] : []),
    ...(isFirst ? [] : [stop('from-top', TRIED)]),
    stop('dance', DANCED),
  ]
}
