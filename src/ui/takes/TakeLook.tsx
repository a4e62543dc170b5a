import { Button, SegmentedControl, Switch } from '@mantine/core'
import { type ReactNode, useState } from 'react'
import { nudgedTake, type Take } from '../../core/take/take'
import type { Takes } from '../../storage/takes'
import { ClapAlign } from './ClapAlign'
import { type DancePlace, TakeFilm } from './TakeFilm'
import classes from './takes.module.css'

const NUDGE_MS = 20

/** Takes beside the dancing figure, or laid over it. */
export function TakeLook({
  takes,
  store,
  still,
  figure,
}: {
  readonly takes: readonly Take[]
  readonly store: Takes
  readonly still: DancePlace
  readonly figure: ReactNode
}) {
  const [isOver, setOver] = useState(false)
  const [isMirrored, setMirrored] = useState(true)
  return (
    <>
      <div className={classes.row}>
        <SegmentedControl
          size="xs"
          aria-label="The figure and the take"
          data={[
            { value: 'beside', label: 'Beside' },
            { value: 'over', label: 'Laid over' },
          ]}
          value={isOver ? 'over' : 'beside'}
          onChange={(value) => setOver(value === 'over')}
        />
        <Switch
          size="xs"
          label="As in a mirror"
          checked={isMirrored}
          onChange={({ currentTarget }) => setMirrored(currentTarget.checked)}
        />
      </div>
      <div className={classes.look} data-over={isOver}>
        {takes.map((take) => (
          <div key={take.id} className={classes.looked}>
            <TakeFilm take={take} store={store} still={still} isMirrored={isMirrored} />
            <p className={classes.row}>
              <Nudge take={take} by={-NUDGE_MS} store={store} />
              <Nudge take={take} by={NUDGE_MS} store={store} />
              <span className="counts">{take.nudge} ms</span>
              <ClapAlign take={take} store={store} />
            </p>
          </div>
        ))}
        {figure}
      </div>
    </>
  )
}

/** Pictures that come late from their camera are put right. */
function Nudge({
  take,
  by,
  store,
}: {
  readonly take: Take
  readonly by: number
  readonly store: Takes
}) {
  const words = `Pictures ${Math.abs(by)} ms ${by < 0 ? 'earlier' : 'later'}`
  return (
    <Button
      size="compact-xs"
      variant="default"
      aria-label={`${words}, ${take.title}`}
      onClick={() => void store.takes.change(take.id, (now) => nudgedTake(now, by))}
    >
      {by < 0 ? '− ' : '+ '}
      {Math.abs(by)} ms
    </Button>
  )
}
