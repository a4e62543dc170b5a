import type { Combination } from '../../core/combination/combination'
import { UserError } from '../../core/errors'
import { FORMATS, type Format } from '../../core/sheet/formats'
import type { OpenedFiles } from '../../storage/openedFiles'
import { vocabularyIn } from '../stores/words'

/** What a browser is asked before a file of the user is written, where it asks at all. */
interface Asking {
  requestPermission?(about: { mode: 'readwrite' }): Promise<PermissionState>
}

/** The forms that keep all of a combination, the longer ending first. */
const WHOLE: readonly Format[] = ['json', 'sway']

const formatOf = (name: string): Format | undefined =>
  WHOLE.find((format) => name.toLowerCase().endsWith(FORMATS[format]))

/** The name of the file a combination can be saved back into; undefined where there is none. */
export async function fileBehind(files: OpenedFiles, id: string): Promise<string | undefined> {
  const row = await files.of(id)
  return row && formatOf(row.handle.name) ? row.handle.name : undefined
}

/**
 * Saves a combination back into the file it was opened from.
 * @throws UserError where the file may not be written, is gone, or was changed elsewhere meanwhile
 */
export async function saveBack(files: OpenedFiles, combination: Combination): Promise<string> {
  const row = await files.of(combination.id)
  const format = row && formatOf(row.handle.name)
  if (!row || !format)
    throw new UserError('This was opened from no file.', 'Save it as a new file instead.')
  const { handle } = row
  const { name } = handle
  try {
    const allowed = await (handle as Asking).requestPermission?.({ mode: 'readwrite' })
    if (allowed === 'denied')
      throw new UserError(
        `The browser may not write “${name}”.`,
        'Allow it when it asks, or save it as a new file.',
      )
    if ((await handle.getFile()).lastModified !== row.at)
      throw new UserError(
        `“${name}” was changed elsewhere since it was opened here, and was left as it is.`,
        'Save this one as a new file, and open that one to compare.',
      )
    const { writeCombinationFile } = await import('../../core/sheet/writeFile')
    const writing = await handle.createWritable()
    const content = writeCombinationFile(combination, format, vocabularyIn(combination))
    await writing.write(typeof content === 'string' ? content : content.slice())
    await writing.close()
    await files.keep({ ...row, at: (await handle.getFile()).lastModified })
    return name
  } catch (cause) {
    if (cause instanceof UserError) throw cause
    throw new UserError(
      `“${name}” could not be written.`,
      'It may have been moved or deleted. Save this as a new file.',
      { cause },
    )
  }
}
