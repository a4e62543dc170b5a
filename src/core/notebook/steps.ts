import type { Layer } from '../body/layers'
import { type MeaningPlace, type Meant, read } from './meant'
import { DIRECTIONS, FILLERS, isSide, SAME, STEPS, single } from './words'

/** Places of the arms, looks, and where the hips are: words that need no move. */
export function ownWordsOf(
  words: readonly string[],
  layer: Layer,
  place: MeaningPlace,
): Meant | undefined {
  const same = words.map((word) => SAME.get(word) ?? word)
  const nameWithout = (out: ReadonlySet<string>) =>
    same
      .filter((word) => !out.has(word) && !isSide(word))
      .map((word) => (word === 'forward' ? 'front' : word))
      .join(' ')
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
    const name = nameWithout(out)
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
    const name = nameWithout(out)
    return first([
      ['look', name, side].filter(Boolean).join(' '),
      ['look', side, name].filter(Boolean).join(' '),
    ])
  }
  return undefined
}

/** A single step of the feet, in whatever order its words stand. */
export function stepIn(
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
