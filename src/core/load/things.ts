import type { Layer } from '../body/layers'
import type { DancedEvent } from '../combination/lengths'
import { mirrorWhat } from '../combination/mirror'
import { nameOf } from '../combination/names'
import { STEP_DEMAND } from '../load/load'
import type { Risk } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import { kindOf, type What } from '../what/kinds'

/**
 * Something to learn: a layer with its move, its place, its pair of arm places or its step,
 * whatever side, count or repeat (teaching: words).
 */
export interface Thing {
  /** The same for the same thing, in any phrase of any combination. */
  readonly key: string
  readonly layer: Layer
  /** 1 to 5. */
  readonly demand: number
  readonly risks: readonly Risk[]
  /** What the class calls it. */
  readonly name: string
}

function whatKey(what: What, vocabulary: Vocabulary): string {
  if (what.kind === 'move') return what.move
  if (what.kind === 'foot') {
    const { primitive, direction, jump, turn } = what.action
    const way = jump === 'R' || jump === 'L' ? 'side' : (jump ?? direction)
    return [primitive, way, turn && 'turning'].filter(Boolean).join(' ')
  }
  const [first = ''] = [what, mirrorWhat(what)]
    .map((side) => kindOf(side).write(side, vocabulary))
    .sort()
  return first
}

/** The key of the thing an event is. */
export const keyOf = (
  { layer, what }: Pick<DancedEvent, 'layer' | 'what'>,
  vocabulary: Vocabulary,
): string => `${layer} ${whatKey(what, vocabulary)}`

/** What a thing is called, by its key: `hip lift`, `step side`. */
export function nameOfThing(key: string, vocabulary: Vocabulary): string {
  const what = key.slice(key.indexOf(' ') + 1)
  return (vocabulary.find(what)?.name ?? what).toLowerCase()
}

/** What there is to learn in some events, each thing once; a flourish is none. */
export function thingsIn(events: readonly DancedEvent[], vocabulary: Vocabulary): readonly Thing[] {
  const found = new Map<string, Thing>()
  for (const event of events) {
    const { what, layer } = event
    if (event.optional) continue
    const key = keyOf(event, vocabulary)
    if (found.has(key)) continue
    const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
    const demand = what.kind === 'foot' ? STEP_DEMAND[what.action.primitive] : (move?.demand ?? 1)
    found.set(key, {
      key,
      layer,
      demand: Math.max(1, demand),
      risks: move?.risk ?? [],
      name: nameOf(event, vocabulary),
    })
  }
  return [...found.values()]
}
