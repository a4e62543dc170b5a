import { useReducedMotion } from '@mantine/hooks'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import type { Layer } from '../../core/body/layers'
import type { Side } from '../../core/body/side'
import type { DanceMoment } from '../../core/performance/performance'
import type { Material } from '../../core/plan/material'
import { dancerOf } from '../../core/pose/dancer'
import { type View, viewFacts } from '../../core/pose/views'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { createFrames, trailJoints } from '../../dancer/frames'
import type { Stage } from '../../dancer/stage'
import { FlatStage } from '../stage/FlatFigure'
import { drawFlat } from '../stage/flatDrawing'
import { openStage } from '../stage/openStage'
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

/** Some thirty pictures a second are enough for a class. */
const LEAST_BETWEEN_MS = 16

const PLAIN = { both: false, trails: false, next: false } as const

/** The figure, large and alone, in the view that goes with how the instructor stands. */
export function ClassDancer({ material, layers, view, moment, isDancing }: ClassDancerProps) {
  const { scale, build } = useStore(dancerNow, (s) => s)
  const canvas = useRef<HTMLCanvasElement>(null)
  const flat = useRef<SVGGElement>(null)
  const [stage, setStage] = useState<Stage>()
  const [isFlat, setFlat] = useState(false)
  const isStill = useReducedMotion()
  const layerKey = layers.join()
  const dancers = useMemo(() => {
    const shown = new Set(layerKey.split(',') as Layer[])
    const of = (side: Side) => dancerOf(material.from(side), { layers: shown, scale })
    return { R: of('R'), L: of('L') }
  }, [material, layerKey, scale])
  const frames = useMemo(() => createFrames(dancers, trailJoints(undefined)), [dancers])
  const asked = useRef(moment)
  asked.current = moment

  useEffect(() => {
    const element = canvas.current
    if (!element) return
    return openStage(element, {
      onOpen: setStage,
      onResize: () => setStage((now) => now),
      onFail: () => setFlat(true),
      onClose: () => setStage(undefined),
    })
  }, [])
  useEffect(() => {
    if (!stage && !isFlat) return
    stage?.setView(view)
    stage?.setBuild(build)
    let frame = 0
    let next = 0
    const paced = () => {
      frame = requestAnimationFrame(paced)
      const begun = performance.now()
      if (begun < next) return
      draw()
      // The sound goes first: a machine that draws slowly draws less often.
      requestAnimationFrame(() => {
        const now = performance.now()
        next = now + Math.max(LEAST_BETWEEN_MS, now - begun)
      })
      next = Number.POSITIVE_INFINITY
    }
    const draw = () => {
      const { side, tick: at, seam } = asked.current()
      const tick = isStill ? Math.floor(at / TICKS_PER_COUNT) * TICKS_PER_COUNT : at
      const shown = frames.at(side, tick, PLAIN, isStill ? undefined : seam)
      const [alone] = shown
      stage?.draw(shown)
      if (!stage && flat.current && alone) drawFlat(flat.current, alone.pose, view)
      const drawn = canvas.current ?? flat.current
      if (drawn) drawn.dataset.shown = `${side} ${tick.toFixed(2)}`
    }
    draw()
    if (isDancing) paced()
    // A stage that has just got its size is drawn once more.
    const settled = setTimeout(draw, 200)
    return () => {
      cancelAnimationFrame(frame)
      clearTimeout(settled)
    }
  }, [stage, isFlat, frames, view, build, isDancing, isStill])
  const { whose } = viewFacts[view]
  return (
    <figure className={classes.figure}>
      {isFlat ? (
        <FlatStage group={flat} view={view} label={`The figure. ${whose}`} />
      ) : (
        <canvas ref={canvas} role="img" aria-label={`The figure. ${whose}`} />
      )}
      <figcaption>{whose}</figcaption>
    </figure>
  )
}
