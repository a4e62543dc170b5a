import type { Database, FileRow } from './database'

/** Which file a combination was opened from, where the browser lets an app hold on to files. */
export interface OpenedFiles {
  /** The file of a combination; undefined where it has none. */
  readonly of: (id: string) => Promise<FileRow | undefined>
  /** The combination a file was opened as. */
  readonly openedAs: (handle: FileSystemFileHandle) => Promise<FileRow | undefined>
  readonly keep: (row: FileRow) => Promise<void>
}

/** The only code that touches the table of files. */
export const createOpenedFiles = ({ files }: Database): OpenedFiles => ({
  of: (id) => files.get(id),
  async openedAs(handle) {
    for (const row of await files.toArray()) if (await row.handle.isSameEntry(handle)) return row
    return undefined
  },
  async keep(row) {
    await files.put(row)
  },
})
