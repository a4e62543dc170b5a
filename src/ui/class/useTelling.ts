import { useEffect, useMemo, useRef } from 'react'
import { createTeller, type FloorNow, type Telling } from '../../core/following/telling'
import { wakeEvery } from '../../workers/wake'
import type { ClassClock } from './ClassFace'
import { finely } from './finely'

const TELL_MS = 100

/** Tells what the floor does, as it changes, and where it is in step with the sound. */
export function useTelling(floor: FloorNow, clock: ClassClock): Telling {
  const now = useRef(floor)
  now.current = floor
  const { telling, tell } = useMemo(() => createTeller(finely), [])
  useEffect(() => wakeEvery(TELL_MS, () => tell(now.current, clock())), [tell, clock])
  return telling
}
