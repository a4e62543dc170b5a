import type { ReactNode } from 'react'
import classes from './class.module.css'

/** All of the middle of the screen as one button, found without looking; its keys are the class's. */
export function Tap({
  label,
  onTap,
  children,
}: {
  readonly label: string
  readonly onTap: () => void
  readonly children: ReactNode
}) {
  return (
    <div
      className={classes.tap}
      role="button"
      tabIndex={0}
      aria-label={label}
      onClick={onTap}
      onKeyDown={() => {}}
    >
      {children}
    </div>
  )
}
