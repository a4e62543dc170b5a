import { useHotkeys } from '@mantine/hooks'

/** The usual keys for undo and redo; inside a text field they are the field's own. */
export function useUndoKeys(undo: (() => void) | undefined, redo: (() => void) | undefined): void {
  useHotkeys([
    ['mod+Z', () => undo?.()],
    ['mod+shift+Z', () => redo?.()],
    ['mod+Y', () => redo?.()],
  ])
}
