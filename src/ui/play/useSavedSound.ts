import { useRef, useState } from 'react'
import { scheduleOf } from '../../audio/render'
import type { RenderReply, RenderWish } from '../../audio/render.worker'
import type { Mix } from '../../audio/sounds'
import { loadBanks, type Recording } from '../../audio/speech'
import type { Performance } from '../../core/performance/performance'
import { clockText } from '../../core/time/clock'
import { download } from '../parts/files'
import { useServices } from '../stores/services'

/** Samples a second where no song says otherwise. */
const RATE = 44_100

/** How a performance is heard in a file. */
interface Heard {
  readonly mix: Mix
  /** How loud its song is, 0 to 1. */
  readonly loud: number
  /** The instructor's own words. */
  readonly own: ReadonlyMap<string, Recording>
}

/** Writes what is performed as a sound file, with its song where that is here; beside the page, and it can be stopped. */
export function useSavedSound() {
  const { deck } = useServices()
  const [share, setShare] = useState<number>()
  const [done, setDone] = useState<string>()
  const running = useRef<Worker>(undefined)
  const stop = () => {
    running.current?.terminate()
    running.current = undefined
    setShare(undefined)
  }
  const save = async (name: string, performed: Performance, { mix, loud, own }: Heard) => {
    setDone(undefined)
    setShare(0)
    const begun = performance.now()
    const schedule = scheduleOf(performed)
    const [music] = schedule.music
    const sound = music && deck.soundOf(music.mark)
    const rate = sound?.rate ?? RATE
    const banks = await loadBanks(new OfflineAudioContext(1, 1, rate)).catch(() => undefined)
    const worker = new Worker(new URL('../../audio/render.worker.ts', import.meta.url), {
      type: 'module',
    })
    running.current = worker
    worker.onmessage = ({ data }: MessageEvent<RenderReply>) => {
      if (data.kind === 'share') return setShare(data.share)
      stop()
      if (data.kind === 'failed') return setDone(`It could not be written: ${data.text}`)
      download(`${name}.wav`, new Blob([data.wav], { type: 'audio/wav' }), 'audio/wav')
      const took = ((performance.now() - begun) / 1000).toFixed(1)
      setDone(
        [
          `${clockText(data.seconds)} of sound, written in ${took} s.`,
          music && !sound && 'The song is not in it: its file is not kept here.',
          sound && 'Where others are to hear it the music may need a licence.',
        ]
          .filter(Boolean)
          .join(' '),
      )
    }
    const song = sound && { sound, loud }
    const wish: RenderWish = { schedule, rate, mix, banks, own, song }
    worker.postMessage(wish)
  }
  return { share, done, save, stop }
}
