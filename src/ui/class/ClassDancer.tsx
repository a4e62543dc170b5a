import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { Layer } from '../../core/body/layers'
import type { ShownDance } from '../../core/class/shownDrill'
import type { Dancing } from '../../core/combination/dancing'
import type { DanceMoment } from '../../core/performance/performance'
import { dancersOf } from '../../core/pose/dancers'
import type { View } from '../../core/pose/views'
import { DancerPicture } from '../stage/DancerPicture'
import { FlatFigure } from '../stage/FlatFigure'
import { whoseWords } from '../stage/pictureWords'
import { dancerNow } from '../stores/dancer'
import classes from './class.module.css'

interface ClassDancerProps {
  readonly dance: ShownDance
  readonly layers: readonly Layer[]
  readonly view: View
  /** Asked for each frame. */
  readonly moment: () => DanceMoment
  /** Where the next count is: its pose is seen small beside. */
  readonly ahead?: { readonly dancing: Dancing; readonly tick: number } | undefined
  /** Whether it moves; else one picture is enough. */
  readonly isDancing: boolean
}

/** The figure, large and alone, in the view that goes with how the instructor stands. */
export function ClassDancer(props: ClassDancerProps) {
  const { dance, layers, view, moment, ahead, isDancing } = props
  const { combination, from } = dance
  const { scale } = useStore(dancerNow, (s) => s)
  const layerKey = layers.join()
  const dancers = useMemo(() => {
    const shown = new Set(layerKey.split(',') as Layer[])
    return dancersOf(from, { layers: shown, scale }, combination)
  }, [from, combination, layerKey, scale])
  const whose = whoseWords(view, combination.parts !== undefined)
  return (
    <figure className={classes.figure}>
      <DancerPicture
        label={`The figure. ${whose}`}
        dancers={dancers}
        families={combination.families}
        view={view}
        isMoving={isDancing}
        moment={moment}
        isAtEase
      />
      <figcaption>{whose}</figcaption>
      {ahead && (
        <div className={classes.ahead}>
          <FlatFigure
            pose={dancers(ahead.dancing).poseAt(ahead.tick)}
            view={view}
            label="The pose of the next count"
            families={combination.families}
          />
          <span>next</span>
        </div>
      )}
    </figure>
  )
}
