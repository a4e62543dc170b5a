import { useRef, useState } from 'react'
import type { Combination } from '../../core/combination/combination'
import { onlyLocked } from '../../core/routine/edits'
import type { Proposed } from '../../core/routine/propose'
import type { Routine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import { inWords } from '../parts/Problem'
import { useServices } from '../stores/services'

/** No more combinations are tried with each other. */
const MOST_CHOSEN = 8

/** Routines that are proposed for what is free of a song; they are thought about beside the page. */
export function useProposals(
  routine: Routine,
  song: Song,
  say: (text: string) => void,
  /** Whether only what is locked stays. */
  isAnew: boolean,
) {
  const { judge } = useServices()
  const [found, setFound] = useState<{
    readonly of: Routine
    readonly proposed: readonly Proposed[]
  }>()
  const [asking, setAsking] = useState(false)
  const stop = useRef<AbortController>(undefined)
  const ask = async (combinations: readonly Combination[]) => {
    if (combinations.length === 0) {
      say('Tick the combinations it is to be made of.')
      return
    }
    if (combinations.length > MOST_CHOSEN) {
      say(`Tick ${MOST_CHOSEN} combinations at the most.`)
      return
    }
    const control = new AbortController()
    stop.current = control
    setAsking(true)
    try {
      const proposed = await judge.ask(
        'propose',
        { routine: isAnew ? onlyLocked(routine) : routine, song, combinations },
        control.signal,
      )
      setFound({ of: routine, proposed })
      if (proposed.length === 0)
        say('Nothing fits without a fault: tick others, or leave less free.')
    } catch (error) {
      if (control.signal.aborted) return
      const { what, toDo } = inWords(error)
      say(`${what} ${toDo}`)
    } finally {
      setAsking(false)
    }
  }
  return {
    ask,
    asking,
    stop: () => stop.current?.abort(),
    /** Gone as soon as anything is changed by hand. */
    proposed: found?.of === routine ? found.proposed : [],
  }
}
