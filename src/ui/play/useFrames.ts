import { useEffect } from 'react'
import { useStore } from 'zustand'
import type { Moment } from '../../core/performance/performance'
import { eachFrame } from '../parts/eachFrame'
import type { PlayDeck } from '../stores/deck'

/**
 * Draws each frame while something plays, from the audio clock, without rendering any
 * component; called once more with nothing when it stops.
 */
export function useFrames(deck: PlayDeck, draw: (moment: Moment | undefined) => void): void {
  const playing = useStore(deck, (is) => is)
  useEffect(() => {
    if (!playing) return
    const stop = eachFrame(() => draw(deck.moment()))
    return () => {
      stop()
      draw(undefined)
    }
  }, [deck, playing, draw])
}

/** What a moment is called on a play bar. */
export function nowText(moment: Moment | undefined): string {
  if (!moment) return ''
  const { isCountIn, count, pass } = moment
  return isCountIn || !pass ? count : `${pass.phrase.name} ${count}`
}
