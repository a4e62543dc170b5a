import { otherSide, SIDES, type Side } from '../body/side'
import {
  type Carried,
  type Drape,
  FEATURES_OF,
  type Feature,
  isFeature,
  type OnProp,
  type Prop,
  type PropAct,
  usualGrip,
} from '../combination/carried'
import type { Pass } from '../combination/passes'
import { remembered } from '../record/remembered'
import type { Simulation } from '../simulate/simulate'
import { actRow, isCloth } from './acts'

/** Why something can't be done with a thing as it is held. */
export type Hindrance =
  | { readonly why: 'full'; readonly hand: Side; readonly holds: string }
  | { readonly why: 'empty'; readonly hand?: Side }
  | { readonly why: 'two-hands' }
  | { readonly why: 'drape'; readonly is: Drape; readonly from: readonly Drape[] }
  | { readonly why: 'kind' }
  | { readonly why: 'unready'; readonly ready: string }
  | { readonly why: 'no-turn' }

/** Something that is done with a thing, when, and what it makes of it. */
export interface DoneAct {
  readonly act: PropAct
  readonly pass: Pass
  readonly from: number
  readonly until: number
  readonly prop: Prop
  /** The hand that does it, where it is one. */
  readonly hand: Side | undefined
  readonly before: Carried
  readonly after: Carried
  readonly hindrances: readonly Hindrance[]
}

/** What one dancer carries, followed through her dance like weight is. */
export interface FollowedProps {
  readonly acts: readonly DoneAct[]
  /** Of each thing how it is held at the end. */
  readonly ends: ReadonlyMap<string, Carried>
}

const NOTHING: FollowedProps = { acts: [], ends: new Map() }

/** Follows what is carried through a dance; worked out once for the same dance. */
export const followProps = (simulation: Simulation): FollowedProps =>
  simulation.combination.carried ? followed(simulation, undefined) : NOTHING

const followed = remembered((simulation: Simulation, _: undefined): FollowedProps => {
  const { combination, passes } = simulation
  const carried = combination.carried ?? []
  const now = new Map(carried.map((prop) => [prop.id, prop.start]))
  const things = new Map(carried.map((prop) => [prop.id, prop]))
  const all = passes
    .flatMap((pass) => pass.acts.map((act) => ({ act, pass, from: pass.at + act.at })))
    .sort((a, b) => a.from - b.from)
  const acts = all.flatMap(({ act, pass, from }): readonly DoneAct[] => {
    const prop = things.get(act.prop)
    const before = now.get(act.prop)
    if (!prop || !before) return []
    const until = from + act.length
    const othersIn = (hand: Side) =>
      carried.find((one) => one.id !== prop.id && now.get(one.id)?.hands[hand])?.name
    const turned = facingAt(simulation, until) - facingAt(simulation, from)
    const { lead } = combination
    const usual = pass.mirrored ? otherSide[lead] : lead
    const { after, hindrances, hand } = done(act, prop, before, { othersIn, turned, usual })
    now.set(prop.id, after)
    return [{ act, pass, from, until, prop, hand, before, after, hindrances }]
  })
  return { acts, ends: now }
})

/** Where a dancer faces when all has landed that begins before a tick. */
export function facingAt({ danced, start }: Simulation, tick: number): number {
  let low = 0
  let high = danced.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((danced[middle]?.at ?? 0) < tick) low = middle + 1
    else high = middle
  }
  return danced[low - 1]?.after.facing ?? start.facing
}

interface Around {
  /** What else a hand holds. */
  readonly othersIn: (hand: Side) => string | undefined
  /** Degrees she turns while it is done. */
  readonly turned: number
  /** The hand that does what nobody said a hand for: on the side she leads with. */
  readonly usual: Side
}

interface Done {
  readonly after: Carried
  readonly hindrances: readonly Hindrance[]
  readonly hand: Side | undefined
}

/** What an act makes of how a thing is held, and what stands in its way. */
function done(
  act: PropAct,
  prop: Prop,
  before: Carried,
  { othersIn, turned, usual }: Around,
): Done {
  const row = actRow(act.act)
  const hindrances: Hindrance[] = []
  const holding = SIDES.filter((side) => before.hands[side])
  const [only] = holding
  if (!row.kinds.includes(prop.kind)) hindrances.push({ why: 'kind' })
  const hand = handOf(act, row.hands, holding) ?? (row.hands === 'free' ? usual : undefined)
  if (row.hands === 'free' && hand) {
    const holds = before.hands[hand] ? prop.name : othersIn(hand)
    if (holds !== undefined) hindrances.push({ why: 'full', hand, holds })
  }
  if (row.hands === 'held') {
    if (act.hand && !before.hands[act.hand]) hindrances.push({ why: 'empty', hand: act.hand })
    else if (!only && !isWorn(before, prop)) hindrances.push({ why: 'empty' })
  }
  const needsBoth = row.hands === 'both' && (isCloth(prop.kind) || act.act !== 'slide')
  if (needsBoth && holding.length < 2) hindrances.push({ why: 'two-hands' })
  else if (act.act === 'slide' && act.hand && !before.hands[act.hand])
    hindrances.push({ why: 'empty', hand: act.hand })
  const opens = (act.act === 'open' || act.act === 'close') && prop.kind === 'veil'
  if (opens && holding.length < 2) hindrances.push({ why: 'two-hands' })
  if (row.from && !row.from.includes(before.drape))
    hindrances.push({ why: 'drape', is: before.drape, from: row.from })
  if (row.ready && !before.ready.includes(row.ready))
    hindrances.push({ why: 'unready', ready: row.ready })
  const winds = act.act === 'roll-in' || act.act === 'unroll'
  if (winds && Math.abs(turned) < 90) hindrances.push({ why: 'no-turn' })
  const ready = before.ready.filter((word) => word !== row.ready)
  const after = {
    ...before,
    ready,
    ...changeOf(act, prop, before, { hand, othersIn, turned, usual }),
  }
  return { after, hindrances, hand }
}

/** What stands in the way of doing something with a thing as it is held, whatever else is in the hands. */
export const hindrancesTo = (act: PropAct, prop: Prop, carried: Carried): readonly Hindrance[] =>
  done(act, prop, carried, { othersIn: () => undefined, turned: 180, usual: 'R' }).hindrances

/** Worn things are there without a hand. */
const isWorn = ({ drape }: Carried, { kind }: Prop): boolean =>
  kind === 'skirt' || drape === 'shoulders' || drape === 'head' || drape.startsWith('wrap')

/** The hand that does something: as it is said, or the only one that can. */
function handOf(
  { hand }: PropAct,
  hands: ReturnType<typeof actRow>['hands'],
  holding: readonly Side[],
): Side | undefined {
  if (hand) return hand
  const [only] = holding
  switch (hands) {
    case 'free':
      return holding.length === 1 && only ? otherSide[only] : undefined
    case 'held':
      return holding.length === 1 ? only : undefined
    case 'both':
    case 'any':
      return undefined
  }
}

interface Doing extends Around {
  readonly hand: Side | undefined
}

/** What changes of how a thing is held. */
function changeOf(
  { act, to, ready, hand: said }: PropAct,
  prop: Prop,
  before: Carried,
  { hand, turned, usual }: Doing,
): Partial<Carried> {
  const { hands, drape } = before
  const isOneHand = said ?? hand ?? usual
  switch (act) {
    case 'take':
    case 'catch': {
      if (!hand) return {}
      const on: OnProp = { at: [featureFor(prop, to, hand)], grip: usualGrip(prop.kind) }
      const isDown = drape === 'air' || drape === 'floor'
      const now = prop.kind === 'veil' ? 'front' : 'none'
      return { hands: { ...hands, [hand]: on }, ...(isDown && { drape: now }) }
    }
    case 'let-go':
    case 'throw': {
      // Where nobody says a hand, all that hold it let it go.
      const left = said ? without(hands, said) : {}
      const isFree = !left.R && !left.L
      const gone = to && !isFeature(to) ? to : act === 'throw' ? 'air' : 'floor'
      return { hands: left, ...(isFree && !isWorn(before, prop) && { drape: gone }) }
    }
    case 'pass': {
      const own = isOneHand && hands[isOneHand]
      if (!isOneHand || !own) return {}
      const other = otherSide[isOneHand]
      const there = hands[other]
      const at = there ? [...there.at, ...own.at].slice(0, 2) : own.at
      return { hands: { [other]: { at, grip: at.length > 1 ? 'split' : own.grip } } }
    }
    case 'split': {
      const own = isOneHand && hands[isOneHand]
      const [first, second] = own ? own.at : []
      if (!isOneHand || !own || !first || !second) return {}
      return {
        hands: {
          [isOneHand]: { at: [first], grip: usualGrip(prop.kind) },
          [otherSide[isOneHand]]: { at: [second], grip: usualGrip(prop.kind) },
        },
      }
    }
    case 'slide': {
      const one = said ?? usual
      const on = hands[one]
      if (!on || !to || !isFeature(to)) return {}
      return { hands: { ...hands, [one]: { ...on, at: [to] } } }
    }
    case 'open':
      return { open: true }
    case 'close':
      return { open: false }
    case 'over':
      return { drape: drapeTo(to) ?? (drape === 'front' ? 'behind' : 'front') }
    case 'under':
      return { drape: drapeTo(to) ?? (drape === 'overhead' ? 'front' : 'overhead') }
    case 'frame':
      return { drape: 'frame' }
    case 'drape':
      return { drape: drapeTo(to) ?? 'shoulders' }
    case 'roll-in':
      return {
        drape: `wrap-${said ?? (turned === 0 ? usual : turned < 0 ? 'L' : 'R')}`,
        wound: Math.min(8, before.wound + halfTurns(turned)),
      }
    case 'unroll': {
      const left = Math.max(0, before.wound - halfTurns(turned))
      return { wound: left, ...(left === 0 && { drape: drapeTo(to) ?? 'behind' }) }
    }
    case 'ready':
      return ready === undefined ? {} : { ready: [...new Set([...before.ready, ready])] }
    case 'carry':
    case 'round':
    case 'swish':
    case 'strike':
      return drapeTo(to) ? { drape: drapeTo(to) as Drape } : {}
  }
}

const halfTurns = (degrees: number): number => Math.max(1, Math.round(Math.abs(degrees) / 180))

const drapeTo = (to: PropAct['to']): Drape | undefined => (to && !isFeature(to) ? to : undefined)

const without = (hands: Carried['hands'], hand: Side | undefined): Carried['hands'] => {
  const { R, L } = hands
  return { ...(hand !== 'R' && R && { R }), ...(hand !== 'L' && L && { L }) }
}

/** Where a hand takes a thing that nobody said: at its own side. */
function featureFor({ kind }: Prop, to: PropAct['to'], hand: Side): Feature {
  if (to && isFeature(to)) return to
  const all = FEATURES_OF[kind]
  return all.find((one) => one.endsWith(`-${hand}`)) ?? all[0] ?? 'middle'
}
