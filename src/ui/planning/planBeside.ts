import { combinationsOf, type Planned } from '../../core/plan/edits'
import type { Plan } from '../../core/plan/plan'
import { laidFor } from '../../core/routine/withSong'
import type { Judge } from '../../workers/judge'
import type { ClassMaterials } from './usePlanning'

/** Plans what is not locked, beside the page; nobody takes the question back. */
export function planBeside(judge: Judge, plan: Plan, materials: ClassMaterials): Promise<Planned> {
  const { combinations: laid, ...laidSongs } = laidFor(plan.drills, materials.laidSongs)
  const combinations = [...new Set([...combinationsOf(plan), ...laid])].flatMap(
    (id) => materials.find(id)?.combination ?? [],
  )
  return judge.ask('plan', { plan, combinations, laidSongs })
}
