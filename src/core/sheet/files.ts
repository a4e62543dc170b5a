import type { Combination } from '../combination/combination'
import { UserError } from '../errors'
import type { Vocabulary } from '../moves/vocabulary'
import { readCsv } from './csv'
import type { SheetMessage } from './lines'
import { readSheet } from './readSheet'
import { readSwayJson } from './swayJson'

export interface FileRead {
  readonly combination: Combination
  /** Words that could not be read; they are kept in the combination. */
  readonly messages: readonly SheetMessage[]
}

/**
 * Reads a combination in whatever form it comes: JSON, count sheet or rows, told by the
 * name where it says so, else by how the text begins.
 * @throws UserError that says what is wrong and what to do.
 */
export function readCombinationFile(name: string, text: string, vocabulary: Vocabulary): FileRead {
  const begin = text.replace(/^\uFEFF/, '').trimStart()
  if (/\.json$/i.test(name) || begin.startsWith('{') || begin.startsWith('['))
    return { combination: readSwayJson(text), messages: [] }
  if (/\.sway$/i.test(name) || /^sway\s/.test(begin)) return readSheet(text, vocabulary)
  if (/\.csv$/i.test(name) || /^"?phrase"?\s*,/i.test(begin)) return readCsv(text, vocabulary)
  throw new UserError(
    `“${name}” is no combination: it is neither a count sheet, nor a .sway.json file, nor rows.`,
    'Nothing was changed. A count sheet begins with “sway 1”; rows begin with the columns phrase, count, feet.',
  )
}

/**
 * The text of a file, from its bytes.
 * @throws UserError when it is not UTF-8.
 */
export function textOfBytes(
  name: string,
  bytes: Uint8Array,
  decode: (bytes: Uint8Array) => string,
): string {
  try {
    return decode(bytes)
  } catch (cause) {
    throw new UserError(
      `“${name}” is not written in UTF-8, so its letters can't be read.`,
      'Nothing was changed. Save it again as UTF-8 text in the program it comes from.',
      { cause },
    )
  }
}
