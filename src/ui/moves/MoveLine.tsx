import { useElementSize } from '@mantine/hooks'
import { memo, useMemo } from 'react'
import { type Combination, emptyCombination } from '../../core/combination/combination'
import { aloneFrom } from '../../core/combination/dancing'
import { whatOf } from '../../core/combination/whatOf'
import type { Move } from '../../core/moves/move'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { simulate } from '../../core/simulate/simulate'
import { TICKS_PER_COUNT, tick } from '../../core/time/time'
import { SIZE, shapeLine } from '../braid/geometry'
import { PassLine } from '../braid/PassLine'
import { RibbonInk } from '../braid/Ribbon'

/** A move alone at its usual counts, as it stands in the braid: footprints and weight, or its own shape. */
export const MoveLine = memo(function MoveLine({
  move,
  vocabulary,
}: {
  move: Move
  vocabulary: Vocabulary
}) {
  const { ref, width } = useElementSize()
  const line = useMemo(() => {
    const combination = alone(move)
    const simulation = simulate(combination, vocabulary)
    const [pass] = simulation.passes
    const [phrase] = combination.phrases
    if (!pass || !phrase || width === 0) return undefined
    const shape = shapeLine(
      pass.events,
      pass.length,
      Math.max(300, width),
      new Set([move.layer]),
      0,
    )
    return {
      pass,
      phrase,
      dancing: aloneFrom('R'),
      simulation,
      shape,
      early: [],
      events: pass.events,
      whom: undefined,
      part: 0,
      others: [],
      met: [],
      carried: [],
      drawnFrom: move.id,
      heat: [],
      hairs: [],
    }
  }, [move, vocabulary, width])
  return (
    <div ref={ref}>
      <svg width={0} height={0} aria-hidden className="only-read">
        <RibbonInk top={SIZE.leftFoot} bottom={SIZE.rightFoot} />
      </svg>
      {line && (
        <PassLine line={line} alone from={undefined} to={undefined} layers="" selectedIds="" />
      )}
    </div>
  )
})

function alone(move: Move): Combination {
  const empty = emptyCombination('alone', 'A')
  const counts = Math.min(16, Math.max(1, Math.ceil(move.length / TICKS_PER_COUNT)))
  const length = tick(Math.min(move.length, counts * TICKS_PER_COUNT))
  const event = { id: 'move', layer: move.layer, at: tick(0), length, what: whatOf(move) }
  const [phrase] = empty.phrases
  return phrase ? { ...empty, phrases: [{ ...phrase, counts, events: [event] }] } : empty
}
