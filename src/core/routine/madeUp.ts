import { type Combination, type Event, emptyCombination } from '../combination/combination'
import { placeEvent } from '../edits/edits'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { placeWords } from '../song/lines'
import { leftInPhrase, oneAt, type Section, type Song, tempoBetween } from '../song/song'
import { type Gap, isTrouble, suggestMoves } from '../suggest/suggest'
import { wholePhrases } from '../suggest/whole'
import { clampTempo } from '../time/tempo'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { leftInSection } from './room'

/** A wish for something to dance where nothing is laid on a song yet. */
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
 * Something for a stretch of a song, by the time it has there, to one side and then to the other. For
 * a quiet passage it is slow: arms, torso and hips over standing feet, and nothing in it has an
 * accent. Elsewhere it is a phrase composed, feet first, as hard as the section is strong.
 * Undefined where nothing fits.
 */
export function madeUp(wish: MadeUpWish, base: Vocabulary, house: House): Combination | undefined {
  const { song, at } = wish
  const section = song.sections.findLast((one) => one.at <= at)
  const isQuiet = !section || QUIET.has(section.kind) || section.energy <= QUIET_ENERGY
  if (!isQuiet) {
    const composed = composedFor(wish, section.energy, base, house)
    if (composed) return composed
  }
  for (let tried = 0; tried < TRIED; tried++) {
    const made = tryToMake({ ...wish, seed: wish.seed + tried * NEXT_SEED }, base, house)
    if (made) return made
  }
  return undefined
}

/** Passages in which nobody steps to a beat (h). */
const QUIET: ReadonlySet<Section['kind']> = new Set(['slow', 'break', 'end'])
const QUIET_ENERGY = 1

/** A phrase for a section with a beat, of those there are the one that is as hard as it is strong; from both sides it has to switch. */
function composedFor(
  wish: MadeUpWish,
  energy: number,
  base: Vocabulary,
  house: House,
): Combination | undefined {
  const begun = begunFor(wish)
  const end = begun.order.length > 1 ? ('switch' as const) : undefined
  const alone = { ...begun, order: begun.order.slice(0, 1) }
  return wholePhrases(alone, { pass: 0, seed: wish.seed + 1, end }, base, house)
    .map(({ combination }) => ({ ...combination, order: begun.order }))
    .map((made) => ({ made, checked: checkCombination(made, base, house) }))
    .filter(({ checked }) => !isFaulty(checked))
    .map(({ made, checked: { loads, level } }) => {
      const mean = loads.reduce((sum, { total }) => sum + total, 0) / Math.max(1, loads.length)
      const asks = mean / house.limits[`load.limit.${level}`]
      return { made, off: Math.abs(asks - (LOAD_OF_ENERGY[energy - 1] ?? 0.5)) }
    })
    .sort((a, b) => a.off - b.off)[0]?.made
}

/** How much of what a level takes a section of an energy, from 1 to 5, asks for on a usual count (h). */
const LOAD_OF_ENERGY = [0.35, 0.4, 0.5, 0.6, 0.7]

const isFaulty = ({ findings }: Checked): boolean => findings.some(isTrouble)

/** The empty phrase of a place in a song, twice where there is room for it from the other side too. */
function begunFor({ song, at, id }: MadeUpWish): Combination {
  const counts = Math.min(oneAt(song.counts, at).counts, leftInPhrase(song, at))
  const whole = leftInSection(song, at)
  const tempo = clampTempo(tempoBetween(song, at, Math.min(song.counts.ms.length - 1, at + whole)))
  const empty = emptyCombination(id, `${id} phrase`)
  const isBothSides = whole >= 2 * counts
  return {
    ...empty,
    title: `${song.title}, ${placeWords(song, at)}`,
    tempo,
    ...(song.family && { families: [song.family] }),
    phrases: empty.phrases.map((phrase) => ({ ...phrase, counts })),
    order: empty.order.flatMap((entry) =>
      isBothSides ? [entry, { ...entry, mirrored: true }] : [entry],
    ),
  }
}

function tryToMake(wish: MadeUpWish, base: Vocabulary, house: House): Combination | undefined {
  const { seed } = wish
  const empty = begunFor(wish)
  const begun: Combination = { ...empty, start: { ...empty.start, weight: 'both' } }
  const counts = begun.phrases[0]?.counts ?? 0
  const half = tick(Math.ceil(counts / 2) * TICKS_PER_COUNT)
  const gaps = LAYERS.flatMap((layer): readonly Gap[] => [
    { pass: 0, layer, at: tick(0), length: half },
    { pass: 0, layer, at: half, length: tick(counts * TICKS_PER_COUNT - half) },
  ])
  const made = gaps
    .filter(({ length }) => length > 0)
    .reduce((now, gap, i) => stretchedInto(now, gap, seed + i, base, house), begun)
  const isEmpty = made.phrases.every(({ events }) => events.length === 0)
  return isEmpty || isFaulty(checkCombination(made, base, house)) ? undefined : made
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
