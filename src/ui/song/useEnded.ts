import { useEffect, useRef } from 'react'

/** Calls when what played has come to its own end, and was not stopped. */
export function useEnded(playing: boolean, ended: () => void): { readonly stopped: () => void } {
  const latest = useRef(ended)
  latest.current = ended
  const was = useRef({ playing: false, isStopped: false })
  useEffect(() => {
    const { playing: before, isStopped } = was.current
    was.current = { playing, isStopped: false }
    if (before && !playing && !isStopped) latest.current()
  }, [playing])
  return {
    stopped: () => {
      was.current.isStopped = true
    },
  }
}
