import { useState } from 'react'
import { LAYERS, type Layer } from '../../core/body/layers'
import { aloneFrom } from '../../core/combination/dancing'
import type { Laid } from '../../core/routine/laid'
import type { Danced } from '../../core/simulate/danced'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { DanceStage } from '../stage/DanceStage'
import type { SongToFilm } from '../stage/VideoForm'
import { useServices } from '../stores/services'
import classes from './routine.module.css'

const ALL_LAYERS: ReadonlySet<Layer> = new Set(LAYERS)

/** A count of a song as a tick of the routine that is danced to it. */
export const tickIn = ({ from }: Laid, at: number): number =>
  Math.max(0, TICKS_PER_COUNT * (at - from))

/** The figure that dances a routine. */
export function RoutineStage({
  laid,
  dance,
  at,
  withSong,
}: {
  readonly laid: Laid
  readonly dance: Danced
  /** The count it shows while nothing plays. */
  readonly at: number
  /** All of it as it is heard, to be filmed. */
  readonly withSong: SongToFilm
}) {
  const { deck } = useServices()
  const [only, setOnly] = useState<Layer>()
  return (
    <div className={classes.stage}>
      <DanceStage
        combination={laid.combination}
        from={dance.from}
        dancing={aloneFrom(laid.combination.lead)}
        at={tickIn(laid, at)}
        layers={ALL_LAYERS}
        only={only}
        onOnly={setOnly}
        deck={deck}
        withSong={withSong}
      />
    </div>
  )
}
