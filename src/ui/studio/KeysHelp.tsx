import { Modal } from '@mantine/core'
import { SHORTCUTS } from '../shortcuts/shortcuts'
import classes from './studio.module.css'

/** All keys, made from the table of shortcuts. */
export function KeysHelp({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="All keys" size={1120} centered>
      <dl className={classes.keys}>
        {SHORTCUTS.map(({ keys, does }) => (
          <div key={does}>
            <dt>
              <kbd>{keys || 'Ctrl K, then'}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  )
}
