import { combinationsOf, type Planned } from '../../core/plan/edits'
import type { Plan } from '../../core/plan/plan'
import type { Judge } from '../../workers/judge'
import type { ClassMaterials } from './usePlanning'

/** Plans what is not locked, beside the page; nobody takes the question back. */
export function planBeside(judge: Judge, plan: Plan, materials: ClassMaterials): Promise<Planned> {
  const used = new Set(plan.drills.flatMap(({ song }) => song?.routine ?? []))
  const routines = materials.laidSongs.routines.filter(({ id }) => used.has(id))
  const songs = materials.laidSongs.songs.filter(({ id }) =>
    routines.some(({ song }) => song === id),
  )
  const laid = routines.flatMap(({ pieces }) =>
    pieces.flatMap(({ what }) => (what.kind === 'dance' ? what.combination : [])),
  )
  const combinations = [...new Set([...combinationsOf(plan), ...laid])].flatMap(
    (id) => materials.find(id)?.combination ?? [],
  )
  return judge.ask('plan', { plan, combinations, laidSongs: { routines, songs } })
}
