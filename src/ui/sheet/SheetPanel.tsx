import { ActionIcon } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useEffect, useRef, useState } from 'react'
import { slotsOrNone } from '../../storage/slots'
import { nonce } from '../parts/policy'
import type { Session } from '../stores/session'
import { writtenOf } from '../stores/state'
import type { SheetEditor, SheetState } from './editor'
import classes from './sheet.module.css'

const slots = slotsOrNone(() => localStorage)

/** A text that is no sheet at all is kept here until it is one again. */
const draftOf = (id: string) => {
  const slot = `molten-sway sheet ${id}`
  return {
    read: () => slots.getItem(slot),
    write(text: string | null) {
      try {
        if (text === null) slots.removeItem(slot)
        else slots.setItem(slot, text)
      } catch {
        // Full or forbidden: the text is still in the editor.
      }
    },
  }
}

/** The count sheet beside the braid. The editor is loaded when it is opened. */
export function SheetPanel({ session, onClose }: { session: Session; onClose: () => void }) {
  const parent = useRef<HTMLDivElement>(null)
  const editor = useRef<SheetEditor>(undefined)
  const [state, setState] = useState<SheetState>({ messages: [] })
  const leave = useRef(onClose)
  leave.current = onClose

  useEffect(() => {
    let isGone = false
    void import('./editor').then(({ openSheetEditor }) => {
      if (isGone || !parent.current) return
      editor.current = openSheetEditor({
        session,
        parent: parent.current,
        nonce: nonce(),
        draft: draftOf(writtenOf(session.getState()).id),
        now: () => performance.now(),
        onRead: (read) => setState(read),
        onClose: () => leave.current(),
      })
      editor.current.focus()
    })
    return () => {
      isGone = true
      editor.current?.close()
      editor.current = undefined
    }
  }, [session])

  const { messages, refused } = state
  return (
    <section className={classes.panel} aria-label="Count sheet">
      <header className={classes.top}>
        <h2 className="display">Count sheet</h2>
        <ActionIcon variant="subtle" color="gray" aria-label="Close the sheet" onClick={onClose}>
          <IconX size={18} />
        </ActionIcon>
      </header>
      <div className={classes.editor} ref={parent} data-sheet />
      <div className={classes.messages} role="status">
        {refused && (
          <p>
            <b>{refused.what}</b> {refused.toDo} The text is kept as you typed it.
          </p>
        )}
        {messages.length > 0 && (
          <ul>
            {messages.map(({ line, column, from, text }) => (
              <li key={`${from} ${text}`}>
                <button type="button" onClick={() => editor.current?.goTo(from)}>
                  <b className="counts">
                    {line}:{column}
                  </b>{' '}
                  {text}
                </button>
              </li>
            ))}
          </ul>
        )}
        {!refused && messages.length === 0 && (
          <p className={classes.fine}>All of it is read. What you change here is in the braid.</p>
        )}
      </div>
    </section>
  )
}
