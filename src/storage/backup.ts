import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { z } from 'zod'
import type { Combination } from '../core/combination/combination'
import { upgrade } from '../core/combination/upgrade'
import { readClass, readGroup } from '../core/diary/diary'
import { UserError } from '../core/errors'
import { type HouseRules, USUAL_RULES } from '../core/house/house'
import { readPlan } from '../core/plan/plan'
import { readSwayJson, writeSwayJson } from '../core/sheet/swayJson'
import type { Combinations } from './combinations'
import { OwnEntry, SPOKEN_VERSION, type SpokenRow } from './database'
import { type HouseStore, readHouse } from './house'
import type { OwnWords } from './own'
import type { Records } from './records'
import type { Teaching } from './teaching'

const BACKUP_VERSION = 1
const MANIFEST = 'manifest.json'
const OWN_PATH = 'own-moves.json'
const HOUSE_PATH = 'house.json'
const TEACHING_PATHS = {
  plans: 'plans.json',
  classes: 'diary.json',
  groups: 'groups.json',
} as const
const SPOKEN_PATH = 'spoken-words.json'
const MOST_BYTES = 200_000_000

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
}

type Digest = (bytes: Uint8Array) => Promise<string>

/** SHA-256 as hexadecimal digits. */
const sha256: Digest = async (bytes) => {
  const hash = await crypto.subtle.digest('SHA-256', bytes.slice())
  return [...new Uint8Array(hash)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

const pathOf = ({ title, id }: Combination): string =>
  `combinations/${title.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60) || 'combination'}-${id.slice(0, 8)}.sway.json`

/** All that is kept in this browser. */
export interface Kept {
  readonly combinations: Combinations
  readonly own: OwnWords
  readonly house: HouseStore
  readonly teaching: Teaching
}

/**
 * Everything as one zip: combinations, own moves, house rules, plans, the diary, groups and
 * spoken words as their own files, and a manifest with checksums.
 */
export async function writeBackup({
  combinations,
  own,
  house,
  teaching,
}: Kept): Promise<Uint8Array> {
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
  files[HOUSE_PATH] = strToU8(`${JSON.stringify(await house.get(), null, 2)}\n`)
  for (const [kind, path] of Object.entries(TEACHING_PATHS)) {
    const { all } = await teaching[kind as keyof typeof TEACHING_PATHS].list()
    files[path] = strToU8(`${JSON.stringify(all, null, 2)}\n`)
  }
  const words = (await teaching.spoken.list()).map(asText)
  files[SPOKEN_PATH] = strToU8(`${JSON.stringify(words, null, 2)}\n`)
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

/**
 * Brings a backup back, beside what is here: what is the same is left alone, what differs
 * is kept twice. Damaged files in it are named, and the others still come in.
 * @throws UserError when it is no backup at all.
 */
export async function restoreBackup(
  bytes: Uint8Array,
  { combinations, own, house, teaching }: Kept,
): Promise<readonly FileReport[]> {
  if (bytes.length > MOST_BYTES)
    throw new UserError(
      'This file is too large to be a backup.',
      `${NOTHING} Check that it is the right one.`,
    )
  const files = unzipped(bytes)
  const manifest = manifestOf(files)
  const reports: FileReport[] = []
  const read: { readonly path: string; readonly combination: Combination }[] = []
  for (const { path, sha256: wanted } of manifest.files) {
    const file = files[path]
    const fail = (text: string) => reports.push({ name: path, ok: false, text })
    if (!file) fail('is missing from the backup.')
    else if ((await sha256(file)) !== wanted)
      fail('is damaged: its checksum does not fit. It was left out; take it from another backup.')
    else
      try {
        if (path === OWN_PATH) reports.push(await restoreOwn(strFromU8(file), own))
        else if (path === HOUSE_PATH) reports.push(await restoreHouse(strFromU8(file), house))
        else if (path === SPOKEN_PATH) reports.push(await restoreSpoken(strFromU8(file), teaching))
        else if (path === TEACHING_PATHS.plans)
          reports.push(
            await restoreRecords(path, strFromU8(file), teaching.plans, readPlan, 'plans'),
          )
        else if (path === TEACHING_PATHS.classes)
          reports.push(
            await restoreRecords(path, strFromU8(file), teaching.classes, readClass, 'classes'),
          )
        else if (path === TEACHING_PATHS.groups)
          reports.push(
            await restoreRecords(path, strFromU8(file), teaching.groups, readGroup, 'groups'),
          )
        else read.push({ path, combination: readSwayJson(strFromU8(file)) })
      } catch (error) {
        if (!(error instanceof UserError)) throw error
        fail(`${error.message} ${error.whatToDo}`)
      }
  }
  // All at once: either the whole backup is here, or nothing of it.
  const added = await combinations.merge(
    read.map(({ combination }) => combination),
    'from the backup',
  )
  const came = read.map(({ path, combination }, i) => ({
    name: path,
    ok: true,
    text: `“${combination.title}” ${ADDED_WORDS[added[i] ?? 'added']}`,
  }))
  return [...came, ...reports]
}

function unzipped(bytes: Uint8Array): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes)
  } catch (cause) {
    throw new UserError(
      'This file is no zip, or it is damaged.',
      `${NOTHING} Pick a backup that was saved from here; its name ends in .zip.`,
      { cause },
    )
  }
}

function manifestOf(files: Record<string, Uint8Array>): z.infer<typeof Manifest> {
  const text = files[MANIFEST]
  const noBackup = (cause: unknown) =>
    new UserError(
      'This zip is no backup of Molten Sway: its list of files is missing or damaged.',
      `${NOTHING} Pick a backup that was saved from here. Single files in it can be opened one by one.`,
      { cause },
    )
  if (!text) throw noBackup(undefined)
  let raw: unknown
  try {
    raw = JSON.parse(strFromU8(text))
  } catch (cause) {
    throw noBackup(cause)
  }
  const record = z.record(z.string(), z.unknown()).safeParse(raw)
  if (!record.success || record.data.kind !== 'molten-sway-backup') throw noBackup(raw)
  const read = Manifest.safeParse(upgrade(record.data, BACKUP_VERSION, []))
  if (!read.success) throw noBackup(read.error)
  return read.data
}

async function restoreOwn(text: string, own: OwnWords): Promise<FileReport> {
  const entries = OwnEntry.array().safeParse(JSON.parse(text))
  if (!entries.success)
    throw new UserError('The own moves in it can’t be read.', 'They were left out.')
  const count = await own.merge(entries.data)
  return { name: OWN_PATH, ok: true, text: `${count} own names and moves came in.` }
}

/** House rules of a backup come in where this studio has set none; else its own stay. */
async function restoreHouse(text: string, house: HouseStore): Promise<FileReport> {
  const now = JSON.stringify(await house.get())
  let rules: HouseRules
  try {
    rules = readHouse(z.record(z.string(), z.unknown()).parse(JSON.parse(text)))
  } catch (cause) {
    throw new UserError('The house rules in it can’t be read.', 'They were left out.', { cause })
  }
  const report = (said: string) => ({ name: HOUSE_PATH, ok: true, text: said })
  if (now === JSON.stringify(rules)) return report('The house rules are the same.')
  if (now !== JSON.stringify(USUAL_RULES)) return report('Your own house rules stay as they are.')
  await house.save(rules)
  return report('The house rules came in.')
}

/** Plans, classes or groups come in beside what is here; each one that can't be read is counted. */
async function restoreRecords<T extends { readonly id: string }>(
  name: string,
  text: string,
  records: Records<T>,
  read: (record: Record<string, unknown>) => T,
  words: string,
): Promise<FileReport> {
  const raw = z.array(z.record(z.string(), z.unknown())).safeParse(parsed(text))
  if (!raw.success) throw new UserError(`The ${words} in it can’t be read.`, 'They were left out.')
  let bad = 0
  const good = raw.data.flatMap((record) => {
    try {
      return [read(record)]
    } catch {
      bad++
      return []
    }
  })
  const came = await records.merge(good)
  const left = bad > 0 ? ` ${bad} can’t be read and were left out.` : ''
  return { name, ok: bad === 0, text: `${came} ${words} came in.${left}` }
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

async function restoreSpoken(text: string, { spoken }: Teaching): Promise<FileReport> {
  const words = SpokenText.array().safeParse(parsed(text))
  if (!words.success)
    throw new UserError('The spoken words in it can’t be read.', 'They were left out.')
  const came = await spoken.merge(
    words.data.map(({ samples, ...word }) => ({
      ...word,
      samples: Float32Array.from(samples, (x) => x / 32_767),
    })),
  )
  return { name: SPOKEN_PATH, ok: true, text: `${came} spoken words came in.` }
}

const ADDED_WORDS = {
  added: 'came in.',
  same: 'is here already, just so.',
  copy: 'is here already, but differs: both are kept.',
} as const
