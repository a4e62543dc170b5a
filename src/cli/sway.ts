import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { basename } from 'node:path'
import { parseArgs } from 'node:util'
import { mirror } from '../core/combination/mirror'
import { UserError } from '../core/errors'
import { vocabulary } from '../core/moves/vocabulary'
import { type FileRead, readCombinationFile, textOfBytes } from '../core/sheet/files'
import { FORMATS, type Format } from '../core/sheet/formats'
import { combinationJsonSchema } from '../core/sheet/schema'
import { writeCombinationFile } from '../core/sheet/writeFile'
import { writeSheet } from '../core/sheet/writeSheet'
import { handout } from '../core/teaching/handout'
import { report, reportText } from './report'

const USAGE = `usage: npm run -s sway -- COMMAND FILE [options]

  format FILE                the count sheet in its plain form (--write puts it in place)
  print FILE                 what to do on each count, in words, both sides
  convert FILE --to FORMAT   json, sway, csv, vtt or mid (--out FILE writes it there)
  mirror FILE                the count sheet of the other side
  check FILE [--json]        what is worth a look; exit 1 when something can't be danced
  schema                     the JSON Schema of .sway.json files

FILE is a .sway, .sway.json or .csv file, or - for standard input.`

const MOST_BYTES = 1_000_000
/** Faults were found. */
const FAULTS = 1
/** Nothing could be read. */
const UNREADABLE = 2

const decoder = new TextDecoder('utf-8', { fatal: true })

function read(path: string): FileRead {
  if (path !== '-' && statSync(path).size > MOST_BYTES)
    throw new UserError('This file is over 1 MB.', 'Check that it is the right one.')
  const bytes = readFileSync(path === '-' ? 0 : path)
  if (bytes.length > MOST_BYTES)
    throw new UserError('This is over 1 MB.', 'Check that it is the right one.')
  const name = path === '-' ? 'standard input' : basename(path)
  const text = textOfBytes(name, bytes, (raw) => decoder.decode(raw))
  const file = readCombinationFile(name, text, vocabulary)
  for (const { line, column, text: said } of file.messages)
    process.stderr.write(`${name}:${line}:${column}: ${said}\n`)
  return file
}

function run(args: readonly string[]): number {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      json: { type: 'boolean' },
      to: { type: 'string' },
      out: { type: 'string' },
      write: { type: 'boolean' },
    },
  })
  const [command, path] = positionals
  const print = (text: string | Uint8Array) =>
    values.out === undefined ? process.stdout.write(text) : writeFileSync(values.out, text)
  if (command === 'schema') {
    print(`${JSON.stringify(combinationJsonSchema(), null, 2)}\n`)
    return 0
  }
  if (!command || !path || !['format', 'print', 'convert', 'mirror', 'check'].includes(command)) {
    process.stderr.write(`${USAGE}\n`)
    return UNREADABLE
  }
  const { combination, messages } = read(path)
  switch (command) {
    case 'format': {
      const sheet = writeSheet(combination, vocabulary)
      if (values.write && path.endsWith('.sway')) writeFileSync(path, sheet)
      else print(sheet)
      return 0
    }
    case 'print':
      print(handout(combination, vocabulary))
      return 0
    case 'mirror':
      print(writeCombinationFile(mirror(combination), asFormat(values.to ?? 'sway'), vocabulary))
      return 0
    case 'convert':
      print(writeCombinationFile(combination, asFormat(values.to), vocabulary))
      return 0
    default: {
      const found = report(combination, messages, vocabulary)
      print(
        values.json
          ? `${JSON.stringify(found, null, 2)}\n`
          : `${reportText(combination, vocabulary)}\n`,
      )
      return found.findings.some(({ kind }) => kind === 'fault') ? FAULTS : 0
    }
  }
}

function asFormat(name: string | undefined): Format {
  if (name !== undefined && name in FORMATS) return name as Format
  throw new UserError(
    `“${name ?? ''}” is no format to convert to.`,
    `Write --to ${Object.keys(FORMATS).join(', --to ')}.`,
  )
}

try {
  process.exitCode = run(process.argv.slice(2))
} catch (error) {
  const isKnown = error instanceof UserError
  const said = isKnown
    ? `${error.message}\n${error.whatToDo}`
    : String((error as Error).message ?? error)
  process.stderr.write(`${said}\n`)
  process.exitCode = UNREADABLE
}
