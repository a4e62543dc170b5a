import { useStore } from 'zustand'
import { PartBadge } from '../parts/PartBadge'
import { meetHere } from '../stores/editing'
import { useServices } from '../stores/services'
import { type Session, selectWhom } from '../stores/session'
import { documentOf } from '../stores/state'
import classes from './parts.module.css'

interface PartsBarProps {
  readonly session: Session
  readonly onParts: () => void
}

/** Whom what is changed is for: all, or one of several dancers. */
export function PartsBar({ session, onParts }: PartsBarProps) {
  const { newId } = useServices()
  const parts = useStore(session, (s) => documentOf(s).parts)
  const whom = useStore(session, (s) => s.selection.whom)
  if (!parts) return null
  return (
    <div className={classes.bar} role="group" aria-label="For whom it is">
      <button
        type="button"
        aria-pressed={whom === undefined}
        onClick={() => selectWhom(session, undefined)}
      >
        All
      </button>
      {parts.map(({ id, name, mirrored }, i) => (
        <button
          key={id}
          type="button"
          aria-pressed={whom === id}
          onClick={() => selectWhom(session, id)}
        >
          <PartBadge index={i} name={name} />
          {mirrored && <i>image</i>}
        </button>
      ))}
      <button type="button" className={classes.more} onClick={() => meetHere(session, newId)}>
        Together…
      </button>
      <button type="button" className={classes.more} onClick={onParts}>
        Dancers…
      </button>
    </div>
  )
}
