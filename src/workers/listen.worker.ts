import type { KeptFeatures } from '../core/beats/kept'
import { heardIn, type Listened, type NotHeard, readSound, type Told } from '../core/beats/listen'
import { UserError } from '../core/errors'

/** Sound that is heard for the first time, or what is kept of it. */
export type ListenWish = { readonly told: Told } & (
  | { readonly samples: Float32Array<ArrayBuffer>; readonly rate: number }
  | { readonly features: KeptFeatures }
)

export type ListenNews =
  | { readonly kind: 'share'; readonly share: number }
  | {
      readonly kind: 'heard'
      readonly heard: Listened | NotHeard
      /** Absent where there is nothing in it. */
      readonly features: KeptFeatures | undefined
    }
  | { readonly kind: 'failed'; readonly text: string; readonly toDo: string }

/** What reading the sound is of all the work. */
const READING = 0.85

function run(wish: ListenWish): ListenNews {
  const tell = (news: ListenNews) => self.postMessage(news)
  const read =
    'features' in wish
      ? wish.features
      : readSound(wish.samples, wish.rate, (share) =>
          tell({ kind: 'share', share: READING * share }),
        )
  if (typeof read === 'string') return { kind: 'heard', heard: read, features: undefined }
  tell({ kind: 'share', share: READING })
  return { kind: 'heard', heard: heardIn(read, wish.told), features: read }
}

self.onmessage = ({ data }: MessageEvent<ListenWish>) => {
  try {
    self.postMessage(run(data))
  } catch (error) {
    const news: ListenNews =
      error instanceof UserError
        ? { kind: 'failed', text: error.message, toDo: error.whatToDo }
        : { kind: 'failed', text: String(error), toDo: 'Nothing was changed. Try it again.' }
    self.postMessage(news)
  }
}
