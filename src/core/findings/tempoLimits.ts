import { FASTEST, SLOWEST, type Tempo } from '../time/tempo'
import { danceablesOf, tempoLimitsOf } from './check'
import type { Checked } from './checked'
import type { Finding } from './finding'
import { foundOn } from './sides'

/** What stops a combination from going faster, and above which tempo. */
interface TempoObstacle {
  /** The highest whole tempo without it; below 40 where no tempo is slow enough. */
  readonly most: number
  readonly finding: Finding
}

export interface TempoRoom {
  /** The highest tempo at which nothing is hurried, 40 to 220; undefined where none is slow enough. */
  readonly most: Tempo | undefined
  /** What limits it first, second and third. */
  readonly obstacles: readonly TempoObstacle[]
}

const SHOWN = 3

/** How fast a combination can be danced, on both sides, and what is in the way. */
export function tempoRoom(checked: Checked): TempoRoom {
  const found = danceablesOf(checked)
    .flatMap((danceable) =>
      tempoLimitsOf(danceable, () => FASTEST + 1).map(({ most, found: at }) => ({
        most,
        finding: foundOn(at(Math.max(most + 1, 1)), danceable.side),
      })),
    )
    .sort((a, b) => a.most - b.most)
  const obstacles: TempoObstacle[] = []
  const seen = new Set<string>()
  for (const { most, finding } of found) {
    // A later limit of the same event is the same trouble.
    const key = finding.events[0] ?? finding.spot.phrase
    if (seen.has(key)) continue
    seen.add(key)
    obstacles.push({ most: Math.floor(most), finding })
    if (obstacles.length === SHOWN) break
  }
  // What no tempo mends says nothing of the tempo.
  const first = found.find(({ most }) => most >= 1)?.most ?? FASTEST
  const most = Math.floor(first)
  return { most: most < SLOWEST ? undefined : Math.min(FASTEST, most), obstacles }
}
