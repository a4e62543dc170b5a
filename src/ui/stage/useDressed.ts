import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import type { Family } from '../../core/moves/move'
import type { Dressed } from '../../core/skin/dress'
import { dancerNow } from '../stores/dancer'
import { dressedNow } from './loadStage'

/**
 * The dancer at rest, for a dance of some families; as before until another one is ready.
 * @param onFail there is nothing to draw her with, or she can’t be made.
 */
export function useDressed(
  families: readonly Family[],
  isWanted: boolean,
  onFail: () => void,
): Dressed | undefined {
  const failed = useRef(onFail)
  failed.current = onFail
  const look = useStore(dancerNow, (s) => s.look)
  const [dressed, setDressed] = useState<Dressed>()
  const key = families.join()
  // biome-ignore lint/correctness/useExhaustiveDependencies: dressed anew when the house wants another look
  useEffect(() => {
    let isGone = false
    if (isWanted)
      dressedNow(key === '' ? [] : (key.split(',') as Family[])).then(
        (one) => isGone || setDressed(one),
        () => isGone || failed.current(),
      )
    return () => {
      isGone = true
    }
  }, [key, look, isWanted])
  return dressed
}
