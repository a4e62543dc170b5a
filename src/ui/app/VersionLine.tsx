import { Button, CloseButton } from '@mantine/core'
import { useStore } from 'zustand'
import classes from './shell.module.css'
import { startWaiting, version } from './version'

const WORDS = {
  waits: 'A new version is here. It starts by itself the next time you open Molten Sway.',
  others: 'Close the other windows of Molten Sway, then start the new version.',
  late: 'A new version has taken over: start it, your work stays as it is.',
  started: 'Molten Sway was updated. Your work is as you left it.',
} as const

/** What there is to say of the version of the app; nothing most of the time. */
export function VersionLine() {
  const now = useStore(version)
  if (now === 'only') return null
  return (
    <p className={classes.notice} role="status">
      {WORDS[now]}
      {now !== 'started' && (
        <Button size="compact-sm" variant="default" onClick={() => void startWaiting()}>
          Start it now
        </Button>
      )}
      <CloseButton aria-label="Close" onClick={() => version.setState('only', true)} />
    </p>
  )
}
