import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { EntryProblem } from '../entry/reader'
import type { Vocabulary } from '../moves/vocabulary'
import { readEntry, type WrittenEvent } from '../sheet/entry'
import { dancedText } from '../sheet/entryText'

/** Something a phrase of words can mean. */
export interface Meaning {
  readonly layer: Layer
  /** What is danced, as the sheet has it: `hip-drop R`. */
  readonly text: string
  readonly event: WrittenEvent['event']
}

/** What some words mean: one thing, or several to choose from; and how sure that is. */
export interface Meant {
  readonly meanings: readonly Meaning[]
  /** Some words were left over, or were written otherwise. */
  readonly isUnsure: boolean
  /** It stands as the sheet has it. */
  readonly isExact?: boolean
}

export interface MeaningPlace {
  readonly layer: Layer | undefined
  readonly lead: Side
  readonly vocabulary: Vocabulary
}

/** How often somebody may be asked which one is meant. */
export const MOST = 4

/** What is danced, read by the sheet's own reader; undefined where that is not understood. */
export function read(
  text: string,
  layer: Layer,
  { lead, vocabulary }: MeaningPlace,
): Meaning | undefined {
  try {
    const [written, ...more] = readEntry(`1 ${text}`, { layer, lead, vocabulary, counts: 16 })
    if (!written || more.length > 0) return undefined
    const { event, open } = written
    // A foot that was left out is found when all of it is danced.
    const said = open ? text : dancedText({ ...event, id: '' }, vocabulary, { counts: 16 })
    return { layer, text: said, event }
  } catch (problem) {
    if (problem instanceof EntryProblem) return undefined
    throw problem
  }
}
