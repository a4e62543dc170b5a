import type { Direction, FootAction } from '../body/feet'
import type { Combination, Event } from '../combination/combination'
import { placeIn } from '../combination/names'
import { changeEvent } from '../edits/edits'
import type { House } from '../house/house'
import { footJoins } from '../joins/joins'
import type { Vocabulary } from '../moves/vocabulary'
import { simulate } from '../simulate/simulate'
import { endsAway } from '../space/space'
import { labelIn } from '../time/time'

/** A change of some steps after which the round ends nearer to where it began. */
export interface ComeBack {
  readonly label: string
  readonly changed: Combination
  /** Metres from the start, after a round or after both sides. */
  readonly away: number
}

const ROUND: Readonly<Partial<Record<Direction, Direction>>> = {
  forward: 'back',
  back: 'forward',
  'diag-forward': 'diag-back',
  'diag-back': 'diag-forward',
  'cross-front': 'cross-behind',
  'cross-behind': 'cross-front',
}

const MOST_STEPS = 4
const SHOWN = 3

interface Change {
  readonly event: Event
  readonly action: FootAction
  readonly label: string
}

/**
 * Which steps to shrink or turn round so that it ends where it began, after both sides where it switches: step by step the
 * change that helps most, until it is near enough or nothing helps. Best first.
 */
export function comeBack(
  combination: Combination,
  vocabulary: Vocabulary,
  house: House,
): readonly ComeBack[] {
  const near = house.limits['join.travel']
  const { switches } = footJoins(simulate(combination, vocabulary, house), vocabulary)
  const awayOf = (one: Combination): number => {
    const danced = simulate(one, vocabulary, house)
    const { right, forward } = endsAway(danced, switches)
    return Math.hypot(right, forward)
  }
  const changes = changesOf(combination)
  const list: ComeBack[] = []
  const used = new Set<Change>()
  for (let offer = 0; offer < SHOWN; offer++) {
    let changed = combination
    let away = awayOf(combination)
    const labels: string[] = []
    for (let step = 0; step < MOST_STEPS && away > near; step++) {
      let best: { change: Change; changed: Combination; away: number } | undefined
      for (const change of changes) {
        if (step === 0 && used.has(change)) continue
        const what = { kind: 'foot' as const, action: change.action }
        const tried = changeEvent(change.event.id, { what })(changed)
        const left = awayOf(tried)
        if (left < away - 0.05 && left < (best?.away ?? Number.POSITIVE_INFINITY))
          best = { change, changed: tried, away: left }
      }
      if (!best) break
      if (step === 0) used.add(best.change)
      labels.push(best.change.label)
      changed = best.changed
      away = best.away
    }
    if (labels.length > 0) list.push({ label: labels.join('; '), changed, away })
  }
  return list.sort((a, b) => a.away - b.away)
}

function changesOf({ phrases }: Combination): readonly Change[] {
  return phrases.flatMap((phrase) =>
    phrase.events.flatMap((event): readonly Change[] => {
      if (event.what.kind !== 'foot' || event.kept) return []
      const { action } = event.what
      const { direction, size, ...rest } = action
      if (!direction || direction === 'in-place' || direction === 'together') return []
      const at = placeIn(phrase.name, labelIn(phrase)(event.at))
      const round = ROUND[direction]
      return [
        ...(round
          ? [
              {
                event,
                action: { ...action, direction: round },
                label: `${at}: ${round} for ${direction}`,
              },
            ]
          : []),
        ...(size === 'small'
          ? []
          : [
              {
                event,
                action: { ...rest, direction, size: 'small' as const },
                label: `${at}: ${direction} small`,
              },
            ]),
      ]
    }),
  )
}
