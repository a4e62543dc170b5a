import type { Combination } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { followed } from '../combination/like'
import { partOf } from '../combination/partOf'
import { type ForWhom, lifted } from '../edits/forPart'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import { type Finding, type FindingCode, severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import type { PairTry } from './meetingTries'
import { pairTries } from './pairs'
import { propTries } from './props'
import { type Case, drop, easier, safer, slower, type Try } from './tries/case'
import {
  comesHome,
  feetTries,
  otherFoot,
  putDown,
  small,
  smallSteps,
  stepped,
  touchBefore,
  without,
} from './tries/feet'
import { onTheBall, otherHip, ready } from './tries/hips'
import { leadInOnce, levelOut, returns, walkBack } from './tries/joins'
import { downFirst, lookBack, withoutPreparing } from './tries/reach'
import {
  after,
  endEarlier,
  fillRange,
  lessOften,
  longer,
  nearerArms,
  noDetour,
  takeTurns,
} from './tries/time'
import { faceFront, facings, otherWayRound, rises, shared } from './tries/turns'

/** One way to put a finding right, tried already: the finding is gone and no fault has come. */
export interface Repair {
  readonly label: string
  readonly changed: Combination
}

/** Not more buttons than can be read at a glance. */
const MOST_OFFERS = 3

/** The repairs of a finding, each tried: those that leave it, or bring a new fault, are not offered. */
export function repairsFor(
  combination: Combination,
  finding: Finding,
  base: Vocabulary,
  house: House,
  newId: () => string,
): readonly Repair[] {
  if (finding.code.startsWith('pair.'))
    return repairsOfAll(combination, finding, pairTries(finding, combination), { base, house })
  const ofProps = finding.code.startsWith('prop.') ? propTries(finding, combination) : []
  if (ofProps.length > 0) return repairsOfAll(combination, finding, ofProps, { base, house })
  const [part] = finding.whose
  if (!combination.parts || part === undefined)
    return repairsAlone(combination, finding, base, house, newId)
  const before = partOf(combination, part)
  const faults = faultsIn(checkCombination(combination, base, house))
  return repairsAlone(before, finding, base, house, newId).flatMap(({ label, changed: after }) => {
    // A phrase for one dancing of it would have to be everybody's.
    if (after.phrases.some(({ id, like }) => like && !before.phrases.some((one) => one.id === id)))
      return []
    const whoms: readonly ForWhom[] = finding.whose.length > 1 ? ['all'] : ['all', 'own']
    for (const whom of whoms) {
      const changed = followed(combination, lifted(combination, part, { before, after, whom }))
      const now = faultsIn(checkCombination(changed, base, house))
      if ([...now].every((key) => faults.has(key))) return [{ label, changed }]
    }
    return []
  })
}

interface By {
  readonly base: Vocabulary
  readonly house: House
}

/** The same of a finding between dancers, or of what they carry: all of the piece is checked. */
function repairsOfAll(
  combination: Combination,
  finding: Finding,
  tries: readonly PairTry[],
  { base, house }: By,
): readonly Repair[] {
  const faults = faultsIn(checkCombination(combination, base, house))
  const offered: Repair[] = []
  for (const { label, make } of tries) {
    if (offered.length === MOST_OFFERS) break
    // One way to stand is offered, not each that would do.
    if (offered.some((other) => other.label.slice(0, 6) === label.slice(0, 6))) continue
    const changed = followed(combination, make(combination))
    const after = checkCombination(changed, base, house)
    if (![...faultsIn(after)].every((key) => faults.has(key))) continue
    if (!after.findings.some((one) => isSame(one, finding))) offered.push({ label, changed })
  }
  return offered
}

/** What can't be danced, with whose it is. */
const faultsIn = ({ findings, left }: Checked): ReadonlySet<string> =>
  new Set(
    [...findings, ...left]
      .filter((one) => severityOf(one) === 'fault')
      .flatMap((one) => one.whose.map((part) => `${part} ${placeKey(one)}`)),
  )

function repairsAlone(
  combination: Combination,
  finding: Finding,
  base: Vocabulary,
  house: House,
  newId: () => string,
): readonly Repair[] {
  if (finding.option !== undefined) return []
  const vocabulary = vocabularyFor(combination, base)
  const checked = checkCombination(combination, base, house)
  const [id] = finding.events
  const event = combination.phrases
    .flatMap((one) => dancedIn(one, vocabulary))
    .find((one) => one.id === id)
  const phrase = combination.phrases.find(({ name }) => name === finding.spot.phrase)
  const one: Case = { combination, checked, finding, event, phrase, vocabulary, house, newId }
  const offered: Repair[] = []
  for (const { label, make } of triesFor(one)) {
    if (offered.length === MOST_OFFERS) break
    const changed = followed(combination, make(combination))
    if (changed === combination || offered.some((other) => other.label === label)) continue
    if (helps(one, changed, base)) offered.push({ label, changed })
  }
  return offered
}

/** Whether the finding is gone, and nothing that can't be danced has come in its place. */
function helps({ finding, checked, house }: Case, changed: Combination, base: Vocabulary): boolean {
  const after = checkCombination(changed, base, house)
  const before = faultsIn(checked)
  if ([...faultsIn(after)].some((key) => !before.has(key))) return false
  if (finding.code === 'join.foot')
    return (!finding.switches && after.joins.switches) || (!finding.repeats && after.joins.repeats)
  return !after.findings.some((one) => isSame(one, finding))
}

const placeKey = ({ code, spot, side }: Finding): string =>
  `${code} ${side} ${spot.phrase} ${spot.at}`

const isSame = (a: Finding, b: Finding): boolean =>
  a.code === b.code &&
  (b.events.length > 0
    ? a.events[0] === b.events[0] && (a.spot.at === b.spot.at || a.spot.layer !== 'feet')
    : a.spot.phrase === b.spot.phrase)

function triesFor(one: Case): readonly Try[] {
  const { finding } = one
  const tries = TRIES[finding.code]
  return tries ? [...tries(one)] : []
}

const TRIES: Readonly<Record<FindingCode, (one: Case) => Iterable<Try>>> = {
  'feet.loaded': (one) => [...feetTries(one, 'faults'), ...drop(one, 0)],
  'feet.loaded-touch': (one) => [...feetTries(one, 'faults'), ...drop(one, 0)],
  'feet.no-support': (one) => [...feetTries(one, 'faults'), ...touchBefore(one), ...drop(one, 0)],
  'join.foot': ({ ...one }) => [
    ...(one.checked.joins.switches ? [] : feetTries(one, 'switch')),
    ...(one.checked.joins.repeats ? [] : feetTries(one, 'repeat')),
  ],
  'layer.clash': (one) => [...after(one), ...drop(one, 0), ...drop(one, 1)],
  'feet.too-fast': (one) => [...easier(one), ...drop(one, 0), ...slower(one)],
  'feet.wide-quick': (one) => [...small(one), ...slower(one)],
  'turn.too-fast': (one) => [...shared(one), ...easier(one), ...slower(one)],
  'turn.planted': (one) => [...rises(one), ...shared(one)],
  'turn.low': (one) => [...rises(one), ...without(one, ['bend'])],
  'turn.many': (one) => [...easier(one), ...otherWayRound(one), ...drop(one, 0)],
  'feet.same-sway': (one) => [...otherFoot(one), ...drop(one, 0)],
  'feet.left-out': (one) => [...comesHome(one), ...drop(one, 0)],
  'head.quick': (one) => [...longer(one), ...safer(one), ...drop(one, 0)],
  'head.level': (one) => [...safer(one), ...drop(one, 0)],
  'prop.hand': (one) => drop(one, 0),
  'load.impact': (one) => [...stepped(one), ...drop(one, 0)],
  'turn.blocked': (one) => otherWayRound(one),
  'arms.low': (one) => [...downFirst(one), ...drop(one, 0)],
  'look.behind': (one) => [...lookBack(one), ...drop(one, 0)],
  'turn.idle': (one) => drop(one, 0),
  'turn.sum': (one) => facings(one),
  'join.facing': (one) => faceFront(one),
  'join.place': (one) => walkBack(one),
  'join.arms': (one) => returns(one),
  'join.hips': (one) => returns(one),
  'join.ribs': (one) => returns(one),
  'join.legs': (one) => returns(one),
  'rule.broken': (one) => drop(one, 0),
  // What two do with each other is mended in what is written of both.
  'pair.collision': () => [],
  'pair.tread': () => [],
  'pair.place': () => [],
  'pair.facing': () => [],
  'pair.reach': () => [],
  'pair.hand-busy': () => [],
  'pair.hand-late': () => [],
  'pair.turn-held': () => [],
  'pair.crossed': () => [],
  'pair.eyes': () => [],
  'pair.led': () => [],
  'pair.support-stance': () => [],
  'pair.support-hold': () => [],
  'pair.support-missing': () => [],
  'pair.support': () => [],
  'pair.rejoin': () => [],
  'pair.unison': () => [],
  'pair.cut': () => [],
  // What is done with what is carried is mended there; what the arms do, in the arms.
  'prop.full': () => [],
  'prop.empty': () => [],
  'prop.two-hands': (one) => drop(one, 0),
  'prop.drape': () => [],
  'prop.no-turn': () => [],
  'prop.unready': () => [],
  'prop.late': () => [],
  'prop.lag': () => [],
  'prop.hands-apart': (one) => drop(one, 0),
  'prop.clap': (one) => drop(one, 0),
  'prop.wound': (one) => drop(one, 0),
  'prop.underfoot': () => [],
  'prop.air': () => [],
  'prop.join': () => [],
  'pair.join': () => [],
  // What an option does is mended in the option.
  'option.ends': () => [],
  'stay.moved': (one) => [...drop(one, 0), ...drop(one, 1)],
  'prepare.lost': (one) => withoutPreparing(one),
  'legs.twist': (one) => [...onTheBall(one), ...drop(one, 0)],
  'join.trunk': (one) => returns(one),
  'join.gaze': (one) => returns(one),
  'join.level': (one) => levelOut(one),
  'hips.loaded-lift': (one) => [...otherHip(one), ...onTheBall(one), ...easier(one)],
  'hips.locked': (one) => [
    ...without(one, ['straighten', 'rise']),
    ...easier(one),
    ...drop(one, 0),
  ],
  'layer.no-time': (one) => [
    ...takeTurns(one),
    ...otherHip(one),
    ...endEarlier(one),
    ...slower(one),
  ],
  'arms.far': (one) => [...longer(one), ...noDetour(one), ...slower(one)],
  'move.too-fast': (one) => [...longer(one), ...lessOften(one), ...easier(one), ...slower(one)],
  'move.needs': (one) => [...otherHip(one), ...ready(one), ...easier(one)],
  'head.turning': (one) => [...easier(one), ...drop(one, 0)],
  'load.high': (one) => [...easier(one), ...drop(one, 0), ...slower(one)],
  'load.risk': (one) => [...easier(one), ...drop(one, 0)],
  'space.room': (one) => [...walkBack(one), ...smallSteps(one)],
  'space.neighbour': (one) => nearerArms(one),
  'legs.long': (one) => [...putDown(one), ...without(one, ['low', 'deep'])],
  'balance.long': (one) => [...putDown(one), ...without(one, ['rise'])],
  'move.remainder': (one) => fillRange(one),
  'move.unknown': (one) => drop(one, 0),
  'pickup.over': (one) => leadInOnce(one),
}
