import { LAYERS, type Layer } from '../body/layers'
import { otherSide, type Side } from '../body/side'
import type { Pass } from '../combination/passes'
import { TICKS_PER_COUNT } from '../time/time'
import type { PhraseSteps } from './phraseSteps'
import {
  layersOf,
  phrasesOf,
  roundsThatFit,
  type Teaching,
  type Unit,
  untaughtIn,
} from './teaching'

/** Rounds of a run from the top, a side; where a part is finished it is run from the very top once. */
const JOIN_ROUNDS = 2
const TOP_ROUNDS = 1

/** After how many phrases the other side comes (teaching 3.3). */
const batchOf = ({ level }: Teaching): number =>
  level === 'new' || level === 'improver' ? 1 : level === 'intermediate' ? 2 : Infinity

const countsOf = (passes: readonly Pass[]): number =>
  passes.reduce((sum, { length }) => sum + length, 0) / TICKS_PER_COUNT

/** The index of the pass a part of a dance begins with, for each pass: no part is longer than a growing run. */
export function partStarts({ material, house }: Teaching): readonly number[] {
  const most = house.limits['plan.growing'] * TICKS_PER_COUNT
  let start = 0
  let length = 0
  return material.lead.passes.map((pass) => {
    if (length > 0 && length + pass.length > most) {
      start = pass.index
      length = 0
    }
    length += pass.length
    return start
  })
}

interface Made {
  readonly kind: Unit['kind']
  readonly passes: readonly Pass[]
  readonly sides: readonly Side[]
  readonly repeats: number
  readonly talk: number
  readonly layers?: readonly Layer[]
}

/** A step over some passes at the tempo of teaching. */
export function unitOver(teaching: Teaching, made: Made): Unit {
  const { material, slow } = teaching
  const layers = made.layers ?? layersOf(made.passes, material)
  return {
    kind: made.kind,
    combination: material.combination.id,
    phrases: phrasesOf(made.passes, material),
    layers: [...layers],
    sides: [...made.sides],
    repeats: made.repeats,
    tempo: slow,
    talk: made.talk,
    stand: 'mirror',
  }
}

/**
 * All that is taught of a combination so far: each phrase by its steps, its other side when that
 * comes, and a run from the top after each from the second on (teaching 3.1 and 3.3).
 * @param isAll whether these are all its phrases
 */
export function taughtUnits(
  teaching: Teaching,
  steps: readonly PhraseSteps[],
  isAll: boolean,
): readonly Unit[] {
  const { material, house, which, lead } = teaching
  const { passes } = material.lead
  const { limits } = house
  const other = otherSide[lead]
  const starts = partStarts(teaching)
  const batch = which === 'both' ? batchOf(teaching) : which === 'last' && isAll ? Infinity : 0
  const units: Unit[] = []
  /** What was danced whole on the lead side, and not yet on the other. */
  let owed: Unit[] = []
  let pending: PhraseSteps[] = []
  const otherSides = () => {
    for (const { pass, isFootwork, units: own } of pending)
      if (isFootwork)
        units.push({
          ...unitOver(teaching, {
            kind: 'other-side',
            passes: [pass],
            sides: [other],
            repeats: 1,
            talk: limits['plan.talkSide'],
            layers: ['feet'],
          }),
          // Nobody turns round within a phrase.
          stand: own.find(({ kind }) => kind === 'all')?.stand ?? 'mirror',
        })
    // What is danced whole comes before the runs it is part of.
    const isRun = ({ kind }: Unit) => kind === 'join'
    for (const unit of [...owed.filter((one) => !isRun(one)), ...owed.filter(isRun)])
      units.push({ ...unit, kind: 'other-side', sides: [other], talk: limits['plan.talkSide'] })
    owed = []
    pending = []
  }
  const met = new Set<string>()
  const isMet = (pass: Pass) => met.has(pass.phrase.id) || untaughtIn(pass, teaching).length === 0
  for (const [i, step] of steps.entries()) {
    units.push(...step.units)
    met.add(step.pass.phrase.id)
    owed.push(
      ...step.units
        .filter(({ kind }) => kind === 'all')
        .map(({ isNew: _, front: __, ...unit }): Unit => unit),
    )
    if (!step.isPart) pending.push(step)
    const isLast = i === steps.length - 1
    const isDue = pending.length >= batch || (isLast && batch > 0)
    if (batch > 0 && isDue) otherSides()
    const { pass } = step
    const isBoth = batch > 0 && owed.length === 0 && !step.isPart
    const join = (from: number, wanted: number) => {
      const run = passes.slice(from, pass.index + 1)
      if (run.length < 2) return
      const sides = isBoth ? [lead, other] : [lead]
      for (let start = 0; start < run.length - 1; start++) {
        const own = run.slice(start)
        // Nobody runs what was not taught: a phrase without feet, where the feet come first.
        if (!own.every(isMet)) continue
        const repeats = roundsThatFit(wanted, countsOf(own), sides.length, teaching.slow, teaching)
        if (repeats < 1) continue
        const unit = unitOver(teaching, {
          kind: 'join',
          passes: own,
          sides,
          repeats,
          talk: limits['plan.talkJoin'],
          ...(step.isPart && { layers: ['feet'] }),
        })
        units.push(unit)
        if (!isBoth && batch > 0 && !step.isPart) owed.push(unit)
        return
      }
    }
    const start = starts[pass.index] ?? 0
    join(start, JOIN_ROUNDS)
    const isPartDone = isLast ? isAll : starts[steps[i + 1]?.pass.index ?? 0] !== start
    if (start > 0 && isPartDone && !step.isPart) join(0, TOP_ROUNDS)
    if (isLast && batch > 0 && owed.length > 0) otherSides()
  }
  return units
}

/** Other sides one after the other that can be danced as one step are one (teaching 3.3). */
export function joinedSides(
  units: readonly Unit[],
  teachings: readonly Teaching[],
): readonly Unit[] {
  const joined: Unit[] = []
  for (const unit of units) {
    const last = joined.at(-1)
    const one = last && oneOf(last, unit, teachings)
    if (one) joined[joined.length - 1] = one
    else joined.push(unit)
  }
  return joined
}

function oneOf(a: Unit, b: Unit, teachings: readonly Teaching[]): Unit | undefined {
  const isSame =
    a.kind === 'other-side' &&
    b.kind === 'other-side' &&
    a.combination === b.combination &&
    a.repeats === b.repeats &&
    (a.layers.join() === 'feet') === (b.layers.join() === 'feet')
  const teaching = teachings.find(({ material }) => material.combination.id === a.combination)
  if (!isSame || !teaching) return undefined
  const { passes } = teaching.material.lead
  const ids = [...a.phrases, ...b.phrases]
  const from = passes.findIndex((_, i) => ids.every((id, j) => passes[i + j]?.phrase.id === id))
  const both = passes.slice(from, from + ids.length)
  if (from < 0 || a.phrases.length === 0 || b.phrases.length === 0) return undefined
  if (roundsThatFit(a.repeats, countsOf(both), 1, a.tempo, teaching) < a.repeats) return undefined
  return {
    ...a,
    phrases: phrasesOf(both, teaching.material),
    layers: LAYERS.filter((layer) => a.layers.includes(layer) || b.layers.includes(layer)),
    ...(b.stand === 'back' && { stand: 'back' as const }),
  }
}
