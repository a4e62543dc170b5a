import type { Combination } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import { partOf } from '../combination/partOf'
import { type House, USUAL_HOUSE } from '../house/house'
import { type CountLoad, loadsOf } from '../load/load'
import type { Vocabulary } from '../moves/vocabulary'
import { type DancedPiece, dancedPiece } from '../piece/piece'
import { remembered } from '../record/remembered'
import { type Danced, danced } from '../simulate/danced'
import { WEIGHT_FAULTS } from '../simulate/primitives'
import type { Simulation } from '../simulate/simulate'
import type { Checked } from './checked'
import { FAULT_RULES, FAULT_TEMPO_RULES, findBy } from './faults'
import { type Finding, inOrder } from './finding'
import { findingsOfOptions, type Looked } from './ofOptions'
import { reasonsToLeave } from './once'
import { amongOthers } from './pairs/met'
import { betweenDancers } from './pairs/pairs'
import { type Danceable, knownOf, type Rule } from './rule'
import { arms } from './rules/arms'
import { balance } from './rules/balance'
import { cloth } from './rules/cloth'
import { farArms } from './rules/farArms'
import { fastMoves } from './rules/fastMoves'
import { fastTurns } from './rules/fastTurns'
import { figures } from './rules/figures'
import { head } from './rules/head'
import { hips } from './rules/hips'
import { joins } from './rules/joins'
import { legs } from './rules/legs'
import { load } from './rules/load'
import { needs } from './rules/needs'
import { own } from './rules/own'
import { pickup } from './rules/pickup'
import { propActs } from './rules/propActs'
import { propJoins } from './rules/propJoins'
import { props } from './rules/props'
import { reaches } from './rules/reaches'
import { space } from './rules/space'
import { stays } from './rules/stays'
import { sways } from './rules/sways'
import { turns } from './rules/turns'
import { foundOn, isItsOwnMirror, onBothSides } from './sides'
import { limitsBelow, type TempoLimit, type TempoRule } from './tempoRule'
import { checkedTogether } from './together'

const RULES: readonly Rule[] = [
  ...FAULT_RULES,
  figures,
  pickup,
  turns,
  sways,
  stays,
  legs,
  hips,
  needs,
  head,
  arms,
  props,
  propActs,
  cloth,
  propJoins,
  load,
  space,
  balance,
  own,
  joins,
]

/** Findings that only hang on the time there is; they also say how fast it can be danced. */
const TEMPO_RULES: readonly TempoRule[] = [
  ...FAULT_TEMPO_RULES,
  fastTurns,
  reaches,
  farArms,
  fastMoves,
]

/** Dances a combination on both sides and says what is worth a look, faults first; of several dancers each. */
export const checkCombination = (
  combination: Combination,
  base: Vocabulary,
  house: House = USUAL_HOUSE,
): Checked =>
  combination.parts
    ? checkedPiece(combination, dancedPiece(combination, base, house), base)
    : judged(danced(combination, base, house), combination, lookingBy(base, house))

/** What is worth a look in a combination for several that is danced already: of each, and between them. */
export const checkedPiece = (
  combination: Combination,
  piece: DancedPiece,
  base: Vocabulary,
): Checked =>
  checkedTogether(
    combination,
    (part) => {
      const checked = judgedOnce(piece.of(part), { combination: partOf(combination, part), base })
      return amongOthers(checked, piece.lead, part)
    },
    (switches) => betweenDancers(combination, piece, switches),
  )

/** What is said of a dance, options and all; the very same for the same one. */
export const judgedOnce = remembered(
  (dance: Danced, { combination, base }: Written): Checked =>
    judged(dance, combination, lookingBy(base, dance.house)),
  (a, b) => a.combination === b.combination && a.base === b.base,
)

interface Written {
  readonly combination: Combination
  /** The words it is danced by, without its own. */
  readonly base: Vocabulary
}

/** How an option is looked at: danced like any combination. */
const lookingBy =
  (base: Vocabulary, house: House) =>
  (tried: Combination): Looked => {
    const dance = danced(tried, base, house)
    return { lead: dance.lead, findings: findingsIn(dance) }
  }

/** What is found on both sides, before anything is left as it is. */
function findingsIn(dance: Danced): readonly Finding[] {
  const known = knownOf(dance)
  const findings = (simulation: Simulation) => findBy(RULES, TEMPO_RULES, { ...known, simulation })
  const all = onBothSides(dance.written, findings(dance.lead), () => findings(dance.other))
  return withoutFree(all, dance)
}

/** What hangs on the side of something. */
const OF_SIDE: ReadonlySet<string> = new Set([...WEIGHT_FAULTS, 'hips.loaded-lift'])

/** Without what is found of something that may be danced on either side, where the other side has it not. */
function withoutFree(
  all: readonly Finding[],
  { written, vocabulary, house }: Danced,
): readonly Finding[] {
  if (!all.some(({ code }) => OF_SIDE.has(code))) return all
  const either = new Set(
    written.phrases.flatMap(({ events }) => events.filter((one) => one.either).map(({ id }) => id)),
  )
  const isFree = ({ code, events }: Finding) => OF_SIDE.has(code) && either.has(events[0] ?? '')
  const free = all.filter(isFree)
  if (free.length === 0) return all
  const turned = new Set(free.map(({ events }) => events[0]))
  const phrases = written.phrases.map((phrase) => ({
    ...phrase,
    events: phrase.events.map((one) =>
      turned.has(one.id) ? { ...one, what: mirrorWhat(one.what) } : one,
    ),
  }))
  const other = danced({ ...written, phrases }, vocabulary, house)
  const known = knownOf(other)
  const there = findBy(FAULT_RULES, FAULT_TEMPO_RULES, { ...known, simulation: other.lead }).concat(
    findBy([hips], [], { ...known, simulation: other.lead }),
  )
  return all.filter(
    (one) =>
      !isFree(one) ||
      there.some(({ code, events }) => code === one.code && events[0] === one.events[0]),
  )
}

/**
 * What is worth a look in what is danced already, faults first.
 * @param look how the options of its phrases are looked at; not at all where it is not given
 */
export function judged(
  dance: Danced,
  combination: Combination,
  look?: (tried: Combination) => Looked,
): Checked {
  const { lead, house } = dance
  const { joins: joined, level } = knownOf(dance)
  const plain = findingsIn(dance)
  const ofOptions = look ? findingsOfOptions(combination, { findings: plain, lead }, look) : []
  const all = inOrder([...plain, ...ofOptions])
  const reasons = all.map(reasonsToLeave(combination))
  let loads: readonly CountLoad[] | undefined
  return {
    lead,
    get other() {
      return dance.other
    },
    joins: joined,
    findings: all.filter((_, i) => reasons[i] === undefined),
    left: all.flatMap((finding, i) => {
      const because = reasons[i]
      return because === undefined ? [] : [{ ...finding, because }]
    }),
    level,
    house,
    get loads() {
      loads ??= loadsOf(lead)
      return loads
    },
  }
}

/** What is worth a look on the side that is written, faults first: for what is danced from no other. */
export const judgedAsWritten = (dance: Danced): readonly Finding[] =>
  inOrder(
    findBy(RULES, TEMPO_RULES, { ...knownOf(dance), simulation: dance.lead }).map((found) =>
      foundOn(found, 'lead'),
    ),
  )

/** The sides that must be looked at: the lead, and the other where it is not just its mirror image. */
export function danceablesOf(
  checked: Checked,
): readonly (Danceable & { readonly side: Finding['side'] })[] {
  const { lead, level, house, joins } = checked
  const { vocabulary, combination } = lead
  const known = { vocabulary, house, level, tempo: combination.tempo, joins }
  const sides = [{ ...known, simulation: lead, side: 'lead' as const }]
  return isItsOwnMirror(combination)
    ? sides
    : [...sides, { ...known, simulation: checked.other, side: 'other' as const }]
}

/** Everything that needs more time than there is at a tempo. */
export const tempoLimitsOf = (
  danceable: Danceable,
  tempoAt: (tick: number) => number,
): readonly TempoLimit[] => limitsBelow(TEMPO_RULES, danceable, tempoAt)
