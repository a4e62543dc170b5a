import { createPlayer, type Music, type Player } from '../audio/player'
import { createDrum, FULL_MIX, type Speak } from '../audio/sounds'
import { speakWith } from '../audio/wordBank'
import type { PageData } from '../core/practice/pageData'
import { ownWordsOf, wordsOfPage } from '../core/practice/voice'

/** What is heard of a page. */
export interface Heard {
  readonly counts: boolean
  readonly rhythm: boolean
  readonly voice: boolean
}

export interface PageSound {
  readonly context: AudioContext
  readonly player: Player
  readonly hear: (heard: Heard) => void
  /** How far what is heard lags behind the clock, in seconds. */
  readonly late: () => number
}

/** Sound may only begin by a tap: made in the first one. What is said is decoded then, and heard once it is. */
export function pageSound(data: PageData, music: () => Music | undefined): PageSound {
  const context = new AudioContext()
  const drum = createDrum(context)
  const player = createPlayer({
    clock: context,
    book: drum.book,
    takeBack: drum.takeBack,
    music: {
      book: (...what) => music()?.book(...what),
      takeBack: (from) => music()?.takeBack(from),
      goOn: () => {},
    },
    every(ms, call) {
      const timer = setInterval(call, ms)
      return () => clearInterval(timer)
    },
  })
  void context.resume()
  void voiceOf(data, context).then((speak) => {
    if (!speak) return
    drum.setSpeak(speak)
    player.rebook()
  })
  return {
    context,
    player,
    hear({ counts, rhythm, voice }) {
      drum.setMix({
        ...FULL_MIX,
        click: counts ? 1 : 0,
        half: counts ? 1 : 0,
        rhythm: rhythm ? 1 : 0,
        moves: 0,
        voice: voice ? 1 : 0,
      })
      player.rebook()
    },
    late: () => context.outputLatency || context.baseLatency || 0,
  }
}

/** The words of a page, decoded; nothing where it has none, or this browser can't read them. */
async function voiceOf(data: PageData, context: AudioContext): Promise<Speak | undefined> {
  const decoded = await Promise.all(
    Object.entries(data.voice ?? {}).map(async ([bank, { ogg }]) => {
      const bytes = Uint8Array.from(atob(ogg), (sign) => sign.charCodeAt(0))
      const buffer = await context.decodeAudioData(bytes.buffer)
      return [bank, buffer.getChannelData(0)] as const
    }),
  ).catch(() => [])
  const own = ownWordsOf(data)
  return decoded.length > 0 || own.size > 0
    ? speakWith(
        wordsOfPage(data),
        { samples: Object.fromEntries(decoded), rate: context.sampleRate },
        own,
      )
    : undefined
}
