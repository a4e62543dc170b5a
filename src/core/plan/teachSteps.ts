import type { Drill } from './drill'
import { emptyPlan, planAgain } from './edits'
import { layersIn, type Material, type Materials } from './material'
import { MOST_MINUTES, type Plan, wishesFor } from './plan'

/** What of a class is teaching: neither its beginning nor its end, nor what only fills its time. */
const TAUGHT: ReadonlySet<Drill['kind']> = new Set([
  'walk',
  'alone',
  'feet',
  'all',
  'walls',
  'other-side',
  'join',
  'switch-practice',
  'sides',
])

/**
 * The steps of teaching a combination, to look at and to play: those a class of it would have,
 * and a run at its tempo. One list with the plan, so that screen, paper and floor agree.
 */
export function teachSteps(
  { combination, lead, hasFlourish, asEach }: Material,
  materials: Materials,
): Plan {
  const wishes = {
    ...wishesFor(combination, materials.house.level),
    minutes: MOST_MINUTES,
  }
  const { plan } = planAgain(emptyPlan('teach', combination.title, wishes), materials)
  // Where nothing is written there is nothing to teach.
  if (layersIn(asEach(lead.passes).flat()).length === 0) return { ...plan, drills: [] }
  const run = (wanted: Drill['task']) =>
    plan.drills.filter(({ kind, task }) => kind === 'run' && task === wanted)
  return {
    ...plan,
    drills: [
      ...plan.drills.filter(({ kind }) => TAUGHT.has(kind)),
      ...run('last-showing').map(({ task: _, music: __, ...own }) => own),
      // A flourish comes once the dance is known.
      ...(hasFlourish ? run('harder') : []),
    ],
  }
}
