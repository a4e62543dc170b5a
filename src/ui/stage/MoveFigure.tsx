import { useReducedMotion } from '@mantine/hooks'
import { useMemo } from 'react'
import type { Side } from '../../core/body/side'
import type { Event } from '../../core/combination/combination'
import { aloneFrom } from '../../core/combination/dancing'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { viewFacts } from '../../core/pose/views'
import { DancerPicture, type PictureChoice } from './DancerPicture'
import classes from './stage.module.css'
import { sidesInPicture, useMoveSides } from './useMoveSides'

interface MoveFigureProps {
  readonly name: string
  readonly written: Pick<Event, 'layer' | 'what'>
  readonly side: Side
  readonly vocabulary: Vocabulary
}

/** Half its tempo: slow enough to be learnt from. */
const SPEED = 0.5
const PHASES = 4

/** What is about to be placed: both its sides, slow, from where it is seen best, over its phases. */
export function MoveFigure({ name, written, side, vocabulary }: MoveFigureProps) {
  const isStill = useReducedMotion() ?? false
  const sides = useMoveSides(written, side, vocabulary)
  const { loop, dancers, isSided } = sides
  const { view, isRaised } = sides.best
  const { layer } = loop
  const moment = useMemo(() => sides.moment(SPEED, isStill), [sides, isStill])
  const choice: PictureChoice = {
    both: isSided,
    trails: layer !== 'feet',
    ghost: 'none',
    apart: sides.apart,
  }
  const { what } = written
  const picture = {
    dancers,
    families: what.kind === 'move' ? (vocabulary.find(what.move)?.families ?? []) : [],
    view,
    only: layer === 'feet' ? undefined : layer,
    frame: sides.frame,
    isRaised,
    isSmall: true,
  }
  return (
    <figure className={classes.moveFigure}>
      <DancerPicture
        {...picture}
        label={`${name}, danced. ${viewFacts[view].whose}`}
        choice={choice}
        isMoving={!isStill}
        moment={moment}
      />
      {isSided && (
        <p className={classes.sides}>
          {sidesInPicture(dancers, side, choice, view).map((one) => (
            <span key={one}>{one}</span>
          ))}
        </p>
      )}
      <div className={classes.strip}>
        {Array.from({ length: PHASES }, (_, i) => (i * loop.length) / PHASES).map((tick, i) => (
          <DancerPicture
            key={tick}
            {...picture}
            label={`Phase ${i + 1}`}
            isMoving={false}
            moment={() => ({ dancing: aloneFrom(side), tick, seam: undefined })}
          />
        ))}
      </div>
      <figcaption>{viewFacts[view].name}, at half its tempo</figcaption>
    </figure>
  )
}
