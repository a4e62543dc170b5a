import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { type FootJoins, footJoins } from '../joins/joins'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { type Simulation, simulate } from '../simulate/simulate'
import { tick } from '../time/time'
import { type Finding, type Severity, severityOf } from './finding'
import { type Found, type Rule, spotIn } from './rule'
import { clash } from './rules/clash'
import { figures } from './rules/figures'
import { weight } from './rules/weight'

const RULES: readonly Rule[] = [weight, clash, figures]

/** All the tool can say about a combination, danced on both sides. */
export interface Checked {
  readonly lead: Simulation
  /** Danced when it is first asked for: many edits only show one side. */
  readonly other: Simulation
  readonly joins: FootJoins
  readonly findings: readonly Finding[]
}

const ORDER: Readonly<Record<Severity, number>> = { fault: 0, snag: 1, care: 2, note: 3 }

/** Dances a combination on both sides and says what is worth a look, faults first. */
export function checkCombination(combination: Combination, base: Vocabulary): Checked {
  const vocabulary = vocabularyFor(combination, base)
  const lead = simulate(combination, vocabulary)
  let danced: Simulation | undefined
  const other = () => {
    danced ??= simulate(mirror(combination), vocabulary)
    return danced
  }
  const joins = footJoins(lead, vocabulary)
  const onLead = findOn(lead, vocabulary)
  const known = new Set(onLead.map(keyOf))
  const hasKept = combination.phrases.some(({ events }) => events.some(({ kept }) => kept))
  // With nothing kept the other side's findings are the lead's, mirrored: no need to look.
  const onOther = hasKept
    ? findOn(other(), vocabulary).filter((found) => !known.has(keyOf(found)))
    : []
  const findings = [
    ...onLead.map((found): Finding => ({ ...found, side: 'lead' })),
    ...onOther.map((found): Finding => ({ ...found, side: 'other' })),
    ...joinFinding(lead, joins),
  ]
  const ranked = findings.sort(
    (a, b) =>
      ORDER[severityOf(a)] - ORDER[severityOf(b)] ||
      a.spot.pass - b.spot.pass ||
      a.spot.at - b.spot.at,
  )
  return {
    lead,
    get other() {
      return other()
    },
    joins,
    findings: ranked,
  }
}

function findOn(simulation: Simulation, vocabulary: Vocabulary): readonly Found[] {
  return RULES.flatMap((rule) => [...rule.check({ simulation, vocabulary })])
}

/** The same slip on either side has the same key. */
const keyOf = ({ code, spot, events }: Found): string =>
  [code, spot.pass, spot.at, ...events].join('|')

function joinFinding(simulation: Simulation, joins: FootJoins): readonly Finding[] {
  const pass = simulation.passes.at(-1)
  const last = simulation.danced.at(-1)
  if (!pass || !last) return []
  return [
    {
      code: 'join.foot',
      ...joins,
      weight: simulation.end.weight,
      lead: simulation.combination.lead,
      side: 'lead',
      spot: spotIn(pass, tick(Math.max(pass.at, last.at)), 'feet'),
      events: last.pass.index === pass.index ? [last.event.id] : [],
    },
  ]
}
