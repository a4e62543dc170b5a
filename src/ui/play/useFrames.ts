import { useEffect } from 'react'
import type { Position } from '../../audio/player'
import type { PlayDeck } from '../stores/deck'
import { useStore } from '../stores/store'

/**
 * Draws each frame while something plays, from the audio clock, without rendering any
 * component; called once more with nothing when it stops.
 */
export function useFrames(deck: PlayDeck, draw: (position: Position | undefined) => void): void {
  const playing = useStore(deck, (is) => is)
  useEffect(() => {
    if (!playing) return
    let frame = 0
    const next = () => {
      draw(deck.position())
      frame = requestAnimationFrame(next)
    }
    next()
    return () => {
      cancelAnimationFrame(frame)
      draw(undefined)
    }
  }, [deck, playing, draw])
}
