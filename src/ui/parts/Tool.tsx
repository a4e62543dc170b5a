import { Button } from '@mantine/core'
import type { ReactNode } from 'react'

/** A small button beside others of what can be done to something. */
export const Tool = ({
  onClick,
  isOff = false,
  children,
}: {
  readonly onClick: () => void
  readonly isOff?: boolean
  readonly children: ReactNode
}) => (
  <Button size="xs" variant="default" px={4} disabled={isOff} onClick={onClick}>
    {children}
  </Button>
)
