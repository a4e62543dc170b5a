import { Menu } from '@mantine/core'
import type { ReactElement } from 'react'

export interface LaterMenuProps {
  /** The button that opens it. */
  readonly button: (onClick: () => void) => ReactElement
  /** Said under the items; nothing where it is empty. */
  readonly note?: string
  readonly items: readonly { readonly label: string; readonly onPick: () => void }[]
}

/** The menu itself, with what lays it out; loaded when one is opened. */
export function FullMenu({
  button,
  items,
  note,
  opened,
  onChange,
}: LaterMenuProps & { readonly opened: boolean; readonly onChange: (opened: boolean) => void }) {
  return (
    <Menu position="bottom-end" withinPortal opened={opened} onChange={onChange}>
      <Menu.Target>{button(() => onChange(!opened))}</Menu.Target>
      <Menu.Dropdown>
        {items.map(({ label, onPick }) => (
          <Menu.Item key={label} onClick={onPick}>
            {label}
          </Menu.Item>
        ))}
        {note && (
          <Menu.Label maw={260} c="var(--quiet)">
            {note}
          </Menu.Label>
        )}
      </Menu.Dropdown>
    </Menu>
  )
}
