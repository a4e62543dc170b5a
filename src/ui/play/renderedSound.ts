import type { HeldSound } from '../../audio/held'
import { type Schedule, scheduleOf } from '../../audio/render'
import type { RenderReply, RenderWish } from '../../audio/render.worker'
import type { Mix } from '../../audio/sounds'
import { loadBanks, type Recording } from '../../audio/speech'
import type { Performance } from '../../core/performance/performance'

/** Samples a second where no song says otherwise. */
const RATE = 44_100

/** How a performance is heard in a file. */
export interface Heard {
  readonly mix: Mix
  /** How loud its song is, 0 to 1. */
  readonly loud: number
  /** The instructor's own words. */
  readonly own: ReadonlyMap<string, Recording>
}

/** The sound of a performance as a file. */
interface RenderedSound {
  readonly wav: ArrayBuffer
  readonly seconds: number
  /** Whether its song is in it; undefined where it is danced to none. */
  readonly hasSong: boolean | undefined
}

/**
 * Renders all that sounds in a performance, with its song where that is here, beside the page.
 * @param songOf the sound of a song, by its file's mark
 * @param told is told the share that is done, 0 to 1
 * @returns undefined where it was stopped
 * @throws Error where it can't be rendered
 */
export async function renderedSound(
  performed: Performance,
  { mix, loud, own }: Heard,
  songOf: (mark: string) => HeldSound | undefined,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<RenderedSound | undefined> {
  const schedule = scheduleOf(performed)
  const [music] = schedule.music
  const sound = music && songOf(music.mark)
  const rate = sound?.rate ?? RATE
  const banks = await loadBanks(new OfflineAudioContext(1, 1, rate)).catch(() => undefined)
  const song = sound && { sound, loud }
  const made = await rendered({ schedule, rate, mix, banks, own, song }, told, signal)
  return made && { ...made, hasSong: music && sound !== undefined }
}

function rendered(
  wish: RenderWish,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<{ readonly wav: ArrayBuffer; readonly seconds: Schedule['seconds'] } | undefined> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL('../../audio/render.worker.ts', import.meta.url), {
      type: 'module',
    })
    const end = (settle: () => void) => {
      worker.terminate()
      settle()
    }
    signal.addEventListener('abort', () => end(() => resolve(undefined)), { once: true })
    worker.onmessage = ({ data }: MessageEvent<RenderReply>) => {
      if (data.kind === 'share') told(data.share)
      else if (data.kind === 'failed') end(() => reject(new Error(data.text)))
      else end(() => resolve({ wav: data.wav, seconds: data.seconds }))
    }
    worker.onerror = ({ message }) => end(() => reject(new Error(message)))
    if (signal.aborted) end(() => resolve(undefined))
    else worker.postMessage(wish)
  })
}
