import type { Layer } from '../body/layers'
import { otherSide } from '../body/side'
import { teachTempoOf } from '../combination/combination'
import { type TaughtAs, taughtAs } from '../diary/changes'
import type { DancedDrill } from '../diary/diary'
import type { Drill } from '../plan/drill'
import {
  countsPerSide,
  layersIn,
  type Material,
  type Materials,
  meanLoad,
  roundOf,
} from '../plan/material'
import { drillTitle, phraseNames } from '../plan/totals'

/** A drill as the diary has it, with the rounds that were danced of it. */
export function dancedRow(
  drill: Drill,
  rounds: DancedDrill['rounds'],
  id: string,
  materials: Materials,
): DancedDrill {
  const round = roundOf(drill, materials)
  const names = phraseNames(drill, materials)
  const own = drill.combination === undefined ? undefined : materials.find(drill.combination)
  const phrases = (round && own ? round.passes : []).map(({ phrase }, i) => ({
    id: phrase.id,
    name: names[i] ?? phrase.name,
    ...(own && asTaught(own, phrase.id, drill.layers)),
  }))
  return {
    id,
    kind: drill.kind,
    title: drillTitle(drill, materials),
    ...(drill.combination !== undefined && {
      combination: drill.combination,
      combinationTitle: own?.combination.title ?? '',
    }),
    phrases: [...new Map(phrases.map((one) => [one.id, one])).values()],
    layers: drill.layers,
    rounds: drill.moves ? { R: rounds.R, L: rounds.R } : rounds,
    // A round of moves has both sides in it, half its counts each.
    counts: round ? (drill.moves ? round.counts / 2 : round.counts) : 0,
    tempo: drill.tempo,
    load: round ? meanLoad(drill, round) : 0,
    ...(drill.eased && { eased: true }),
    ...(drill.song &&
      round?.song && {
        song: {
          title: round.song.title,
          rate: drill.song.rate,
          counts: countsPerSide({ ...drill, repeats: 1 }, materials),
        },
      }),
  }
}

/** A phrase as it is written now, whatever easier form of it was danced. */
function asTaught(
  { combination, lead }: Material,
  id: string,
  layers: readonly Layer[],
): { readonly as: TaughtAs } | undefined {
  const phrase = combination.phrases.find((one) => one.id === id)
  return phrase && { as: taughtAs(phrase, layers, lead.vocabulary) }
}

/** What was danced without the floor, as it is written down by hand. */
export interface ByHand {
  /** Id of the combination. */
  readonly combination: string
  /** Id of one phrase; all of it where there is none. */
  readonly phrase?: string | undefined
  /** Which of its layers; all of them where none are named. */
  readonly layers?: readonly Layer[] | undefined
}

/**
 * A row of the diary for what was danced without the floor: one round a side at the teaching
 * tempo, to be corrected. Undefined where it has nothing of that to dance.
 */
export function dancedByHand(
  { combination, phrase, layers }: ByHand,
  id: string,
  materials: Materials,
): DancedDrill | undefined {
  const material = materials.find(combination)
  const phrases = phrase === undefined ? [] : [phrase]
  const round = roundOf({ combination, phrases }, materials)
  if (!material || !round) return undefined
  const there = layersIn(round.passes)
  const danced = layers ? there.filter((layer) => layers.includes(layer)) : there
  if (danced.length === 0) return undefined
  const { lead } = material.combination
  const kind = danced.join() === 'feet' ? 'feet' : phrase === undefined ? 'sides' : 'all'
  const drill: Drill = {
    id,
    kind,
    combination,
    phrases,
    layers: danced,
    sides: [lead, otherSide[lead]],
    repeats: 1,
    tempo: teachTempoOf(material.combination),
    talk: 0,
    stand: 'mirror',
  }
  return dancedRow(drill, { R: 1, L: 1 }, id, materials)
}
