import { useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import {
  afterAction,
  beginClass,
  type ClassAction,
  classAfter,
  paused,
  type UnderWay,
} from '../../core/class/underWay'
import type { ClassEntry } from '../../core/diary/diary'
import type { Materials } from '../../core/plan/material'
import type { Planning, UnderWayNote } from '../../storage/planning'
import { useCombinations, useMaterials, usePlanning } from '../planning/usePlanning'

/** All a class on the floor needs; undefined while it is loaded, null where there is no such class. */
export function useClassRecord(id: string) {
  const planning = usePlanning()
  const combinations = useCombinations()
  const materials = useMaterials(combinations.data)
  const record = useQuery({
    queryKey: ['floor', id],
    queryFn: async () => (planning ? await openClass(planning, id) : null),
    enabled: planning !== undefined,
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  })
  const error = combinations.error ?? record.error
  const isReady = planning && materials && record.data !== undefined
  return {
    error,
    ready: isReady ? { planning, materials, opened: record.data } : undefined,
  }
}

async function openClass(
  planning: Planning,
  id: string,
): Promise<{ entry: ClassEntry; note: UnderWayNote } | null> {
  const entry = await planning.classes.get(id)
  if (!entry) return null
  const known = await planning.underWay.read(id)
  if (known) return { entry, note: known }
  const plan = entry.plan === undefined ? undefined : await planning.plans.get(entry.plan)
  return plan ? { entry, note: { session: beginClass(plan, entry), step: 0 } } : null
}

/** What the music reports by itself; all else somebody asks for. */
const isReport = ({ kind }: ClassAction): boolean => kind === 'round' || kind === 'finished'

/**
 * A class under way: every step is written down before anything else happens. Where two windows
 * have it, the one that was used last goes on, and the other one follows.
 * @param onTaken called when another window has taken the class on while this one danced
 */
export function useClass(
  first: UnderWayNote,
  planning: Planning,
  materials: Materials,
  onTaken: () => void,
) {
  const { id } = first.session
  const [session, setSession] = useState(() => paused(first.session))
  const now = useRef(session)
  const step = useRef(first.step)
  const taken = useRef(onTaken)
  taken.current = onTaken
  /** Takes on what another window has written since; nothing where this one is the newest. */
  const takeOn = useCallback((): UnderWay | undefined => {
    const theirs = planning.underWay.glance(id)
    if (!theirs || theirs.step <= step.current) return undefined
    const wasDancing = now.current.phase === 'dancing'
    step.current = theirs.step
    now.current = paused(theirs.session)
    setSession(now.current)
    if (wasDancing) taken.current()
    return now.current
  }, [planning, id])
  useEffect(() => {
    const follow = () => void takeOn()
    window.addEventListener('storage', follow)
    return () => window.removeEventListener('storage', follow)
  }, [takeOn])
  const act = useCallback(
    (action: ClassAction): UnderWay => {
      const theirs = takeOn()
      // What was danced here belongs to a class that has gone on elsewhere.
      if (theirs && isReport(action)) return theirs
      const before = now.current
      const next = afterAction(before, action, materials)
      if (next === before) return before
      now.current = next
      step.current++
      planning.underWay.write(next, step.current)
      if (next.danced !== before.danced || next.rounds !== before.rounds)
        planning.classes
          .change(next.id, (entry) => classAfter(entry, next, materials))
          // It is said by what keeps the records, and made with the next change.
          .catch(() => {})
      setSession(next)
      return next
    },
    [takeOn, planning, materials],
  )
  return { session, act, now }
}
