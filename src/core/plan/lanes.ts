import { SIDES } from '../body/side'
import type { Combination } from '../combination/combination'
import type { LevelForm } from '../forms/levels'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { placesBefore } from '../simulate/course'
import { danced } from '../simulate/danced'
import { type Simulation, stateBefore } from '../simulate/simulate'
import { endOf } from '../time/time'
import type { Drill } from './drill'
import { type Materials, roundOf } from './material'

/** What a phrase is danced by besides what is written, in a class of mixed levels (teaching 8.3). */
export interface Lanes {
  /** For who wants less, and for who wants more: a line a swap. */
  readonly plain: readonly string[]
  readonly more: readonly string[]
}

/** Where a body must agree with the others, so that a lane can be chosen anew in each round. */
function standsAt(simulation: Simulation, tick: number): string {
  const { weight, facing } = stateBefore(simulation, tick)
  const { arms } = placesBefore(simulation, tick)
  return [weight, facing, ...SIDES.map((side) => arms[side])].join()
}

/** The phrases that begin and end in a form as they are written: foot, facing and arms. */
function alikeIn(written: Simulation, form: Simulation): ReadonlySet<string> {
  const apart = new Set(
    written.passes
      .filter((pass) =>
        [pass.at, endOf(pass)].some((tick) => standsAt(written, tick) !== standsAt(form, tick)),
      )
      .map(({ phrase }) => phrase.id),
  )
  return new Set(
    written.passes.map(({ phrase }) => phrase.id).filter((phrase) => !apart.has(phrase)),
  )
}

/**
 * The lanes of each phrase, by its id: only those that begin and end as what is written does, so
 * that all three can be danced side by side.
 */
export function lanesOf(
  combination: Combination,
  plain: LevelForm,
  more: LevelForm,
  base: Vocabulary,
  house: House,
): ReadonlyMap<string, Lanes> {
  const written = danced(combination, base, house).lead
  const phraseOf = new Map(
    [combination, plain.combination, more.combination].flatMap(({ phrases }) =>
      phrases.flatMap((phrase) => phrase.events.map(({ id }) => [id, phrase.id] as const)),
    ),
  )
  const linesOf = (form: LevelForm) => {
    const alike = alikeIn(written, danced(form.combination, base, house).lead)
    return (phrase: string): readonly string[] =>
      alike.has(phrase)
        ? form.swaps
            .filter(({ events }) => events.some((id) => phraseOf.get(id) === phrase))
            .map(({ from, to }) =>
              to === undefined ? `without ${from}` : from === undefined ? to : `${to} for ${from}`,
            )
        : []
  }
  const [less, harder] = [linesOf(plain), linesOf(more)]
  return new Map(
    combination.phrases
      .map(({ id }): [string, Lanes] => [id, { plain: less(id), more: harder(id) }])
      .filter(([, lanes]) => lanes.plain.length + lanes.more.length > 0),
  )
}

/** The lanes of a step: of the phrase that is danced whole in it. */
export function lanesFor(
  drill: Drill,
  lanes: ReadonlyMap<string, Lanes>,
  materials: Materials,
): Lanes | undefined {
  if (drill.kind !== 'all') return undefined
  const [pass] = roundOf(drill, materials)?.passes ?? []
  return pass && lanes.get(`${drill.combination}|${pass.phrase.id}`)
}
