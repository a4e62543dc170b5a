import { dequal } from 'dequal'
import { useCallback, useEffect, useRef, useState } from 'react'
import { isPlannedOtherwise, type Planned, planAgain } from '../../core/plan/edits'
import type { Materials } from '../../core/plan/material'
import type { Plan } from '../../core/plan/plan'
import { NOTHING_PROPOSED, type Proposal } from '../../core/plan/planner'
import {
  beginHistory,
  changedLike,
  edit,
  type History,
  redo,
  takenOn,
  undo,
} from '../../core/record/history'
import type { Records } from '../../storage/records'
import type { Judge } from '../../workers/judge'
import { planBeside } from '../planning/planBeside'

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
  readonly kept: 'saved' | 'saving' | 'failed'
}

export function usePlanDocument(
  first: Plan,
  plans: Records<Plan>,
  materials: Materials,
  judge: Judge,
): PlanDocument {
  const [history, setHistory] = useState<History<Plan>>(() => beginHistory(first))
  const shown = useRef(history)
  shown.current = history
  const proposals = useRef(new WeakMap<Plan, Proposal>())
  /** What is stored while this window writes is not yet what it has written. */
  const writing = useRef(0)
  const [kept, setKept] = useState<PlanDocument['kept']>('saved')
  const [proposal, setProposal] = useState<Proposal>(NOTHING_PROPOSED)

  const show = useCallback((next: History<Plan>) => {
    shown.current = next
    setHistory(next)
  }, [])
  // What another window has changed stays, whatever is undone here.
  const takeOn = useCallback(
    (stored: Plan | undefined) => {
      if (!stored || writing.current > 0 || dequal(stored, shown.current.present)) return
      show(takenOn(shown.current, stored))
    },
    [show],
  )
  /** Where both have changed it, what is not locked is planned again round both. */
  const settled = useCallback((met: Plan) => planAgain(met, materials).plan, [materials])

  const take = useCallback(
    (next: History<Plan>) => {
      const { present: before } = shown.current
      const { present: after } = next
      if (next === shown.current) return
      show(next)
      if (dequal(before, after)) return
      writing.current++
      setKept('saving')
      const done = (how: PlanDocument['kept'], stored?: Plan) => {
        writing.current--
        if (writing.current > 0) return
        setKept(how)
        takeOn(stored)
      }
      // What went wrong is told above the screen, by what keeps the records.
      plans
        .change(after.id, (now) =>
          dequal(now, before) ? after : settled(changedLike(now, before, after)),
        )
        .then(
          (stored) => done('saved', stored),
          () => done('failed'),
        )
    },
    [plans, show, takeOn, settled],
  )
  useEffect(
    () => plans.watch(() => void plans.get(first.id).then(takeOn)),
    [plans, first.id, takeOn],
  )
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
      if (shown.current.present !== present) return
      const now = pending.current
      const isPending = now?.made === present
      proposals.current.set(isPending ? plan : present, proposal)
      if (isPending) take(edit(shown.current, now.label, plan, now.step))
      else setProposal(proposal)
    }
    // Where it can't be planned the plan stays as it was changed by hand.
    thinking.current = planBeside(judge, present, materials).then(thought, () => {})
  }, [present, judge, materials, take])
  const steps = useRef(0)
  const change = (label: string, make: (plan: Plan) => Plan, mark?: string) => {
    const before = shown.current.present
    const made = make(before)
    if (made === before) return
    // Shown and stored at once; what is planned round it is the same step.
    const step = mark ?? `step ${steps.current++}`
    const known = proposals.current.get(before)
    if (isPlannedOtherwise(before, made)) pending.current = { made, label, step }
    else if (known) proposals.current.set(made, known)
    take(edit(shown.current, label, made, step))
  }
  const back = (to: typeof undo) => () =>
    void thinking.current.then(() => take(to(shown.current, settled)))
  return {
    plan: present,
    async planned() {
      await thinking.current
      return shown.current.present
    },
    change,
    undo: history.past.length > 0 ? back(undo) : undefined,
    redo: history.future.length > 0 ? back(redo) : undefined,
    last: history.past.at(-1)?.label,
    proposal,
    kept,
  }
}
