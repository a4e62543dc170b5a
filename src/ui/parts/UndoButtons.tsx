import { ActionIcon, Tooltip } from '@mantine/core'
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react'

/** Undo and redo, greyed out where there is nothing to take back. */
export function UndoButtons({
  undo,
  redo,
  last,
}: {
  readonly undo: (() => void) | undefined
  readonly redo: (() => void) | undefined
  /** What the next undo takes back. */
  readonly last?: string | undefined
}) {
  return (
    <>
      <Tooltip label="Undo (Ctrl Z)">
        <ActionIcon
          variant="default"
          aria-label={last === undefined ? 'Undo' : `Undo ${last}`}
          disabled={!undo}
          onClick={undo}
        >
          <IconArrowBackUp size={18} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="Redo (Ctrl Y)">
        <ActionIcon variant="default" aria-label="Redo" disabled={!redo} onClick={redo}>
          <IconArrowForwardUp size={18} />
        </ActionIcon>
      </Tooltip>
    </>
  )
}
