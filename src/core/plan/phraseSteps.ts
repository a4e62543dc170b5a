import type { Layer } from '../body/layers'
import type { Pass } from '../combination/passes'
import type { Simulation } from '../simulate/simulate'
import { TICKS_PER_COUNT } from '../time/time'
import type { Drill } from './drill'
import { sharedOut, talkOf } from './talk'
import {
  layersOf,
  phrasesOf,
  roundsThatFit,
  type Teaching,
  turnsIn,
  type Unit,
  untaughtIn,
} from './teaching'
import type { Proposed } from './ways'
import { type LayerWeight, weightsOf } from './weight'

/** Lead rounds of a piece, and of all of a phrase, before it is known how much time there is. */
const ALONE_ROUNDS = 2
const WHOLE_ROUNDS = 3
/** New things over which feet are counted by themselves first. */
const FEET_FIRST = { new: 4, improver: 4, intermediate: 6, advanced: 6 } as const
/** New things from which a phrase is walked before it is counted. */
const WALKED = 2
/** New steps over which the class sees the teacher's back. */
const BACK_STEPS = 3
const LEAST_HALVED = 4
/** A texture over so much of a phrase goes with the feet. */
const HALF = 0.5

/** What a phrase is taught by, and how it stands to what was taught before. */
export interface PhraseSteps {
  readonly pass: Pass
  readonly units: readonly Unit[]
  /** The layers that are on the feet, or standing where there are none, once they were danced. */
  readonly layers: readonly Layer[]
  /** Keys of what is met in it for the first time. */
  readonly met: readonly string[]
  /** The feet are worth a round by themselves on the other side. */
  readonly isFootwork: boolean
  /** The rest of the phrase comes later. */
  readonly isPart?: true
}

/** Of one phrase: every heavy layer alone, the feet where they are worth it, then all of it (teaching 1.3). */
export function phraseSteps(
  teaching: Teaching,
  pass: Pass,
  met: ReadonlySet<string>,
  isFirst: boolean,
  way: Proposed['way'],
): PhraseSteps | undefined {
  const { material, level, house, slow, seen } = teaching
  if (untaughtIn(pass, teaching).length === 0) return undefined
  const weights = weightsOf(material, pass, { level, house, tempo: slow, met })
  const freshIn = (layers: readonly Layer[]) =>
    weights
      .filter(({ layer }) => layers.includes(layer))
      .reduce((sum, { fresh }) => sum + fresh.length, 0)
  const all = layersOf([pass], material)
  const feet = weights.find(({ layer }) => layer === 'feet')
  const fresh = freshIn(all)
  const alone =
    all.length > 1 && seen !== 'all' ? aloneTogether(weights, material.asEach([pass]).flat()) : []
  const onFeet = withFeet(teaching, pass, weights)
  const counts = pass.length / TICKS_PER_COUNT
  const isHalved =
    seen !== 'all' && fresh > house.limits[`plan.halves.${level}`] && counts >= LEAST_HALVED
  // What is walked in halves is walked with all there is.
  const isFeetFirst =
    !isHalved &&
    seen !== 'all' &&
    way !== 'counts' &&
    feet !== undefined &&
    feet.fresh.length > 0 &&
    feet.weight !== 'light' &&
    weights.some(({ layer, weight }) => layer !== 'feet' && weight !== 'light') &&
    fresh > FEET_FIRST[level] &&
    onFeet.length < all.length
  const isWalked = seen !== 'all' && fresh >= WALKED
  const aloneFresh = freshIn(alone.flat())
  const base = isFeetFirst ? onFeet : all
  const make = makerOf(teaching, pass, feet)
  const isTurning = turnsBy(pass, teaching)
  const front = isTurning ? ({ front: true } as const) : {}
  const walk = (layers: readonly Layer[], half?: Drill['half']): Unit => ({
    ...make(walked(teaching, layers, half ? half.to - half.from + 1 : counts)),
    ...front,
    // Where the whole is one phrase, its name still says which.
    ...(half && { half, phrases: [pass.phrase.id] }),
  })
  const middle = Math.ceil(counts / 2)
  const rest = Math.max(0, fresh - aloneFresh)
  const planned: { readonly unit: Unit; readonly share: number }[] = [
    ...alone.map((layers) => ({
      unit: make({
        kind: 'alone',
        layers,
        repeats: ALONE_ROUNDS,
        stand: 'mirror',
        ...(freshIn(layers) > 0 && { isNew: true }),
      }),
      share: freshIn(layers),
    })),
    ...(isHalved
      ? [
          { unit: walk(all, { from: 1, to: middle }), share: rest / 2 },
          { unit: walk(all, { from: middle + 1, to: counts }), share: rest / 2 },
        ]
      : isWalked && rest > 0
        ? [{ unit: walk(base), share: isFeetFirst ? freshIn(onFeet) : rest }]
        : []),
    ...(isFeetFirst
      ? [{ unit: make({ kind: 'feet', layers: onFeet, isNew: true, ...front }), share: 0 }]
      : []),
    {
      unit: make({ kind: 'all', layers: all, ...front, ...(rest > 0 && { isNew: true }) }),
      share: isFeetFirst ? Math.max(0, rest - freshIn(onFeet)) : isWalked ? 0 : rest,
    },
  ]
  const talk = talkOf(weights, level, house, isFirst)
  const shares = sharedOut(
    talk,
    planned.map(({ share }) => share),
    house,
  )
  const units = planned.map(({ unit }, i) => named({ ...unit, talk: shares[i] ?? 0 }))
  const walls: readonly Unit[] = isTurning
    ? [
        make({
          kind: 'walls',
          layers: all,
          repeats: 1,
          talk: house.limits['plan.talkSide'],
          stand: 'back',
        }),
      ]
    : []
  return {
    pass,
    units: [...units, ...walls].map((unit) => withinPiece(unit, teaching, counts)),
    layers: all,
    met: weights.flatMap(({ things }) => things.map(({ key }) => key)),
    isFootwork: feet !== undefined && feet.weight !== 'light' && all.length > 1,
  }
}

/** Seconds in which the first move is named before what has a count (teaching 7.4). */
export const NAMED_SECONDS = 5

/** What has a count is never begun without a word. */
const named = (unit: Unit): Unit =>
  unit.seconds === undefined ? { ...unit, talk: Math.max(NAMED_SECONDS, unit.talk) } : unit

type Made = Partial<Unit> & Pick<Unit, 'kind' | 'layers'>

/** Makes the steps of a phrase: on the lead side, slowly. */
const makerOf =
  (teaching: Teaching, pass: Pass, feet: LayerWeight | undefined) =>
  (made: Made): Unit => ({
    combination: teaching.material.combination.id,
    phrases: phrasesOf([pass], teaching.material),
    sides: [teaching.lead],
    repeats: WHOLE_ROUNDS,
    tempo: teaching.slow,
    talk: 0,
    stand: standOf(made.layers, pass, teaching, feet),
    ...made,
  })

/** Count by count, without a clock. */
const walked = ({ house }: Teaching, layers: readonly Layer[], counts: number): Made => ({
  kind: 'walk',
  layers,
  repeats: 1,
  isNew: true,
  seconds: Math.round(counts * house.limits['plan.walk']),
})

/** The feet of a phrase before any layer of a dance, where it is taught layer by layer; none that are known. */
export function feetSteps(
  teaching: Teaching,
  pass: Pass,
  met: ReadonlySet<string>,
  isFirst: boolean,
): PhraseSteps | undefined {
  const { material, level, house, slow, seen } = teaching
  const weights = weightsOf(material, pass, { level, house, tempo: slow, met })
  const feet = weights.find(({ layer }) => layer === 'feet')
  const isNeeded =
    feet !== undefined &&
    weights.length > 1 &&
    feet.fresh.length > 0 &&
    untaughtIn(pass, teaching).includes('feet')
  if (!isNeeded) return undefined
  const layers = withFeet(teaching, pass, weights)
  const own = weights.filter(({ layer }) => layers.includes(layer))
  const fresh = own.flatMap((one) => one.fresh)
  const make = makerOf(teaching, pass, feet)
  const [talk = 0] = sharedOut(talkOf(own, level, house, isFirst), [1], house)
  const counts = pass.length / TICKS_PER_COUNT
  const isWalked = seen !== 'all' && fresh.length >= WALKED
  const counted = named(make({ kind: 'feet', layers, isNew: true, talk: isWalked ? 0 : talk }))
  return {
    pass,
    units: [
      ...(isWalked ? [{ ...make(walked(teaching, layers, counts)), talk }] : []),
      withinPiece(counted, teaching, counts),
    ],
    layers,
    met: own.flatMap(({ things }) => things.map(({ key }) => key)),
    isFootwork: false,
    isPart: true,
  }
}

/** A phrase turns by its steps, and has more to it than that: its walls are said once it stands. */
function turnsBy(pass: Pass, { material }: Teaching): boolean {
  return material.each().some(({ passes, danced }) => {
    const steps = passes[pass.index]?.events.filter(({ what }) => what.kind === 'foot') ?? []
    const turning = danced.filter(
      ({ pass: own, action, event }) =>
        own.index === pass.index && action.turn && event.what.kind === 'foot',
    )
    return turning.length > 0 && steps.length > turning.length
  })
}

/** Heavy layers, each alone; two that begin on the same counts together. */
function aloneTogether(
  weights: readonly LayerWeight[],
  passes: readonly Pass[],
): readonly (readonly Layer[])[] {
  const together = new Map<string, Layer[]>()
  for (const { layer, weight } of weights) {
    if (weight !== 'heavy' || layer === 'feet') continue
    const starts = passes
      .map(({ events }) => events.filter((one) => one.layer === layer).map(({ at }) => at))
      .join(';')
    together.set(starts, [...(together.get(starts) ?? []), layer])
  }
  return [...together.values()]
}

/** The feet, with the hips that are light or belong to them (teaching 1.5). */
function withFeet(
  { material, level, house, slow }: Teaching,
  pass: Pass,
  weights: readonly LayerWeight[],
): readonly Layer[] {
  const hips = weights.find(({ layer }) => layer === 'hips')
  if (!hips || !layersOf([pass], material).includes('feet')) return ['feet']
  if (hips.weight === 'light') return ['feet', 'hips']
  if (!material.each().every((dance) => hipsAreOnFeet(dance, pass.index))) return ['feet']
  const limit = house.limits[`load.limit.${level}`]
  const isOver = material
    .loads(['feet', 'hips'], slow)
    .some((own) => own.some((one) => one.pass === pass.index && one.total > limit))
  return isOver ? ['feet'] : ['feet', 'hips']
}

/** Whether the hips of a pass are one texture over it, or move with its steps. */
function hipsAreOnFeet({ passes, danced, vocabulary }: Simulation, index: number): boolean {
  const pass = passes[index]
  if (!pass) return true
  const own = pass.events.filter(({ layer, optional }) => layer === 'hips' && !optional)
  const [first] = own
  const move = first?.what.kind === 'move' ? vocabulary.find(first.what.move) : undefined
  const isTexture =
    own.length === 1 && move?.kind === 'texture' && (first?.length ?? 0) >= HALF * pass.length
  const steps = new Set(
    danced.filter((one) => one.pass.index === index).map(({ at }) => Number(at - pass.at)),
  )
  return isTexture || own.every(({ at }) => steps.has(at))
}

/**
 * With the back to the class from its first counted feet where a phrase turns or has many new
 * steps, since mirroring those confuses; else facing it, to see and be seen (teaching 3.5).
 */
const standOf = (
  layers: readonly Layer[],
  pass: Pass,
  { material }: Teaching,
  feet: LayerWeight | undefined,
): Drill['stand'] =>
  layers.includes('feet') && (turnsIn([pass], material) || (feet?.fresh.length ?? 0) > BACK_STEPS)
    ? 'back'
    : 'mirror'

/** Fewer rounds of what would tire: a piece of one layer, or a long phrase. */
function withinPiece(unit: Unit, teaching: Teaching, counts: number): Unit {
  if (unit.seconds !== undefined) return unit
  const { limits } = teaching.house
  const most = limits[unit.layers.length === 1 ? 'plan.piece' : 'plan.longest']
  const fits = roundsThatFit(unit.repeats, counts, 1, teaching.slow, teaching, most)
  return { ...unit, repeats: Math.max(1, fits) }
}
