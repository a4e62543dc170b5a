import { useStore } from 'zustand'
import { copySelected, duplicateSelected, pasteHere } from '../stores/clipboard'
import { removeSelected } from '../stores/editing'
import type { Session } from '../stores/session'
import { selectedEvents } from '../stores/state'
import classes from './placing.module.css'

/** Several counts, or layers: what can be done with all of it. */
export function BlockRow({
  session,
  newId,
  onMake,
}: {
  readonly session: Session
  readonly newId: () => string
  readonly onMake: () => void
}) {
  const state = useStore(session, (s) => s)
  const many = selectedEvents(state).length
  return (
    <div className={classes.placed}>
      <p>
        <b>{many === 1 ? '1 move' : `${many} moves`}</b>
        <span>selected</span>
      </p>
      <div className={classes.pair}>
        <button type="button" disabled={many === 0} onClick={() => copySelected(session)}>
          Copy
        </button>
        <button type="button" onClick={() => pasteHere(session, newId)}>
          Paste here
        </button>
        <button type="button" onClick={() => pasteHere(session, newId, { mirrored: true })}>
          Paste from the other side
        </button>
        <button
          type="button"
          disabled={many === 0}
          onClick={() => duplicateSelected(session, newId)}
        >
          Double it
        </button>
        <button type="button" disabled={many === 0} onClick={onMake}>
          Make a move of it
        </button>
        <button type="button" disabled={many === 0} onClick={() => removeSelected(session)}>
          Remove
        </button>
      </div>
    </div>
  )
}
