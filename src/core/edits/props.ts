import type { Side } from '../body/side'
import {
  FEATURES_OF,
  MOST_PROPS,
  type Prop,
  type PropAct,
  type PropKind,
  USUAL_PROP,
  usualGrip,
} from '../combination/carried'
import { type Combination, lengthOf, type Phrase } from '../combination/combination'
import type { PartId } from '../combination/whose'
import { UserError } from '../errors'
import { tick } from '../time/time'
import { changePhrase, clamp, type Edit, earliestIn } from './edit'

/** Keeps something that is done inside its phrase: first moved in, then cut. */
function fitted(one: PropAct, phrase: Phrase, earliest: number): PropAct {
  const length = clamp(one.length, 1, lengthOf(phrase) - earliest)
  const at = clamp(one.at, earliest, lengthOf(phrase) - length)
  return { ...one, at: tick(at), length: tick(length) }
}

const inTime = (list: readonly PropAct[]): readonly PropAct[] =>
  [...list].sort((a, b) => a.at - b.at)

/** Puts something that is done with a thing into a phrase. */
export const addAct =
  (phraseId: string, one: PropAct): Edit =>
  (combination) =>
    changePhrase(phraseId, (phrase) => ({
      ...phrase,
      props: inTime([
        ...(phrase.props ?? []),
        fitted(one, phrase, earliestIn(combination, phraseId)),
      ]),
    }))(combination)

/** What can be changed of it; what is undefined or empty goes away. */
export type ActChange = { readonly [K in keyof Omit<PropAct, 'id'>]?: PropAct[K] | undefined }

export const changeAct =
  (id: string, change: ActChange): Edit =>
  (combination) => {
    const phrase = phraseWith(combination, id)
    if (!phrase) return combination
    return changePhrase(phrase.id, (one) => ({
      ...one,
      props: inTime(
        (one.props ?? []).map((act) => {
          if (act.id !== id) return act
          const changed = Object.entries({ ...act, ...change }).filter(
            ([, value]) => value !== undefined && value !== '',
          )
          const made = Object.fromEntries(changed) as PropAct
          return fitted(made, phrase, earliestIn(combination, phrase.id))
        }),
      ),
    }))(combination)
  }

export const removeAct =
  (id: string): Edit =>
  (combination) => {
    const found = phraseWith(combination, id)
    return found
      ? changePhrase(
          found.id,
          withoutActs((one) => one.id === id),
        )(combination)
      : combination
  }

const withoutActs =
  (isGone: (act: PropAct) => boolean) =>
  ({ props = [], ...phrase }: Phrase): Phrase => {
    const left = props.filter((one) => !isGone(one))
    return { ...phrase, ...(left.length > 0 && { props: left }) }
  }

const phraseWith = ({ phrases }: Combination, id: string): Phrase | undefined =>
  phrases.find(({ props = [] }) => props.some((one) => one.id === id))

export const actOf = ({ phrases }: Combination, id: string): PropAct | undefined =>
  phrases.flatMap(({ props = [] }) => props).find((one) => one.id === id)

/** A thing more is carried, as it usually is; of several dancers by one, where that is said. */
export const addProp =
  (kind: PropKind, name: string, part?: PartId): Edit =>
  (combination) => {
    const { carried = [] } = combination
    if (carried.length === MOST_PROPS)
      throw new UserError(
        `${MOST_PROPS} things are the most that are carried.`,
        'Take one of them out first.',
      )
    let id: string = kind
    for (let i = 2; carried.some((one) => one.id === id); i++) id = `${kind}-${i}`
    const prop: Prop = { id, kind, name, ...USUAL_PROP[kind], ...(part && { part }) }
    return { ...combination, carried: [...carried, prop] }
  }

export type PropChange = { readonly [K in keyof Omit<Prop, 'id' | 'kind'>]?: Prop[K] | undefined }

/** Changes what is said of a thing; what is undefined goes away. */
export const changeProp =
  (id: string, change: PropChange): Edit =>
  (combination) => ({
    ...combination,
    ...(combination.carried && {
      carried: combination.carried.map((prop) =>
        prop.id === id
          ? (Object.fromEntries(
              Object.entries({ ...prop, ...change }).filter(([, value]) => value !== undefined),
            ) as Prop)
          : prop,
      ),
    }),
  })

/** A hand is on some features of a thing on count 1, the last two that are named; on none it is free. */
export const holdFromStart =
  (id: string, side: Side, on: readonly string[]): Edit =>
  (combination) => {
    const prop = combination.carried?.find((one) => one.id === id)
    if (!prop) return combination
    const { start, kind } = prop
    const { [side]: own, ...others } = start.hands
    const at = FEATURES_OF[kind].filter((one) => on.includes(one)).slice(-2)
    const hands =
      at.length > 0 ? { ...others, [side]: { at, grip: own?.grip ?? usualGrip(kind) } } : others
    return changeProp(id, { start: { ...start, hands } })(combination)
  }

/** Something is ready for a thing on count 1, or not. */
export const readyFromStart =
  (id: string, word: string, isReady = true): Edit =>
  (combination) => {
    const start = combination.carried?.find((one) => one.id === id)?.start
    if (!start) return combination
    const others = start.ready.filter((one) => one !== word)
    const ready = isReady ? [...others, word] : others
    return changeProp(id, { start: { ...start, ready } })(combination)
  }

/** A thing is carried no more, and nothing is done with it. */
export const removeProp =
  (id: string): Edit =>
  ({ carried = [], ...combination }) => {
    const left = carried.filter((one) => one.id !== id)
    return {
      ...combination,
      ...(left.length > 0 && { carried: left }),
      phrases: combination.phrases.map((phrase) => {
        const { between, ...rest } = withoutActs(({ prop }) => prop === id)(phrase)
        const met = between?.filter(({ what }) => what.kind !== 'pass' || what.prop !== id)
        return { ...rest, ...(met && met.length > 0 && { between: met }) }
      }),
    }
  }
