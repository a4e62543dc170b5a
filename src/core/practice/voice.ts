import { LAYERS } from '../body/layers'
import type { SpeechSeconds } from '../calling/called'
import { type OwnWords, secondsFrom } from '../calling/ownWords'
import {
  type Bank,
  bankFor,
  spokenWords,
  type WordBanks,
  type WordPlace,
} from '../calling/spokenWords'
import { folded } from '../record/folded'
import { stableText } from '../record/stable'
import { cutBank } from './cutVoice'
import { type PackedWord, packedWord, unpackedWord } from './ownVoice'
import { pageDance } from './pageDance'
import { markOf, type PageData, sidesOf } from './pageData'

/** The voice of the app: its words, and the files they lie in. */
export interface Voice {
  readonly words: WordBanks
  readonly files: Readonly<Record<Bank, Uint8Array>>
}

/** Speeds a page is danced at, of its tempo: how fast a word is said hangs on it. */
const PERCENTS = [50, 60, 70, 80, 90, 100, 110]

/** How long a text takes, by the words of a page. */
export const secondsOnPage = (data: PageData): SpeechSeconds =>
  secondsFrom(wordsOfPage(data), ownWordsOf(data))

/** The instructor's own words on a page, by their text. */
export const ownWordsOf = ({ own = {} }: PageData): OwnWords =>
  new Map(Object.entries(own).map(([text, word]) => [text, unpackedWord(word)]))

/**
 * A page with the words that are called in it, and no other.
 * @param own words the instructor said herself, by their folded text: they go before the app's
 */
export function withVoice(
  data: PageData,
  { words, files }: Voice,
  own: OwnWords = new Map(),
): PageData {
  const said = new Map<string, PackedWord>()
  const called: Record<Bank, Set<string>> = { normal: new Set(), fast: new Set() }
  const dance = pageDance(data, secondsFrom(words, own))
  const heard = sidesOf(data).flatMap((side) =>
    PERCENTS.flatMap((percent) => [
      dance.allFrom(undefined, { side, percent, layers: LAYERS }),
      ...data.chunks.flatMap((chunk) =>
        chunk.stops.flatMap((stop) =>
          stop.do === 'walk'
            ? []
            : dance.stopAt(chunk, stop, { side, percent, layers: stop.layers }, { isLoop: false }),
        ),
      ),
    ]),
  )
  for (const { calls } of heard)
    for (const { say } of calls) {
      if (!say) continue
      const word = own.get(folded(say.text))
      if (word) said.set(folded(say.text), packedWord(word))
      else for (const one of spokenWords(say.text)) called[bankFor(say.isFast)].add(one)
    }
  const cut = (bank: Bank) => {
    const places = new Map(
      [...called[bank]].sort().flatMap((word): [string, WordPlace][] => {
        const place = words.get(word)?.[bank]
        return place ? [[word, place]] : []
      }),
    )
    return places.size > 0 ? { [bank]: cutBank(files[bank], places) } : {}
  }
  const { id: _, ...page } = {
    ...data,
    voice: { ...cut('normal'), ...cut('fast') },
    ...(said.size > 0 && {
      own: Object.fromEntries([...said].sort(([a], [b]) => (a < b ? -1 : 1))),
    }),
  }
  return { ...page, id: markOf(stableText(page)) }
}

/** The words of a page as banks again. */
export function wordsOfPage({ voice = {} }: PageData): WordBanks {
  const words = new Map<string, Partial<Record<Bank, WordPlace>>>()
  for (const bank of ['normal', 'fast'] as const)
    for (const [word, place] of Object.entries(voice[bank]?.words ?? {}))
      words.set(word, { ...words.get(word), [bank]: place })
  return words
}
