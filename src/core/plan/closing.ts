import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { Pass } from '../combination/passes'
import type { Tempo } from '../time/tempo'
import { TICKS_PER_COUNT } from '../time/time'
import type { RunTask } from './drill'
import { unitOver } from './taughtUnits'
import {
  firstPasses,
  isWhole,
  layersOf,
  roundsThatFit,
  type Teaching,
  turnsIn,
  type Unit,
  untaughtIn,
} from './teaching'
import { tempoSteps } from './tempoSteps'

/** Rounds a side of a run. */
const RUN_ROUNDS = 2

/** Tasks of the runs between and of those at tempo, in the order they are used; the last showing ends every class. */
const BETWEEN_TASKS: readonly RunTask[] = ['weight', 'turned-away', 'size', 'breath']
export const TEMPO_TASKS: readonly RunTask[] = [
  'names',
  'breath',
  'size',
  'turned-away',
  'silent',
  'weight',
]

/** What is danced together at the end of a class that came so far. */
export interface Closing {
  readonly teaching: Teaching
  readonly passes: readonly Pass[]
  readonly layers: readonly Layer[]
  readonly sides: readonly Side[]
}

/**
 * From the top to the last phrase that was danced, on the layers every phrase of it was taught.
 * Undefined where nothing of it was.
 */
export function closingOf(
  teaching: Teaching,
  units: readonly Unit[],
  isAll: boolean,
): Closing | undefined {
  const { material, which, lead } = teaching
  // Who only looked has learnt nothing.
  const own = units.filter(
    ({ kind, combination }) => kind !== 'show' && combination === material.combination.id,
  )
  if (own.length === 0) return undefined
  const firsts = firstPasses(material.lead.passes)
  const touched = firsts.filter(({ phrase }) =>
    own.some(({ phrases }) => phrases.length === 0 || phrases.includes(phrase.id)),
  )
  const last = touched.at(-1)
  if (!last) return undefined
  const isFull = last === firsts.at(-1)
  const { passes: all } = material.lead
  const danced = isFull ? all : all.slice(0, last.index + 1)
  // Where the feet came first, a phrase without any may not be there yet.
  const isThere = (pass: Pass) =>
    untaughtIn(pass, teaching).length === 0 ||
    touched.some(({ phrase }) => phrase.id === pass.phrase.id)
  const passes = danced.slice(danced.findLastIndex((pass) => !isThere(pass)) + 1)
  if (passes.length === 0) return undefined
  const isOnFeet = (layer: Layer, pass: Pass) =>
    !layersOf([pass], material).includes(layer) ||
    teaching.isTaught(pass.phrase.id, layer) ||
    own.some(
      (unit) =>
        unit.layers.includes(layer) &&
        (unit.kind !== 'alone' || !layersOf([pass], material).includes('feet')) &&
        (unit.phrases.length === 0 || unit.phrases.includes(pass.phrase.id)),
    )
  const layers = layersOf(passes, material).filter((layer) =>
    firsts.filter(({ index }) => index <= last.index).every((pass) => isOnFeet(layer, pass)),
  )
  const isBoth = which === 'both' || (which === 'last' && isAll)
  return {
    teaching,
    passes,
    layers: layers.length > 0 ? layers : layersOf(passes, material).slice(0, 1),
    sides: isBoth ? teaching.sides : [lead],
  }
}

/** A run of it at a tempo, in as many steps as none of them takes longer than a step may. */
export function runsAt(
  { teaching, passes, layers, sides }: Closing,
  tempo: Tempo,
  kind: 'sides' | 'run',
  wanted = RUN_ROUNDS,
): readonly Unit[] {
  const { material, house } = teaching
  const counts = (some: readonly Pass[]) =>
    some.reduce((sum, { length }) => sum + length, 0) / TICKS_PER_COUNT
  const make = (some: readonly Pass[], both: readonly Side[], repeats: number): Unit => {
    const unit = unitOver(teaching, {
      kind,
      passes: some,
      sides: both,
      repeats,
      // Each run is told its task, once everybody has breath again.
      talk:
        kind === 'sides'
          ? house.limits['plan.talkJoin']
          : house.limits['plan.talkTask'] + house.limits['plan.breath'],
      layers,
    })
    const inTurn = both.length === 2 && isWhole(some, material) && material.joins.switches
    return {
      ...unit,
      tempo,
      ...(inTurn && { inTurn: true }),
      ...(turnsIn(some, material) && kind === 'sides' && { stand: 'back' as const }),
      ...(kind === 'run' &&
        tempo >= house.limits['plan.music'] * teaching.tempo && { music: true }),
    }
  }
  const fits = (some: readonly Pass[], both: readonly Side[]) =>
    roundsThatFit(wanted, counts(some), both.length, tempo, teaching)
  const repeats = fits(passes, sides)
  if (repeats >= 1) return [make(passes, sides, repeats)]
  if (fits(passes, sides.slice(0, 1)) >= 1) return sides.map((side) => make(passes, [side], 1))
  // Part by part, each as long as fits.
  const parts: Pass[][] = []
  for (const pass of passes) {
    const part = parts.at(-1)
    if (part && fits([...part, pass], sides) >= 1) part.push(pass)
    else parts.push([pass])
  }
  return parts.map((part) => make(part, sides, Math.max(1, fits(part, sides))))
}

/** Both sides slowly, then faster and faster, each with its task; the last one is the last showing. */
export function closingRuns(closing: Closing): readonly Unit[] {
  const { teaching, sides } = closing
  const { slow, tempo, house, material } = teaching
  const steps = tempoSteps(slow, tempo, house, material.hurriedFrom())
  const both = sides.length > 1 ? runsAt(closing, slow, 'sides') : []
  const between = steps.slice(0, -1).flatMap((step, i) => {
    const task = BETWEEN_TASKS[i % BETWEEN_TASKS.length]
    return runsAt(closing, step, 'run').map((unit) => ({ ...unit, ...(task && { task }) }))
  })
  const [showing, ...more] = atTempo(closing, 'last-showing')
  const { limits } = house
  return [
    ...both,
    ...between,
    ...(showing ? [{ ...showing, talk: showing.talk + limits['plan.listen'] }] : []),
    ...more,
  ]
}

/** A run at the tempo that is meant. */
export const atTempo = (closing: Closing, task: RunTask): readonly Unit[] =>
  runsAt(closing, closing.teaching.tempo, 'run').map((unit) => ({
    ...unit,
    task,
    ...(task === 'turned-away' && { stand: 'back' as const }),
  }))
