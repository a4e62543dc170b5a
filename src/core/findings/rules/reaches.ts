import { nameOf, placesWords } from '../../combination/names'
import type { Vocabulary } from '../../moves/vocabulary'
import { type Run, reachSeconds, ticksLostAtMost } from '../../simulate/course'
import { isThere, placesNeeded } from '../../simulate/places'
import { secondsOfTicks, tempoFor } from '../../time/tempo'
import type { Places } from '../../what/places'
import { passByPass } from '../passByPass'
import { spotOf } from '../rule'
import type { TempoLimit, TempoRule } from '../tempoRule'

/** Paths whose start can't be reached in the time there is (model 5). */
export const reaches: TempoRule = {
  id: 'reaches',
  tempoLimits: (danceable) => reachesIn(danceable).found,
}

const reachesIn = passByPass<undefined, TempoLimit>(undefined, ({ course, house, vocabulary }) => {
  const found: TempoLimit[] = []
  for (const run of course.runs) {
    if (run.reach) {
      const { needs, seconds, from, to } = run.reach
      found.push(noTime(run, needs, seconds, Math.max(0, to - from), vocabulary))
    } else {
      const needs = startOfRepeats(run)
      // Each repeat begins where the one before did not end, and there is no time between.
      if (needs && !isThere(run.after, needs))
        found.push(noTime(run, needs, reachSeconds(run.after, needs, house), 0, vocabulary))
    }
  }
  return { found, carry: undefined }
})

/** Where a path starts that is danced again and again without taking turns. */
function startOfRepeats({ event, kind, move }: Run): Partial<Places> | undefined {
  const { what, length } = event
  if (kind !== 'path' || !move || what.kind !== 'move' || what.alt || !what.every) return undefined
  return length >= 2 * what.every ? placesNeeded(move, what) : undefined
}

const noTime = (
  run: Run,
  needs: Partial<Places>,
  seconds: number,
  ticks: number,
  vocabulary: Vocabulary,
): TempoLimit => ({
  at: run.at,
  // A way that is late melts into the path: only where much of its shape is lost it is said.
  most: tempoFor(ticks + ticksLostAtMost(run), seconds),
  found: (tempo) => ({
    code: 'layer.no-time',
    move: nameOf(run.event, vocabulary),
    starts: placesWords(needs),
    needs: seconds,
    has: secondsOfTicks(ticks, tempo),
    spot: spotOf(run.pass, run.event),
    events: [run.event.id],
  }),
})
