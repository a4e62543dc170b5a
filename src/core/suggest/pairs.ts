import Papa from 'papaparse'
import type { Combination } from '../combination/combination'
import { type DancedEvent, dancedIn } from '../combination/lengths'
import { isSamePair, type OwnPairs, Pair } from '../house/ownPairs'
import { keyOf } from '../load/things'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { endOf } from '../time/time'
import table from './pairs.csv?raw'

/** What usually goes with what, by family (h). */
export const USUAL_PAIRS: readonly Pair[] = Papa.parse(table.trim(), { header: true }).data.map(
  (row) => Pair.parse(row),
)

/** The pairs an instructor goes by: the usual ones she has not dropped, and her own. */
export function pairsOf(own: OwnPairs | undefined): readonly Pair[] {
  if (!own) return USUAL_PAIRS
  const isOwn = (pair: Pair) => own.added.some((one) => isSamePair(one, pair))
  const isDropped = (pair: Pair) => own.dropped.some((one) => isSamePair(one, pair))
  return [...USUAL_PAIRS.filter((one) => !isDropped(one) && !isOwn(one)), ...own.added]
}

/** So often must two things lie over each other in her combinations to be a pair (h). */
const OFTEN = 2

/** What goes with what in some combinations: what lay over each other in at least two of their phrases. */
export function pairsIn(combinations: readonly Combination[], base: Vocabulary): readonly Pair[] {
  const times = new Map<string, { pair: Pair; phrases: number }>()
  for (const combination of combinations) {
    const vocabulary = vocabularyFor(combination, base)
    for (const phrase of combination.phrases)
      for (const pair of pairsOver(dancedIn(phrase, vocabulary), combination, vocabulary)) {
        const key = `${pair.family}|${pair.on}|${pair.with}`
        const known = times.get(key)
        times.set(key, { pair, phrases: (known?.phrases ?? 0) + 1 })
      }
  }
  return [...times.values()]
    .filter(({ phrases }) => phrases >= OFTEN)
    .sort((a, b) => b.phrases - a.phrases)
    .map(({ pair }) => pair)
}

/** Each pair of a phrase once. */
function pairsOver(
  events: readonly DancedEvent[],
  { families }: Combination,
  vocabulary: Vocabulary,
): readonly Pair[] {
  const feet = events.filter(({ layer, what }) => layer === 'feet' && isDone(what))
  const pairs = new Map<string, Pair>()
  for (const over of events) {
    // A place that is held goes with anything.
    if (over.layer === 'feet' || over.layer === 'head' || over.what.kind !== 'move') continue
    const under = feet.find((step) => step.at < endOf(over) && over.at < endOf(step))
    if (!under) continue
    const [on, its] = [keyOf(under, vocabulary), keyOf(over, vocabulary)]
    for (const family of families) pairs.set(`${family}|${on}|${its}`, { family, on, with: its })
  }
  return [...pairs.values()]
}

const isDone = (what: DancedEvent['what']): boolean =>
  what.kind === 'move' || (what.kind === 'foot' && !IDLE.has(what.action.primitive))

const IDLE: ReadonlySet<string> = new Set(['hold', 'free'])
