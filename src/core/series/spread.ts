/** Something to be taught in one go, in the order it is taught. */
export interface SpreadUnit {
  readonly id: string
  readonly seconds: number
  /** How hard it is, in any measure: only shares of it count. */
  readonly load: number
  /** Seconds it takes to dance what it teaches once, on its sides. */
  readonly run: number
  /** It goes on in the next one: the feet of a phrase. */
  readonly isHalf?: boolean
}

/** A class that is still to come. */
export interface SpreadClass {
  readonly id: string
  /** Whole seconds of the class, and what is not teaching of it: beginning, pauses, end. */
  readonly seconds: number
  readonly fixed: number
  /** Its place in the series, from 0, those that are over among them. */
  readonly index: number
}

export interface Spreading {
  readonly units: readonly SpreadUnit[]
  readonly classes: readonly SpreadClass[]
  /** Classes of the whole series. */
  readonly of: number
  /** Seconds that were taught before, and what of it is danced once. */
  readonly before: { readonly seconds: number; readonly run: number }
  /** Units that stay in a class. */
  readonly locks: ReadonlyMap<string, string>
  /** The class each was in before. */
  readonly last: ReadonlyMap<string, string>
}

/** What a class has room for, in seconds. */
export interface ClassRoom {
  readonly id: string
  readonly review: number
  readonly run: number
  /** What could be new in it. */
  readonly room: number
  /** Units that are new in it, in order. */
  readonly units: readonly string[]
}

export interface Spread {
  readonly classes: readonly ClassRoom[]
  /** What has no room, in order. */
  readonly left: readonly string[]
}

/** House figures: a review is a share of what was taught, no more than a share of the class, longer in each third one. */
const REVIEW = { base: 120, share: 0.09, most: 0.3, third: 1.4 }
/** A run of all so far is by itself in the first classes, later within the review. */
const RUN_CLASSES = 3
/** What a split and a move cost, against minutes squared (h). */
const SPLIT = 4
const MOVED = 9

/** Nothing is new in the last two classes of a series, or in the last of a short one. */
const closedAt = (of: number): number => of - (of <= 4 ? 1 : 2)
/** Every third class goes over what there is. */
const isThird = (index: number): boolean => index % 3 === 2

/** A place in the search: what it costs from here on, and how many units are taught once this class is over. */
interface Best {
  readonly cost: number
  readonly to: number
}

/**
 * Shares units out over classes: in their order, each whole in one class, as evenly as it goes, and
 * with as few moved as that allows. All ways there are, are compared. Where not all fit, the classes
 * that only go over what there is are opened first, then the last units are left.
 */
export function spread(spreading: Spreading): Spread {
  const { units } = spreading
  for (let many = units.length; many >= 0; many--) {
    const found =
      (many === units.length ? search(spreading, many, false) : undefined) ??
      search(spreading, many, true)
    if (found) return { classes: found, left: units.slice(many).map(({ id }) => id) }
  }
  throw new Error('nothing is always possible')
}

const sums = (units: readonly SpreadUnit[], of: 'seconds' | 'load' | 'run'): readonly number[] => {
  let sum = 0
  return [0, ...units.map((unit) => (sum += unit[of]))]
}

/** @param many only so many units, the first ones @param isOpen whether the third classes take any */
function search(
  { units, classes, of, locks, last, before }: Spreading,
  many: number,
  isOpen: boolean,
): readonly ClassRoom[] | undefined {
  const [seconds, load, run] = [sums(units, 'seconds'), sums(units, 'load'), sums(units, 'run')]
  const at = (list: readonly number[], i: number) => list[i] ?? 0
  const takes = ({ index }: SpreadClass) => index < closedAt(of) && (isOpen || !isThird(index))
  const allowed = classes.filter(takes).length
  const all = at(seconds, many) / 60
  const even = all / Math.max(1, allowed)
  // A load in minutes, so that both weigh the same.
  const perLoad = all / Math.max(1e-9, at(load, many))
  const places = new Map(classes.map(({ id }, i) => [id, i]))
  /** Seconds of a class for what is new, once so many units are taught. */
  const roomOf = ({ seconds: own, fixed, index }: SpreadClass, taught: number) => {
    const known = before.seconds + at(seconds, taught)
    const wanted = known === 0 ? 0 : REVIEW.base + REVIEW.share * known
    const review = Math.min(REVIEW.most * own, wanted) * (isThird(index) ? REVIEW.third : 1)
    const runs = index < RUN_CLASSES ? before.run + at(run, taught) : 0
    return { review, run: runs, room: Math.max(0, own - fixed - review - runs) }
  }
  /** What a class costs that teaches these; Infinity where it can't. */
  const costOf = (one: SpreadClass, from: number, to: number): number => {
    const own = units.slice(from, to)
    if (own.some(({ id }) => locks.has(id) && locks.get(id) !== one.id)) return Infinity
    if (!takes(one)) return own.every(({ id }) => locks.get(id) === one.id) ? 0 : Infinity
    const minutes = (at(seconds, to) - at(seconds, from)) / 60
    const loads = (at(load, to) - at(load, from)) * perLoad
    const moved = own.filter(({ id }) => last.has(id) && last.get(id) !== one.id).length
    const isSplit = to > from && to < many && units[to - 1]?.isHalf === true
    return (minutes - even) ** 2 + (loads - even) ** 2 + (isSplit ? SPLIT : 0) + MOVED * moved
  }
  const known = new Map<number, Best | undefined>()
  const best = (place: number, from: number): Best | undefined => {
    const one = classes[place]
    if (!one) return from === many ? { cost: 0, to: from } : undefined
    // Who was to be taught in a class that is over now has missed it.
    const lock = locks.get(units[from]?.id ?? '')
    if (from < many && lock !== undefined && (places.get(lock) ?? place) < place) return undefined
    const key = place * (many + 1) + from
    if (known.has(key)) return known.get(key)
    const { room } = roomOf(one, from)
    let found: Best | undefined
    // Of two that cost the same the one that teaches earlier.
    for (let to = many; to >= from; to--) {
      if (at(seconds, to) - at(seconds, from) > room + 1e-6) continue
      const own = costOf(one, from, to)
      const rest = own === Infinity ? undefined : best(place + 1, to)
      if (rest && (!found || own + rest.cost < found.cost - 1e-9))
        found = { cost: own + rest.cost, to }
    }
    known.set(key, found)
    return found
  }
  if (!best(0, 0)) return undefined
  let from = 0
  return classes.map((one, place) => {
    const to = best(place, from)?.to ?? from
    const own = {
      id: one.id,
      ...roomOf(one, from),
      units: units.slice(from, to).map(({ id }) => id),
    }
    from = to
    return own
  })
}
