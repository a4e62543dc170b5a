import { type FootAction, factsOf, mirrorFootAction } from '../body/feet'
import { SIDES, type Side } from '../body/side'
import type { Settling } from '../simulate/settling'
import { byPrice, type StepEdit } from './feetEdit'
import type { Option, Place } from './phraseOptions'
import { FALLEN, type Stance, type Stances } from './stances'

/** How a phrase is come into: the stance, the side it is danced from, and which of its ticks are danced. */
export interface Entry {
  readonly stance: Stance
  readonly mirrored: boolean
  /** Only whether its first step can be danced is asked: the opening of what follows. */
  readonly opening: boolean
  /** From this tick on, up to but not with that one: pickups and what they take the place of. */
  readonly from: number
  readonly to: number
}

/** In place of a stance: the first step has been danced without a fault. */
export const OPENED: Stance = -2

export const keyOfEntry = ({ stance, mirrored, opening, from, to }: Entry): string =>
  `${stance}${mirrored ? 'm' : ''}${opening ? 'o' : ''}${from},${to}`

/** One way to change a phrase, and where it leads from every entry. */
export interface Behaviour {
  /** In hundredths. */
  readonly cost: number
  readonly edits: readonly StepEdit[]
  /** The last place it changes. */
  readonly late: number
  readonly ends: readonly Stance[]
  /** The tick of its first step; none where nothing is danced. */
  readonly first: number | undefined
}

/** The places of a phrase, and where the weight settles in it. */
export interface PhrasePlaces {
  readonly places: readonly Place[]
  readonly settling: Settling
  /** Ticks of the phrase. */
  readonly end: number
}

interface Taking {
  readonly stances: Stances
  readonly close: Closeness
  readonly openFrom: number
  readonly settling: Settling
}

/** One step as it is taken. */
interface Taken {
  readonly at: number
  readonly action: FootAction
  readonly kept: boolean
  readonly settles: boolean
}

/** Where a phrase is danced to its end, the weight may have settled there. */
const settledAtEnd = (way: Way, entries: readonly Entry[], { settled }: Stances): Way => ({
  ...way,
  ends: way.ends.map((stance, i) =>
    stance < 0 || entries[i]?.opening || Number.isFinite(entries[i]?.to) ? stance : settled(stance),
  ),
})

interface Way extends Behaviour {
  /** When each foot last landed, and whether an edit made it. */
  readonly landed: Readonly<Record<Side, Landed>>
  /** When the feet did something last. */
  readonly last: number
}
interface Landed {
  readonly at: number
  readonly edited: boolean
}

const NEVER: Landed = { at: Number.NEGATIVE_INFINITY, edited: false }

/** How close landings may come, in ticks. */
export interface Closeness {
  readonly sameFoot: number
  readonly eitherFoot: number
}

/** How many equally ending ways are kept: enough for the three that are shown. */
const MOST_WAYS = 6

/**
 * All ways to change a phrase that matter, by dynamic programming over its places: of those
 * that leave every entry in the same stance only the cheapest are kept, and none that only
 * adds to another.
 */
export function behavioursOf(
  { places, settling, end }: PhrasePlaces,
  entries: readonly Entry[],
  stances: Stances,
  close: Closeness,
): readonly Behaviour[] {
  let ways: readonly Way[] = [
    {
      cost: 0,
      late: 0,
      edits: [],
      ends: entries.map(({ stance }) => stance),
      first: undefined,
      landed: { R: NEVER, L: NEVER },
      last: 0,
    },
  ]
  const window = Math.max(close.sameFoot, close.eitherFoot)
  const openFrom = entries.find(({ opening }) => opening)?.from ?? 0
  for (const { at, options } of places) {
    const next = new Map<string, Way[]>()
    for (const way of ways)
      for (const option of options) {
        const taken = take(way, option, entries, { stances, close, openFrom, settling })
        if (!taken) continue
        const key = `${wayKey(taken, at, window)}${settling.anywhere ? taken.last : ''}`
        const same = next.get(key)
        if (same) keepBest(same, taken)
        else next.set(key, [taken])
      }
    ways = [...next.values()].flat()
  }
  const byEnds = new Map<string, Way[]>()
  for (const one of ways) {
    const way = settling.between(one.last, end) ? settledAtEnd(one, entries, stances) : one
    const key = way.ends.join()
    const same = byEnds.get(key)
    if (same) keepBest(same, way)
    else byEnds.set(key, [way])
  }
  return [...byEnds.values()].flat().sort(byPrice)
}

function keepBest(same: Way[], way: Way): void {
  const has = (all: Way, some: Way) =>
    some.edits.length <= all.edits.length && some.edits.every((edit) => all.edits.includes(edit))
  if (same.some((other) => has(way, other))) return
  for (let i = same.length - 1; i >= 0; i--) if (has(same[i] as Way, way)) same.splice(i, 1)
  const place = same.findIndex((other) => byPrice(way, other) < 0)
  same.splice(place < 0 ? same.length : place, 0, way)
  if (same.length > MOST_WAYS) same.pop()
}

function wayKey({ ends, landed, first }: Way, at: number, window: number): string {
  let key = `${ends.join()};${first ?? ''}`
  for (const side of SIDES) {
    const { at: when, edited } = landed[side]
    // What is long past makes no difference to what may follow.
    key += at - when > window + 12 ? ';' : `;${when}${edited ? 'e' : ''}`
  }
  return key
}

function take(
  way: Way,
  option: Option,
  entries: readonly Entry[],
  { stances, close, openFrom, settling }: Taking,
): Way | undefined {
  const { steps, edit, cost, kept } = option
  if (steps.length === 0) return way
  let { ends, landed, first, last } = way
  for (const { at, action } of steps) {
    const now = landedBy(action, at, edit !== undefined, landed, close)
    if (!now) return undefined
    landed = now
    if (at >= openFrom) first ??= at
    const settles = settling.between(last, at)
    ends = danceAll(ends, { at, action, kept, settles }, first, entries, stances)
    if (!factsOf(action.primitive).levelOnly) last = at
  }
  if (ends.every((stance) => stance === FALLEN)) return undefined
  if (!edit) return { ...way, ends, landed, first, last }
  return {
    cost: way.cost + cost,
    late: Math.max(way.late, edit.at),
    edits: [...way.edits, edit],
    ends,
    landed,
    first,
    last,
  }
}

function danceAll(
  ends: readonly Stance[],
  { at, action, kept, settles }: Taken,
  first: number | undefined,
  entries: readonly Entry[],
  stances: Stances,
): readonly Stance[] {
  const mirrored = kept ? action : mirroredAction(action)
  return ends.map((stance, i) => {
    const entry = entries[i]
    if (stance < 0 || !entry || at < entry.from || at >= entry.to) return stance
    if (entry.opening && first !== undefined && at > first) return OPENED
    return stances.after(stance, entry.mirrored ? mirrored : action, settles)
  })
}

const mirrors = new WeakMap<FootAction, FootAction>()
function mirroredAction(action: FootAction): FootAction {
  const known = mirrors.get(action)
  if (known) return known
  const made = mirrorFootAction(action)
  mirrors.set(action, made)
  return made
}

/** The landings with this one; undefined where an edit would put two too close. */
function landedBy(
  { primitive, foot }: FootAction,
  at: number,
  edited: boolean,
  landed: Way['landed'],
  close: Closeness,
): Way['landed'] | undefined {
  if (!factsOf(primitive).lands) return landed
  const now = { at, edited }
  const feet = foot ? [foot] : SIDES
  for (const side of SIDES) {
    const before = landed[side]
    const least = feet.includes(side) ? close.sameFoot : close.eitherFoot
    if ((edited || before.edited) && at - before.at < least) return undefined
  }
  if (!foot) return { R: now, L: now }
  return foot === 'R' ? { R: now, L: landed.L } : { R: landed.R, L: now }
}
