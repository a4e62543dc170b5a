import type { Layer } from '../body/layers'
import type { Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { type Announcement, NEXT, phraseWords } from './cues'
import { cuesOfAll, meetingCues } from './together'

/** Counts of a round whose first words are named together: `slide, then front`. */
const NAMED_COUNTS = 8

/** The first words of a round, or what its phrase is called by. */
export function announcementOf(
  simulation: Simulation,
  from: number,
  layers: readonly Layer[],
  company?: Company,
): Announcement {
  const pass = simulation.passes.find(({ at, length }) => at <= from && from < at + length)
  const to = from + NAMED_COUNTS * TICKS_PER_COUNT
  const own = pass ? cuesOfAll(company, simulation, pass, layers) : []
  const cues = company
    ? [...meetingCues(company, { from: tick(from), to: tick(to) }), ...own].sort(
        (a, b) => a.at - b.at,
      )
    : own
  const words = cues
    .filter(({ at, kind, isWithin }) => kind !== 'phrase' && !isWithin && at >= from && at < to)
    .map(({ text }) => text)
  const [first, second] = [...new Set(words)]
  const named = pass ? phraseWords(pass, undefined).filter((text) => text !== NEXT) : []
  const both = first && second ? [`${first}, then ${second}`, `${first}, ${second}`] : []
  const [text = READY, ...or] = [...both, ...(first ? [first] : []), ...named, READY]
  return { text, or }
}

const READY = 'ready'
