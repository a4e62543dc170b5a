import type { ReactNode } from 'react'
import type { Combination } from '../../core/combination/combination'
import { changeAll, type Session, showPreview } from '../stores/session'
import classes from './findings.module.css'
import { usePreview } from './usePreview'

interface PreviewButtonProps {
  readonly session: Session
  /** What the combination becomes. */
  readonly changed: Combination
  /** What undo calls it. */
  readonly does: string
  readonly onTaken?: () => void
  readonly children: ReactNode
}

/** A change that is seen in the braid while it is pointed at or focused, and taken as one edit. */
export function PreviewButton({ session, changed, does, onTaken, children }: PreviewButtonProps) {
  const previewed = usePreview(session)
  return (
    <button
      type="button"
      className={classes.repair}
      {...previewed(changed)}
      onClick={() => {
        showPreview(session, undefined)
        onTaken?.()
        changeAll(session, does, () => changed)
      }}
    >
      {children}
    </button>
  )
}
