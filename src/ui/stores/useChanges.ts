import { useRef, useState } from 'react'
import {
  type Change,
  type Changes,
  NO_CHANGES,
  noted,
  reversed,
  stepBack,
  stepForward,
} from '../../core/record/history'

/** What was changed on a screen whose things other windows change too, and the way back. */
export interface ChangesMade<T> {
  readonly note: (change: Change<T>) => void
  readonly undo: (() => void) | undefined
  readonly redo: (() => void) | undefined
  /** What the next undo takes back. */
  readonly last: string | undefined
}

/** @param apply makes a change in what is there at that moment. */
export function useChanges<T>(apply: (change: Change<T>) => void): ChangesMade<T> {
  const [changes, setChanges] = useState<Changes<T>>(NO_CHANGES)
  const latest = useRef(changes)
  const take = (made: Changes<T>) => {
    latest.current = made
    setChanges(made)
  }
  const undo = () => {
    const step = stepBack(latest.current)
    if (!step) return
    take(step.changes)
    apply(reversed(step.change))
  }
  const redo = () => {
    const step = stepForward(latest.current)
    if (!step) return
    take(step.changes)
    apply(step.change)
  }
  return {
    note: (change) => take(noted(latest.current, change)),
    undo: changes.past.length > 0 ? undo : undefined,
    redo: changes.future.length > 0 ? redo : undefined,
    last: changes.past.at(-1)?.label,
  }
}
