import { isCounted } from '../../core/song/even'
import { type Song, SURE } from '../../core/song/song'
import { counted, numberWords } from '../parts/locale'

/** `3:05`, of seconds. */
export const clockWords = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`

export const minutesWords = ({ media }: Song): string => clockWords(media.seconds)

/** Counts that a tempo is taken from at once. */
const OVER = 16
/** Tempi that differ by less are one. */
const SAME = 3

/** `104`, or `96 to 104` where it drifts; nothing where it is not counted. */
export function tempoWords({ counts }: Song): string {
  if (!isCounted(counts)) return ''
  const { ms } = counts
  const tempi: number[] = []
  for (let at = 0; at + OVER < ms.length; at += OVER)
    tempi.push((60_000 * OVER) / ((ms[at + OVER] as number) - (ms[at] as number)))
  const [low, high] = [Math.min(...tempi), Math.max(...tempi)].map(Math.round) as [number, number]
  if (tempi.length === 0) return ''
  return high - low < SAME
    ? numberWords(Math.round((low + high) / 2))
    : `${numberWords(low)} to ${numberWords(high)}`
}

/** How sure its counts are. */
export function sureWords({ counts }: Song): string {
  if (!isCounted(counts)) return 'not counted yet'
  if (counts.by === 'hand') return 'counted by hand'
  // Places in a row are one place to look at.
  const unsure = counts.sure.filter(
    (sure, i) => sure < SURE.sure && (counts.sure[i - 1] ?? 100) >= SURE.sure,
  )
  return unsure.length === 0 ? 'sure' : `look at ${counted(unsure.length, 'place')}`
}

/** The word for how sure one place is. */
export const sureWord = (sure: number): 'sure' | 'look' | 'guess' =>
  sure >= SURE.sure ? 'sure' : sure >= SURE.look ? 'look' : 'guess'
