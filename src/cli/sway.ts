import { readFileSync, statSync, writeFileSync } from 'node:fs'
import { basename } from 'node:path'
import { parseArgs } from 'node:util'
import type { z } from 'zod'
import type { Told } from '../core/beats/listen'
import { type Combination, DancerLevel, USUAL_LEVEL } from '../core/combination/combination'
import { textsTurned } from '../core/combination/mirror'
import { otherSideWritten } from '../core/edits/otherSide'
import { UserError } from '../core/errors'
import { checkCombination } from '../core/findings/check'
import { type Finding, severityOf } from '../core/findings/finding'
import { findingText, spotText } from '../core/findings/findingText'
import { levelForm } from '../core/forms/levels'
import { USUAL_HOUSE } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import { emptyPlan, planAgain } from '../core/plan/edits'
import { materialsOf } from '../core/plan/material'
import {
  ClassType,
  LEAST_MINUTES,
  MOST_MINUTES,
  PlanWishes,
  SidesWish,
  SLOT_MINUTES,
  TeachingWay,
  wishesFor,
} from '../core/plan/plan'
import { planText, taughtText, toldPlan } from '../core/plan/tell'
import { applyRepair } from '../core/repair/apply'
import { editWords, type FeetRepair, repairFeet } from '../core/repair/feet'
import { RHYTHMS } from '../core/rhythm/rhythms'
import { type FileRead, readCombinationFile, textOfBytes } from '../core/sheet/files'
import { FORMATS, type Format } from '../core/sheet/formats'
import { combinationJsonSchema } from '../core/sheet/schema'
import { unknownWords } from '../core/sheet/swayJson'
import { writeCombinationFile } from '../core/sheet/writeFile'
import { writeSheet } from '../core/sheet/writeSheet'
import { MOST_PHRASE } from '../core/song/song'
import { priorOf } from '../core/song/styles'
import { handout } from '../core/teaching/handout'
import { FASTEST, SLOWEST } from '../core/time/tempo'
import { beatsReport, beatsText } from './beats'
import { report, reportText } from './report'
import { MOST_SECONDS as MOST_SOUND_SECONDS } from './wav'

const USAGE = `usage: npm run -s sway -- COMMAND FILE [options]

  format FILE                the count sheet in its plain form (--write puts it in place)
  print FILE                 what to do on each count, in words, both sides
  convert FILE --to FORMAT   json, sway, csv, vtt or mid (--out FILE writes it there)
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
  beats FILE.wav             the counts of a song, its bars, eights and sections (--json; --tempo N where
                             its counts a minute are known, --style ID a rhythm, --first SECONDS of a 1,
                             --phrase N counts from there, --taps S,S,.. on eight counts or more)
  schema                     the JSON Schema of .sway.json files

FILE is a .sway, .sway.json or .csv file, or - for standard input.`

const MOST_BYTES = 1_000_000
/** It was read, but something stays that can't be danced, or is too hard. */
const FAULTS = 1
/** Nothing could be read. */
const UNREADABLE = 2

function read(path: string): FileRead {
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
  if (file.unknown?.length) process.stderr.write(`${name}:${unknownWords(file.unknown)}\n`)
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
    },
  })
  const [command, path] = positionals
  const print = (text: string | Uint8Array) =>
    values.out === undefined ? process.stdout.write(text) : writeFileSync(values.out, text)
  if (command === 'schema') {
    print(`${JSON.stringify(combinationJsonSchema(), null, 2)}\n`)
    return 0
  }
  if (
    !command ||
    !path ||
    !['format', 'print', 'convert', 'mirror', 'check', 'repair', 'level', 'plan', 'beats'].includes(
      command,
    )
  ) {
    process.stderr.write(`${USAGE}\n`)
    return UNREADABLE
  }
  if (command === 'beats') return counted(path, values, values.json === true, print)
  if (command === 'plan') return planned(positionals.slice(1), values, values.json === true, print)
  const { combination, messages } = read(path)
  switch (command) {
    case 'format': {
      const sheet = writeSheet(combination, vocabulary)
      if (values.write && path.endsWith('.sway')) writeFileSync(path, sheet)
      else print(sheet)
      return 0
    }
    case 'print':
      print(printed(combination))
      return 0
    case 'mirror': {
      const other = otherSideWritten(combination, vocabulary)
      for (const { from, to: now } of textsTurned(combination, other))
        process.stderr.write(`“${from}” -> “${now}”\n`)
      print(writeCombinationFile(other, asFormat(values.to ?? 'sway'), vocabulary))
      return 0
    }
    case 'repair':
      return repair(combination, values.for, values.json === true, print)
    case 'level':
      return level(combination, values.to, values.json === true, print)
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

/** Prints the best repair; its costs go to standard error, or all of it as one JSON object. */
function repair(
  combination: Combination,
  goal: string | undefined,
  asJson: boolean,
  print: (text: string) => void,
): number {
  if (goal !== 'faults' && goal !== 'switch' && goal !== 'repeat')
    throw new UserError(
      `“${goal ?? ''}” is nothing to repair for.`,
      'Write --for faults, --for switch or --for repeat.',
    )
  const [best, ...others] = repairFeet(combination, goal, vocabulary)
  if (!best) {
    process.stderr.write(
      'No repair of the feet leads there.\nChange what is kept, or write the last phrase anew.\n',
    )
    return FAULTS
  }
  const told = ({ cost, edits }: FeetRepair) => {
    let id = 0
    const repaired = applyRepair(combination, edits, vocabulary, () => `repair-${id++}`)
    return {
      cost,
      edits: edits.map((edit) => ({ ...editWords(edit, combination), cost: edit.cost })),
      sheet: writeSheet(repaired, vocabulary),
      left: leftWhere(repaired, (finding) => severityOf(finding) === 'fault'),
    }
  }
  const first = told(best)
  if (asJson) print(`${JSON.stringify({ ...first, others: others.map(told) }, null, 2)}\n`)
  else {
    for (const { at, from, to, cost } of first.edits)
      process.stderr.write(`${cost}\t${at}\t${from ? `${from} -> ` : ''}${to}\n`)
    process.stderr.write(`${first.cost}\tin all\n`)
    for (const { at, layer, text } of first.left)
      process.stderr.write(`left\t${at}\t${layer}, not of the feet: ${text}\n`)
    print(first.sheet)
  }
  return first.left.length > 0 ? FAULTS : 0
}

/** What is still said of a combination, of the kind that matters here. */
const leftWhere = (combination: Combination, matters: (finding: Finding) => boolean) =>
  checkCombination(combination, vocabulary).findings.filter(matters).map(asLeft)

const asLeft = (finding: Finding) => ({
  code: finding.code,
  at: spotText(finding.spot),
  layer: finding.spot.layer,
  text: findingText(finding),
})

/** Prints the version for a level; what was swapped goes to standard error, or all as JSON. */
function level(
  combination: Combination,
  to: string | undefined,
  asJson: boolean,
  print: (text: string) => void,
): number {
  const wanted = DancerLevel.safeParse(to)
  if (!wanted.success)
    throw new UserError(
      `“${to ?? ''}” is no level.`,
      `Write --to ${DancerLevel.options.join(', --to ')}.`,
    )
  const form = levelForm(combination, wanted.data, vocabulary, USUAL_HOUSE)
  const sheet = writeSheet(form.combination, vocabulary)
  const left = form.left.map(asLeft)
  const reached = left.length === 0
  if (asJson)
    print(
      `${JSON.stringify({ load: form.load, swaps: form.swaps, reached, left, sheet }, null, 2)}\n`,
    )
  else {
    for (const { at, from, to: now } of form.swaps)
      process.stderr.write(`${at}\t${from ?? 'nothing'} -> ${now ?? 'left out'}\n`)
    for (const { at, layer, text } of left)
      process.stderr.write(`still too hard\t${at}\t${layer}: ${text}\n`)
    print(sheet)
  }
  return reached ? 0 : FAULTS
}

/** One of the words of an option. @throws UserError that says which there are */
function wordOf<T extends string>(
  option: string,
  words: z.ZodEnum<Readonly<Record<T, T>>>,
  given: string | undefined,
): T | undefined {
  if (given === undefined) return undefined
  const read = words.safeParse(given)
  if (read.success) return read.data as T
  throw new UserError(
    `“${given}” is nothing for --${option}.`,
    `Write --${option} ${words.options.join(`, --${option} `)}.`,
  )
}

type PlanOptions = Partial<Record<'minutes' | 'level' | 'type' | 'sides' | 'way', string>>

/** The counts of a song. */
function counted(
  path: string,
  options: BeatsOptions,
  asJson: boolean,
  print: (text: string) => void,
): number {
  const made = beatsReport(path, toldBy(options), (text) => process.stderr.write(`${text}\n`))
  print(`${asJson ? JSON.stringify(made) : beatsText(made)}\n`)
  return 0
}

type BeatsOptions = Partial<Record<'tempo' | 'style' | 'first' | 'phrase' | 'taps', string>>

/** What is known of a song before it is heard. */
function toldBy({ tempo, style, first, phrase, taps }: BeatsOptions): Told {
  const number = (name: string, text: string, from: number, to: number, words: string) => {
    const value = Number(text)
    if (!(value >= from && value <= to))
      throw new UserError(`--${name} is ${text}.`, `Write ${words}, ${from} to ${to}.`)
    return value
  }
  const seconds = (name: string, text: string) =>
    number(name, text, 0, MOST_SOUND_SECONDS, 'seconds')
  const prior = priorOf(style)
  if (style !== undefined && !prior)
    throw new UserError(
      `--style is ${style}, which tells no pace.`,
      `Write the id of a rhythm: ${RHYTHMS.flatMap(({ id }) => (priorOf(id) ? id : [])).join(', ')}.`,
    )
  if (phrase !== undefined && first === undefined)
    throw new UserError('--phrase alone says nothing.', 'Write --first too: where it is 1.')
  return {
    prior:
      tempo === undefined
        ? prior
        : {
            centre: number('tempo', tempo, SLOWEST, FASTEST, 'counts a minute'),
            spread: TOLD_SPREAD,
          },
    ...(taps !== undefined && { taps: taps.split(',').map((tap) => seconds('taps', tap)) }),
    ...(first !== undefined && {
      one: {
        at: seconds('first', first),
        ...(phrase !== undefined && {
          counts: number('phrase', phrase, 1, MOST_PHRASE, 'counts'),
        }),
      },
    }),
  }
}

/** A level that was told is looked for this near, in octaves. */
const TOLD_SPREAD = 0.06

/** Prints a class of some combinations: the first one’s tempos, and its level unless one is given. */
function planned(
  paths: readonly string[],
  options: PlanOptions,
  asJson: boolean,
  print: (text: string) => void,
): number {
  const combinations = paths
    .map((path) => read(path).combination)
    // Two files may say the same id.
    .map((one, i) => ({ ...one, id: `${i + 1} ${one.id}` }))
  const [first] = combinations
  if (!first) return UNREADABLE
  const minutes = Number(options.minutes ?? 60)
  const wished = PlanWishes.safeParse({
    ...wishesFor(first, wordOf('level', DancerLevel, options.level) ?? USUAL_LEVEL),
    ...(options.level !== undefined && { level: options.level }),
    combinations: combinations.map(({ id }) => id),
    minutes,
    type: wordOf('type', ClassType, options.type) ?? (minutes <= SLOT_MINUTES ? 'slot' : 'drop-in'),
    sides: wordOf('sides', SidesWish, options.sides) ?? 'propose',
    way: wordOf('way', TeachingWay, options.way) ?? 'propose',
  })
  if (!wished.success)
    throw new UserError(
      combinations.length > 8
        ? 'A class has up to 8 combinations.'
        : `“${options.minutes ?? ''}” is no length of a class.`,
      `Write --minutes with ${LEAST_MINUTES} to ${MOST_MINUTES}, and up to 8 files.`,
    )
  const materials = materialsOf(combinations, vocabulary, USUAL_HOUSE)
  const { plan, proposal } = planAgain(emptyPlan('plan', first.title, wished.data), materials)
  const told = toldPlan(plan, proposal, materials)
  print(asJson ? `${JSON.stringify(told, null, 2)}\n` : planText(told))
  return 0
}

function asFormat(name: string | undefined): Format {
  if (name !== undefined && Object.hasOwn(FORMATS, name)) return name as Format
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
