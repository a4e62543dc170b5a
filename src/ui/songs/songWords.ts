import { isCounted } from '../../core/song/even'
import { type Song, unsurePlaces } from '../../core/song/song'
import { tempiOf } from '../../core/song/tempi'
import { counted, numberWords } from '../parts/locale'

/** Tempi that differ by less are one. */
const SAME = 3

/** `104`, or `96 to 104` where it drifts; nothing where it is not counted. */
export function tempoWords(song: Song): string {
  const tempi = tempiOf(song)
  if (!tempi) return ''
  const { low, high } = tempi
  return high - low < SAME
    ? numberWords(Math.round((low + high) / 2))
    : `${numberWords(low)} to ${numberWords(high)}`
}

/** How sure its counts are. */
export function sureWords({ counts }: Song): string {
  if (!isCounted(counts)) return 'not counted yet'
  if (counts.by === 'hand') return 'counted by hand'
  const places = unsurePlaces(counts)
  return places === 0 ? 'sure' : `look at ${counted(places, 'place')}`
}
