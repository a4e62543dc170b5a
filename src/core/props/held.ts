import { SIDES, sideWord } from '../body/side'
import type { Carried, Feature, Prop } from '../combination/carried'
import type { Simulation } from '../simulate/simulate'
import { type DoneAct, followProps } from './follow'

/** What changes hands at once; all else is as it was until it is done. */
const AT_ONCE: ReadonlySet<string> = new Set(['let-go', 'take', 'catch', 'throw', 'ready'])

/** How each thing is held at a tick, with what is done then still on its way. */
export function heldAt(
  simulation: Simulation,
  tick: number,
): readonly (readonly [Prop, Carried])[] {
  const { combination } = simulation
  const { acts } = followProps(simulation)
  return (combination.carried ?? []).map((prop) => {
    const last = acts.findLast(
      (one) => one.prop.id === prop.id && (isAtOnce(one) ? one.from : one.until) <= tick,
    )
    return [prop, last?.after ?? prop.start] as const
  })
}

export const isAtOnce = ({ act }: DoneAct): boolean => AT_ONCE.has(act.act)

/** Places of a thing, as they are said. */
export const FEATURE_WORDS: Readonly<Record<Feature, string>> = {
  'top-R': 'upper right corner',
  'top-L': 'upper left corner',
  'bottom-R': 'lower right corner',
  'bottom-L': 'lower left corner',
  top: 'middle of the upper edge',
  bottom: 'middle of the lower edge',
  'side-R': 'right edge',
  'side-L': 'left edge',
  'hem-R': 'hem on the right',
  'hem-L': 'hem on the left',
  end: 'end',
  middle: 'middle',
  tip: 'other end',
  handle: 'handle',
}

/** Where a cloth is, as it is said; in the hands where nothing is said. */
export const DRAPE_WORDS: Readonly<Record<Carried['drape'], string>> = {
  none: '',
  shoulders: 'round the shoulders',
  behind: 'behind',
  front: 'in front',
  overhead: 'over the head',
  frame: 'as a frame',
  'wrap-R': 'round the right',
  'wrap-L': 'round the left',
  head: 'on the head',
  air: 'in the air',
  floor: 'on the floor',
}

/** Where a cloth is, in a word or two: `behind`, `as a frame, closed`. */
export const placeWords = ({ drape, open }: Carried): string =>
  [DRAPE_WORDS[drape], !open && 'closed'].filter(Boolean).join(', ')

/** How a thing is held, in words: `behind, both hands on it`. */
export function heldWords(carried: Carried): string {
  const { hands } = carried
  const held = SIDES.filter((side) => hands[side])
  const by =
    held.length === 2
      ? 'both hands on it'
      : held[0]
        ? `the ${sideWord[held[0]]} hand on it`
        : 'no hand on it'
  return [placeWords(carried), by].filter(Boolean).join(', ')
}

/** Whether two are held alike: the same hands at the same places, and the cloth at the same one. */
export const isHeldAlike = (a: Carried, b: Carried): boolean =>
  a.drape === b.drape &&
  a.open === b.open &&
  a.wound === b.wound &&
  SIDES.every(
    (side) =>
      [...(a.hands[side]?.at ?? [])].sort().join() === [...(b.hands[side]?.at ?? [])].sort().join(),
  )
