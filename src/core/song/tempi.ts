import { isCounted } from './even'
import { type Song, tempoBetween } from './song'

/** Counts that a tempo is taken from at once. */
const OVER = 16

/** The slowest and the quickest a song is, counts a minute over some counts; undefined where it is not counted. */
export function tempiOf(song: Song): { readonly low: number; readonly high: number } | undefined {
  const { counts } = song
  const stretches = Math.floor((counts.ms.length - 1) / OVER)
  if (!isCounted(counts) || stretches === 0) return undefined
  const tempi = Array.from({ length: stretches }, (_, i) =>
    Math.round(tempoBetween(song, i * OVER, (i + 1) * OVER)),
  )
  return { low: Math.min(...tempi), high: Math.max(...tempi) }
}
