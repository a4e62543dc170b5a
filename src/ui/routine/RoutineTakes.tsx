import { type ReactNode, useMemo } from 'react'
import type { Performance } from '../../core/performance/performance'
import type { Laid } from '../../core/routine/laid'
import type { Routine } from '../../core/routine/routine'
import { TakePanel } from '../takes/TakePanel'
import { tickIn } from './RoutineStage'
import classes from './routine.module.css'

/** Takes of all of a routine, danced to its song. */
export function RoutineTakes({
  routine: { id, title },
  laid,
  at,
  figure,
  play,
}: {
  readonly routine: Routine
  readonly laid: Laid
  /** The count that is looked at while nothing plays. */
  readonly at: number
  readonly figure: ReactNode
  /** Plays all of it, and says what that is. */
  readonly play: () => Promise<Performance>
}) {
  const side = laid.combination.lead
  const tick = tickIn(laid, at)
  return (
    <aside className={classes.aside} aria-label="Filmed">
      <TakePanel
        danced={useMemo(() => ({ of: { kind: 'routine', id }, title }), [id, title])}
        play={play}
        still={useMemo(() => ({ side, tick }), [side, tick])}
        figure={figure}
      />
    </aside>
  )
}
