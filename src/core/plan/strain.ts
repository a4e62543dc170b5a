import { addRisks, NO_RISKS, type Risks } from '../load/risk'
import { Risk } from '../moves/move'
import type { Drill } from './drill'
import { type Materials, risksOfRound, roundOf } from './material'
import type { Unit } from './teaching'

/** What one round of a step strains, both its sides. */
const strainOfRound = (unit: Unit, materials: Materials): Risks =>
  addRisks(NO_RISKS, risksOfRound(unit, roundOf(unit, materials)), unit.sides.length)

/** All the strain of a step but for the rounds that are marked, which are danced small. */
export const strainOf = (drill: Omit<Drill, 'id'>, materials: Materials): Risks =>
  addRisks(
    NO_RISKS,
    strainOfRound(drill, materials),
    Math.max(0, drill.repeats - (drill.marked ?? 0)),
  )

/** Runs whose strain is set aside before all other. */
const LAST_RUNS = 2

/**
 * Marks the rounds that strain more than a step or a class may: they are danced small or in the
 * easier form, and nothing else grows for it (teaching 2.7). The last runs keep theirs.
 * @param before what is fixed by hand strains first
 */
export function marked(
  units: readonly Unit[],
  before: readonly Drill[],
  materials: Materials,
): readonly Unit[] {
  const { limits } = materials.house
  const runs = units.filter(({ kind }) => kind === 'run').slice(-LAST_RUNS)
  let strained = before
    .map((drill) => strainOf(drill, materials))
    .reduce((sum, risks) => addRisks(sum, risks), NO_RISKS)
  const rounds = new Map<Unit, number>()
  for (const unit of [...runs, ...units.filter((one) => !runs.includes(one))]) {
    const each = strainOfRound(unit, materials)
    const most = Risk.options.reduce((fewest, risk) => {
      if (each[risk] === 0) return fewest
      const inClass = Math.max(0, limits[`risk.class.${risk}`] - strained[risk])
      return Math.min(
        fewest,
        Math.floor(Math.min(inClass, limits[`risk.drill.${risk}`]) / each[risk]),
      )
    }, unit.repeats)
    strained = addRisks(strained, each, most)
    rounds.set(unit, unit.repeats - most)
  }
  return units.map(({ marked: _, ...unit }, i) => {
    const over = rounds.get(units[i] ?? unit) ?? 0
    return over > 0 ? { ...unit, marked: over } : unit
  })
}
