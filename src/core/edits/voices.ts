import { type Voice, voiceOf } from '../combination/voice'
import type { PartId } from '../combination/whose'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { changePhrase, type Edit } from './edit'

/** In a phrase a part follows another one, or otherwise than she did. */
export const writeVoice = (phraseId: string, voice: Voice): Edit =>
  changePhrase(phraseId, ({ voices = [], ...phrase }) => ({
    ...phrase,
    voices: [...voices.filter(({ part }) => part !== voice.part), voice],
  }))

/** Changes how a part follows in a phrase; one that did not follow comes in two counts later. */
export const changeVoice =
  (phraseId: string, part: PartId, change: VoiceChange): Edit =>
  (combination) => {
    const phrase = combination.phrases.find(({ id }) => id === phraseId)
    const { mirrored, ...voice } = {
      part,
      of: '',
      by: tick(2 * TICKS_PER_COUNT),
      ...(phrase && voiceOf(phrase, part)),
      ...change,
    }
    return writeVoice(phraseId, { ...voice, ...(mirrored && { mirrored }) })(combination)
  }

/** What can be changed of a voice; an image that is undefined is none any more. */
export interface VoiceChange {
  readonly of?: PartId
  readonly by?: Tick
  readonly mirrored?: true | undefined
}

/** In a phrase a part dances again what is written for her. */
export const removeVoice = (phraseId: string, part: PartId): Edit =>
  changePhrase(phraseId, ({ voices = [], ...phrase }) => {
    const left = voices.filter((one) => one.part !== part)
    return { ...phrase, ...(left.length > 0 && { voices: left }) }
  })
