import type { Combination } from '../combination/combination'
import { UserError } from '../errors'
import type { Vocabulary } from '../moves/vocabulary'
import { looksLikeRows, readCsv } from './csv'
import type { SheetMessage } from './lines'
import { readSheet } from './readSheet'
import { readSwayJson } from './swayJson'

export interface FileRead {
  readonly combination: Combination
  /** Words that could not be read; they are kept in the combination. */
  readonly messages: readonly SheetMessage[]
  /** Fields of a `.sway.json` file this version does not know: they were left out. */
  readonly unknown?: readonly string[]
}

/**
 * Reads a combination in whatever form it comes: JSON, count sheet or rows, told by the
 * name where it says so, else by how the text begins.
 * @throws UserError that says what is wrong and what to do.
 */
export function readCombinationFile(name: string, text: string, vocabulary: Vocabulary): FileRead {
  const begin = text.replace(/^\uFEFF/, '').trimStart()
  if (/\.json$/i.test(name) || begin.startsWith('{') || begin.startsWith('['))
    return { ...readSwayJson(text), messages: [] }
  if (/\.sway$/i.test(name) || /^sway\s/.test(begin)) return readSheet(text, vocabulary)
  if (/\.(?:csv|tsv)$/i.test(name) || looksLikeRows(begin)) return readCsv(text, vocabulary)
  throw new UserError(
    `“${name}” is no combination: it is neither a count sheet, nor a .sway.json file, nor rows.`,
    'Nothing was changed. A count sheet begins with “sway 1”; rows begin with the columns phrase, count, feet.',
  )
}

/** Whether a text is a page somebody wrote for herself: neither a count sheet, nor JSON, nor rows of this app. */
export function isPage(name: string, text: string): boolean {
  const begin = text.replace(/^\uFEFF/, '').trimStart()
  if (/\.(?:json|sway|zip)$/i.test(name) || /^(?:sway\s|[{[])/.test(begin)) return false
  return begin !== '' && !/^(?:sep=.\s*)?"?phrase"?[,;\t]"?count"?/i.test(begin)
}

/** How the bytes of a text are read. */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be'

const begins = (bytes: Uint8Array, ...signs: readonly number[]): boolean =>
  signs.every((sign, i) => bytes[i] === sign)

/** What a file says of its own encoding; UTF-8 where it says nothing. */
const encodingOf = (bytes: Uint8Array): Encoding =>
  begins(bytes, 0xff, 0xfe) ? 'utf-16le' : begins(bytes, 0xfe, 0xff) ? 'utf-16be' : 'utf-8'

/**
 * The text of a file, from its bytes.
 * @throws UserError when it is a workbook, or in no encoding that is known.
 */
export function textOfBytes(
  name: string,
  bytes: Uint8Array,
  decode: (bytes: Uint8Array, encoding: Encoding) => string,
): string {
  // A workbook is a zip, or in older ones begins with a mark of its own.
  if (begins(bytes, 0x50, 0x4b, 3, 4) || begins(bytes, 0xd0, 0xcf, 0x11, 0xe0))
    throw new UserError(
      `“${name}” is a workbook, and its rows can't be read from here.`,
      'Nothing was changed. Open it where it was made, save it as CSV, and open that.',
    )
  try {
    return decode(bytes, encodingOf(bytes))
  } catch (cause) {
    throw new UserError(
      `“${name}” is not written in UTF-8, so its letters can't be read.`,
      'Nothing was changed. Save it again as UTF-8 text in the program it comes from.',
      { cause },
    )
  }
}
