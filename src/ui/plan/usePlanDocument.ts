import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { planAgain } from '../../core/plan/edits'
import type { Materials } from '../../core/plan/material'
import { Plan } from '../../core/plan/plan'
import type { Proposal } from '../../core/plan/planner'
import { beginHistory, edit, type History, redo, undo } from '../../core/record/history'
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

/** The same text for the same plan, however its fields came to stand. */
const textOf = (plan: Plan): string => JSON.stringify(Plan.parse(plan))

export function usePlanDocument(
  first: Plan,
  plans: Records<Plan>,
  materials: Materials,
): PlanDocument {
  const [history, setHistory] = useState<History<Plan>>(() => beginHistory(first))
  const shown = useRef(history)
  shown.current = history
  const known = useRef(textOf(first))
  const proposals = useRef(new WeakMap<Plan, Proposal>())
  /** What is stored while this window writes is not yet what it has written. */
  const writing = useRef(0)
  const [kept, setKept] = useState<PlanDocument['kept']>('saved')

  const take = useCallback(
    (next: History<Plan>) => {
      if (next === shown.current) return
      shown.current = next
      setHistory(next)
      const text = textOf(next.present)
      if (text === known.current) return
      known.current = text
      writing.current++
      setKept('saving')
      const done = (how: PlanDocument['kept']) => {
        writing.current--
        if (writing.current === 0) setKept(how)
      }
      // What went wrong is told above the screen, by what keeps the records.
      plans
        .change(next.present.id, () => next.present)
        .then(
          () => done('saved'),
          () => done('failed'),
        )
    },
    [plans],
  )
  // What another window has changed is taken on as an edit, so that undo has both.
  useEffect(
    () =>
      plans.watch(() => {
        void plans.get(first.id).then((stored) => {
          if (!stored || writing.current > 0 || textOf(stored) === known.current) return
          known.current = textOf(stored)
          setHistory((now) => edit(now, 'the change of another window', stored))
        })
      }),
    [plans, first.id],
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
    undo: history.past.length > 0 ? () => take(undo(shown.current)) : undefined,
    redo: history.future.length > 0 ? () => take(redo(shown.current)) : undefined,
    last: history.past.at(-1)?.label,
    proposal,
    kept,
  }
}
