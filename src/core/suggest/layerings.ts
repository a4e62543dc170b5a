import Papa from 'papaparse'
import type { Combination } from '../combination/combination'
import { type DancedEvent, dancedIn } from '../combination/lengths'
import { isSameLayering, Layering, type OwnLayerings } from '../house/layerings'
import { keyOf } from '../load/things'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { overlap } from '../time/time'
import table from './layerings.csv?raw'

/** What usually goes with what, by family (h). */
export const USUAL_LAYERINGS: readonly Layering[] = Papa.parse(table.trim(), {
  header: true,
}).data.map((row) => Layering.parse(row))

/** The layerings an instructor goes by: the usual ones she has not dropped, and her own. */
export function layeringsOf(own: OwnLayerings | undefined): readonly Layering[] {
  if (!own) return USUAL_LAYERINGS
  const isOwn = (layering: Layering) => own.added.some((one) => isSameLayering(one, layering))
  const isDropped = (layering: Layering) => own.dropped.some((one) => isSameLayering(one, layering))
  return [...USUAL_LAYERINGS.filter((one) => !isDropped(one) && !isOwn(one)), ...own.added]
}

/** So often must two things lie over each other in her combinations to be a layering (h). */
const OFTEN = 2

/** What goes with what in some combinations: what lay over each other in at least two of their phrases. */
export function layeringsIn(
  combinations: readonly Combination[],
  base: Vocabulary,
): readonly Layering[] {
  const times = new Map<string, { layering: Layering; phrases: number }>()
  for (const combination of combinations) {
    const vocabulary = vocabularyFor(combination, base)
    for (const phrase of combination.phrases)
      for (const layering of layeringsOver(dancedIn(phrase, vocabulary), combination, vocabulary)) {
        const key = `${layering.family}|${layering.on}|${layering.with}`
        const known = times.get(key)
        times.set(key, { layering, phrases: (known?.phrases ?? 0) + 1 })
      }
  }
  return [...times.values()]
    .filter(({ phrases }) => phrases >= OFTEN)
    .sort((a, b) => b.phrases - a.phrases)
    .map(({ layering }) => layering)
}

/** Each layering of a phrase once. */
function layeringsOver(
  events: readonly DancedEvent[],
  { families }: Combination,
  vocabulary: Vocabulary,
): readonly Layering[] {
  const feet = events.filter(({ layer, what }) => layer === 'feet' && isDone(what))
  const layerings = new Map<string, Layering>()
  for (const over of events) {
    // A place that is held goes with anything.
    if (over.layer === 'feet' || over.layer === 'head' || over.what.kind !== 'move') continue
    const under = feet.find((step) => overlap(step, over))
    if (!under) continue
    const [on, its] = [keyOf(under, vocabulary), keyOf(over, vocabulary)]
    for (const family of families)
      layerings.set(`${family}|${on}|${its}`, { family, on, with: its })
  }
  return [...layerings.values()]
}

const isDone = (what: DancedEvent['what']): boolean =>
  what.kind === 'move' || (what.kind === 'foot' && !IDLE.has(what.action.primitive))

const IDLE: ReadonlySet<string> = new Set(['hold', 'free'])
