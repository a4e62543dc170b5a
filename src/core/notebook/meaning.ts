import { distance } from 'fastest-levenshtein'
import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { dictionaryOf, nearest, squashed } from '../entry/names'
import { EntryProblem } from '../entry/reader'
import type { Vocabulary } from '../moves/vocabulary'
import { readEntry, type WrittenEvent } from '../sheet/entry'
import { dancedText } from '../sheet/writeSheet'
import { SEVERAL } from './ambiguous'

/** Something a phrase of words can mean. */
export interface Meaning {
  readonly layer: Layer
  /** What is danced, as the sheet has it: `hip-drop R`. */
  readonly text: string
  readonly event: WrittenEvent['event']
}

/** What some words mean: one thing, or several to choose from; and how sure that is. */
export interface Meant {
  readonly meanings: readonly Meaning[]
  /** Some words were left over, or were written otherwise. */
  readonly isUnsure: boolean
  /** It stands as the sheet has it. */
  readonly isExact?: boolean
}

export interface MeaningPlace {
  readonly layer: Layer | undefined
  readonly lead: Side
  readonly vocabulary: Vocabulary
}

/** How often somebody may be asked which one is meant. */
const MOST = 4

/** Layers in the order words are tried on them. */
const TRIED: readonly Layer[] = ['feet', 'hips', 'torso', 'arms', 'head', 'legs']

const SAME: ReadonlyMap<string, string> = new Map(
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
const FILLERS: ReadonlySet<string> = new Set(
  'a an the to of your with foot feet leg in on at into then and from it its this that do go onto up little bit slow slowly soft softly gently nice again each both'.split(
    ' ',
  ),
)

const DIRECTIONS: ReadonlySet<string> = new Set(['forward', 'back', 'side', 'together', 'in-place'])
const STEPS: ReadonlySet<string> = new Set([
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

const isSide = (word: string): word is Side => word === 'R' || word === 'L'

/** A word without its plural. */
const single = (word: string): string =>
  word.length > 3 && /[^s]s$/.test(word) ? word.replace(/(?<=[sx]|ch|sh)es$|s$/, '') : word

/** What is danced, read by the sheet's own reader; undefined where that is not understood. */
function read(text: string, layer: Layer, { lead, vocabulary }: MeaningPlace): Meaning | undefined {
  try {
    const [written, ...more] = readEntry(`1 ${text}`, { layer, lead, vocabulary, counts: 16 })
    if (!written || more.length > 0) return undefined
    const { event, open } = written
    // A foot that was left out is found when all of it is danced.
    const said = open ? text : dancedText({ ...event, id: '' }, vocabulary, { counts: 16 })
    return { layer, text: said, event }
  } catch (problem) {
    if (problem instanceof EntryProblem) return undefined
    throw problem
  }
}

/** What some words mean that say one thing that is danced; nothing where nobody knows. */
export function meantBy(typed: string, place: MeaningPlace): Meant | undefined {
  const text = typed.trim().replace(/[.!]+$/, '')
  if (text === '') return undefined
  const words = wordsOf(text)
  const several = severalOf(words, place)
  if (several) return { meanings: several, isUnsure: false }
  const layers = place.layer ? [place.layer] : TRIED
  for (const layer of layers) {
    // “Step right” goes to the right; on a sheet it only says which foot.
    const isStep = layer === 'feet' && /^(?:step|walk) (?:right|left)$/.test(words.join(' '))
    const exact = isStep ? undefined : read(text, layer, place)
    if (exact) return { meanings: [exact], isUnsure: false, isExact: true }
  }
  for (const layer of layers) {
    const made = ownWordsOf(words, layer, place)
    if (made) return made
  }
  const named = namedIn(words, layers, place)
  if (named && !named.isUnsure) return named
  // On the hips line a drop is a hip drop.
  const own =
    place.layer && LAYER_WORDS[place.layer].map((word) => namedIn([word, ...words], layers, place))
  const meant = own?.find((one) => one && !one.isUnsure)
  if (meant) return meant
  const step = stepIn(words, layers, place)
  if (step && !step.isUnsure) return step
  const near = corrected(words, place) ?? spelled(words, layers, place)
  // A slip of the pen in the name of a figure looks like a step with a strange word.
  if (step && near)
    return { meanings: [...near.meanings, ...step.meanings].slice(0, MOST), isUnsure: true }
  return step ?? named ?? containing(words, layers, place) ?? near
}

const wordsOf = (text: string): readonly string[] =>
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

/** Sides, ways and sizes of some words, and the words that name something. */
function sorted(words: readonly string[]) {
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

/** A name that means several moves, each on the side that is said. */
function severalOf(words: readonly string[], place: MeaningPlace): readonly Meaning[] | undefined {
  const { sides, way, names } = sorted(words)
  const ids = SEVERAL.get(names.join(' '))
  if (!ids) return undefined
  const meanings = ids.flatMap((id) => {
    const move = place.vocabulary.find(id)
    if (!move || (place.layer && move.layer !== place.layer)) return []
    const side = move.sided === 'side' ? (sides[0] ?? place.lead) : undefined
    return (
      read(
        [id, move.sided === 'direction' ? way : side].filter(Boolean).join(' '),
        move.layer,
        place,
      ) ?? []
    )
  })
  return meanings.length > 0 ? meanings.slice(0, MOST) : undefined
}

/** Places of the arms, looks, and where the hips are: words that need no move. */
function ownWordsOf(
  words: readonly string[],
  layer: Layer,
  place: MeaningPlace,
): Meant | undefined {
  const same = words.map((word) => SAME.get(word) ?? word)
  const rest = (out: ReadonlySet<string>) => same.filter((word) => !out.has(word) && !isSide(word))
  const side = same.find(isSide)
  const first = (texts: readonly string[]): Meant | undefined => {
    for (const text of texts) {
      const found = read(text, layer, place)
      if (found) return { meanings: [found], isUnsure: false }
    }
    return undefined
  }
  if (layer === 'arms') {
    const out = new Set([
      'arm',
      'arms',
      'hand',
      'hands',
      'both',
      'in',
      'on',
      'to',
      'at',
      'the',
      'into',
      'go',
    ])
    const name = rest(out)
      .map((word) => (word === 'forward' ? 'front' : word))
      .join(' ')
    const isOf =
      words.some((word) => /^(?:arms?|hands?|both)$/.test(word)) || place.layer === 'arms'
    if (name === '' || !isOf) return undefined
    const who = side ?? 'both'
    const up = name === 'up' ? 'high-v' : name === 'down' ? 'low' : name
    return first([`${who} ${up}`, `${who} ${up.replace(/s$/, '')}`])
  }
  if (layer === 'head') {
    const isLook =
      words.some((word) => /^(?:look|looks|head|eyes|gaze)$/.test(word)) || place.layer === 'head'
    if (!isLook) return undefined
    const out = new Set([
      'look',
      'looks',
      'head',
      'eye',
      'eyes',
      'gaze',
      'to',
      'the',
      'at',
      'shoulder',
      'your',
      'and',
      'turn',
    ])
    const name = rest(out)
      .map((word) => (word === 'forward' ? 'front' : word))
      .join(' ')
    return first([
      ['look', name, side].filter(Boolean).join(' '),
      ['look', side, name].filter(Boolean).join(' '),
    ])
  }
  return undefined
}

/** The longest name of a move that stands in the words, and how the others tell it apart. */
function namedIn(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  let best: { readonly meaning: Meaning; readonly left: number; readonly taken: number } | undefined
  for (const layer of layers) {
    const { ids, longest } = dictionaryOf(place.vocabulary, layer)
    for (let size = Math.min(words.length, longest); size >= 1; size--)
      for (let i = 0; i + size <= words.length; i++) {
        const window = words.slice(i, i + size)
        const found = [window, window.map(single), window.map((word) => SAME.get(word) ?? word)]
          .map((one) => ids.get(squashed(one.join(' '))))
          .find((one) => one !== undefined)
        const move = found === undefined ? undefined : place.vocabulary.find(found)
        if (
          !move ||
          (size === 1 &&
            (FILLERS.has(window[0] ?? '') || STEPS.has(SAME.get(window[0] ?? '') ?? '')))
        )
          continue
        const { sides, way, names } = sorted(words.filter((_, at) => at < i || at >= i + size))
        const told =
          move.sided === 'side'
            ? (sides[0] ?? place.lead)
            : move.sided === 'direction'
              ? way
              : undefined
        const meaning = read([move.id, told].filter(Boolean).join(' '), layer, place)
        const left = names.filter((word) => !saysLayer(word, layer)).length
        if (meaning && (!best || size > best.taken || (size === best.taken && left < best.left)))
          best = { meaning, left, taken: size }
      }
  }
  if (!best || best.left > 2) return undefined
  return { meanings: [best.meaning], isUnsure: best.left > 0 }
}

/** Words that only say which layer moves, or nothing. */
const LAYER_WORDS: Readonly<Record<Layer, readonly string[]>> = {
  feet: ['foot', 'feet'],
  legs: ['leg', 'knee'],
  hips: ['hip', 'pelvis'],
  torso: ['chest', 'rib', 'torso', 'body', 'shoulder'],
  arms: ['arm', 'hand'],
  head: ['head'],
}
const saysLayer = (word: string, layer: Layer): boolean =>
  LAYER_WORDS[layer].includes(word) || ['side', 'accent', 'movement', 'move'].includes(word)

/** A single step of the feet, in whatever order its words stand. */
function stepIn(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  if (!layers.includes('feet')) return undefined
  const same = words.map((word) => {
    const plain = SAME.get(single(word)) ?? SAME.get(word) ?? single(word)
    return plain
  })
  const isWalk = same.includes('walk')
  // “L forward”: whoever says which foot goes where means a step.
  const isBare =
    same.some(isSide) &&
    same.every((word) => isSide(word) || DIRECTIONS.has(word) || FILLERS.has(word))
  // “R heel” is a touch of the heel.
  const isHeel = words.length <= 3 && same.some((word) => word === 'heel') && same.some(isSide)
  if (isHeel) {
    const meaning = read(`touch ${same.find(isSide)} forward heel`, 'feet', place)
    if (meaning) return { meanings: [meaning], isUnsure: false }
  }
  const step = isWalk || isBare ? 'step' : same.find((word) => STEPS.has(word))
  if (!step) return undefined
  const side = same.find(isSide)
  const crosses = same.includes('cross') || same.includes('crossing')
  const found = same.filter((word) => DIRECTIONS.has(word))
  // “Step right” goes there; “step R” only says which foot.
  const isFull = words.some((word) => word === 'right' || word === 'left')
  const goes = crosses
    ? found.includes('back') || same.includes('behind')
      ? 'cross-behind'
      : 'cross-front'
    : same.includes('behind')
      ? 'cross-behind'
      : (found[0] ?? (isFull && step === 'step' ? 'side' : undefined))
  const degrees = words.find((_, i) => words[i - 1] === 'turn')
  const way = side === 'L' ? '-' : ''
  const turn = degrees && /^\d+$/.test(degrees) ? `turn ${way}${degrees}` : undefined
  const size = same.find((word) => word === 'small' || word === 'large')
  const alone = step === 'pivot' ? (degrees ? `pivot ${way}${degrees}` : undefined) : undefined
  const texts = alone
    ? [alone]
    : [
        [step, side, goes, turn, size],
        [step, side, goes, turn],
        [step, side, goes],
        [step, side],
        [step],
      ].map((parts) => parts.filter(Boolean).join(' '))
  const told = new Set<string>([
    step,
    'walk',
    'turn',
    'cross',
    'crossing',
    'behind',
    ...DIRECTIONS,
    'small',
    'large',
    degrees ?? '',
  ])
  const left = same.filter((word) => !told.has(word) && !isSide(word) && !FILLERS.has(word))
  for (const text of texts) {
    const meaning = read(text, 'feet', place)
    if (meaning)
      return left.length > 2 ? undefined : { meanings: [meaning], isUnsure: left.length > 0 }
  }
  return undefined
}

/** Moves whose names have all the words: a choice, the shortest names first. */
function containing(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  const { sides, way, names } = sorted(words)
  const wanted = names.filter((word) => word.length > 2)
  const isWay = wanted.every((word) => DIRECTIONS.has(SAME.get(word) ?? word) || STEPS.has(word))
  if (wanted.length === 0 || isWay) return undefined
  const meanings = layers
    .flatMap((layer) => place.vocabulary.moves.filter((move) => move.layer === layer))
    .filter(({ name, aka }) => {
      const said = [name, ...aka].join(' ').toLowerCase()
      return wanted.every((word) => said.includes(word))
    })
    .sort((a, b) => a.name.length - b.name.length)
    .slice(0, MOST)
    .flatMap((move) => {
      const told =
        move.sided === 'side'
          ? (sides[0] ?? place.lead)
          : move.sided === 'direction'
            ? way
            : undefined
      return read([move.id, told].filter(Boolean).join(' '), move.layer, place) ?? []
    })
  return meanings.length > 0 ? { meanings, isUnsure: true } : undefined
}

const wordsKnown = new WeakMap<Vocabulary, ReadonlySet<string>>()

/** All words that stand in names, steps and ways. */
function knownWords(vocabulary: Vocabulary): ReadonlySet<string> {
  const known = wordsKnown.get(vocabulary)
  if (known) return known
  const named = vocabulary.moves.flatMap(({ id, name, aka }) => [id, name, ...aka])
  const made = new Set([
    ...named.flatMap((name) => name.toLowerCase().split(/[^\p{L}ʻ']+/u)),
    ...STEPS,
    ...SAME.keys(),
    ...FILLERS,
    ...DIRECTIONS,
    ...['shoulder', 'look', 'over', 'behind', 'cross'],
  ])
  wordsKnown.set(vocabulary, made)
  return made
}

/** The same with each strange word in its nearest known spelling; undefined where all are known, or one is far from any. */
function corrected(words: readonly string[], place: MeaningPlace): Meant | undefined {
  const known = knownWords(place.vocabulary)
  const isKnown = (word: string) => known.has(word) || known.has(single(word)) || /\d/.test(word)
  if (words.every(isKnown)) return undefined
  const list = [...known].filter((word) => word.length > 2)
  const mended = words.map((word) =>
    isKnown(word) || word.length < 4 ? word : nearestWord(word, list),
  )
  if (mended.some((word) => word === undefined)) return undefined
  const text = mended.join(' ')
  if (text === words.join(' ')) return undefined
  const meant = meantBy(text, place)
  return meant && { meanings: meant.meanings, isUnsure: true }
}

const letters = (word: string): string => [...word].sort().join('')

/** The known word one slip away, two in a long one. */
function nearestWord(word: string, known: readonly string[]): string | undefined {
  const most = word.length > 6 ? 2 : word.length > 3 ? 2 : 1
  let best: string | undefined
  let least = most + 1
  for (const one of known) {
    if (Math.abs(one.length - word.length) >= least) continue
    // Two letters that changed places are one slip.
    const far = letters(word) === letters(one) ? 1 : distance(word, one)
    if (far < least) {
      least = far
      best = one
    }
  }
  return best
}

/** What was written with a slip of the pen. */
function spelled(
  words: readonly string[],
  layers: readonly Layer[],
  place: MeaningPlace,
): Meant | undefined {
  const { sides, way, names } = sorted(words)
  const typed = names.join(' ')
  if (typed.length < 4) return undefined
  const meanings = layers.flatMap((layer) => {
    const { known, ids } = dictionaryOf(place.vocabulary, layer)
    const near = nearest(typed, [...ids.keys(), ...known], 2).map(
      (name) => ids.get(squashed(name)) ?? name,
    )
    return [...new Set(near)].flatMap((id) => {
      const move = place.vocabulary.find(id)
      const told =
        move?.sided === 'side'
          ? (sides[0] ?? place.lead)
          : move?.sided === 'direction'
            ? way
            : move
              ? undefined
              : sides[0]
      return read([id, told].filter(Boolean).join(' '), layer, place) ?? []
    })
  })
  return meanings.length > 0 ? { meanings: meanings.slice(0, MOST), isUnsure: true } : undefined
}
