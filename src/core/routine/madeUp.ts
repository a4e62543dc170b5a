import { type Combination, type Event, emptyCombination } from '../combination/combination'
import { placeEvent } from '../edits/edits'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { placeWords } from '../song/lines'
import { leftInPhrase, oneAt, type Song, tempoBetween } from '../song/song'
import { type Gap, suggestMoves } from '../suggest/suggest'
import { clampTempo } from '../time/tempo'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { leftInSection } from './room'

/** A wish for something to dance where a song has nothing to step to. */
export interface MadeUpWish {
  readonly song: Song
  /** The first count it is danced on. */
  readonly at: number
  readonly id: string
  /** The same number gives the same. */
  readonly seed: number
}

/** What moves while the feet stay: the arms first, they are seen best. */
const LAYERS = ['arms', 'hips'] as const
/** Of what fits best so many are taken in turn. */
const DRAWN_FROM = 7
/** Where what was drawn does not go together it is drawn again, so often. */
const TRIED = 6
const NEXT_SEED = 3

/**
 * Something slow for a quiet passage: a phrase of arms, torso and hips over standing feet, to one
 * side and then to the other, by the time the song has there; nothing in it has an accent.
 * Undefined where nothing fits.
 */
export function madeUp(wish: MadeUpWish, base: Vocabulary, house: House): Combination | undefined {
  for (let tried = 0; tried < TRIED; tried++) {
    const made = tryToMake({ ...wish, seed: wish.seed + tried * NEXT_SEED }, base, house)
    if (made) return made
  }
  return undefined
}

function tryToMake(
  { song, at, id, seed }: MadeUpWish,
  base: Vocabulary,
  house: House,
): Combination | undefined {
  const counts = Math.min(oneAt(song.counts, at).counts, leftInPhrase(song, at))
  const whole = leftInSection(song, at)
  const tempo = clampTempo(tempoBetween(song, at, Math.min(song.counts.ms.length - 1, at + whole)))
  const empty = emptyCombination(id, `${id} phrase`)
  const isBothSides = whole >= 2 * counts
  const begun: Combination = {
    ...empty,
    title: `${song.title}, ${placeWords(song, at)}`,
    tempo,
    ...(song.family && { families: [song.family] }),
    start: { ...empty.start, weight: 'both' },
    phrases: empty.phrases.map((phrase) => ({ ...phrase, counts })),
    order: empty.order.flatMap((entry) =>
      isBothSides ? [entry, { ...entry, mirrored: true }] : [entry],
    ),
  }
  const half = tick(Math.ceil(counts / 2) * TICKS_PER_COUNT)
  const gaps = LAYERS.flatMap((layer): readonly Gap[] => [
    { pass: 0, layer, at: tick(0), length: half },
    { pass: 0, layer, at: half, length: tick(counts * TICKS_PER_COUNT - half) },
  ])
  const made = gaps
    .filter(({ length }) => length > 0)
    .reduce((now, gap, i) => stretchedInto(now, gap, seed + i, base, house), begun)
  const isEmpty = made.phrases.every(({ events }) => events.length === 0)
  const isFaulty = checkCombination(made, base, house).findings.some((finding) =>
    ['fault', 'snag'].includes(severityOf(finding)),
  )
  return isEmpty || isFaulty ? undefined : made
}

/** One of the moves that fit best, in all of a gap; as it was where none is smooth. */
function stretchedInto(
  combination: Combination,
  gap: Gap,
  seed: number,
  base: Vocabulary,
  house: House,
): Combination {
  const used = new Set(combination.phrases.flatMap(({ events }) => events.map(whatOf)))
  const fit = suggestMoves(combination, gap, base, house).filter(
    ({ offer, doubts }) =>
      doubts.length === 0 &&
      isSmooth(offer.what, base) &&
      !used.has(whatOf(offer)) &&
      !isWhereTheyAre(offer.what, combination),
  )
  const chosen = fit[seed % Math.max(1, Math.min(DRAWN_FROM, fit.length))]
  const { pass, layer, at, length } = gap
  const phrase = combination.order[pass]?.phrase
  if (!chosen || phrase === undefined) return combination
  const { what } = chosen.offer
  const slow = what.kind === 'move' ? { ...what, every: length } : what
  const id = `${combination.id} ${layer} ${at}`
  return placeEvent(phrase, { id, layer, at, length, what: slow })(combination)
}

/** Arms that stay as they hang at the beginning dance nothing. */
const isWhereTheyAre = (what: Event['what'], { start }: Combination): boolean =>
  what.kind === 'arms' && what.R === start.arms.R && what.L === start.arms.L

const whatOf = ({ what }: Pick<Event, 'what'>): string =>
  what.kind === 'move' ? what.move : JSON.stringify(what)

/** Whether nothing in it is struck or shaken. */
function isSmooth(what: Event['what'], base: Vocabulary): boolean {
  const kind = what.kind === 'move' ? base.find(what.move)?.kind : undefined
  return kind !== 'accent' && kind !== 'texture'
}
