import { useCallback, useEffect, useRef, useState } from 'react'

/**
 * What stands in a field while it is stored behind. What comes back of the field's own
 * changes is no news, so that a slow store takes no letter from fast fingers; what others
 * have changed is taken on.
 */
export function useDraft<T>(value: T) {
  const [draft, setDraft] = useState(value)
  const sent = useRef<readonly T[]>([])
  useEffect(() => {
    const at = sent.current.lastIndexOf(value)
    if (at < 0) setDraft(value)
    sent.current = at < 0 ? [] : sent.current.slice(at + 1)
  }, [value])
  const send = useCallback((made: T) => {
    sent.current = [...sent.current, made]
  }, [])
  /** From now on everything is news. */
  const leave = useCallback(() => {
    sent.current = []
  }, [])
  return { draft, setDraft, send, leave }
}
