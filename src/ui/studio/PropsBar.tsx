import { useStore } from 'zustand'
import { actHere } from '../stores/editing'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import { documentOf } from '../stores/state'
import classes from './parts.module.css'

interface PropsBarProps {
  readonly session: Session
  readonly onProps: () => void
}

/** What is carried: a touch does something with it on the selected counts. */
export function PropsBar({ session, onProps }: PropsBarProps) {
  const { newId } = useServices()
  const carried = useStore(session, (s) => documentOf(s).carried)
  if (!carried) return null
  return (
    <div className={classes.bar} role="group" aria-label="What is carried">
      {carried.map(({ id, name, kind }) => (
        <button
          key={id}
          type="button"
          title={`Do something with ${name} on the selected counts`}
          onClick={() => actHere(session, newId, id)}
        >
          {name} <i>{kind}</i> …
        </button>
      ))}
      <button type="button" className={classes.more} onClick={onProps}>
        What is carried…
      </button>
    </div>
  )
}
