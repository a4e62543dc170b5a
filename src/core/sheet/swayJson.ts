import type { z } from 'zod'
import { Combination, SCHEMA_VERSION } from '../combination/combination'
import { asStored } from '../combination/stored'
import { COMBINATION_UPGRADES } from '../combination/upgrades'
import { UserError } from '../errors'
import { isRecord } from '../record/recordIn'
import { upgrade } from '../record/upgrade'

/** The full record of one combination, as kept in a `.sway.json` file. */
export const writeSwayJson = (combination: Combination): string =>
  `${JSON.stringify(asStored(combination), null, 2)}\n`

const MOST_CHARACTERS = 1_000_000
const NOTHING_CHANGED = 'Nothing was changed.'

/** A combination of a file, and the fields of it that this version does not know. */
export interface SwayJsonRead {
  readonly combination: Combination
  /** Where they stand and what they are called; they were left out. */
  readonly unknown: readonly string[]
}

/**
 * Reads a `.sway.json` file.
 * @throws UserError that says what is wrong with the file and what to do.
 */
export function readSwayJson(text: string): SwayJsonRead {
  if (text.length > MOST_CHARACTERS)
    throw new UserError(
      'This file is too large to be one combination.',
      `${NOTHING_CHANGED} A combination file is under 1 MB; check that you picked the right one.`,
    )
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (cause) {
    throw new UserError(
      'This file is damaged or is no combination file: it stops making sense part way through.',
      `${NOTHING_CHANGED} Open an earlier copy of it.`,
      { cause },
    )
  }
  if (!isRecord(raw) || raw.kind !== 'combination')
    throw new UserError(
      'This file holds something else, not a combination.',
      `${NOTHING_CHANGED} Pick a file that was saved from here; its name ends in .sway.json.`,
    )
  const current = upgrade(raw, SCHEMA_VERSION, COMBINATION_UPGRADES)
  const combination = readCombination(current)
  return { combination, unknown: [...unknownIn(current, combination)] }
}

const MOST_UNKNOWN = 20

/** Fields a file has that did not come through: somebody else's, or of an app that knows more. */
function* unknownIn(raw: unknown, read: unknown, path = ''): Generator<string> {
  if (Array.isArray(raw) && Array.isArray(read)) {
    for (const [i, one] of raw.entries()) yield* unknownIn(one, read[i], `${path} ${i + 1}`)
  } else if (isRecord(raw) && isRecord(read)) {
    for (const [key, value] of Object.entries(raw)) {
      if (!Object.hasOwn(read, key)) yield `${path} “${key}”`.trim()
      else yield* unknownIn(value, read[key], `${path} ${key}`.trim())
    }
  }
}

/** What is told of unknown fields: each, as long as they can be told apart. */
export const unknownWords = (unknown: readonly string[]): string =>
  unknown.length === 0
    ? ''
    : ` This version does not know ${unknown.slice(0, MOST_UNKNOWN).join(', ')}${unknown.length > MOST_UNKNOWN ? ` and ${unknown.length - MOST_UNKNOWN} more` : ''}: keep the file, it was left out here.`

/**
 * Upgrades and checks a stored combination.
 * @throws UserError that names the part that is damaged.
 */
export function readCombination(record: Record<string, unknown>): Combination {
  const title = typeof record.title === 'string' && record.title ? `“${record.title}”` : 'It'
  const read = Combination.safeParse(upgrade(record, SCHEMA_VERSION, COMBINATION_UPGRADES))
  if (read.success) return read.data
  const [issue] = read.error.issues
  throw new UserError(
    `${title} can't be opened: ${issue ? describeIssue(issue, record) : 'it is damaged'}.`,
    `${NOTHING_CHANGED} Open an earlier copy of it.`,
    { cause: read.error },
  )
}

/** Says where the damage is in words an instructor knows: “phrase B, event 3: …”. */
function describeIssue(issue: z.core.$ZodIssue, record: Record<string, unknown>): string {
  const [first, second, third, fourth] = issue.path
  if (first === 'phrases' && typeof second === 'number') {
    const phrases = Array.isArray(record.phrases) ? record.phrases : []
    const phrase: unknown = phrases[second]
    const name = isRecord(phrase) ? String(phrase.name) : String(second + 1)
    const where = third === 'events' && typeof fourth === 'number' ? `, move ${fourth + 1}` : ''
    return `phrase ${name}${where} is damaged (${issue.message})`
  }
  return `its ${String(first ?? 'content')} is damaged (${issue.message})`
}
