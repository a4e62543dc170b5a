import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import type { Combination } from '../core/combination/combination'
import { textsTurned } from '../core/combination/mirror'
import { otherSideWritten } from '../core/edits/otherSide'
import { UserError } from '../core/errors'
import { handoutFile } from '../core/handout/handoutFile'
import { PAPERS, type Paper } from '../core/handout/style'
import { USUAL_LOOK } from '../core/house/dancerLook'
import { USUAL_HOUSE } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { danceOf } from '../core/piece/dance'
import { materialsOf } from '../core/plan/material'
import { taughtText } from '../core/plan/tell'
import { FORMATS, type Format } from '../core/sheet/formats'
import { combinationJsonSchema } from '../core/sheet/schema'
import { writeCombinationFile } from '../core/sheet/writeFile'
import { writeSheet } from '../core/sheet/writeSheet'
import { handout } from '../core/teaching/handout'
import { counted } from './counted'
import { FAULTS, type Output, UNREADABLE } from './output'
import { page } from './page'
import { planned } from './planned'
import { readFile } from './readFile'
import { report, reportText } from './report'
import { level, repair } from './rewritten'

const USAGE = `usage: npm run -s sway -- COMMAND FILE [options]

  format FILE                the count sheet in its plain form (--write puts it in place)
  print FILE                 what to do on each count, in words, both sides (--html: a handout with key poses
                             that any browser prints; --size a4 or letter, --large in large print)
  convert FILE --to FORMAT   json, sway, csv, txt, md, vtt or mid (--out FILE writes it there)
  mirror FILE                the count sheet of the other side
  check FILE [--json]        what is worth a look; exit 1 when something can't be danced
  repair FILE --for GOAL     the sheet with its feet put right; GOAL is faults, switch or repeat; exit 1
                             when something else still can't be danced, or no repair leads there
                             (--json: the edits with their costs, the next two ways, what is left)
  level FILE --to LEVEL      the sheet for new, improver, intermediate or advanced dancers; exit 1 when
                             something is still too hard (--json: the swaps, what is left)
  plan FILE… --minutes N     a class of one or more combinations, step by step (--level, --type drop-in,
                             technique, choreography or slot, --sides both, lead or last, --way phrases,
                             layers or counts; --json: steps, what is left, warnings)
  page FILE                  a practice page for students, one file that needs no network (--phrases A,B,
                             --part NAME of a piece, --of 2/5 in a series, --sides both or lead,
                             --by NAME, --note TEXT, --voice with the words that are called)
  beats FILE.wav             the counts of a song, its bars, eights and sections (--json; --tempo N where
                             its counts a minute are known, --style ID a rhythm, --first SECONDS of a 1,
                             --phrase N counts from there, --taps S,S,.. on eight counts or more)
  schema                     the JSON Schema of .sway.json files

FILE is a .sway, .sway.json or .csv file, or - for standard input.`

const COMMANDS: readonly string[] = [
  'format',
  'print',
  'convert',
  'mirror',
  'check',
  'repair',
  'level',
  'plan',
  'page',
  'beats',
]

function run(args: readonly string[], output: Output): number {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      json: { type: 'boolean' },
      to: { type: 'string' },
      out: { type: 'string' },
      for: { type: 'string' },
      write: { type: 'boolean' },
      minutes: { type: 'string' },
      level: { type: 'string' },
      type: { type: 'string' },
      sides: { type: 'string' },
      way: { type: 'string' },
      tempo: { type: 'string' },
      style: { type: 'string' },
      first: { type: 'string' },
      phrase: { type: 'string' },
      taps: { type: 'string' },
      phrases: { type: 'string' },
      part: { type: 'string' },
      of: { type: 'string' },
      by: { type: 'string' },
      note: { type: 'string' },
      made: { type: 'string' },
      voice: { type: 'boolean' },
      html: { type: 'boolean' },
      large: { type: 'boolean' },
      size: { type: 'string' },
    },
  })
  const [command, path] = positionals
  const { say } = output
  const to = values.out
  const print =
    to === undefined ? output.print : (text: string | Uint8Array) => writeFileSync(to, text)
  const out = { print, say }
  if (command === 'schema') {
    print(`${JSON.stringify(combinationJsonSchema(), null, 2)}\n`)
    return 0
  }
  if (!command || !path || !COMMANDS.includes(command)) {
    say(`${USAGE}\n`)
    return UNREADABLE
  }
  if (command === 'beats') return counted(path, values, values.json === true, out)
  if (command === 'plan') return planned(positionals.slice(1), values, values.json === true, out)
  const { combination, messages } = readFile(path, out)
  switch (command) {
    case 'format': {
      const sheet = writeSheet(combination, vocabulary)
      if (values.write && path.endsWith('.sway')) writeFileSync(path, sheet)
      else print(sheet)
      return 0
    }
    case 'print':
      print(
        values.html
          ? handoutFile(
              { ...danceOf(combination, vocabulary, USUAL_HOUSE), combination },
              {
                paper: asPaper(values.size),
                day: values.made ?? new Date().toISOString().slice(0, 10),
                isLarge: values.large,
                look: USUAL_LOOK,
              },
            )
          : printed(combination),
      )
      return 0
    case 'mirror': {
      const other = otherSideWritten(combination, vocabulary)
      for (const { from, to: now } of textsTurned(combination, other))
        say(`“${from}” -> “${now}”\n`)
      print(writeCombinationFile(other, asFormat(values.to ?? 'sway'), vocabulary))
      return 0
    }
    case 'page':
      print(
        page(combination, {
          phrases: values.phrases,
          part: values.part,
          of: values.of,
          sides: values.sides,
          by: values.by,
          note: values.note,
          made: values.made,
          voice: values.voice,
        }),
      )
      return 0
    case 'repair':
      return repair(combination, values.for, values.json === true, out)
    case 'level':
      return level(combination, values.to, values.json === true, out)
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

/** The handout: what to do on each count, and how it is taught. */
function printed(combination: Combination): string {
  const materials = materialsOf([combination], vocabulary, USUAL_HOUSE)
  const material = materials.find(combination.id)
  const taught = material && taughtText(material, materials)
  return `${handout(combination, vocabulary)}${taught ? `\nHOW IT IS TAUGHT\n\n${taught}\n` : ''}`
}

function asPaper(name: string | undefined): Paper {
  const paper = PAPERS.find((one) => one === (name ?? 'a4').toLowerCase())
  if (paper) return paper
  throw new UserError(`“${name}” is no paper.`, 'Write --size a4 or --size letter.')
}

function asFormat(name: string | undefined): Format {
  if (name !== undefined && Object.hasOwn(FORMATS, name)) return name as Format
  throw new UserError(
    `“${name ?? ''}” is no format to convert to.`,
    `Write --to ${Object.keys(FORMATS).join(', --to ')}.`,
  )
}

/** Does what was asked. @returns the exit code */
export function commandLine(args: readonly string[], output: Output): number {
  try {
    return run(args, output)
  } catch (error) {
    const isKnown = error instanceof UserError
    const said = isKnown
      ? `${error.message}\n${error.whatToDo}`
      : String((error as Error).message ?? error)
    output.say(`${said}\n`)
    return UNREADABLE
  }
}
