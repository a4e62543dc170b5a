import { readFileSync, statSync } from 'node:fs'
import { basename } from 'node:path'
import { UserError } from '../core/errors'
import { vocabulary } from '../core/moves/vocabulary'
import { type FileRead, readCombinationFile, textOfBytes } from '../core/sheet/files'
import { unknownWords } from '../core/sheet/swayJson'
import type { Output } from './output'

const MOST_BYTES = 1_000_000
/** Reads a combination, and says what of it could not be read. @throws UserError */
export function readFile(path: string, { say }: Output): FileRead {
  if (path !== '-' && statSync(path).size > MOST_BYTES)
    throw new UserError('This file is over 1 MB.', 'Check that it is the right one.')
  const bytes = readFileSync(path === '-' ? 0 : path)
  if (bytes.length > MOST_BYTES)
    throw new UserError('This is over 1 MB.', 'Check that it is the right one.')
  const name = path === '-' ? 'standard input' : basename(path)
  const text = textOfBytes(name, bytes, (raw, encoding) =>
    new TextDecoder(encoding, { fatal: true }).decode(raw),
  )
  const file = readCombinationFile(name, text, vocabulary)
  if (file.unknown?.length) say(`${name}:${unknownWords(file.unknown)}\n`)
  for (const { line, column, text: said } of file.messages)
    say(`${name}:${line}:${column}: ${said}\n`)
  return file
}
