import type { Voice } from '../combination/voice'
import type { PartId } from '../combination/whose'
import { changePhrase, type Edit } from './edit'

/** In a phrase a part follows another one, or otherwise than she did. */
export const writeVoice = (phraseId: string, voice: Voice): Edit =>
  changePhrase(phraseId, ({ voices = [], ...phrase }) => ({
    ...phrase,
    voices: [...voices.filter(({ part }) => part !== voice.part), voice],
  }))

/** In a phrase a part dances again what is written for her. */
export const removeVoice = (phraseId: string, part: PartId): Edit =>
  changePhrase(phraseId, ({ voices = [], ...phrase }) => {
    const left = voices.filter((one) => one.part !== part)
    return { ...phrase, ...(left.length > 0 && { voices: left }) }
  })
