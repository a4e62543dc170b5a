import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import { type Encoding, isPage, textOfBytes } from '../../core/sheet/files'
import { FORMATS, type Format } from '../../core/sheet/formats'
import { unknownWords } from '../../core/sheet/swayJson'
import { writeCombinationFile } from '../../core/sheet/writeFile'
import type { FileReport } from '../../storage/backup'
import type { Services } from '../stores/services'
import { vocabularyIn } from '../stores/words'
import { inWords } from './Problem'

const MIME: Readonly<Record<Format, string>> = {
  json: 'application/json',
  sway: 'text/plain',
  csv: 'text/csv',
  txt: 'text/plain',
  md: 'text/markdown',
  vtt: 'text/vtt',
  mid: 'audio/midi',
}

/** A file name people can read and every disk takes. */
export const fileName = (title: string, ending: string): string =>
  `${
    title
      .replace(/[^\p{L}\p{N} _-]/gu, '')
      .trim()
      .replace(/\s+/g, '-')
      .toLowerCase() || 'combination'
  }${ending}`

/** Hands a file to the browser's own download. */
export function download(name: string, content: string | Uint8Array | Blob, type: string): void {
  const part = content instanceof Uint8Array ? content.slice() : content
  const url = URL.createObjectURL(new Blob([part], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  URL.revokeObjectURL(url)
}

export function saveAsFile(combination: Combination, format: Format = 'json'): void {
  const name = fileName(combination.title, FORMATS[format])
  const content = writeCombinationFile(combination, format, vocabularyIn(combination))
  download(name, content, MIME[format])
}

/** All that is kept, opened. */
const keptBy = async (services: Services) => ({
  ...services,
  planning: await services.planning(),
  songs: await services.songs(),
})

/** Everything in one zip; what students sent back only where it is wanted. */
export async function saveBackup(
  services: Services,
  day: string,
  wishes?: { readonly withReturns: boolean },
): Promise<void> {
  const { writeBackup } = await import('../../storage/backup')
  const zip = await writeBackup(await keptBy(services), wishes)
  download(`molten-sway-${day}.zip`, zip, 'application/zip')
  services.backup.wasSaved()
}

/** The sound of songs, in a zip of its own: it is large, and nobody needs it twice a week. */
export async function saveSounds(services: Services, day: string): Promise<void> {
  const { writeSounds } = await import('../../storage/soundBackup')
  const going = { onShare: () => {}, signal: new AbortController().signal }
  const zip = await writeSounds(await services.songs(), going)
  download(`molten-sway-sound-${day}.zip`, zip, 'application/zip')
}

/** How the opening of files goes on, and whether it is still wanted. */
export interface Opening {
  /** What is being read, in words. */
  readonly onStep: (text: string) => void
  readonly signal: AbortSignal
  /** Where the files are, by their names. */
  readonly handles?: ReadonlyMap<string, FileSystemFileHandle> | undefined
}

/** Files larger than this are no combination, and not even looked into. */
const MOST_BYTES = 1_000_000

async function openOne(
  file: File,
  services: Services,
  { onStep, signal, handles }: Opening,
): Promise<readonly FileReport[]> {
  if (/\.zip$/i.test(file.name)) {
    const { isSoundBackup, restoreSounds } = await import('../../storage/soundBackup')
    if (await isSoundBackup(file)) {
      const { markOf } = await import('../../audio/decode')
      return restoreSounds(file, await services.songs(), markOf, {
        onShare: (share) => onStep(`“${file.name}”: ${Math.round(100 * share)} %`),
        signal,
      })
    }
    const { restoreBackup } = await import('../../storage/backup')
    const bytes = new Uint8Array(await file.arrayBuffer())
    return restoreBackup(bytes, await keptBy(services), {
      onFile: (done, all) => onStep(`“${file.name}”: ${done} of ${all} files`),
      signal,
    })
  }
  if (file.size > MOST_BYTES)
    throw new UserError(
      `“${file.name}” is too large to be one combination.`,
      'Nothing was changed. A combination file is under 1 MB; check that you picked the right one.',
    )
  const handle = handles?.get(file.name)
  const before = handle && (await services.files.openedAs(handle))
  const stored = before && (await services.combinations.get(before.id))
  if (stored && before.at === file.lastModified)
    return [{ name: file.name, ok: true, id: before.id, text: 'is here already, as you left it.' }]
  const bytes = new Uint8Array(await file.arrayBuffer())
  const report = await openText(file.name, bytes, services, signal)
  if (handle && report.id)
    await services.files.keep({ id: report.id, handle, at: file.lastModified })
  const changed = `The file was changed since it was opened here: this is beside what you had.`
  return [stored ? { ...report, text: `${report.text} ${changed}` } : report]
}

/**
 * Adds the combination a file or a pasted text holds, under an id of its own when that one is
 * here already. It is read beside the page, and can be stopped.
 */
export async function openText(
  name: string,
  content: Uint8Array | string,
  { combinations, judge, newId }: Services,
  signal: AbortSignal,
): Promise<FileReport> {
  const { combination, messages, unknown = [] } = await judge.ask('read', { name, content }, signal)
  const isSheet = combination.id === 'sheet'
  const title = combination.title || name.replace(/\.[a-z.]+$/i, '')
  const isKnown =
    !isSheet && (await combinations.get(combination.id).catch(() => true)) !== undefined
  const added = { ...combination, title, ...((isSheet || isKnown) && { id: newId() }) }
  await combinations.add(added)
  const unread =
    messages.length === 0
      ? ''
      : ` ${messages.length === 1 ? 'One place' : `${messages.length} places`} in it could not be read and ${messages.length === 1 ? 'is' : 'are'} kept as typed: open its sheet to put that right.`
  const id = added.id
  return { name, ok: true, id, text: `“${title}” is here now.${unread}${unknownWords(unknown)}` }
}

/** The text of a page that was dropped or chosen; undefined where the files are something else. */
export async function pageIn(files: readonly File[]): Promise<string | undefined> {
  const [file, more] = files
  if (!file || more || file.size > MOST_BYTES || !/\.(?:txt|md|csv|tsv)$/i.test(file.name))
    return undefined
  const decode = (bytes: Uint8Array, encoding: Encoding) =>
    new TextDecoder(encoding, { fatal: true }).decode(bytes)
  const text = textOfBytes(file.name, new Uint8Array(await file.arrayBuffer()), decode)
  return isPage(file.name, text) ? text : undefined
}

/** Opens several files; each one is reported, and one that can't be read stops no other. */
export async function openFiles(
  files: readonly File[],
  services: Services,
  opening: Opening,
): Promise<readonly FileReport[]> {
  const reports: FileReport[] = []
  for (const [i, file] of files.entries()) {
    if (opening.signal.aborted) {
      reports.push({ name: file.name, ok: false, text: 'was not opened: it was stopped.' })
      continue
    }
    opening.onStep(`“${file.name}”, ${i + 1} of ${files.length}`)
    try {
      reports.push(...(await openOne(file, services, opening)))
    } catch (error) {
      if (opening.signal.aborted) {
        reports.push({ name: file.name, ok: false, text: 'was not opened: it was stopped.' })
        continue
      }
      // Whatever it is, it is this file's; what the others brought stays.
      const { what, toDo } =
        error instanceof UserError
          ? inWords(error)
          : { what: 'could not be opened.', toDo: `Try it once more. (${String(error)})` }
      reports.push({ name: file.name, ok: false, text: `${what} ${toDo}` })
    }
  }
  return reports
}
