import { type Combination, DancerLevel, type Event } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { nameOf, placeIn } from '../combination/names'
import { changeEvent, eventOf, removeEvents } from '../edits/edits'
import { checkCombination } from '../findings/check'
import { type Finding, severityOf } from '../findings/finding'
import { easierOf } from '../findings/rules/load'
import type { House } from '../house/house'
import { type CountLoad, hardestLoad } from '../load/load'
import type { Move } from '../moves/move'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { labelIn, labelOfSpan } from '../time/time'
import { sameSide } from './sameSide'

/** One thing that is danced otherwise at a level. */
interface Swap {
  readonly kind: 'easier' | 'harder' | 'dropped'
  readonly event: string
  /** `A5-8`. */
  readonly at: string
  readonly from: string
  /** Absent where it is left out. */
  readonly to?: string
}

/** A combination as a level dances it. */
export interface LevelForm {
  readonly level: DancerLevel
  readonly combination: Combination
  readonly swaps: readonly Swap[]
  /** The hardest count before and after, and what the level takes. */
  readonly load: { readonly before: number; readonly after: number; readonly limit: number }
}

const MOST_SWAPS = 60
/** Without anything written for a higher level, a few harder forms show the way. */
const MOST_UNASKED = 4

interface Change {
  readonly swap: Swap
  readonly changed: Combination
}

/**
 * The version for a level (model 9): where a count is too hard, flourishes are dropped first,
 * then the hardest moves take their easier forms; where the level is higher than the
 * combination's own, harder forms are taken as far as the load fits. Nothing that brings a
 * fault is taken.
 */
export function levelForm(
  combination: Combination,
  level: DancerLevel,
  base: Vocabulary,
  house: House,
): LevelForm {
  const vocabulary = vocabularyFor(combination, base)
  const own = combination.level ?? house.level
  const limit = house.limits[`load.limit.${level}`]
  const check = (one: Combination) => checkCombination(one, base, house)
  let now: Combination = { ...combination, level }
  let checked = check(now)
  const before = hardestLoad(check(combination).loads)
  const swaps: Swap[] = []
  const take = (changes: Iterable<Change>, isGood: (after: typeof checked) => boolean): boolean => {
    for (const { swap, changed } of changes) {
      const after = check(changed)
      if (bringsFault(checked.findings, after.findings) || !isGood(after)) continue
      now = changed
      checked = after
      swaps.push(swap)
      return true
    }
    return false
  }
  const stuck = new Set<number>()
  while (swaps.length < MOST_SWAPS) {
    const worst = [...checked.loads]
      .filter(({ at, total }) => total > limit + 1e-9 && !stuck.has(at))
      .sort((a, b) => b.total - a.total)[0]
    if (!worst) break
    const eased = take(easings(now, worst, vocabulary), (after) =>
      after.loads.some(({ at, total }) => at === worst.at && total < worst.total - 1e-9),
    )
    if (!eased) stuck.add(worst.at)
  }
  if (DancerLevel.options.indexOf(level) > DancerLevel.options.indexOf(own))
    for (const [changes, most] of [
      [writtenHarder, MOST_SWAPS],
      [knownHarder, MOST_UNASKED],
    ] as const) {
      const tried = new Set<string>()
      let taken = 0
      for (const id of now.phrases.flatMap(({ events }) => events.map((event) => event.id))) {
        if (taken >= most || tried.has(id) || swaps.some(({ event }) => event === id)) continue
        tried.add(id)
        const snags = countOf(checked.findings, 'snag')
        const fits = (after: typeof checked) =>
          after.loads.every(
            ({ total, at }) => total <= limit || hardAt(checked.loads, at) >= total,
          ) && countOf(after.findings, 'snag') <= snags
        if (take(changes(now, id, vocabulary), fits)) taken++
      }
      // What the instructor has written for this level is enough.
      if (swaps.length > 0) break
    }
  return {
    level,
    combination: now,
    swaps,
    load: { before, after: hardestLoad(checked.loads), limit },
  }
}

const hardAt = (loads: readonly CountLoad[], at: number): number =>
  loads.find((one) => one.at === at)?.total ?? 0

const countOf = (findings: readonly Finding[], severity: 'fault' | 'snag'): number =>
  findings.filter((finding) => severityOf(finding) === severity).length

const bringsFault = (before: readonly Finding[], after: readonly Finding[]): boolean =>
  countOf(after, 'fault') > countOf(before, 'fault')

const lastingIn = ({ phrases }: Combination, { id }: Event, vocabulary: Vocabulary) => {
  const phrase = phrases.find(({ events }) => events.some((event) => event.id === id))
  const event = phrase && dancedIn(phrase, vocabulary).find((one) => one.id === id)
  return phrase && event ? { phrase, event } : undefined
}

function placeOf(combination: Combination, event: Event, vocabulary: Vocabulary): string {
  const found = lastingIn(combination, event, vocabulary)
  return found
    ? placeIn(found.phrase.name, labelOfSpan(found.event, labelIn(found.phrase.counts)))
    : ''
}

/** What would make a count easier, the best first: flourishes left out, then easier forms, the hardest part first. */
function* easings(
  combination: Combination,
  { parts }: CountLoad,
  vocabulary: Vocabulary,
): Generator<Change> {
  const events = [...parts]
    .sort((a, b) => b.own * b.share - a.own * a.share)
    .flatMap(({ event }) => eventOf(combination, event) ?? [])
  for (const event of events.filter(({ optional }) => optional))
    yield {
      swap: {
        kind: 'dropped',
        event: event.id,
        at: placeOf(combination, event, vocabulary),
        from: nameOf(event, vocabulary),
      },
      changed: removeEvents([event.id])(combination),
    }
  for (const event of events) {
    const form = easierOf(event, vocabulary)
    if (form && !event.kept) yield* swapTo(combination, event, form, 'easier', vocabulary)
  }
}

function* writtenHarder(combination: Combination, id: string, vocabulary: Vocabulary) {
  const event = eventOf(combination, id)
  const form = event?.harder ? vocabulary.find(event.harder) : undefined
  if (event && form) yield* swapTo(combination, event, form, 'harder', vocabulary)
}

function* knownHarder(combination: Combination, id: string, vocabulary: Vocabulary) {
  const event = eventOf(combination, id)
  if (event?.what.kind !== 'move' || event.kept) return
  const { harder = '' } = vocabulary.find(event.what.move) ?? {}
  const form = vocabulary.find(harder)
  if (form) yield* swapTo(combination, event, form, 'harder', vocabulary)
}

function* swapTo(
  combination: Combination,
  event: Event,
  form: Move,
  kind: 'easier' | 'harder',
  vocabulary: Vocabulary,
): Generator<Change> {
  // A figure that does not fill the counts would leave the feet without steps.
  const lasts = lastingIn(combination, event, vocabulary)?.event.length ?? form.length
  if (form.kind === 'steps' && lasts % form.length !== 0) return
  const what = sameSide(form, event.what, vocabulary)
  yield {
    swap: {
      kind,
      event: event.id,
      at: placeOf(combination, event, vocabulary),
      from: nameOf(event, vocabulary),
      to: nameOf({ layer: event.layer, what }, vocabulary),
    },
    changed: changeEvent(event.id, { what, easier: undefined, harder: undefined, as: undefined })(
      combination,
    ),
  }
}

/** A combination with some events in their easier form; those that have none, or can't take it, stay. */
export function easedCombination(
  combination: Combination,
  ids: readonly string[],
  vocabulary: Vocabulary,
): Combination {
  let now = combination
  for (const id of ids) {
    const event = eventOf(now, id)
    const form = event && easierOf(event, vocabulary)
    if (!event || !form) continue
    for (const { changed } of swapTo(now, event, form, 'easier', vocabulary)) now = changed
  }
  return now
}
