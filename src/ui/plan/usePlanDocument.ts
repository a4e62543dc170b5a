import { useCallback, useEffect, useRef, useState } from 'react'
import { isPlannedOtherwise, type Planned, planAgain } from '../../core/plan/edits'
import type { Plan } from '../../core/plan/plan'
import { NOTHING_PROPOSED, type Proposal } from '../../core/plan/planner'
import { edit, redo, undo } from '../../core/record/history'
import type { Records } from '../../storage/records'
import type { Judge } from '../../workers/judge'
import { planBeside } from '../planning/planBeside'
import type { ClassMaterials } from '../planning/usePlanning'
import { type KeptState, useDocument } from '../stores/useDocument'

/** A plan that is open: changed by hand, planned again round that, stored at once. */
export interface PlanDocument {
  readonly plan: Plan
  /** The same when all is planned round what was changed last. */
  readonly planned: () => Promise<Plan>
  /** Takes a changed plan on; what is not locked is planned again. */
  readonly change: (label: string, make: (plan: Plan) => Plan, mark?: string) => void
  readonly undo: (() => void) | undefined
  readonly redo: (() => void) | undefined
  /** What the next undo takes back. */
  readonly last: string | undefined
  /** What was proposed round what is locked: the ways, and what has no room. */
  readonly proposal: Proposal
  /** Whether all of it is stored. */
  readonly kept: KeptState
}

export function usePlanDocument(
  first: Plan,
  plans: Records<Plan>,
  materials: ClassMaterials,
  judge: Judge,
): PlanDocument {
  const proposals = useRef(new WeakMap<Plan, Proposal>())
  const [proposal, setProposal] = useState<Proposal>(NOTHING_PROPOSED)
  /** Where both have changed it, what is not locked is planned again round both. */
  const settled = useCallback((met: Plan) => planAgain(met, materials).plan, [materials])
  const { history, now, take, kept } = useDocument(first, plans, settled)
  const { present } = history
  /** The change that is shown, but not yet planned round. */
  const pending = useRef<{ readonly made: Plan; readonly label: string; readonly step: string }>(
    undefined,
  )
  const thinking = useRef<Promise<void>>(Promise.resolve())
  useEffect(() => {
    const known = proposals.current.get(present)
    if (known) {
      setProposal(known)
      return
    }
    const thought = ({ plan, proposal }: Planned) => {
      if (now().present !== present) return
      const waiting = pending.current
      const isPending = waiting?.made === present
      proposals.current.set(isPending ? plan : present, proposal)
      if (isPending) take(edit(now(), waiting.label, plan, waiting.step))
      else setProposal(proposal)
    }
    // Where it can't be planned the plan stays as it was changed by hand.
    thinking.current = planBeside(judge, present, materials).then(thought, () => {})
  }, [present, judge, materials, take, now])
  const steps = useRef(0)
  const change = (label: string, make: (plan: Plan) => Plan, mark?: string) => {
    const before = now().present
    const made = make(before)
    if (made === before) return
    // Shown and stored at once; what is planned round it is the same step.
    const step = mark ?? `step ${steps.current++}`
    const known = proposals.current.get(before)
    if (isPlannedOtherwise(before, made)) pending.current = { made, label, step }
    else if (known) proposals.current.set(made, known)
    take(edit(now(), label, made, step))
  }
  const back = (to: typeof undo) => () => void thinking.current.then(() => take(to(now(), settled)))
  return {
    plan: present,
    async planned() {
      await thinking.current
      return now().present
    },
    change,
    undo: history.past.length > 0 ? back(undo) : undefined,
    redo: history.future.length > 0 ? back(redo) : undefined,
    last: history.past.at(-1)?.label,
    proposal,
    kept,
  }
}
