import { addRisks, NO_RISKS, type Risks } from '../load/risk'
import { Risk } from '../moves/move'
import type { Drill } from './drill'
import { type Materials, risksOfRound, roundOf } from './material'
import type { Unit } from './teaching'

/** What a class strains each who keeps to one part of its pieces: one of them where all dance the same. */
export type Strain = readonly Risks[]

export const NO_STRAIN: Strain = [NO_RISKS]

/** What is danced alone strains all alike; of several parts each takes the one in its turn. */
export const addStrain = (a: Strain, b: Strain, times = 1): Strain =>
  Array.from({ length: Math.max(a.length, b.length) }, (_, i) =>
    addRisks(a[i % a.length] ?? NO_RISKS, b[i % b.length] ?? NO_RISKS, times),
  )

/** How often whoever does it most strains each part of the body. */
export const mostOf = (strain: Strain): Risks =>
  Object.fromEntries(
    Risk.options.map((risk) => [risk, Math.max(...strain.map((one) => one[risk]))]),
  ) as Record<Risk, number>

/** What one round of a step strains, both its sides; where roles are swapped, the other side is the other part. */
function strainOfRound(unit: Unit, materials: Materials): Strain {
  const round = roundOf(unit, materials)
  const each = risksOfRound(unit, round)
  const { swapRoles, lead } = round?.material.combination ?? {}
  return unit.sides.reduce(
    (sum, side) => addStrain(sum, swapRoles && side !== lead ? each.toReversed() : each),
    NO_STRAIN,
  )
}

/** All the strain of a step but for the rounds that are marked, which are danced small. */
export const strainOf = (drill: Omit<Drill, 'id'>, materials: Materials): Strain =>
  addStrain(
    NO_STRAIN,
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
    .reduce((sum, strain) => addStrain(sum, strain), NO_STRAIN)
  const rounds = new Map<Unit, number>()
  for (const unit of [...runs, ...units.filter((one) => !runs.includes(one))]) {
    const each = strainOfRound(unit, materials)
    const most = Risk.options.reduce((fewest, risk) => {
      const fits = each.map((one, i) => {
        if (one[risk] === 0) return fewest
        const before = strained[i % strained.length]?.[risk] ?? 0
        const inClass = Math.max(0, limits[`risk.class.${risk}`] - before)
        return Math.floor(Math.min(inClass, limits[`risk.drill.${risk}`]) / one[risk])
      })
      return Math.min(fewest, ...fits)
    }, unit.repeats)
    strained = addStrain(strained, each, most)
    rounds.set(unit, unit.repeats - most)
  }
  return units.map(({ marked: _, ...unit }, i) => {
    const over = rounds.get(units[i] ?? unit) ?? 0
    return over > 0 ? { ...unit, marked: over } : unit
  })
}
