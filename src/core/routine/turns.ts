import type { Combination, Phrase } from '../combination/combination'
import { withOptions } from '../combination/options'
import { shippedFor } from '../moves/vocabulary'
import { leftInPhrase, type Song } from '../song/song'
import { restSaid } from './backOn'
import { atPace, clipped } from './clipped'
import type { Piece } from './routine'

/** A stretch of the song that is danced in one go, as it stands in the whole. */
export interface LaidPass {
  /** The piece it is of; absent where nothing is laid. */
  readonly piece: Piece | undefined
  /** The combination it is of, and which of its passes. */
  readonly combination: Combination | undefined
  readonly pass: number
  /** Its first count in the song. */
  readonly at: number
  readonly counts: number
  /** The counts its phrase has; fewer are danced where it is cut. */
  readonly whole: number
  /** The pickup of what follows, danced where nothing else is. */
  readonly isPickup?: true
}

/** One dancing of a phrase, as it goes into the whole. */
export interface Turn {
  readonly pass: Omit<LaidPass, 'at'>
  readonly phrase: Phrase
  readonly mirrored: boolean
}

/** Counts from one on in which nothing is danced, in the phrases of the song, so that they are counted as it is. */
export function stillFor(song: Song, from: number, counts: number, piece?: Piece): readonly Turn[] {
  const words = piece ? restSaid(piece, song) : ''
  const turns: Turn[] = []
  for (let at = from; at < from + counts; ) {
    const own = Math.min(from + counts - at, leftInPhrase(song, at))
    at += own
    turns.push({
      pass: { piece, combination: undefined, pass: 0, counts: own, whole: own },
      phrase: stillPhrase(own, piece?.id ?? '', words),
      mirrored: false,
    })
  }
  return turns
}

/** Counts in which the body stays as it is. */
const stillPhrase = (counts: number, piece: string, words: string): Phrase => ({
  id: `still ${counts} ${piece}`,
  name: 'Rest',
  title: words,
  counts,
  events: [],
})

/** The phrases of a piece; one that is longer than its combination begins it again. */
export function turnsOf(
  song: Song,
  piece: Piece,
  find: (id: string) => Combination | undefined,
): readonly Turn[] {
  const { what } = piece
  const combination = what.kind === 'dance' ? find(what.combination) : undefined
  if (what.kind === 'rest' || !combination) return stillFor(song, piece.at, piece.counts, piece)
  const { order, phrases } = combination
  const isOther = what.side !== combination.lead
  const turns: Turn[] = []
  for (let index = what.from, left = piece.counts; left > 0; index++) {
    const pass = index % order.length
    const entry = order[pass]
    const plain = phrases.find(({ id }) => id === entry?.phrase)
    if (!entry || !plain) break
    const written = withOptions(plain, entry.options ?? [], shippedFor(combination))
    const whole = atPace(written, what.pace, combination).counts
    const counts = Math.min(whole, left)
    left -= counts
    // A piece begins with the name of its combination.
    const named = [turns.length === 0 && combination.title, written.title]
    const title = named.filter(Boolean).join(', ')
    turns.push({
      pass: { piece, combination, pass, counts, whole },
      phrase: clipped(written, {
        combination,
        from: 0,
        counts,
        pace: what.pace,
        title,
        isLed: turns.length > 0 && written.id !== order[0]?.phrase,
      }),
      mirrored: entry.mirrored !== isOther,
    })
  }
  return turns
}

const isStill = ({ pass }: Turn): boolean => !pass.combination && !pass.isPickup

/** The pickup of a piece that begins with its combination, as a phrase of its own. */
export function pickupOf(
  piece: Piece,
  find: (id: string) => Combination | undefined,
): Turn | undefined {
  const { what } = piece
  const combination = what.kind === 'dance' && what.from === 0 ? find(what.combination) : undefined
  const [entry] = combination?.order ?? []
  const plain = combination?.phrases.find(({ id }) => id === entry?.phrase)
  if (what.kind === 'rest' || !combination?.pickup || !entry || !plain) return undefined
  const written = withOptions(plain, entry.options ?? [], shippedFor(combination))
  const counts = combination.pickup.counts / (what.pace ?? 1)
  if (!Number.isInteger(counts)) return undefined
  const clip = { combination, from: -counts, counts, pace: what.pace, title: written.title }
  return {
    pass: {
      piece: undefined,
      combination: undefined,
      pass: 0,
      counts,
      whole: counts,
      isPickup: true,
    },
    phrase: clipped(written, clip),
    mirrored: entry.mirrored !== (what.side !== combination.lead),
  }
}

/** Turns whose last counts, where nothing is danced, are the pickup of what follows; as they are where there are too few. */
export function ledInto(turns: readonly Turn[], lead: Turn | undefined): readonly Turn[] {
  if (!lead) return turns
  const all = [...turns]
  let needed = lead.pass.counts
  let last: Turn | undefined
  for (; needed > 0; needed -= last.pass.counts) {
    last = all.pop()
    if (!last || !isStill(last)) return turns
  }
  if (!last) return turns
  const left = -needed
  const pass = { ...last.pass, counts: left, whole: left }
  const rest = {
    ...last,
    pass,
    phrase: { ...last.phrase, id: `${last.phrase.id} ${left}`, counts: left },
  }
  return [
    ...all,
    ...(left > 0 ? [rest] : []),
    { ...lead, pass: { ...lead.pass, piece: last.pass.piece } },
  ]
}
