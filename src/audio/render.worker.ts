import type { HeldSound } from './held'
import { renderSounds, type Schedule } from './render'
import { renderMusic } from './renderMusic'
import { createSamples, type Mix, type Speak } from './sounds'
import { type Recording, speakFrom } from './speech'
import { writeWav } from './wav'

/** What is rendered, with the voice it needs: a worker can't decode sound itself. */
export interface RenderWish {
  readonly schedule: Schedule
  readonly rate: number
  readonly mix: Mix
  readonly banks: { readonly normal: Float32Array; readonly fast: Float32Array } | undefined
  readonly own: ReadonlyMap<string, Recording>
  /** The song that goes along, at the same rate, and how loud it is. */
  readonly song: { readonly sound: HeldSound; readonly loud: number } | undefined
}

export type RenderReply =
  | { readonly kind: 'share'; readonly share: number }
  | { readonly kind: 'done'; readonly wav: ArrayBuffer; readonly seconds: number }
  | { readonly kind: 'failed'; readonly text: string }

const isSilent: Speak = () => undefined

self.onmessage = async ({ data }: MessageEvent<RenderWish>) => {
  const reply = (answer: RenderReply, transfer: Transferable[] = []) =>
    self.postMessage(answer, { transfer })
  try {
    const { schedule, rate, mix, banks, own, song } = data
    const speak = banks ? speakFrom(banks, rate, own) : isSilent
    const tell = (share: number) => reply({ kind: 'share', share })
    const music =
      song && (await renderMusic(schedule, song.sound, song.loud, (share) => tell(share * 0.6)))
    const samples = renderSounds(
      schedule,
      rate,
      mix,
      createSamples(rate, speak),
      (share) => tell(0.6 + share * 0.3),
      music,
    )
    const wav = await writeWav(samples, rate)
    reply({ kind: 'done', wav, seconds: schedule.seconds }, [wav])
  } catch (error) {
    reply({ kind: 'failed', text: error instanceof Error ? error.message : String(error) })
  }
}
