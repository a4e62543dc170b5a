import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import { readCombinationFile, textOfBytes } from '../../core/sheet/files'
import { FORMATS, type Format } from '../../core/sheet/formats'
import { writeCombinationFile } from '../../core/sheet/writeFile'
import type { FileReport } from '../../storage/backup'
import { inWords } from '../app/Problem'
import type { Services } from '../app/services'
import { vocabularyIn, words } from '../stores/words'

const MIME: Readonly<Record<Format, string>> = {
  json: 'application/json',
  sway: 'text/plain',
  csv: 'text/csv',
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

/** Everything in one zip. */
export async function saveBackup(services: Services, day: string): Promise<void> {
  const { writeBackup } = await import('../../storage/backup')
  download(
    `molten-sway-${day}.zip`,
    await writeBackup({ ...services, teaching: await services.teaching() }),
    'application/zip',
  )
}

async function openOne(file: File, services: Services): Promise<readonly FileReport[]> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  if (/\.zip$/i.test(file.name)) {
    const { restoreBackup } = await import('../../storage/backup')
    return restoreBackup(bytes, { ...services, teaching: await services.teaching() })
  }
  const text = textOfBytes(file.name, bytes, (raw, encoding) =>
    new TextDecoder(encoding, { fatal: true }).decode(raw),
  )
  return [await openText(file.name, text, services)]
}

/** Adds the combination a text holds, under an id of its own when that one is here already. */
export async function openText(
  name: string,
  text: string,
  { combinations, newId }: Services,
): Promise<FileReport> {
  const { combination, messages } = readCombinationFile(name, text, words.get().vocabulary)
  const isSheet = combination.id === 'sheet'
  const title = combination.title || name.replace(/\.[a-z.]+$/i, '')
  const isKnown =
    !isSheet && (await combinations.get(combination.id).catch(() => true)) !== undefined
  await combinations.add({ ...combination, title, ...((isSheet || isKnown) && { id: newId() }) })
  const unread =
    messages.length === 0
      ? ''
      : ` ${messages.length === 1 ? 'One place' : `${messages.length} places`} in it could not be read and ${messages.length === 1 ? 'is' : 'are'} kept as typed: open its sheet to put that right.`
  return { name, ok: true, text: `“${title}” is here now.${unread}` }
}

/** Opens several files; each one is reported, and one that can't be read stops no other. */
export async function openFiles(
  files: readonly File[],
  services: Services,
): Promise<readonly FileReport[]> {
  const reports: FileReport[] = []
  for (const file of files) {
    try {
      reports.push(...(await openOne(file, services)))
    } catch (error) {
      const { what, toDo } = inWords(error)
      if (!(error instanceof UserError)) throw error
      reports.push({ name: file.name, ok: false, text: `${what} ${toDo}` })
    }
  }
  return reports
}
