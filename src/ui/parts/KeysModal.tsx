import { Modal } from '@mantine/core'
import { KeyLines } from './KeyLines'
import type { KeyLine } from './keys'

export interface KeysModalProps {
  readonly lines: readonly KeyLine[]
  readonly opened: boolean
  readonly onClose: () => void
}

/** The columns of the help at the most, and what each is wide. */
const COLUMNS = 3
const COLUMN_PX = 370

/** The help in a dialog, which is only loaded when somebody asks. */
export function KeysModal({ lines, opened, onClose }: KeysModalProps) {
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
