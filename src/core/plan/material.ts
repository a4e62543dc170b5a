import { LAYERS, type Layer } from '../body/layers'
import { SIDES, type Side } from '../body/side'
import type { Combination } from '../combination/combination'
import type { Dancing } from '../combination/dancing'
import type { Pass } from '../combination/passes'
import { easedCombination } from '../forms/levels'
import type { House } from '../house/house'
import { footJoins } from '../joins/joins'
import { type CountLoad, loadsOf } from '../load/load'
import { NO_RISKS, type Risks, risksOf } from '../load/risk'
import type { Vocabulary } from '../moves/vocabulary'
import { countInCounts } from '../performance/segments'
import { danced } from '../simulate/danced'
import { type Simulation, simulate } from '../simulate/simulate'
import type { Tempo } from '../time/tempo'
import { endOf, TICKS_PER_COUNT } from '../time/time'
import { steady } from '../time/timeMap'
import type { Drill } from './drill'
import { movesCombination } from './moveRounds'

/** A combination as a planner looks at it. */
export interface Material {
  readonly combination: Combination
  readonly lead: Simulation
  /** Whether the other side can follow without a stop, and the same one again. */
  readonly joins: { readonly switches: boolean; readonly repeats: boolean }
  readonly from: (dancing: Dancing) => Simulation
  /** The load of every count when only some layers are danced. */
  readonly loads: (layers: readonly Layer[], tempo: Tempo) => readonly CountLoad[]
}

/** The combinations a class is made of, and what its drills of moves are read by. */
export interface Materials {
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly find: (id: string) => Material | undefined
}

const only = (combination: Combination, layers: readonly Layer[]): Combination => ({
  ...combination,
  phrases: combination.phrases.map((phrase) => ({
    ...phrase,
    events: phrase.events.filter(({ layer }) => layers.includes(layer)),
  })),
})

function materialOf(combination: Combination, base: Vocabulary, house: House): Material {
  const { written, lead, from, vocabulary } = danced(combination, base, house)
  const loads = new Map<string, readonly CountLoad[]>()
  return {
    combination,
    lead,
    joins: footJoins(lead, vocabulary),
    from,
    loads(layers, tempo) {
      const key = `${layers.join()} ${tempo}`
      const found =
        loads.get(key) ?? loadsOf(simulate(only(written, layers), vocabulary, house), tempo)
      loads.set(key, found)
      return found
    },
  }
}

export function materialsOf(
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
  house: House,
): Materials {
  const byId = new Map(combinations.map((one) => [one.id, one]))
  const made = new Map<string, Material>()
  return {
    vocabulary,
    house,
    find(id) {
      const combination = byId.get(id)
      const found = made.get(id) ?? (combination && materialOf(combination, vocabulary, house))
      if (found) made.set(id, found)
      return found
    },
  }
}

/** The passes that dance some phrases one after the other; all of them where none is named. */
function passesIn(
  passes: readonly Pass[],
  phrases: readonly string[],
): readonly Pass[] | undefined {
  if (phrases.length === 0) return passes
  const from = passes.findIndex((_, i) => phrases.every((id, j) => passes[i + j]?.phrase.id === id))
  return from < 0 ? undefined : passes.slice(from, from + phrases.length)
}

/** What a drill dances once. */
export interface DrillRound {
  readonly material: Material
  readonly passes: readonly Pass[]
  /** Ticks of the combination, half-open. */
  readonly from: number
  readonly to: number
  readonly counts: number
  readonly countIn: number
}

/** What a drill dances; undefined where its combination or its phrases are no longer there. */
export function roundOf(
  {
    combination,
    phrases,
    moves,
    eased,
  }: Pick<Drill, 'combination' | 'phrases' | 'moves' | 'eased'>,
  materials: Materials,
): DrillRound | undefined {
  const own = combination === undefined ? undefined : materials.find(combination)
  const material = moves
    ? materialOfMoves(moves, materials)
    : own && eased
      ? easedMaterial(own, eased, materials)
      : own
  const passes = material && passesIn(material.lead.passes, phrases)
  const first = passes?.[0]
  const last = passes?.at(-1)
  if (!material || !first || !last) return undefined
  const to = endOf(last)
  return {
    material,
    passes,
    from: first.at,
    to,
    counts: (to - first.at) / TICKS_PER_COUNT,
    countIn: countInCounts(material.combination, first.index === 0),
  }
}

const movesMade = new WeakMap<Vocabulary, Map<string, Material>>()

/** A warm-up or a cool-down as a combination of its own, so that it is danced and seen like one. */
function materialOfMoves(moves: readonly string[], { vocabulary, house }: Materials): Material {
  const known = movesMade.get(vocabulary) ?? new Map<string, Material>()
  movesMade.set(vocabulary, known)
  const key = moves.join()
  const found = known.get(key) ?? materialOf(movesCombination(moves, vocabulary), vocabulary, house)
  known.set(key, found)
  return found
}

const easedMade = new WeakMap<Material, Map<string, Material>>()

function easedMaterial(
  own: Material,
  eased: readonly string[],
  { vocabulary, house }: Materials,
): Material {
  const known = easedMade.get(own) ?? new Map<string, Material>()
  easedMade.set(own, known)
  const key = eased.join()
  const found =
    known.get(key) ??
    materialOf(easedCombination(own.combination, eased, own.lead.vocabulary), vocabulary, house)
  known.set(key, found)
  return found
}

/** Counts danced on each side, count-ins not among them. */
export function countsPerSide(drill: Drill, materials: Materials): Readonly<Record<Side, number>> {
  const round = roundOf(drill, materials)
  const each = (round?.counts ?? 0) * drill.repeats
  // A drill of moves has both sides in each of its rounds.
  if (drill.moves) return { R: each / 2, L: each / 2 }
  const [R = 0, L = 0] = SIDES.map((side) => (drill.sides.includes(side) ? each : 0))
  return { R, L }
}

/** Seconds of dancing, not rounded, at some repeats. */
export function danceSeconds(
  { sides, inTurn, tempo }: Pick<Drill, 'sides' | 'inTurn' | 'tempo'>,
  { counts, countIn }: Pick<DrillRound, 'counts' | 'countIn'>,
  repeats: number,
): number {
  const countIns = inTurn ? 1 : sides.length
  const danced = countIns * countIn + sides.length * repeats * counts
  return steady(tempo).secondsAt(danced * TICKS_PER_COUNT)
}

/** Whole seconds of a drill, talk and all (model 10); only its talk where it can't be danced. */
export function secondsOf(drill: Drill, materials: Materials): number {
  const round = roundOf(drill, materials)
  // A sum that is whole but for its last binary digit is that whole number.
  return round
    ? Math.ceil(danceSeconds(drill, round, drill.repeats) - 1e-9) + drill.talk
    : drill.talk
}

/** The mean load of a count of a drill. */
export function meanLoad(
  { layers, tempo }: Pick<Drill, 'layers' | 'tempo'>,
  { material, from, to, counts }: DrillRound,
): number {
  const here = material.loads(layers, tempo).filter(({ at }) => at >= from && at < to)
  return here.reduce((sum, { total }) => sum + total, 0) / Math.max(1, counts)
}

/** What one round of a drill strains, on one side. */
export function risksOfRound(
  { layers }: Pick<Drill, 'layers'>,
  round: DrillRound | undefined,
): Risks {
  if (!round) return NO_RISKS
  const events = round.passes.flatMap((pass) =>
    pass.events.filter(({ layer }) => layers.includes(layer)),
  )
  return risksOf(events, round.material.lead.vocabulary)
}

/** The layers that have something written in some passes, feet first. */
export const layersIn = (passes: readonly Pass[]): readonly Layer[] =>
  LAYERS.filter((layer) =>
    passes.some(({ events }) => events.some((event) => event.layer === layer)),
  )
