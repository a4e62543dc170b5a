import { useEffect } from 'react'
import { useBlocker } from 'react-router'

const QUESTION =
  'The last changes could not be saved in this browser yet. Leave all the same? They are only noted.'

/** Asks before a screen is left, or the page closed, while its work could not be saved. */
export function useLeaveWarning(isUnsaved: boolean): void {
  const blocker = useBlocker(isUnsaved)
  useEffect(() => {
    if (blocker.state !== 'blocked') return
    if (window.confirm(QUESTION)) blocker.proceed()
    else blocker.reset()
  }, [blocker])
  useEffect(() => {
    if (!isUnsaved) return
    const ask = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', ask)
    return () => window.removeEventListener('beforeunload', ask)
  }, [isUnsaved])
}
