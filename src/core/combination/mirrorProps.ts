import { otherSide } from '../body/side'
import {
  type Carried,
  type Drape,
  type Feature,
  isFeature,
  type OnProp,
  type Prop,
  type PropAct,
} from './carried'
import { mirrorWords } from './mirrorWords'

/** A word that ends with its side, for the other one. */
const across = <W extends Feature | Drape>(word: W): W =>
  (word.endsWith('-R')
    ? `${word.slice(0, -1)}L`
    : word.endsWith('-L')
      ? `${word.slice(0, -1)}R`
      : word) as W

const mirrorOn = ({ at, grip }: OnProp): OnProp => ({ at: at.map(across), grip })

/** How a thing is held on the other side. */
export const mirrorCarried = (carried: Carried): Carried => ({
  ...carried,
  hands: {
    ...(carried.hands.L && { R: mirrorOn(carried.hands.L) }),
    ...(carried.hands.R && { L: mirrorOn(carried.hands.R) }),
  },
  drape: across(carried.drape),
})

/** A thing on the other side: in the other hand, but for what stays in its own. */
export const mirrorProp = (prop: Prop): Prop =>
  prop.keepHand ? prop : { ...prop, start: mirrorCarried(prop.start) }

const images = new WeakMap<PropAct, PropAct>()

/** What is done with a thing on the other side, the very same each time; a kept one stays as written. */
export function mirrorAct(one: PropAct): PropAct {
  if (one.kept) return one
  const known = images.get(one) ?? imageOf(one)
  images.set(one, known)
  return known
}

const imageOf = (one: PropAct): PropAct => ({
  ...one,
  ...(one.hand && { hand: otherSide[one.hand] }),
  ...(one.to && { to: isFeature(one.to) ? across(one.to) : across(one.to) }),
  ...(one.cue !== undefined && { cue: mirrorWords(one.cue) }),
  ...(one.note !== undefined && { note: mirrorWords(one.note) }),
})
