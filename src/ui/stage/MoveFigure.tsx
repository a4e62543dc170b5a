import { useReducedMotion } from '@mantine/hooks'
import { dequal } from 'dequal'
import { useMemo, useRef } from 'react'
import type { Side } from '../../core/body/side'
import type { Event } from '../../core/combination/combination'
import { aloneFrom } from '../../core/combination/dancing'
import type { Vocabulary } from '../../core/moves/vocabulary'
import type { DanceMoment } from '../../core/performance/performance'
import { bestLook, loopOf } from '../../core/pose/moveLoop'
import { viewFacts } from '../../core/pose/views'
import { steady } from '../../core/time/timeMap'
import { DancerPicture } from './DancerPicture'
import classes from './stage.module.css'

interface MoveFigureProps {
  readonly name: string
  readonly written: Pick<Event, 'layer' | 'what'>
  readonly side: Side
  readonly vocabulary: Vocabulary
}

/** Where a still picture is taken: most moves are well under way there. */
const STILL_SHARE = 3 / 8

/** A move danced by itself, from where it is seen best. */
export function MoveFigure({ name, written, side, vocabulary }: MoveFigureProps) {
  const isStill = useReducedMotion() ?? false
  // The same words are the same dance, whoever made the object anew.
  const known = useRef(written)
  if (!dequal(known.current, written)) known.current = written
  const danced = known.current
  const { dancers, view, isRaised, moment } = useMemo(() => {
    const loop = loopOf(danced, side, vocabulary)
    const { dancer, length, tempo } = loop
    const tick = () =>
      isStill ? length * STILL_SHARE : steady(tempo).tickAt(performance.now() / 1000) % length
    return {
      dancers: () => dancer,
      ...bestLook(loop),
      moment: (): DanceMoment => ({ dancing: aloneFrom(side), tick: tick(), seam: undefined }),
    }
  }, [danced, side, vocabulary, isStill])
  const families =
    danced.what.kind === 'move' ? (vocabulary.find(danced.what.move)?.families ?? []) : []
  const label = `${name}, danced. ${viewFacts[view].whose}`
  return (
    <figure className={classes.moveFigure}>
      <DancerPicture
        label={label}
        dancers={dancers}
        families={families}
        view={view}
        isMoving={!isStill}
        moment={moment}
        only={written.layer === 'feet' ? undefined : written.layer}
        frame={written.layer}
        isRaised={isRaised}
        isSmall
      />
      <figcaption>{viewFacts[view].name}</figcaption>
    </figure>
  )
}
