import type { Material, Materials } from './material'
import { wishesFor } from './plan'
import { teachSteps } from './teachSteps'
import { materialsOfPart, type TeachStep, teachTogether } from './teachTogether'
import { type StepWords, wordsOfPlan } from './words'

/** How something is taught. */
export interface Taught {
  readonly steps: readonly TeachStep[]
  /** What is said before each, by its id. */
  readonly words: ReadonlyMap<string, StepWords>
  /** What a step looks at: of a part, what that one dances. */
  readonly lookAt: (step: Pick<TeachStep, 'part'>) => Materials
}

/** The steps of teaching a combination, of a piece for all who dance it. */
export function teachingSteps(material: Material, materials: Materials): Taught {
  const { combination } = material
  if (!combination.parts) {
    const plan = teachSteps(material, materials)
    const steps: readonly TeachStep[] = plan.drills.map((drill) => ({ drill }))
    return { steps, words: wordsOfPlan(plan, materials), lookAt: () => materials }
  }
  const steps = teachTogether(combination, materials)
  const own = new Map(
    combination.parts.map(({ id }) => [id, materialsOfPart(materials, combination, id)]),
  )
  const lookAt = ({ part }: Pick<TeachStep, 'part'>) => own.get(part ?? '') ?? materials
  const wishes = wishesFor(combination, materials.house.level)
  const words = [undefined, ...own.keys()].flatMap((part) => {
    // Of what they do with each other only that is said: each has her own words before.
    const drills = steps
      .filter((step) => step.part === part && !step.meets)
      .map(({ drill }) => drill)
    return [...wordsOfPlan({ drills, wishes }, lookAt({ ...(part && { part }) }))]
  })
  return { steps, words: new Map(words), lookAt }
}
