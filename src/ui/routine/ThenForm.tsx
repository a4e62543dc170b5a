import { Button, NativeSelect, NumberInput } from '@mantine/core'
import { MOST_PAUSE, type Routine } from '../../core/routine/routine'
import { followedBy } from '../../core/routine/runThrough'
import classes from './routine.module.css'
import type { ChangeRoutine } from './useRoutine'
import type { Coming } from './useThen'

/** What is danced after the song, one run through. */
export function ThenForm({
  routine,
  routines,
  change,
}: {
  readonly routine: Routine
  readonly routines: readonly Routine[]
  readonly change: ChangeRoutine
}) {
  const { next } = routine
  const find = (id: string) => routines.find((one) => one.id === id)
  const others = routines.filter(({ id }) => id !== routine.id)
  if (others.length === 0 && !next) return null
  return (
    <div className={classes.then}>
      <NativeSelect
        size="xs"
        label="Then"
        value={next?.routine ?? ''}
        onChange={({ currentTarget: { value } }) =>
          change('what follows', (now) =>
            followedBy(
              now,
              value ? { routine: value, pause: next?.pause ?? PAUSE } : undefined,
              find,
            ),
          )
        }
      >
        <option value="">nothing</option>
        {others.map(({ id, title }) => (
          <option key={id} value={id}>
            {title}
          </option>
        ))}
        {next && !find(next.routine) && (
          <option value={next.routine}>a routine that is gone</option>
        )}
      </NativeSelect>
      {next && (
        <NumberInput
          size="xs"
          label="after seconds"
          min={0}
          max={MOST_PAUSE}
          value={next.pause}
          onChange={(pause) =>
            typeof pause === 'number' &&
            change(
              'pause before what follows',
              (now) => followedBy(now, now.next && { ...now.next, pause: Math.round(pause) }, find),
              'pause',
            )
          }
        />
      )}
    </div>
  )
}

/** What is danced next, while it is waited for. */
export function ComingNext({ routine: { title }, left, now, stay }: Coming) {
  return (
    <p className={classes.coming} role="status">
      <span>
        Then <b>{title}</b>
        {left > 0 ? `, in ${left} s` : ''}
      </span>
      <Button size="compact-sm" onClick={now}>
        Begin now
      </Button>
      <Button size="compact-sm" variant="default" onClick={stay}>
        Stay here
      </Button>
    </p>
  )
}

/** Seconds to find one's place again, where nobody said otherwise. */
const PAUSE = 5
