import { useCallback, useEffect, useRef, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import type { Routine } from '../../core/routine/routine'
import { runThrough } from '../../core/routine/runThrough'

/** What is danced next in one run through, while it is waited for. */
export interface Coming {
  readonly routine: Routine
  /** Whole seconds until then. */
  readonly left: number
  readonly now: () => void
  readonly stay: () => void
}

/** Told to the next routine on the way to it: it begins by itself. */
const BEGINS = { begins: true } as const

/**
 * One run through: a routine that is danced to its end goes on with what follows it.
 * @param canPlay whether its song is there, or will not come
 * @param play plays it from its beginning
 */
export function useThen(
  routine: Routine,
  routines: readonly Routine[],
  canPlay: boolean,
  play: () => void,
) {
  const navigate = useNavigate()
  const { state, pathname } = useLocation()
  const [coming, setComing] = useState<{ readonly routine: Routine; readonly left: number }>()
  const go = useCallback(
    (next: Routine) => void navigate(`/routine/${next.id}`, { state: BEGINS }),
    [navigate],
  )
  useEffect(() => {
    if (!coming) return
    if (coming.left <= 0) return go(coming.routine)
    const timer = setTimeout(() => setComing({ ...coming, left: coming.left - 1 }), 1000)
    return () => clearTimeout(timer)
  }, [coming, go])
  const latest = useRef(play)
  latest.current = play
  const begins = (state as Partial<typeof BEGINS> | null)?.begins === true
  useEffect(() => {
    if (!begins || !canPlay) return
    // A reload does not begin it again.
    void navigate(pathname, { replace: true, state: null })
    latest.current()
  }, [begins, canPlay, navigate, pathname])
  const find = (id: string) => routines.find((one) => one.id === id)
  return {
    /** It was danced to its end. */
    ended() {
      const [, next] = runThrough(routine, find)
      if (next) setComing({ routine: next.routine, left: next.pause })
    },
    coming: coming && {
      ...coming,
      now: () => go(coming.routine),
      stay: () => setComing(undefined),
    },
  }
}
