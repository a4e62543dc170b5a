import { lazy, Suspense, useState } from 'react'
import type { LaterMenuProps } from './FullMenu'

const FullMenu = lazy(async () => ({ default: (await import('./FullMenu')).FullMenu }))

/** A menu that is made when it is asked for: most never are, and the first page loads without it. */
export function LaterMenu(props: LaterMenuProps) {
  const [isMade, setMade] = useState(false)
  const [opened, setOpened] = useState(false)
  const button = props.button(() => {
    setMade(true)
    setOpened(!opened)
  })
  if (!isMade) return button
  return (
    <Suspense fallback={button}>
      <FullMenu {...props} opened={opened} onChange={setOpened} />
    </Suspense>
  )
}
