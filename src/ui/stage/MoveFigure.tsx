import { useReducedMotion } from '@mantine/hooks'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Side } from '../../core/body/side'
import type { Event } from '../../core/combination/combination'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { bestView, loopOf } from '../../core/pose/moveLoop'
import { viewFacts } from '../../core/pose/views'
import { FlatFigure } from './FlatFigure'
import { showLoop } from './loops'
import classes from './stage.module.css'

interface MoveFigureProps {
  readonly name: string
  readonly written: Pick<Event, 'layer' | 'what'>
  readonly side: Side
  readonly vocabulary: Vocabulary
}

/** A move danced by itself, from where it is seen best. */
export function MoveFigure({ name, written, side, vocabulary }: MoveFigureProps) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [isFlat, setFlat] = useState(false)
  const isStill = useReducedMotion() ?? false
  // The same words are the same dance, whoever made the object anew.
  const key = JSON.stringify(written)
  const { loop, view } = useMemo(() => {
    const made = loopOf(JSON.parse(key) as typeof written, side, vocabulary)
    return { loop: made, view: bestView(made) }
  }, [key, side, vocabulary])
  useEffect(() => {
    const element = canvas.current
    if (!element) return
    return showLoop({ canvas: element, loop, view, still: isStill }, () => setFlat(true))
  }, [loop, view, isStill])
  const label = `${name}, danced. ${viewFacts[view].whose}`
  return (
    <figure className={classes.moveFigure}>
      {isFlat ? (
        <FlatFigure pose={loop.dancer.poseAt((loop.length * 3) / 8)} view={view} label={label} />
      ) : (
        <canvas ref={canvas} role="img" aria-label={label} />
      )}
      <figcaption>{viewFacts[view].name}</figcaption>
    </figure>
  )
}
