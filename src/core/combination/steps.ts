import { mirrorFootAction } from '../body/feet'
import { otherSide, type Side } from '../body/side'
import type { Move } from '../moves/move'
import type { TimedAction } from '../moves/pattern'
import type { Vocabulary } from '../moves/vocabulary'
import { type Tick, tick } from '../time/time'
import { repeatsOf } from '../what/repeats'
import { type DancedEvent, footLeftUp } from './lengths'

/**
 * The steps of a footwork figure over its range, each repeat on the foot that is free
 * then, or on the other one in turn when it says so. The side is the foot it starts on.
 */
function figureSteps(event: DancedEvent, side: Side, move: Move): readonly TimedAction[] {
  // What comes next takes the rest of a figure: what there is time for is danced.
  if (event.isCut) return patternOn(side, move).filter(({ at }) => at < event.length)
  const { every, times } = repeatsOf(event.what, event.whole ?? event.length, move)
  const swaps = move.to === 'on-R' || (event.what.kind === 'move' && event.what.alt === true)
  const steps = Array.from({ length: times }, (_, i) => {
    const on = swaps && i % 2 === 1 ? otherSide[side] : side
    return patternOn(on, move)
      .filter(({ at }) => at < every)
      .map(({ at, action }) => ({ at: tick(at + i * every), action }))
  }).flat()
  if (event.whole !== undefined) return steps.filter(({ at }) => at < event.length)
  const foot = footLeftUp(steps)
  return event.putsDown && foot ? [...steps, putDown(foot, event.length)] : steps
}

/** A foot in the air comes down beside the other, without weight. */
const putDown = (foot: Side, at: Tick): TimedAction => ({
  at,
  action: { primitive: 'touch', foot, direction: 'together' },
})

const leftPatterns = new WeakMap<Move, readonly TimedAction[]>()

/** The table writes every figure for the right side; the left one is made once. */
function patternOn(side: Side, move: Move): readonly TimedAction[] {
  if (side === 'R') return move.pattern
  const known = leftPatterns.get(move)
  if (known) return known
  const made = move.pattern.map(({ at, action }) => ({ at, action: mirrorFootAction(action) }))
  leftPatterns.set(move, made)
  return made
}

/** The single steps an event of the feet stands for, from the event's own start. */
export function stepsOf(event: DancedEvent, vocabulary: Vocabulary): readonly TimedAction[] {
  const { what } = event
  if (what.kind === 'foot') return [{ at: tick(0), action: what.action }]
  if (what.kind === 'free') return [{ at: tick(0), action: { primitive: 'free' } }]
  if (what.kind !== 'move') return []
  const move = vocabulary.find(what.move)
  return move ? figureSteps(event, what.side ?? 'R', move) : []
}

/** The same, and where a height is held to a count, up again there. */
export const stepsToEnd = (event: DancedEvent, vocabulary: Vocabulary): readonly TimedAction[] => [
  ...stepsOf(event, vocabulary),
  ...(event.until === undefined || event.layer !== 'feet'
    ? []
    : [{ at: tick(event.until - event.at), action: { primitive: 'up' } as const }]),
]
