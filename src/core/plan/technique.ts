import { movesUnit } from './frame'
import type { Materials } from './material'
import type { PlanWishes } from './plan'
import type { Teaching, Unit } from './teaching'

const LOOPS = 3
/** Of a class, and at the most, in seconds. */
const SHARE = 1 / 9
const MOST = 300

/**
 * Loops of technique for a class of that kind (teaching 9): the three hardest things of its
 * combinations, each danced over and over with a new focus every minute.
 */
export function techniqueUnits(
  { type, tempoNow }: PlanWishes,
  teachings: readonly Teaching[],
  room: number,
  materials: Materials,
): readonly Unit[] {
  if (type !== 'technique') return []
  const { vocabulary } = materials
  const moves = new Map(
    teachings.flatMap(({ material }) =>
      material
        .each()
        .flatMap(({ passes }) => passes)
        .flatMap(({ events }) =>
          events.flatMap(({ what, optional }) => {
            const move = what.kind === 'move' && !optional ? vocabulary.find(what.move) : undefined
            return move && move.layer !== 'feet' ? [[move.id, move] as const] : []
          }),
        ),
    ),
  )
  const seconds = Math.min(MOST, Math.round(room * SHARE))
  return [...moves.values()]
    .toSorted((a, b) => b.demand - a.demand || a.id.localeCompare(b.id))
    .slice(0, LOOPS)
    .map((move) => {
      const unit = movesUnit(
        {
          kind: 'technique',
          phrases: [],
          layers: [move.layer],
          sides: ['R'],
          repeats: 1,
          talk: 0,
          tempo: tempoNow,
          stand: 'mirror',
        },
        seconds,
        () => [move.id],
        materials,
      )
      return {
        ...unit,
        isNew: true,
        focus: [move.name, move.feel, move.watch, 'smaller, and slower', 'breathe with it'].filter(
          (line) => line !== '',
        ),
      }
    })
}
