import type { Side } from '../body/side'

/** The one word for what is written in several ways. */
export const SAME: ReadonlyMap<string, string> = new Map(
  Object.entries({
    right: 'R',
    rt: 'R',
    r: 'R',
    left: 'L',
    lt: 'L',
    l: 'L',
    fwd: 'forward',
    fw: 'forward',
    forwards: 'forward',
    ahead: 'forward',
    front: 'forward',
    bk: 'back',
    bwd: 'back',
    backward: 'back',
    backwards: 'back',
    sideways: 'side',
    out: 'side',
    together: 'together',
    tog: 'together',
    next: 'together',
    beside: 'together',
    inplace: 'in-place',
    place: 'in-place',
    spot: 'in-place',
    clockwise: 'cw',
    anticlockwise: 'ccw',
    counterclockwise: 'ccw',
    tiny: 'small',
    little: 'small',
    sm: 'small',
    big: 'large',
    wide: 'large',
    lg: 'large',
    tap: 'touch',
    taps: 'touch',
    pt: 'touch',
    point: 'touch',
    pause: 'hold',
    freeze: 'hold',
    wait: 'hold',
    rest: 'hold',
    stop: 'hold',
    stay: 'hold',
    dig: 'touch',
    march: 'step',
    tread: 'step',
  }),
)

/** Words that say nothing of their own. */
export const FILLERS: ReadonlySet<string> = new Set(
  'a an the to of your with foot feet leg in on at into then and from it its this that do go onto up little bit slow slowly soft softly gently nice again each both'.split(
    ' ',
  ),
)

/** Ways a step goes. */
export const DIRECTIONS: ReadonlySet<string> = new Set([
  'forward',
  'back',
  'side',
  'together',
  'in-place',
])
/** Words of a single step. */
export const STEPS: ReadonlySet<string> = new Set([
  'step',
  'touch',
  'kick',
  'hold',
  'close',
  'hop',
  'leap',
  'jump',
  'stamp',
  'brush',
  'sway',
  'lift',
  'centre',
  'bend',
  'straighten',
  'rise',
  'lower',
  'press',
  'recover',
  'pivot',
  'low',
])

export const isSide = (word: string): word is Side => word === 'R' || word === 'L'

/** A word without its plural. */
export const single = (word: string): string =>
  word.length > 3 && /[^s]s$/.test(word) ? word.replace(/(?<=[sx]|ch|sh)es$|s$/, '') : word

/** The words of a text, turns in degrees. */
export const wordsOf = (text: string): readonly string[] =>
  text
    .toLowerCase()
    .replace(
      /\b(half|quarter|full|three[- ]quarter)[- ]?turn\b/g,
      (_, part: string) => `turn ${PART_TURNS[part.replace(/ /g, '-')] ?? 180}`,
    )
    .replace(/1\/2 turn/g, 'turn 180')
    .replace(/1\/4 turn/g, 'turn 90')
    .replace(/3\/4 turn/g, 'turn 270')
    .replace(/in place|on the spot/g, 'inplace')
    .split(/[\s,]+/)
    .map((word) => word.replace(/^[^\p{L}\p{N}ʻ']+|[^\p{L}\p{N}%°]+$/gu, ''))
    .filter(Boolean)

const PART_TURNS: Readonly<Record<string, number>> = {
  half: 180,
  quarter: 90,
  full: 360,
  'three-quarter': 270,
}

/** The sides and the way round that some words say, and the words that name something. */
export interface Sorted {
  readonly sides: readonly Side[]
  readonly way: string | undefined
  readonly names: readonly string[]
}

export function sorted(words: readonly string[]): Sorted {
  const same = words.map((word) => SAME.get(word) ?? word)
  const sides = same.filter(isSide)
  const isTold = (word: string) =>
    isSide(word) || word === 'cw' || word === 'ccw' || FILLERS.has(word)
  return {
    sides,
    way: same.find((word) => word === 'cw' || word === 'ccw'),
    names: words.filter((word) => !isTold(SAME.get(word) ?? word)).map(single),
  }
}
