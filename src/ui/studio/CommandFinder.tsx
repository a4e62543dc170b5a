import { Combobox, Modal, TextInput, useCombobox } from '@mantine/core'
import { useEffect, useMemo, useState } from 'react'
import { folded } from '../../core/record/folded'
import type { KeyScope } from '../shortcuts/shortcut'
import { SHORTCUTS } from '../shortcuts/shortcuts'
import type { Session } from '../stores/session'
import classes from './studio.module.css'

const NO_PRESS = { key: '', ctrl: false, alt: false, shift: false }
const COMMANDS = SHORTCUTS.filter(({ needsKey }) => !needsKey)

interface FinderProps {
  readonly session: Session
  readonly deck: KeyScope
  readonly onClose: () => void
}

/** Everything that can be done, found by typing a part of it. */
export function CommandFinder({ session, deck, onClose }: FinderProps) {
  const [query, setQuery] = useState('')
  const combobox = useCombobox({ opened: true })
  const found = useMemo(() => {
    const parts = folded(query).split(/\s+/).filter(Boolean)
    return COMMANDS.filter(({ does, keys }) => {
      const text = folded(`${does} ${keys}`)
      return parts.every((part) => text.includes(part))
    })
  }, [query])
  // The first one is always marked, so that Enter takes it.
  useEffect(() => {
    if (found.length > 0) combobox.selectFirstOption()
  }, [found, combobox.selectFirstOption])
  return (
    <Modal opened onClose={onClose} title="What do you want to do?" size="md" yOffset="10vh">
      <Combobox
        store={combobox}
        withinPortal={false}
        onOptionSubmit={(does) => {
          onClose()
          const command = COMMANDS.find((one) => one.does === does)
          // The window goes first, so that the focus is back where the action looks for it.
          requestAnimationFrame(() => command?.run(session, NO_PRESS, deck))
        }}
      >
        <Combobox.EventsTarget>
          <TextInput
            data-autofocus
            aria-label="Find an action"
            placeholder="mirror, double time, copy…"
            value={query}
            onChange={({ currentTarget }) => setQuery(currentTarget.value)}
            onKeyDown={({ key }) => key === 'Escape' && onClose()}
          />
        </Combobox.EventsTarget>
        <Combobox.Options aria-label="Actions" className={classes.commands} tabIndex={0}>
          {found.map(({ does, keys }) => (
            <Combobox.Option key={does} value={does}>
              <span>{does}</span>
              <kbd>{keys}</kbd>
            </Combobox.Option>
          ))}
          {found.length === 0 && (
            <Combobox.Empty>Nothing is called that. Try another word.</Combobox.Empty>
          )}
        </Combobox.Options>
      </Combobox>
    </Modal>
  )
}
