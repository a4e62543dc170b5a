import { useRef, useState } from 'react'
import type { Performance } from '../../core/performance/performance'
import { clockText } from '../../core/time/clock'
import { download } from '../parts/files'
import { useServices } from '../stores/services'
import { type Heard, renderedSound } from './renderedSound'

/** Writes what is performed as a sound file, with its song where that is here; beside the page, and it can be stopped. */
export function useSavedSound() {
  const { deck } = useServices()
  const [share, setShare] = useState<number>()
  const [done, setDone] = useState<string>()
  const running = useRef<AbortController>(undefined)
  const stop = () => {
    running.current?.abort()
    running.current = undefined
    setShare(undefined)
  }
  const save = async (name: string, performed: Performance, heard: Heard) => {
    setDone(undefined)
    setShare(0)
    const begun = performance.now()
    const ends = new AbortController()
    running.current = ends
    const songOf = (mark: string) => deck.soundOf(mark)
    try {
      const made = await renderedSound(performed, heard, songOf, setShare, ends.signal)
      if (!made) return
      stop()
      download(`${name}.wav`, new Blob([made.wav], { type: 'audio/wav' }), 'audio/wav')
      const took = ((performance.now() - begun) / 1000).toFixed(1)
      setDone(
        [
          `${clockText(made.seconds)} of sound, written in ${took} s.`,
          made.hasSong === false && 'The song is not in it: its file is not kept here.',
          made.hasSong && 'Where others are to hear it the music may need a licence.',
        ]
          .filter(Boolean)
          .join(' '),
      )
    } catch (error) {
      stop()
      setDone(`It could not be written: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  return { share, done, save, stop }
}
