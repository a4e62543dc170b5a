import { useReducedMotion } from '@mantine/hooks'
import { useEffect, useMemo, useRef } from 'react'
import { useStore } from 'zustand'
import { leadOf } from '../../core/combination/dancing'
import { danceOf } from '../../core/piece/dance'
import { dancersOf } from '../../core/pose/dancers'
import { newPose } from '../../core/pose/joints'
import { dressFor } from '../../core/skin/outfits'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { steady } from '../../core/time/timeMap'
import { eachFrameAtEase } from '../parts/eachFrame'
import { FlatStage } from '../stage/FlatFigure'
import { drawFlat } from '../stage/flatDrawing'
import { stageChoice } from '../stage/stageChoice'
import { dancerNow } from '../stores/dancer'
import { houseNow } from '../stores/house'
import { words } from '../stores/words'
import classes from './ideas.module.css'
import type { Proposal } from './proposal'

/** Where a still picture is taken, of the stretch that is danced. */
const STILL_SHARE = 0.4

interface ProposalLoopProps {
  readonly proposal: Proposal
  /** It is this one's turn to dance; else it stands. */
  readonly isDanced: boolean
  /** It was danced once. */
  readonly onOnce: () => void
}

/**
 * A proposal danced, from its first count on, seen from where the stage sees the dance. It is drawn
 * flat: so small nothing is lost by that, and the braid keeps its frames where drawing is slow.
 */
export function ProposalLoop({ proposal, isDanced, onOnce }: ProposalLoopProps) {
  const { changed, passes } = proposal
  const [first, last] = passes
  const isStill = useReducedMotion() ?? false
  const { scale, look } = useStore(dancerNow, (s) => s)
  const { view: chosen } = useStore(stageChoice, (s) => s)
  const view = chosen === 'partner' ? 'facing' : chosen
  const group = useRef<SVGGElement>(null)
  // Only this list looks at it: what is kept of the states of the combination stays kept.
  const loop = useMemo(() => {
    const { vocabulary } = words.getState()
    const dance = danceOf(changed, vocabulary, houseNow.getState().house)
    const from = dance.lead.passes[first]?.at ?? 0
    const end = dance.lead.passes[last]
    const length = (end ? end.at + end.length : dance.lead.length) - from
    const dancer = dancersOf(dance.from, { scale })(leadOf(changed))
    const pose = newPose()
    return { from, length, poseAt: (tick: number) => dancer.poseAt(tick, pose) }
  }, [changed, first, last, scale])
  useEffect(() => {
    const worn = dressFor(look, changed.families)
    const draw = (ticks: number) => {
      if (!group.current) return
      const pose = loop.poseAt(loop.from + ticks)
      drawFlat(group.current, { pose, carried: [] }, view, worn)
      group.current.dataset.count = String(Math.floor(ticks / TICKS_PER_COUNT) + 1)
    }
    if (!isDanced || isStill) {
      draw(loop.length * STILL_SHARE)
      return
    }
    const time = steady(changed.tempo)
    const begun = performance.now()
    const stop = eachFrameAtEase(() =>
      draw(time.tickAt((performance.now() - begun) / 1000) % loop.length),
    )
    const once = setTimeout(onOnce, time.secondsAt(loop.length) * 1000)
    return () => {
      stop()
      clearTimeout(once)
    }
  }, [loop, changed, view, look, isDanced, isStill, onOnce])
  return (
    <div className={classes.loop}>
      <FlatStage group={group} view={view} label={`${proposal.words}, danced`} />
    </div>
  )
}
