import { dequal } from 'dequal'
import { useCallback, useEffect, useRef, useState } from 'react'
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

/** Whether all that was changed is stored. */
export type KeptState = 'saved' | 'saving' | 'failed'

/** A record that is open: shown and stored at once as it is changed, with the way back. */
export interface OpenDocument<T> {
  readonly history: History<T>
  /** As it is now, also before it is drawn. */
  readonly now: () => History<T>
  /** Shows and stores a state of its history. */
  readonly take: (next: History<T>) => void
  readonly change: (label: string, make: (now: T) => T, mark?: string) => void
  readonly undo: (() => void) | undefined
  readonly redo: (() => void) | undefined
  /** What the next undo takes back. */
  readonly last: string | undefined
  readonly kept: KeptState
}

const asItIs = <T>(met: T): T => met

/**
 * Opens a record of which other windows may have it open too: what they change stays, whatever is
 * undone here.
 * @param settled what is made of a state in which both their work and this window's meet; the same function each time
 */
export function useDocument<T extends { readonly id: string }>(
  first: T,
  records: Records<T>,
  settled: (met: T) => T = asItIs,
): OpenDocument<T> {
  const [history, setHistory] = useState<History<T>>(() => beginHistory(first))
  const shown = useRef(history)
  shown.current = history
  /** What is stored while this window writes is not yet what it has written. */
  const writing = useRef(0)
  const [kept, setKept] = useState<KeptState>('saved')

  const show = useCallback((next: History<T>) => {
    shown.current = next
    setHistory(next)
  }, [])
  const takeOn = useCallback(
    (stored: T | undefined) => {
      if (!stored || writing.current > 0 || dequal(stored, shown.current.present)) return
      show(takenOn(shown.current, stored))
    },
    [show],
  )
  const take = useCallback(
    (next: History<T>) => {
      const { present: before } = shown.current
      const { present: after } = next
      if (next === shown.current) return
      show(next)
      if (dequal(before, after)) return
      writing.current++
      setKept('saving')
      const done = (how: KeptState, stored?: T) => {
        writing.current--
        if (writing.current > 0) return
        setKept(how)
        takeOn(stored)
      }
      // What went wrong is told above the screen, by what keeps the records.
      records
        .change(after.id, (now) =>
          dequal(now, before) ? after : settled(changedLike(now, before, after)),
        )
        .then(
          (stored) => done('saved', stored),
          () => done('failed'),
        )
    },
    [records, show, takeOn, settled],
  )
  useEffect(
    () => records.watch(() => void records.get(first.id).then(takeOn)),
    [records, first.id, takeOn],
  )
  const now = useCallback(() => shown.current, [])
  const { past, future } = history
  return {
    history,
    now,
    take,
    change: (label, make, mark) =>
      take(edit(shown.current, label, make(shown.current.present), mark)),
    undo: past.length > 0 ? () => take(undo(shown.current, settled)) : undefined,
    redo: future.length > 0 ? () => take(redo(shown.current, settled)) : undefined,
    last: past.at(-1)?.label,
    kept,
  }
}
