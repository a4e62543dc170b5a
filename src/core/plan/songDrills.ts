import { slowed, tempoInAll } from '../time/timeMap'
import type { Drill, DrillSong } from './drill'
import { layersIn, type Materials } from './material'
import type { Plan } from './plan'

/** At what speeds a song is danced, one after the other: none is more than an eighth quicker than the one before. */
const RATES = [0.8, 0.9, 1] as const

/** What ends a class: nothing is danced to a song after it. */
const ENDING: ReadonlySet<Drill['kind']> = new Set(['open', 'recap', 'cool-down'])

/** Where in a class a song is danced to: behind all that is taught and run, before its end. */
export const songPlace = (drills: readonly Drill[]): number => {
  const at = drills.findIndex(({ kind }, i) => ENDING.has(kind) && i > 0)
  return at < 0 ? drills.length : at
}

/**
 * A class that dances to a song at the end: slower first, then as it is. The drills are locked,
 * and the rest is planned round them.
 * @returns the same plan where the song is gone
 */
export function withSongDrills(
  plan: Plan,
  song: Omit<DrillSong, 'rate'>,
  materials: Materials,
  newId: () => string,
): Plan {
  const stretch = materials.withSong({ ...song, rate: 1 })
  if (!stretch) return plan
  const { material, passes, range, time } = stretch
  const layers = layersIn(passes)
  const at = songPlace(plan.drills)
  const made = RATES.map(
    (rate): Drill => ({
      id: `song ${newId()}`,
      kind: 'song',
      phrases: [],
      layers,
      sides: [material.combination.lead],
      repeats: 1,
      tempo: tempoInAll(slowed(time, rate), range.to - range.from),
      talk: 0,
      stand: 'back',
      song: { ...song, rate },
      locked: true,
    }),
  )
  return { ...plan, drills: plan.drills.toSpliced(at, 0, ...made) }
}
