import { type DragEvent, useState } from 'react'

export type Handles = Promise<ReadonlyMap<string, FileSystemFileHandle>>

/** Where dropped files are, in browsers that say so: one can be found there again, or saved back. */
export async function handlesOf(transfer: DataTransfer): Handles {
  const asked = [...transfer.items].map((item) =>
    'getAsFileSystemHandle' in item
      ? (item.getAsFileSystemHandle as () => Promise<FileSystemHandle | null>).call(item)
      : undefined,
  )
  const handles = await Promise.all(asked).catch(() => [])
  return new Map(
    handles.flatMap((one) =>
      one?.kind === 'file' ? [[one.name, one as FileSystemFileHandle] as const] : [],
    ),
  )
}

/**
 * Files that are dropped on a screen: what it hears, and whether some are held over it. What a part
 * of the screen takes for itself stays with that part.
 * @param wants whether these are for this part; else they are for what is round it
 */
export function useFileDrop(
  take: (files: readonly File[], transfer: DataTransfer) => void,
  wants: (files: readonly File[]) => boolean = () => true,
) {
  const [isOver, setOver] = useState(false)
  return {
    'data-dropping': isOver,
    onDragOver(event: DragEvent) {
      if (event.isDefaultPrevented() || !event.dataTransfer.types.includes('Files')) return
      event.preventDefault()
      setOver(true)
    },
    onDragLeave: () => setOver(false),
    onDrop(event: DragEvent) {
      setOver(false)
      if (event.isDefaultPrevented() || event.dataTransfer.files.length === 0) return
      const files = [...event.dataTransfer.files]
      if (!wants(files)) return
      event.preventDefault()
      take(files, event.dataTransfer)
    },
  }
}
