import { useEffect, useRef, useState } from 'react'
import type { Selection } from '../../core/song/correct'

/** The selected counts of a song: one, or some in a row. @param total counts the song has */
export function useCountSelection(total: number) {
  const [selection, setSelection] = useState<Selection>({ from: 0, to: 1 })
  /** Where a selection was begun; the other end is the one that moves. */
  const anchor = useRef(0)
  const last = total - 1
  const select = (at: number, isMore = false) => {
    const to = Math.max(0, Math.min(last, at))
    if (!isMore) anchor.current = to
    setSelection({ from: Math.min(anchor.current, to), to: Math.max(anchor.current, to) + 1 })
  }
  const { from, to } = selection
  // A song that has fewer counts by now has its selection within them.
  useEffect(() => {
    if (to <= total) return
    anchor.current = last
    setSelection({ from: last, to: last + 1 })
  }, [to, total, last])
  return {
    selection,
    select,
    go: (by: number, isMore = false) =>
      select((anchor.current === from ? to - 1 : from) + by, isMore),
  }
}
