import { dequal } from 'dequal'
import { useMemo, useRef } from 'react'
import { useStore } from 'zustand'
import { type Side, sideWord } from '../../core/body/side'
import type { Event } from '../../core/combination/combination'
import { aloneFrom } from '../../core/combination/dancing'
import { sideOf } from '../../core/combination/names'
import { onSide } from '../../core/combination/whatOf'
import type { Vocabulary } from '../../core/moves/vocabulary'
import type { DanceMoment } from '../../core/performance/performance'
import { type Dancers, dancersAlone } from '../../core/pose/dancers'
import { type BestLook, bestLook, loopOf, type MoveLoop } from '../../core/pose/moveLoop'
import type { View } from '../../core/pose/views'
import { steady } from '../../core/time/timeMap'
import { type Frame, frameOf } from '../../dancer/camera'
import { type Beside, isRightOnTheRight } from '../../dancer/frames'
import { dancerNow } from '../stores/dancer'

/** How far apart its two sides stand, in metres: as near as the picture of a layer allows. */
const APART: Readonly<Record<Frame, number | undefined>> = {
  hips: 0.72,
  torso: 1.45,
  head: 0.66,
  arms: 1.7,
  hands: 0.95,
  feet: undefined,
  legs: undefined,
  all: undefined,
}

/** Where a still picture is taken: most moves are well under way there. */
const STILL_SHARE = 3 / 8

/** Something written on a layer, danced by itself on each side. */
export interface MoveSides {
  readonly loop: MoveLoop
  readonly dancers: Dancers
  readonly best: BestLook
  /** What of the dancer it is seen on. */
  readonly frame: Frame
  /** How far apart its two sides stand, in metres; far enough where it is not said. */
  readonly apart: number | undefined
  /** Whether its sides differ. */
  readonly isSided: boolean
  /** What is to be seen now. @param speed share of its tempo */
  readonly moment: (speed: number, isStill: boolean) => () => DanceMoment
}

/**
 * @param lead the side it is shown on where it is shown on one
 * @param clearer how large isolations are shown
 */
export function useMoveSides(
  written: Pick<Event, 'layer' | 'what'>,
  lead: Side,
  vocabulary: Vocabulary,
  clearer = 1,
): MoveSides {
  const { scale } = useStore(dancerNow, (s) => s)
  // The same words are the same dance, whoever made the object anew.
  const known = useRef(written)
  if (!dequal(known.current, written)) known.current = written
  const { layer, what } = known.current
  return useMemo(() => {
    const loopFrom = (side: Side) =>
      loopOf({ layer, what: onSide(what, side) }, side, vocabulary, { scale, clearer })
    const loops = { R: loopFrom('R'), L: loopFrom('L') }
    const loop = loops[lead]
    const frame = frameOf(loop)
    return {
      loop,
      frame,
      apart: APART[frame],
      dancers: dancersAlone(({ side }) => loops[side].dancer),
      best: bestLook(loop),
      isSided: sideOf(what) !== undefined,
      moment: (speed, isStill) => {
        const map = steady(loop.tempo)
        const tick = () =>
          isStill
            ? loop.length * STILL_SHARE
            : map.tickAt((performance.now() * speed) / 1000) % loop.length
        return () => ({ dancing: aloneFrom(lead), tick: tick(), seam: undefined })
      },
    }
  }, [layer, what, lead, vocabulary, scale, clearer])
}

/** Both sides by name, as they are seen from the left of the picture to its right. */
export const sidesInPicture = (
  dancers: Dancers,
  side: Side,
  beside: Beside,
  view: View,
): readonly string[] =>
  (isRightOnTheRight(dancers, aloneFrom(side), beside, view)
    ? (['L', 'R'] as const)
    : (['R', 'L'] as const)
  ).map((one) => `${sideWord[one]} side`)
