import { dequal } from 'dequal'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { z } from 'zod'
import type { Combination } from '../core/combination/combination'
import { readClass, readGroup } from '../core/diary/diary'
import { UserError } from '../core/errors'
import { type HouseRules, USUAL_RULES } from '../core/house/house'
import { readPlan } from '../core/plan/plan'
import { readSentPage } from '../core/practice/sentPage'
import { hexOf } from '../core/record/hex'
import { recordIn } from '../core/record/recordIn'
import { upgrade } from '../core/record/upgrade'
import { readRoutine } from '../core/routine/routine'
import { readSeries } from '../core/series/series'
import {
  readSwayJson,
  type SwayJsonRead,
  unknownWords,
  writeSwayJson,
} from '../core/sheet/swayJson'
import { readSong } from '../core/song/song'
import type { Combinations } from './combinations'
import { SPOKEN_VERSION, type SpokenRow } from './database'
import { type HouseStore, readHouse } from './house'
import type { Together } from './keeping'
import { type OwnWords, readEntry } from './own'
import type { Planning } from './planning'
import type { Records } from './records'
import type { Songs } from './songs'

const BACKUP_VERSION = 1
const MANIFEST = 'manifest.json'
const OWN_PATH = 'own-moves.json'
const HOUSE_PATH = 'house.json'
const TEACHING_PATHS = {
  plans: 'plans.json',
  classes: 'diary.json',
  groups: 'groups.json',
  series: 'series.json',
} as const
const SPOKEN_PATH = 'spoken-words.json'
/** Practice pages, and what students sent back of them: only where it is asked for. */
const SENT_PATH = 'sent-back.json'
/** Songs without their sound. */
const SONGS_PATH = 'songs.json'
const ROUTINES_PATH = 'routines.json'
const MOST_BYTES = 200_000_000
/** Bytes of one file of it, unpacked: a large diary with a voice of hundreds of words is under that. */
const MOST_UNPACKED = 100_000_000

const Manifest = z.object({
  kind: z.literal('molten-sway-backup'),
  schemaVersion: z.literal(BACKUP_VERSION),
  files: z.array(z.object({ path: z.string(), sha256: z.string() })),
})

/** How each file of a backup, or each opened file, fared. */
export interface FileReport {
  readonly name: string
  readonly ok: boolean
  readonly text: string
  /** The combination it became. */
  readonly id?: string
}

type Digest = (bytes: Uint8Array) => Promise<string>

/** SHA-256 as hexadecimal digits. */
const sha256: Digest = async (bytes) => hexOf(await crypto.subtle.digest('SHA-256', bytes.slice()))

const pathOf = ({ title, id }: Combination): string =>
  `combinations/${title.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60) || 'combination'}-${id.slice(0, 8)}.sway.json`

/** All that is kept in this browser. */
export interface Kept {
  readonly combinations: Combinations
  readonly own: OwnWords
  readonly house: HouseStore
  readonly planning: Planning
  readonly songs: Songs
  readonly together: Together
}

/**
 * Everything as one zip: combinations, own moves, house rules, plans, the diary, groups, spoken
 * words, songs and routines as their own files, and a manifest with checksums. Sound is not in it,
 * nor what students sent back, unless it is asked for.
 */
export async function writeBackup(
  { combinations, own, house, planning, songs }: Kept,
  { withReturns = false } = {},
): Promise<Uint8Array> {
  const files: Record<string, Uint8Array> = {}
  const taken = new Set<string>()
  for (const combination of await combinations.all()) {
    let path = pathOf(combination)
    for (let i = 2; taken.has(path); i++)
      path = pathOf({ ...combination, id: `${i}-${combination.id}` })
    taken.add(path)
    files[path] = strToU8(writeSwayJson(combination))
  }
  files[OWN_PATH] = strToU8(`${JSON.stringify(await own.list(), null, 2)}\n`)
  const { rules } = await house.get()
  files[HOUSE_PATH] = strToU8(`${JSON.stringify(rules, null, 2)}\n`)
  for (const [kind, path] of Object.entries(TEACHING_PATHS)) {
    const { all } = await planning[kind as keyof typeof TEACHING_PATHS].list()
    files[path] = strToU8(`${JSON.stringify(all, null, 2)}\n`)
  }
  if (withReturns) {
    const { all } = await planning.sent.list()
    files[SENT_PATH] = strToU8(`${JSON.stringify(all, null, 2)}\n`)
  }
  const words = (await planning.spoken.list()).map(asText)
  files[SPOKEN_PATH] = strToU8(`${JSON.stringify(words, null, 2)}\n`)
  files[SONGS_PATH] = strToU8(`${JSON.stringify((await songs.songs.list()).all, null, 2)}\n`)
  const { all: laid } = await songs.routines.list()
  files[ROUTINES_PATH] = strToU8(`${JSON.stringify(laid, null, 2)}\n`)
  const manifest: z.infer<typeof Manifest> = {
    kind: 'molten-sway-backup',
    schemaVersion: BACKUP_VERSION,
    files: await Promise.all(
      Object.entries(files).map(async ([path, bytes]) => ({ path, sha256: await sha256(bytes) })),
    ),
  }
  return zipSync({ [MANIFEST]: strToU8(`${JSON.stringify(manifest, null, 2)}\n`), ...files })
}

const NOTHING = 'Nothing was changed.'
const LEFT_OUT = 'It was left out; take it from another backup.'

/** How far the reading of a backup is, and whether it is still wanted. */
export interface Progress {
  readonly onFile: (done: number, all: number) => void
  readonly signal: AbortSignal
}

/** What a file of a backup comes to: written with all others, or not at all. */
type Write = () => Promise<FileReport>

/**
 * Brings a backup back, beside what is here: what is the same is left alone, what differs
 * is kept twice. All of it is read and checked first, then written at once: either all that
 * could be read is here, or nothing of it. Damaged files in it are named.
 * @throws UserError when it is no backup at all, or can't be stored; AbortError when stopped.
 */
export async function restoreBackup(
  bytes: Uint8Array,
  kept: Kept,
  { onFile, signal }: Progress = { onFile: () => {}, signal: new AbortController().signal },
): Promise<readonly FileReport[]> {
  if (bytes.length > MOST_BYTES)
    throw new UserError(
      'This file is too large to be a backup.',
      `${NOTHING} Check that it is the right one.`,
    )
  const manifest = manifestOf(unzipped(bytes, MANIFEST)?.text)
  const files = manifest.files
  const failed: FileReport[] = []
  const writes: Write[] = []
  const combinations: ({ readonly path: string } & SwayJsonRead)[] = []
  let unpacked = 0
  const whole = allUnzipped(bytes)
  for (const [i, { path, sha256: wanted }] of files.entries()) {
    onFile(i, files.length)
    const fail = (text: string) => failed.push({ name: path, ok: false, text })
    // Between two files the page can breathe, and the instructor can stop.
    await new Promise((resolve) => setTimeout(resolve))
    signal.throwIfAborted()
    try {
      const file = whole ? fileIn(whole, path) : unzipped(bytes, path)
      unpacked += file?.bytes.length ?? 0
      if (unpacked > MOST_BYTES)
        throw new UserError(
          'This backup grows beyond all measure when it is unpacked.',
          `${NOTHING} Check that it is the right file.`,
        )
      if (!file) fail('is missing from the backup.')
      else if ((await sha256(file.bytes)) !== wanted)
        fail(`is damaged: its checksum does not fit. ${LEFT_OUT}`)
      else {
        const write = await readFile(path, file.text, kept)
        if (write) writes.push(write)
        else combinations.push({ path, ...readSwayJson(file.text) })
      }
    } catch (error) {
      if (unpacked > MOST_BYTES) throw error
      fail(`${error instanceof Error ? error.message : String(error)} ${LEFT_OUT}`)
    }
  }
  onFile(files.length, files.length)
  signal.throwIfAborted()
  try {
    return await kept.together(async () => {
      const reports: FileReport[] = []
      const added = await kept.combinations.merge(
        combinations.map(({ combination }) => combination),
        'from the backup',
      )
      for (const [i, { path, combination, unknown }] of combinations.entries())
        reports.push({
          name: path,
          ok: true,
          text: `“${combination.title}” ${ADDED_WORDS[added[i] ?? 'added']}${unknownWords(unknown)}`,
        })
      for (const write of writes) reports.push(await write())
      return [...reports, ...failed]
    })
  } catch (cause) {
    throw new UserError(
      'The backup could not be stored in this browser.',
      `${NOTHING} Make room on the disk, then bring it back again.`,
      { cause },
    )
  }
}

/** Reads one file of a backup and says how it is written; undefined for a combination. */
async function readFile(
  path: string,
  text: string,
  { own, house, planning, songs }: Kept,
): Promise<Write | undefined> {
  switch (path) {
    case OWN_PATH:
      return readOwn(text, own)
    case HOUSE_PATH:
      return readHouseFile(text, house)
    case SONGS_PATH:
      return readRecords(path, text, songs.songs, readSong, 'songs')
    case ROUTINES_PATH:
      return readRecords(path, text, songs.routines, readRoutine, 'routines')
    case SPOKEN_PATH:
      return readSpoken(text, planning)
    case TEACHING_PATHS.plans:
      return readRecords(path, text, planning.plans, readPlan, 'plans')
    case TEACHING_PATHS.classes:
      return readRecords(path, text, planning.classes, readClass, 'classes')
    case TEACHING_PATHS.groups:
      return readRecords(path, text, planning.groups, readGroup, 'groups')
    case TEACHING_PATHS.series:
      return readRecords(path, text, planning.series, readSeries, 'series')
    case SENT_PATH:
      return readRecords(path, text, planning.sent, readSentPage, 'practice pages')
    default:
      return undefined
  }
}

interface Unzipped {
  readonly bytes: Uint8Array
  readonly text: string
}

type Files = Readonly<Record<string, Uint8Array>>

function fileIn(files: Files, path: string): Unzipped | undefined {
  const found = Object.hasOwn(files, path) ? files[path] : undefined
  return found && { bytes: found, text: strFromU8(found) }
}

/** All files of a zip in one pass; undefined where one is damaged or too much, and each is looked at by itself. */
function allUnzipped(bytes: Uint8Array): Files | undefined {
  let size = 0
  try {
    return unzipSync(bytes, {
      filter({ originalSize }) {
        size += originalSize
        if (originalSize > MOST_UNPACKED || size > MOST_BYTES) throw new Error('too large')
        return true
      },
    })
  } catch {
    return undefined
  }
}

/** One file of a zip; undefined where there is none of that name. */
function unzipped(bytes: Uint8Array, path: string): Unzipped | undefined {
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name !== path) return false
        // Before it is unpacked: a small zip can hold a disk full of nothing.
        if (originalSize > MOST_UNPACKED)
          throw new UserError(
            `“${path}” in it is far too large.`,
            `${NOTHING} Pick a backup that was saved from here.`,
          )
        return true
      },
    })
    return fileIn(files, path)
  } catch (cause) {
    if (cause instanceof UserError) throw cause
    throw new UserError(
      'This file is no zip, or it is damaged.',
      `${NOTHING} Pick a backup that was saved from here; its name ends in .zip.`,
      { cause },
    )
  }
}

function manifestOf(text: string | undefined): z.infer<typeof Manifest> {
  const noBackup = (cause: unknown) =>
    new UserError(
      'This zip is no backup of Molten Sway: its list of files is missing or damaged.',
      `${NOTHING} Pick a backup that was saved from here. Single files in it can be opened one by one.`,
      { cause },
    )
  if (!text) throw noBackup(undefined)
  const record = recordIn(text, noBackup)
  if (record.kind !== 'molten-sway-backup') throw noBackup(record)
  const read = Manifest.safeParse(upgrade(record, BACKUP_VERSION, []))
  if (!read.success) throw noBackup(read.error)
  return read.data
}

function readOwn(text: string, own: OwnWords): Write {
  const entries = z.array(z.unknown()).parse(parsed(text)).map(readEntry)
  return async () => {
    const count = await own.merge(entries)
    return { name: OWN_PATH, ok: true, text: `${count} own names and moves came in.` }
  }
}

/** House rules of a backup come in where this studio has set none; else its own stay. */
function readHouseFile(text: string, house: HouseStore): Write {
  let rules: HouseRules
  try {
    rules = readHouse(z.record(z.string(), z.unknown()).parse(JSON.parse(text)))
  } catch (cause) {
    throw new Error('The house rules in it can’t be read.', { cause })
  }
  const report = (said: string): FileReport => ({ name: HOUSE_PATH, ok: true, text: said })
  return async () => {
    const { rules: now, problem } = await house.get()
    if (!problem && dequal(now, rules)) return report('The house rules are the same.')
    if (problem || !dequal(now, USUAL_RULES))
      return report('Your own house rules stay as they are.')
    await house.change((await house.get()).rules, rules)
    return report('The house rules came in.')
  }
}

/** Plans, classes or groups come in beside what is here; each one that can't be read is counted. */
function readRecords<T extends { readonly id: string }>(
  name: string,
  text: string,
  records: Records<T>,
  read: (record: Record<string, unknown>) => T,
  words: string,
): Write {
  const raw = z.array(z.record(z.string(), z.unknown())).safeParse(parsed(text))
  if (!raw.success) throw new Error(`The ${words} in it can’t be read.`)
  let bad = 0
  const good = raw.data.flatMap((record) => {
    try {
      return [read(record)]
    } catch {
      bad++
      return []
    }
  })
  // One id is one record, whatever a crafted file says.
  const once = [...new Map(good.map((one) => [one.id, one])).values()]
  return async () => {
    const came = await records.merge(once)
    const left = bad > 0 ? ` ${bad} can’t be read and were left out.` : ''
    return { name, ok: bad === 0, text: `${came} ${words} came in.${left}` }
  }
}

const parsed = (text: string): unknown => {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}

/** Samples as a row of whole numbers of 16 bits, since a file of words is text. */
const SpokenText = z.object({
  schemaVersion: z.literal(SPOKEN_VERSION),
  id: z.string().min(1),
  text: z.string().min(1),
  rate: z.number().positive(),
  onset: z.number().min(0),
  samples: z.array(z.int().min(-32_768).max(32_767)),
})

const asText = ({ samples, ...word }: SpokenRow): z.infer<typeof SpokenText> => ({
  ...word,
  samples: Array.from(samples, (x) => Math.round(Math.max(-1, Math.min(1, x)) * 32_767)),
})

function readSpoken(text: string, { spoken }: Planning): Write {
  const words = SpokenText.array().safeParse(parsed(text))
  if (!words.success) throw new Error('The spoken words in it can’t be read.')
  const rows = words.data.map(({ samples, ...word }) => ({
    ...word,
    samples: Float32Array.from(samples, (x) => x / 32_767),
  }))
  const once = [...new Map(rows.map((row) => [row.id, row])).values()]
  return async () => {
    const came = await spoken.merge(once)
    return { name: SPOKEN_PATH, ok: true, text: `${came} spoken words came in.` }
  }
}

const ADDED_WORDS = {
  added: 'came in.',
  same: 'is here already, just so.',
  copy: 'is here already, but differs: both are kept.',
} as const
