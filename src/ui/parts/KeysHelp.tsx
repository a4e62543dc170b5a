import { ActionIcon, Modal } from '@mantine/core'
import { IconKeyboard } from '@tabler/icons-react'
import type { KeyLine } from './keys'
import classes from './keysHelp.module.css'

interface KeysHelpProps {
  readonly lines: readonly KeyLine[]
  readonly opened: boolean
  readonly onClose: () => void
}

/** The columns of the help at the most, and what each is wide. */
const COLUMNS = 3
const COLUMN_PX = 370

/** All keys of a screen, made from its table. */
export function KeysHelp({ lines, opened, onClose }: KeysHelpProps) {
  const columns = Math.min(COLUMNS, Math.ceil(lines.length / 8))
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title="All keys"
      size={columns * COLUMN_PX + 10}
      centered
    >
      <KeyLines lines={lines} columns={columns} />
    </Modal>
  )
}

/** The lines of a help. */
export function KeyLines({
  lines,
  columns = 1,
}: {
  readonly lines: readonly KeyLine[]
  readonly columns?: number
}) {
  return (
    <dl className={classes.keys} data-columns={columns}>
      {lines.map(({ keys, does }) => (
        <div key={does}>
          <dt>
            <kbd>{keys || 'Ctrl K, then'}</kbd>
          </dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  )
}

export function KeysButton({ onClick }: { readonly onClick: () => void }) {
  return (
    <ActionIcon variant="default" aria-label="All keys (?)" onClick={onClick}>
      <IconKeyboard size={18} />
    </ActionIcon>
  )
}
