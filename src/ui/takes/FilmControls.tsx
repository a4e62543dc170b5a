import { Button, Checkbox } from '@mantine/core'
import { type RefObject, useState } from 'react'
import { Problem } from '../parts/Problem'
import classes from './takes.module.css'
import type { Filming } from './useFilming'

/** What the camera sees while it films, and why it can't. */
export function CameraView({
  filming: { phase, problem },
  preview,
}: {
  readonly filming: Filming
  readonly preview: RefObject<HTMLVideoElement | null>
}) {
  const isFilming = phase === 'filming'
  return (
    <>
      <div className={classes.camera} data-filming={isFilming} hidden={phase === 'idle'}>
        {/* What the camera sees now; nobody speaks in it. */}
        <video ref={preview} muted playsInline aria-label="What the camera sees" />
        {isFilming && <p role="status">Recording, kept only in this browser.</p>}
      </div>
      {problem && <Problem {...problem} />}
    </>
  )
}

/** Begins to film, with the sound of the room or without, and ends it. */
export function FilmControls({
  filming: { phase, start, stop, isReady },
  words,
}: {
  readonly filming: Filming
  /** What is filmed: `Film a take`. */
  readonly words: string
}) {
  const [hearsRoom, setHears] = useState(false)
  const isFilming = phase === 'filming'
  return (
    <div className={classes.row}>
      {isFilming ? (
        <Button color="red" onClick={() => void stop()}>
          Stop filming
        </Button>
      ) : (
        <Button
          variant="default"
          loading={phase === 'opening'}
          disabled={!isReady}
          onClick={() => void start(hearsRoom)}
        >
          {words}
        </Button>
      )}
      {!isFilming && (
        <Checkbox
          size="xs"
          label="with the sound of the room"
          checked={hearsRoom}
          onChange={({ currentTarget }) => setHears(currentTarget.checked)}
        />
      )}
    </div>
  )
}
