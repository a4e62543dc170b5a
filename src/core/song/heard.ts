import type { Listened } from '../beats/listen'
import { mean } from '../beats/numbers'
import { capital } from '../capital'
import { MOST_COUNTS, type Section, type SongCounts, SURE_COUNTS } from './song'

/** What was heard of a song, as its counts. Where it may begin anew is only proposed. */
export function countsHeard(
  { counts, bar, ones, sure }: Listened,
  by: 'found' | 'tapped' = 'found',
): SongCounts {
  const ms = counts.slice(0, MOST_COUNTS).map((at) => Math.max(0, Math.round(1000 * at)))
  const phrase = 2 * bar
  const first = Math.min(ones[0] ?? 0, ms.length - 1)
  const anew: number[] = []
  for (const at of ones)
    if ((at - (anew.at(-1) ?? first)) % phrase !== 0 && at < ms.length) anew.push(at)
  return {
    ms,
    by,
    fixed: [],
    sure: Array.from({ length: Math.ceil(ms.length / SURE_COUNTS) }, (_, i) =>
      Math.round(100 * mean(sure.counts.slice(i * SURE_COUNTS, (i + 1) * SURE_COUNTS))),
    ),
    ones: [{ at: first, counts: phrase, found: true }],
    anew,
    silent: [],
  }
}

/** What it is called where nobody has named it. */
const LABELS: Readonly<Partial<Record<Section['kind'], string>>> = { other: 'Part' }
export const labelOf = (kind: Section['kind']): string => LABELS[kind] ?? capital(kind)

/** Its sections, as they were heard: the first one from its first count on. */
export function sectionsHeard(
  { sections }: Listened,
  counts: number,
  newId: () => string,
): readonly Section[] {
  const ids = sections.map(newId)
  return sections
    .filter(({ at }) => at < counts)
    .map(
      ({ at, kind, energy, as }, i): Section => ({
        id: ids[i] as string,
        at: i === 0 ? 0 : at,
        label: labelOf(kind),
        kind,
        energy,
        ...(as !== undefined && { as: ids[as] as string }),
        found: true,
      }),
    )
}
