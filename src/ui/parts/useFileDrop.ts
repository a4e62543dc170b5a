import { type DragEvent, useState } from 'react'

/** Files that are dropped on a screen: what it hears, and whether some are held over it. */
export function useFileDrop(take: (files: readonly File[], transfer: DataTransfer) => void) {
  const [isOver, setOver] = useState(false)
  return {
    'data-dropping': isOver,
    onDragOver(event: DragEvent) {
      if (!event.dataTransfer.types.includes('Files')) return
      event.preventDefault()
      setOver(true)
    },
    onDragLeave: () => setOver(false),
    onDrop(event: DragEvent) {
      if (event.dataTransfer.files.length === 0) return
      event.preventDefault()
      setOver(false)
      take([...event.dataTransfer.files], event.dataTransfer)
    },
  }
}
