import type { House } from '../house/house'
import { TICKS_PER_COUNT } from '../time/time'
import { type Materials, roundOf } from './material'
import type { PlanWishes, Review } from './plan'
import { unitOver } from './taughtUnits'
import type { Teaching, Unit } from './teaching'

/** A side is given its own step where it is behind by more than so many rounds. */
const BEHIND_ROUNDS = 4
const TALK = 10

/** Whole seconds to say what was changed: each change is a new thing. */
const changedTalk = ({ changed = [] }: Review, { limits }: House): number =>
  Math.min(MOST_CHANGED_TALK, Math.round(changed.length * limits['plan.talkThing']))

/** Longer no talk is (teaching 2.2). */
const MOST_CHANGED_TALK = 90

/** What a review takes of a class: more where a dance grows over weeks. */
const SHARE = { 'drop-in': 0.2, technique: 0.15, choreography: 0.25, slot: 0.2 } as const

/**
 * What the diary says is due, as long as it leaves room for what is new: walked once, then run
 * once (teaching 3.6). A side that fell behind catches up.
 * @param secondsOf seconds of a step
 */
export function reviewsOf(
  { known, type }: PlanWishes,
  teachings: readonly Teaching[],
  room: number,
  secondsOf: (unit: Unit) => number,
  materials: Materials,
): readonly Unit[] {
  const taken: Unit[] = []
  let left = room * SHARE[type]
  for (const review of known.reviews) {
    const teaching = teachings.find(
      ({ material }) => material.combination.id === review.combination,
    )
    const round = teaching && roundOf(review, materials)
    if (!teaching || !round) continue
    const { passes } = round
    for (let from = 0; from < passes.length; from++) {
      const own = passes.slice(from)
      const run: Unit = {
        ...unitOver(teaching, {
          kind: 'review',
          passes: own,
          sides: teaching.which === 'both' ? teaching.sides : [teaching.lead],
          repeats: 1,
          talk: TALK,
          layers: review.layers,
        }),
        tempo: review.tempo,
      }
      const counts = own.reduce((sum, { length }) => sum + length, 0) / TICKS_PER_COUNT
      const walk: Unit = {
        ...run,
        kind: 'walk',
        sides: run.sides.slice(0, 1),
        talk: changedTalk(review, materials.house),
        seconds: Math.round(counts * materials.house.limits['plan.walk']),
        ...(review.changed && { changed: review.changed }),
      }
      const seconds = secondsOf(run) + secondsOf(walk)
      // A short class still has the last of what came before.
      const isLast = from === passes.length - 1 && taken.length === 0 && seconds <= room / 3
      if (seconds > left && !isLast) continue
      taken.push(walk, run)
      left -= seconds
      break
    }
  }
  const catchUps = Object.entries(known.weaker).flatMap(
    ([id, { side, behind }]): readonly Unit[] => {
      const base = taken.find(({ combination, kind }) => kind === 'review' && combination === id)
      const round = base && roundOf(base, materials)
      if (!base || !round || behind < BEHIND_ROUNDS * round.counts) return []
      const { inTurn: _, ...once } = base
      const unit: Unit = { ...once, kind: 'catch-up', sides: [side], repeats: 2 }
      left -= secondsOf(unit)
      return left < 0 ? [] : [unit]
    },
  )
  return [...taken, ...catchUps]
}
