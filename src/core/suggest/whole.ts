import type { Layer } from '../body/layers'
import { capital } from '../capital'
import type { Combination } from '../combination/combination'
import type { House } from '../house/house'
import type { Family } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import type { PassWish } from './asked'
import { type Filling, waysToFill } from './fill'

/**
 * What goes on the feet of a phrase, by family: what the family is known by first (h). The head, and
 * what nothing is said of, rest.
 */
const OVER_FEET: Readonly<Partial<Record<Family, readonly Layer[]>>> = {
  belly: ['hips', 'arms'],
  bollywood: ['arms', 'torso'],
  polynesian: ['hips', 'arms'],
  latin: ['hips', 'arms'],
}
const USUAL: readonly Layer[] = ['hips', 'arms']
/** Ways to fill a layer of which one is taken. */
const TO_CHOOSE = 3

/**
 * Whole phrases for a pass whose phrase is empty: feet of figures that end as asked, and on them what
 * the family is known by. Where one new thing is asked for, each proposal has it on another layer.
 */
export function wholePhrases(
  combination: Combination,
  wish: PassWish,
  base: Vocabulary,
  house: House,
): readonly Filling[] {
  const family = combination.families.find((one) => OVER_FEET[one as Family])
  const over = OVER_FEET[family as Family] ?? USUAL
  const layers: readonly Layer[] = ['feet', ...over]
  const isNew = (layer: Layer, i: number) => layers[(wish.seed + i) % layers.length] === layer
  const known = wish.group && { ...wish, group: { ...wish.group, news: 0 as const } }
  const feet = (asked: PassWish, most?: number) =>
    waysToFill(combination, { ...asked, layer: 'feet' }, base, house, most)
  const onFeet = feet(known ?? wish)
  const newOnFeet = wish.group?.news ? feet(wish, 2) : []
  const taken = new Set<string>()
  const isAsked = ({ things }: Filling) => {
    const known = new Set(wish.group?.known)
    const news = new Set(things.filter((key) => !known.has(key)))
    return !wish.group || news.size === wish.group.news
  }
  const withLayer = (made: Filling, layer: Layer, i: number): Filling => {
    const asked = isNew(layer, i) ? wish : (known ?? wish)
    // Its end is the feet's.
    const own = { ...asked, end: undefined, layer, seed: wish.seed + 31 * i }
    // What an earlier proposal is made of is for that one.
    const ways = waysToFill(made.combination, own, base, house, TO_CHOOSE)
    const filled = ways.find(({ things }) => !things.some((key) => taken.has(key))) ?? ways[0]
    if (!filled) return made
    for (const key of filled.things) taken.add(key)
    return {
      ...made,
      reason: `${made.reason}. ${capital(layer)}: ${filled.names.join(', ')} (${filled.shape})`,
      returns: made.returns || filled.returns,
      things: [...made.things, ...filled.things],
      combination: filled.combination,
    }
  }
  const made = onFeet.flatMap((plain, i): readonly Filling[] => {
    const isOfFeet = wish.group?.news && isNew('feet', i)
    let now = isOfFeet ? newOnFeet[i % Math.max(1, newOnFeet.length)] : plain
    if (!now) return []
    for (const layer of over) now = withLayer(now, layer, i)
    return [now]
  })
  return made.filter(isAsked)
}
