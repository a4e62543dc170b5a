import { dequal } from 'dequal'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { planAgain } from '../../core/plan/edits'
import type { Materials } from '../../core/plan/material'
import type { Plan } from '../../core/plan/plan'
import type { Proposal } from '../../core/plan/planner'
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

/** A plan that is open: changed by hand, planned again round that, stored at once. */
export interface PlanDocument {
  readonly plan: Plan
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
): PlanDocument {
  const [history, setHistory] = useState<History<Plan>>(() => beginHistory(first))
  const shown = useRef(history)
  shown.current = history
  const proposals = useRef(new WeakMap<Plan, Proposal>())
  /** What is stored while this window writes is not yet what it has written. */
  const writing = useRef(0)
  const [kept, setKept] = useState<PlanDocument['kept']>('saved')

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
  const proposal = useMemo(
    () => proposals.current.get(present) ?? planAgain(present, materials).proposal,
    [present, materials],
  )
  return {
    plan: present,
    change: (label, make, mark) => {
      const made = make(shown.current.present)
      if (made === shown.current.present) return
      const { plan, proposal } = planAgain(made, materials)
      proposals.current.set(plan, proposal)
      take(edit(shown.current, label, plan, mark))
    },
    undo: history.past.length > 0 ? () => take(undo(shown.current, settled)) : undefined,
    redo: history.future.length > 0 ? () => take(redo(shown.current, settled)) : undefined,
    last: history.past.at(-1)?.label,
    proposal,
    kept,
  }
}
