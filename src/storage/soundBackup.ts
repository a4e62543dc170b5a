import { strFromU8, strToU8, Unzip, UnzipPassThrough, Zip, ZipPassThrough } from 'fflate'
import { z } from 'zod'
import { UserError } from '../core/errors'
import { recordIn } from '../core/record/recordIn'
import { upgrade } from '../core/record/upgrade'
import type { FileReport } from './backup'
import type { Songs } from './songs'

const SOUND_BACKUP_VERSION = 1
const MANIFEST = 'sound.json'
const FOLDER = 'media/'
/** More than that no zip of this kind can hold. */
const MOST_BYTES = 2_000_000_000
/** So much is read at once, so that a film is never held as a whole. */
const SLICE = 4 << 20

const Manifest = z.object({
  kind: z.literal('molten-sway-sound'),
  schemaVersion: z.literal(SOUND_BACKUP_VERSION),
  files: z.array(
    z.object({ mark: z.string(), title: z.string(), bytes: z.number(), type: z.string() }),
  ),
})
type Manifest = z.infer<typeof Manifest>

/** Whether a zip is one of sound: that is what its first file says. */
export async function isSoundBackup(file: Blob): Promise<boolean> {
  const head = new Uint8Array(await file.slice(30, 30 + MANIFEST.length).arrayBuffer())
  return strFromU8(head) === MANIFEST
}

/** How far it is, 0 to 1, and whether it is still wanted. */
interface Going {
  readonly onShare: (share: number) => void
  readonly signal: AbortSignal
}

/**
 * The sound of all songs that is kept here, as a zip of its own, as it is.
 * @throws UserError where there is none, or too much; AbortError when stopped
 */
export async function writeSounds(songs: Songs, { onShare, signal }: Going): Promise<Blob> {
  const { all } = await songs.songs.list()
  const kept = new Map<string, { title: string; type: string; blob: Blob }>()
  for (const { title, media } of all) {
    const blob = await songs.sounds.get(media.mark)
    if (blob) kept.set(media.mark, { title, type: media.type, blob })
  }
  const bytes = [...kept.values()].reduce((sum, { blob }) => sum + blob.size, 0)
  if (kept.size === 0)
    throw new UserError(
      'No sound is kept here.',
      'Open a song first; its counts are in the other backup.',
    )
  if (bytes > MOST_BYTES)
    throw new UserError(
      `The sound of all songs is ${(bytes / 1e9).toFixed(1)} GB, too much for one file.`,
      `Delete some first, or copy their own files; the largest is “${largest(kept)}”.`,
    )
  const parts: Blob[] = []
  let failed: Error | undefined
  const zip = new Zip((error, chunk) => {
    if (error) failed = error
    else parts.push(new Blob([chunk.slice()]))
  })
  const add = (name: string) => {
    const file = new ZipPassThrough(name)
    zip.add(file)
    return file
  }
  const manifest: Manifest = {
    kind: 'molten-sway-sound',
    schemaVersion: SOUND_BACKUP_VERSION,
    files: [...kept].map(([mark, { title, type, blob }]) => ({
      mark,
      title,
      type,
      bytes: blob.size,
    })),
  }
  add(MANIFEST).push(strToU8(`${JSON.stringify(manifest, null, 2)}\n`), true)
  let done = 0
  for (const [mark, { blob }] of kept) {
    const file = add(`${FOLDER}${mark}`)
    for (let at = 0; at < blob.size; at += SLICE) {
      signal.throwIfAborted()
      const slice = new Uint8Array(await blob.slice(at, at + SLICE).arrayBuffer())
      file.push(slice, at + SLICE >= blob.size)
      done += slice.length
      onShare(done / bytes)
    }
  }
  zip.end()
  if (failed) throw failed
  return new Blob(parts, { type: 'application/zip' })
}

const largest = (kept: ReadonlyMap<string, { title: string; blob: Blob }>): string =>
  [...kept.values()].sort((a, b) => b.blob.size - a.blob.size)[0]?.title ?? ''

/**
 * Brings sound back to the songs that miss theirs. What belongs to no song here, or is damaged, is
 * named and left out.
 * @param markOf what tells a file from all others
 * @throws UserError where it is no such file; AbortError when stopped
 */
export async function restoreSounds(
  zip: Blob,
  songs: Songs,
  markOf: (file: Blob) => Promise<string>,
  { onShare, signal }: Going,
): Promise<readonly FileReport[]> {
  const files = new Map<string, Blob>()
  const unzip = new Unzip((file) => {
    const pieces: Blob[] = []
    file.ondata = (error, chunk, isLast) => {
      if (error) return
      pieces.push(new Blob([chunk.slice()]))
      if (isLast) files.set(file.name, new Blob(pieces))
    }
    file.start()
  })
  unzip.register(UnzipPassThrough)
  for (let at = 0; at < zip.size; at += SLICE) {
    signal.throwIfAborted()
    const slice = new Uint8Array(await zip.slice(at, at + SLICE).arrayBuffer())
    try {
      unzip.push(slice, at + SLICE >= zip.size)
    } catch {
      // What comes behind the damage can't be found; what came before it is whole.
      break
    }
    onShare((0.5 * at) / zip.size)
  }
  const manifest = await readManifest(files.get(MANIFEST))
  const { all } = await songs.songs.list()
  const reports: FileReport[] = []
  for (const [i, { mark, title, type }] of manifest.files.entries()) {
    signal.throwIfAborted()
    onShare(0.5 + (0.5 * i) / manifest.files.length)
    const report = (ok: boolean, text: string) => reports.push({ name: title, ok, text })
    const found = files.get(`${FOLDER}${mark}`)
    const song = all.find(({ media }) => media.mark === mark)
    if (!found) report(false, 'is missing from the file, or behind what is damaged in it.')
    else if ((await markOf(found)) !== mark) report(false, 'is damaged, and was left out.')
    else if (!song) report(false, 'belongs to no song here: bring the other backup back first.')
    else if (await songs.sounds.get(mark)) report(true, 'has its sound already.')
    else {
      const keep = await songs.sounds.keep(mark, new Blob([found], { type }))
      await songs.songs.change(song.id, (now) => ({ ...now, media: { ...now.media, keep } }))
      report(keep === 'here', keep === 'here' ? 'has its sound again.' : 'has no room here.')
    }
  }
  return reports
}

async function readManifest(file: Blob | undefined): Promise<Manifest> {
  const damaged = (cause?: unknown) =>
    new UserError(
      'This is no sound of songs, or it is damaged.',
      'Nothing was changed. Open one as it was saved here.',
      { cause },
    )
  if (!file) throw damaged()
  const record = recordIn(await file.text(), damaged)
  const read = Manifest.safeParse(upgrade(record, SOUND_BACKUP_VERSION, []))
  if (!read.success) throw damaged(read.error)
  return read.data
}
