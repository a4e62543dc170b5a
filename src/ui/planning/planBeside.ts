import { combinationsOf, type Planned } from '../../core/plan/edits'
import type { Materials } from '../../core/plan/material'
import type { Plan } from '../../core/plan/plan'
import type { Judge } from '../../workers/judge'

/** Plans what is not locked, beside the page; nobody takes the question back. */
export function planBeside(judge: Judge, plan: Plan, materials: Materials): Promise<Planned> {
  const combinations = [...combinationsOf(plan)].flatMap(
    (id) => materials.find(id)?.combination ?? [],
  )
  return judge.ask('plan', { plan, combinations })
}
