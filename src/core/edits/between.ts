import { type Between, isHand, type Meeting, partsIn } from '../combination/between'
import { type Combination, lengthOf, type Phrase } from '../combination/combination'
import { tick } from '../time/time'
import { changePhrase, clamp, type Edit, earliestIn } from './edit'

/** Keeps a meeting inside its phrase: first moved in, then cut. */
function fitted(one: Between, phrase: Phrase, earliest: number): Between {
  const length = clamp(one.length, 1, lengthOf(phrase) - earliest)
  const at = clamp(one.at, earliest, lengthOf(phrase) - length)
  return { ...one, at: tick(at), length: tick(length) }
}

const inTime = (list: readonly Between[]): readonly Between[] =>
  [...list].sort((a, b) => a.at - b.at)

/** Puts what two do with each other into a phrase. */
export const addBetween =
  (phraseId: string, one: Between): Edit =>
  (combination) =>
    changePhrase(phraseId, (phrase) => ({
      ...phrase,
      between: inTime([
        ...(phrase.between ?? []),
        fitted(one, phrase, earliestIn(combination, phraseId)),
      ]),
    }))(combination)

/** What can be changed of a meeting; what is undefined or empty goes away. */
export type BetweenChange = {
  readonly [K in keyof Omit<Between, 'id'>]?: Between[K] | undefined
}

export const changeBetween =
  (id: string, change: BetweenChange): Edit =>
  (combination) => {
    const phrase = phraseWith(combination, id)
    if (!phrase) return combination
    return changePhrase(phrase.id, ({ between = [], ...rest }) => ({
      ...rest,
      between: inTime(
        between.map((one) => {
          if (one.id !== id) return one
          const changed = Object.entries({ ...one, ...change }).filter(
            ([, value]) => value !== undefined && value !== '',
          )
          return fitted(
            Object.fromEntries(changed) as Between,
            phrase,
            earliestIn(combination, phrase.id),
          )
        }),
      ),
    }))(combination)
  }

export const removeBetween =
  (id: string): Edit =>
  (combination) => {
    const found = phraseWith(combination, id)
    if (!found) return combination
    return changePhrase(found.id, ({ between = [], ...phrase }) => {
      const left = between.filter((one) => one.id !== id)
      return { ...phrase, ...(left.length > 0 && { between: left }) }
    })(combination)
  }

const phraseWith = ({ phrases }: Combination, id: string): Phrase | undefined =>
  phrases.find(({ between = [] }) => between.some((one) => one.id === id))

export const betweenOf = ({ phrases }: Combination, id: string): Between | undefined =>
  phrases.flatMap(({ between = [] }) => between).find((one) => one.id === id)

/** What two begin to do with each other, where nothing else is said: the hands that are next to each other are held. */
export function firstMeeting({ parts = [] }: Combination): Meeting | undefined {
  const [a, b] = [...parts].sort(
    (one, other) => (one.at[0]?.right ?? 0) - (other.at[0]?.right ?? 0),
  )
  return a && b
    ? {
        kind: 'hold',
        from: { part: a.id, side: 'R' },
        to: { part: b.id, side: 'L' },
        grip: 'palm',
        height: 'waist',
      }
    : undefined
}

/** The same two doing something else with each other. */
export function anotherMeeting(
  what: Meeting,
  kind: Meeting['kind'],
  { parts = [], carried = [] }: Pick<Combination, 'parts' | 'carried'>,
): Meeting {
  const [first = parts[0]?.id ?? ''] = partsIn(what)
  const second = partsIn(what)[1] ?? parts.find(({ id }) => id !== first)?.id ?? ''
  const { from, to } =
    what.kind === 'hold' || what.kind === 'touch'
      ? what
      : ({ from: { part: first, side: 'R' }, to: { part: second, side: 'L' } } as const)
  switch (kind) {
    case 'hold':
      return { kind, from, to, grip: isHand(to) ? 'palm' : 'flat' }
    case 'touch':
      return { kind, from, to, as: 'palm' }
    case 'place':
      return { kind, of: first, rel: 'right', to: second }
    case 'orbit':
      return { kind, of: first, round: second, degrees: 360 }
    case 'support':
      return { kind, by: second, of: first, share: 20 }
    case 'led':
      return { kind, of: first, by: { part: second, side: 'R' } }
    case 'look':
      return { kind, a: first, b: second }
    case 'pass':
      return {
        kind,
        prop: carried[0]?.id ?? '',
        from,
        to: isHand(to) ? to : { part: second, side: 'L' },
      }
    case 'wait':
      return { kind, of: [first] }
  }
}
