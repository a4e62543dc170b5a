import { useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { ClassEntry } from '../../core/diary/diary'
import {
  beginFloor,
  classAfter,
  type FloorAction,
  type FloorSession,
  floorAfter,
  paused,
} from '../../core/floor/session'
import type { Materials } from '../../core/plan/material'
import type { Teaching } from '../../storage/teaching'
import { useCombinations, useMaterials, useTeaching } from '../teaching/useTeaching'

/** All a class on the floor needs; undefined while it is loaded, null where there is no such class. */
export function useClassRecord(id: string) {
  const teaching = useTeaching()
  const combinations = useCombinations()
  const materials = useMaterials(combinations.data)
  const record = useQuery({
    queryKey: ['floor', id],
    queryFn: async () => (teaching ? await openClass(teaching, id) : null),
    enabled: teaching !== undefined,
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  })
  const error = combinations.error ?? record.error
  const isReady = teaching && materials && record.data !== undefined
  return {
    error,
    ready: isReady ? { teaching, materials, opened: record.data } : undefined,
  }
}

async function openClass(
  teaching: Teaching,
  id: string,
): Promise<{ entry: ClassEntry; session: FloorSession } | null> {
  const entry = await teaching.classes.get(id)
  if (!entry) return null
  const known = teaching.floor.read(id)
  if (known) return { entry, session: known }
  const plan = entry.plan === undefined ? undefined : await teaching.plans.get(entry.plan)
  return plan ? { entry, session: beginFloor(plan, entry) } : null
}

/** A class under way: every step is written down before anything else happens. */
export function useClass(first: FloorSession, teaching: Teaching, materials: Materials) {
  const [session, setSession] = useState(first)
  const now = useRef(session)
  // Another window has the class: this one follows, to go on from there; nobody dances in both.
  useEffect(() => {
    const follow = () => {
      const theirs = teaching.floor.read(first.id)
      if (!theirs || now.current.phase === 'dancing') return
      const next = paused(theirs)
      if (JSON.stringify(next) === JSON.stringify(now.current)) return
      now.current = next
      setSession(next)
    }
    window.addEventListener('storage', follow)
    return () => window.removeEventListener('storage', follow)
  }, [teaching, first.id])
  const act = useCallback(
    (action: FloorAction): FloorSession => {
      const before = now.current
      const next = floorAfter(before, action, materials)
      if (next === before) return before
      now.current = next
      teaching.floor.write(next)
      if (next.danced !== before.danced || next.rounds !== before.rounds)
        void teaching.classes.change(next.id, (entry) => classAfter(entry, next, materials))
      setSession(next)
      return next
    },
    [teaching, materials],
  )
  return { session, act, now }
}
