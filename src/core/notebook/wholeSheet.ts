import type { Vocabulary } from '../moves/vocabulary'
import { isHeaderWord, PHRASE_WORDS, type PhraseWord } from '../sheet/lines'
import { readSheet } from '../sheet/readSheet'
import type { LineKind } from './lines'
import type { Page } from './read'

/** A page that is a count sheet but for its first line, or all of one: it is read as it is. */
export function sheetIn(page: string, vocabulary: Vocabulary): Page | undefined {
  const isWhole = /^\s*sway\s+\d/.test(page)
  if (!isWhole && !/^\s*phrase\s+[\p{L}\p{N}-]+/mu.test(page)) return undefined
  const { combination, messages } = readSheet(
    isWhole ? page.trimStart() : `sway 2\n${page}`,
    vocabulary,
  )
  if (messages.length > 0 && !isWhole) return undefined
  return {
    combination,
    lines: page.split('\n').map((line, i) => ({
      number: i + 1,
      text: line,
      kind: kindOfSheetLine(line),
      said: line.trim() ? [line.trim()] : [],
      pieces: [],
      isUnsure: false,
    })),
  }
}

const kindOfSheetLine = (line: string): LineKind => {
  const [, word = ''] = /^\s*([a-z]+)/.exec(line) ?? []
  if (word === 'phrase' || word === 'order' || word === 'title') return word
  return isHeaderWord(word)
    ? 'header'
    : PHRASE_WORDS.includes(word as PhraseWord)
      ? 'danced'
      : 'note'
}
