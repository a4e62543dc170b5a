import { ActionIcon } from '@mantine/core'
import { IconArrowLeft } from '@tabler/icons-react'
import type { ComponentType, ReactNode } from 'react'
import { Link } from 'react-router'
import type { UnderWay } from '../../core/class/underWay'
import { clockText } from '../../core/time/clock'
import classes from './class.module.css'

/** What is danced, which step of the class that is, what time is left, and the tools beside. */
export function ClassHead({
  session: { index, drills },
  title,
  left,
  children,
}: {
  readonly session: UnderWay
  readonly title: string
  /** Seconds. */
  readonly left: number
  readonly children: ReactNode
}) {
  return (
    <header className={classes.head}>
      <Link to="/diary" className={classes.leave} aria-label="Leave the floor">
        <IconArrowLeft size={22} />
      </Link>
      <h1 className="display">{title}</h1>
      <p className="counts">
        {Math.min(index + 1, drills.length)} of {drills.length}
      </p>
      <p className={`counts ${classes.left}`}>
        <span className="only-read">Time left </span>
        {clockText(left)}
      </p>
      {children}
    </header>
  )
}

/** A tool of the floor: a button, or a page in a window of its own. */
export function Tool({
  icon: Icon,
  label,
  isOn,
  href,
  onClick,
}: {
  readonly icon: ComponentType<{ readonly size: number }>
  readonly label: string
  readonly isOn?: boolean
  readonly href?: string
  readonly onClick?: () => void
}) {
  const look = { variant: 'subtle', color: 'gray', size: 40, 'aria-label': label } as const
  return href === undefined ? (
    <ActionIcon {...look} {...(isOn !== undefined && { 'aria-pressed': isOn })} onClick={onClick}>
      <Icon size={22} />
    </ActionIcon>
  ) : (
    <ActionIcon {...look} component="a" href={href} target="_blank">
      <Icon size={22} />
    </ActionIcon>
  )
}
