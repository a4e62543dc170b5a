import { sideWord } from '../body/side'
import { isFeature, type Prop, type PropAct } from '../combination/carried'
import type { Combination } from '../combination/combination'
import { partOf } from '../combination/partOf'
import type { PartId } from '../combination/whose'
import { actRow } from '../props/acts'
import { DRAPE_WORDS, FEATURE_WORDS, heldWords } from '../props/held'
import { countWords } from '../time/countWords'
import { TICKS_PER_COUNT } from '../time/time'

/** What is made ready, in words. */
const READY_WORDS: Readonly<Record<string, string>> = {
  'hair-in': 'hair out of the way',
  'elbow-in': 'elbow inside',
}

/** What is done with a thing, in words: `Silk: over the head`, `Reed: let go, left hand`. */
export function sayAct(
  { act, hand, ready, to, optional }: PropAct,
  prop: Prop | undefined,
): string {
  const what = ready ? `get ready, ${READY_WORDS[ready] ?? ready}` : actRow(act).name
  const isSaid = act === 'slide' || act === 'take' || act === 'carry'
  const where = to && isSaid && (isFeature(to) ? FEATURE_WORDS[to] : DRAPE_WORDS[to])
  const said = [
    what,
    where && (to && isFeature(to) ? `${act === 'take' ? 'at' : 'to'} its ${where}` : where),
    hand && `${sideWord[hand]} hand`,
  ]
    .filter(Boolean)
    .join(', ')
  return `${optional ? 'if you like: ' : ''}${prop?.name ?? 'it'}: ${said}`
}

/** What is carried, thing by thing: `Silk, a veil of 2.5 x 1.1 m: behind, both hands on it`. */
const carriedWords = (carried: readonly Prop[]): readonly string[] =>
  carried.map(({ name, kind, size, start }) => {
    const large = kind === 'stick' ? `${size.long} m` : `${size.long} x ${size.deep} m`
    return `${name}, a ${kind} of ${large}: ${heldWords(start)}`
  })

/**
 * What a page says of a combination before its first count: what is carried and how, and who begins later
 * than the others.
 * @param part one dancer's page; everybody's where it is not given
 */
export function factsOf(combination: Combination, part?: PartId): readonly string[] {
  const { parts = [], carried = [] } = combination
  const hers = part === undefined ? carried : (partOf(combination, part).carried ?? [])
  const later = parts
    .filter(({ id }) => part === undefined || id === part)
    .flatMap(({ name, delay }) =>
      delay === undefined ? [] : [`${name} begins ${countWords(delay / TICKS_PER_COUNT)} later`],
    )
  return [...carriedWords(hers), ...later]
}
