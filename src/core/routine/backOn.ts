import { firstOne, isSilent, type Song } from '../song/song'
import { countWords } from '../time/countWords'
import { endOfPiece, type Piece, restWords } from './routine'

/** Something everybody hears, to come in on. */
interface Heard {
  readonly at: number
  readonly words: string
}

/** Nobody counts further from what was heard than two eights. */
const FAR = 16

/**
 * What to come back on after dancing freely, or where nobody heard a count: `4 counts after the drum
 * is back`. Undefined for what is danced, or rested through with the count going on.
 */
export function backOn(piece: Piece, song: Song): string | undefined {
  const { what, counts, at } = piece
  if (what.kind !== 'rest') return undefined
  const end = endOfPiece(piece)
  const isUnheard = isSilent(song.counts, Math.min(end - 1, song.counts.ms.length - 1))
  const isLast = end >= song.counts.ms.length
  if (isLast || (what.how !== 'free' && !isUnheard)) return undefined
  const heard = heardIn(song).findLast((one) => one.at > at && one.at <= end)
  const after = heard && end - heard.at
  if (!heard || after === undefined || after > FAR)
    return isUnheard ? undefined : `after ${countWords(counts)}`
  return after === 0 ? `when ${heard.words}` : `${countWords(after)} after ${heard.words}`
}

/** A rest as it is said, with what to come back on: `Free, back when the drum is back`. */
export function restSaid(piece: Piece, song: Song): string {
  if (piece.what.kind !== 'rest') return ''
  const on = backOn(piece, song)
  return on ? `${restWords(piece.what)}, back ${on}` : restWords(piece.what)
}

/** What is heard to come back or to begin, in its order; of two at once the clearer one is last. */
function heardIn({ sections, counts }: Song): readonly Heard[] {
  const borders = sections.map(({ at, label, kind }, i): Heard => {
    const before = sections[i - 1]?.kind
    if (before === 'break' && kind !== 'break') return { at, words: 'the drum is back' }
    if (before === 'slow' && kind !== 'slow') return { at, words: 'the tempo is back' }
    return { at, words: `the ${label.toLowerCase()} begins` }
  })
  const silences = counts.silent.map(({ to }): Heard => ({ at: to, words: 'the count is back' }))
  const clear = (one: Heard) => (one.words.endsWith('is back') ? 1 : 0)
  return [...silences, ...borders]
    .filter(({ at }) => at >= firstOne(counts))
    .sort((a, b) => a.at - b.at || clear(a) - clear(b))
}
