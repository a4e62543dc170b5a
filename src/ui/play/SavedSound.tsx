import { Button, Progress } from '@mantine/core'
import classes from './play.module.css'
import type { useSavedSound } from './useSavedSound'

/** How far the writing of a sound file is, and what came of it. */
export function SavedSound({
  share,
  done,
  stop,
}: Pick<ReturnType<typeof useSavedSound>, 'share' | 'done' | 'stop'>) {
  if (share !== undefined)
    return (
      <div className={classes.saving}>
        <Progress value={share * 100} aria-label="Written so far" />
        <Button variant="default" size="compact-md" onClick={stop}>
          Stop saving
        </Button>
      </div>
    )
  return done ? <p role="status">{done}</p> : null
}
