import type { Vocabulary } from '../moves/vocabulary'
import { slotAt, TICKS_PER_COUNT, tick } from '../time/time'
import type { CountsRead } from './counts'
import type { PhraseDraft } from './drafts'
import type { Meaning } from './meant'

/** Something that is danced, as far as its time goes. */
interface Timed {
  readonly meaning: Meaning | undefined
}

/** Whether something is a place that is taken, and stays. */
export function isHeld(meaning: Meaning | undefined, vocabulary: Vocabulary): boolean {
  const what = meaning?.event.what
  if (!what) return true
  return what.kind === 'move' ? vocabulary.find(what.move)?.kind === 'place' : what.kind !== 'foot'
}

const lengthOf = ({ meaning }: Timed, vocabulary: Vocabulary): number => {
  const what = meaning?.event.what
  return what?.kind === 'move'
    ? (vocabulary.find(what.move)?.length ?? TICKS_PER_COUNT)
    : TICKS_PER_COUNT
}

/** How long some actions take without counts: as they say, or as long as they are. */
export function timesOf(
  actions: readonly Timed[],
  counts: CountsRead | undefined,
  ticks: number | undefined,
  times: number | undefined,
  vocabulary: Vocabulary,
): number {
  if (counts) return 0
  const [first] = actions
  const own = first ? lengthOf(first, vocabulary) : TICKS_PER_COUNT
  return ticks ?? Math.max(TICKS_PER_COUNT, own * (times ?? 1) * Math.max(1, sameLayer(actions)))
}

const sameLayer = (actions: readonly Timed[]): number =>
  actions.filter(({ meaning }) => meaning?.layer === actions[0]?.meaning?.layer).length

interface Around {
  readonly isBeside: boolean
  /** The page writes counts. */
  readonly isCounted: boolean
  readonly isPlace: boolean
}

/** Where something without counts is danced: beside what is before it, or behind it. */
export function whenGoesOn(
  phrase: PhraseDraft,
  ticks: number,
  { isBeside, isCounted, isPlace }: Around,
): CountsRead {
  if (isBeside) return { ...phrase.last, isLead: false, rest: '' }
  // Under counts that are written it is meant for all of them: a place from the first one on.
  if (isCounted && phrase.placed.length > 0)
    return {
      at: [0],
      end: isPlace ? undefined : Math.max(phrase.next, (phrase.counts ?? 0) * TICKS_PER_COUNT),
      isLead: false,
      rest: '',
    }
  return { at: [phrase.next], end: phrase.next + ticks, isLead: false, rest: '' }
}

interface Spread<One extends Timed> {
  readonly action: One
  readonly at: number
  readonly length: number | undefined
}

/** Gives the actions of one layer their time: one for each count that is said, or even parts of a range. */
export function spread<One extends Timed>(
  actions: readonly One[],
  { at, end }: Pick<CountsRead, 'at' | 'end'>,
  vocabulary: Vocabulary,
): readonly Spread<One>[] {
  const [from = 0] = at
  const [only] = actions
  if (end !== undefined) {
    const each = (end - from) / actions.length
    if (actions.length > 1 && Number.isInteger(each))
      return actions.map((action, i) => ({
        action,
        at: from + i * each,
        length: each === slotAt(tick(from + i * each)) ? undefined : each,
      }))
    return actions.map((action) => ({ action, at: from, length: end - from }))
  }
  if (actions.length === 1 && only) {
    const what = only.meaning?.event.what
    const kind = what?.kind === 'move' ? vocabulary.find(what.move)?.kind : undefined
    const last = at.at(-1) ?? from
    // A figure or a way goes through all of the counts; what strikes, steps or stands does so on each.
    if (at.length > 1 && (kind === 'steps' || kind === 'path' || kind === 'texture'))
      return [{ action: only, at: from, length: last + slotAt(tick(last)) - from }]
    return at.map((one) => ({ action: only, at: one, length: undefined }))
  }
  return actions.map((action, i) => ({
    action,
    at: at[Math.min(i, at.length - 1)] ?? from,
    length: undefined,
  }))
}
