import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { Layer } from '../../core/body/layers'
import type { DanceMoment } from '../../core/performance/performance'
import type { Material } from '../../core/plan/material'
import { dancersOf } from '../../core/pose/dancers'
import { type View, viewFacts } from '../../core/pose/views'
import { DancerPicture } from '../stage/DancerPicture'
import { dancerNow } from '../stores/dancer'
import classes from './class.module.css'

interface ClassDancerProps {
  readonly material: Material
  readonly layers: readonly Layer[]
  readonly view: View
  /** Asked for each frame. */
  readonly moment: () => DanceMoment
  /** Whether it moves; else one picture is enough. */
  readonly isDancing: boolean
}

/** The figure, large and alone, in the view that goes with how the instructor stands. */
export function ClassDancer({ material, layers, view, moment, isDancing }: ClassDancerProps) {
  const { scale } = useStore(dancerNow, (s) => s)
  const layerKey = layers.join()
  const dancers = useMemo(() => {
    const shown = new Set(layerKey.split(',') as Layer[])
    return dancersOf(material.from, { layers: shown, scale })
  }, [material, layerKey, scale])
  const { whose } = viewFacts[view]
  return (
    <figure className={classes.figure}>
      <DancerPicture
        label={`The figure. ${whose}`}
        dancers={dancers}
        families={material.combination.families}
        view={view}
        isMoving={isDancing}
        moment={moment}
        isAtEase
      />
      <figcaption>{whose}</figcaption>
    </figure>
  )
}
