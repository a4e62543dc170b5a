import { LAYERS, type Layer } from '../body/layers'
import type { Combination } from '../combination/combination'
import type { Pass } from '../combination/passes'
import { Risk } from '../moves/move'
import { COUNT_IN } from '../performance/segments'
import { clampTempo, type Tempo } from '../time/tempo'
import { TICKS_PER_COUNT } from '../time/time'
import { steady } from '../time/timeMap'
import { HOLDS, holdsFor } from './coolDown'
import { type Drill, WarmStage } from './drill'
import { danceSeconds, type Materials, roundOf } from './material'
import { COUNTS_A_MOVE, MOST_MOVES } from './moveRounds'
import { NAMED_SECONDS } from './phraseSteps'
import { classSeconds, type PlanWishes, SLOT_MINUTES } from './plan'
import { addStrain, mostOf, NO_STRAIN, strainOf } from './strain'
import { unitOver } from './taughtUnits'
import { layersOf, type Teaching, type Unit } from './teaching'
import { asksForMore, coolDownMoves, stageMoves, stageTempo } from './warmUp'

/** Seconds of what a class begins and ends with. */
export interface FrameSeconds {
  readonly hello: number
  readonly warmUp: number
  readonly recap: number
  readonly coolDown: number
}

const clamp = (value: number, least: number, most: number): number =>
  Math.round(Math.min(most, Math.max(least, value)))

/** Seconds more of a warm-up for what strains. */
const MORE_WARMTH = 120

/** Seconds of each by the length of the class (teaching 5.1, 5.4, 6.3, 9): what it should be, the least, the most. */
export interface FrameRoom {
  readonly usual: FrameSeconds
  readonly least: FrameSeconds
  readonly most: FrameSeconds
}

export function frameRoom(
  wishes: PlanWishes,
  combinations: readonly Combination[],
  { vocabulary }: Materials,
): FrameRoom {
  const seconds = classSeconds(wishes)
  const more =
    asksForMore(combinations, vocabulary) && wishes.minutes > SLOT_MINUTES ? MORE_WARMTH : 0
  return {
    usual: {
      hello: clamp(wishes.minutes, 30, 90),
      warmUp: clamp(seconds * 0.12, 120, 600) + more,
      recap: clamp(wishes.minutes * 1.2, 30, 75),
      coolDown: clamp(seconds * 0.08, 60, 360),
    },
    least: { hello: 20, warmUp: 120, recap: 20, coolDown: 60 },
    most: {
      hello: 90,
      warmUp: clamp(seconds * 0.2, 120, 900),
      recap: 90,
      coolDown: clamp(seconds * 0.1, 60, 600),
    },
  }
}

/** A step that is said, waited or held through. */
export const saidUnit = (
  kind: Drill['kind'],
  seconds: number,
  tempo: Tempo,
  more: Partial<Unit> = {},
): Unit => ({
  kind,
  phrases: [],
  layers: [],
  sides: ['R'],
  repeats: 1,
  tempo,
  talk: 0,
  stand: 'mirror',
  seconds,
  ...more,
})

const STAGE_SHARES: Readonly<Record<WarmStage, number>> = {
  posture: 0.05,
  pulse: 0.35,
  joints: 0.25,
  build: 0.35,
}

/** Moves again and again for so many slots; the last one stays the last. */
function inSlots(moves: readonly string[], slots: number): readonly string[] {
  const last = moves.at(-1)
  if (last === undefined || slots < 1) return []
  const before = moves.length > 1 ? moves.slice(0, -1) : moves
  return [...Array.from({ length: slots - 1 }, (_, i) => before[i % before.length] ?? last), last]
}

/** Moves for exactly some seconds, danced as often as they fit; the rest shows them. */
export function movesUnit(
  unit: Unit,
  seconds: number,
  choose: (most: number) => readonly string[],
  materials: Materials,
): Unit {
  const danced = Math.max(0, seconds - NAMED_SECONDS)
  const fitting = Math.floor(
    (steady(unit.tempo).tickAt(danced) / TICKS_PER_COUNT - COUNT_IN) / COUNTS_A_MOVE,
  )
  // As many of them again as fill the time: what is left over would only be stood through.
  const repeats = Math.max(1, Math.ceil(fitting / MOST_MOVES))
  const slots = Math.floor(fitting / repeats)
  const known = choose(Math.max(0, slots))
  const moves = inSlots(known, slots)
  const counted: Unit = { ...unit, repeats, talk: 0, moves: [...moves] }
  const taken = moves.length > 0 ? dancedSeconds(counted, materials) : 0
  return taken > 0
    ? { ...counted, talk: Math.max(0, seconds - taken) }
    : { ...unit, repeats: 1, talk: 0, seconds }
}

/** A warm-up of exactly some seconds, by the stages that are wanted. */
export function warmUpUnits(
  seconds: number,
  wishes: PlanWishes,
  combinations: readonly Combination[],
  materials: Materials,
  stages: readonly WarmStage[] = WarmStage.options,
): readonly Unit[] {
  let left = seconds
  const shares = stages.reduce((sum, stage) => sum + STAGE_SHARES[stage], 0)
  return stages.map((stage, i) => {
    const own =
      i === stages.length - 1 ? left : Math.round((seconds * STAGE_SHARES[stage]) / shares)
    left -= own
    const row = stageRow(stage, wishes.tempoNow)
    if (stage === 'posture') return { ...row, seconds: own }
    return movesUnit(
      row,
      own,
      (most) => stageMoves(stage, combinations, materials.vocabulary, most),
      materials,
    )
  })
}

/** What a class used, what it strained first: what the holds at its end are chosen by. */
function usedIn(units: readonly Unit[], materials: Materials): readonly (Layer | Risk)[] {
  const strained = mostOf(
    units.reduce((sum, unit) => addStrain(sum, strainOf(unit, materials)), NO_STRAIN),
  )
  const risks = Risk.options
    .filter((risk) => strained[risk] > 0)
    .toSorted((a, b) => strained[b] - strained[a])
  const layers = new Map<Layer, number>()
  for (const { layers: own, repeats } of units)
    for (const layer of own) layers.set(layer, (layers.get(layer) ?? 0) + repeats)
  return [...risks, ...[...layers].sort((a, b) => b[1] - a[1]).map(([layer]) => layer)]
}

/** Three breaths and thanks come behind what is held. */
const BREATHS_SECONDS = 10
const SWAY_SECONDS = 60
const SWAY_TEMPO = 60

/** Slow sways to let the pulse fall, then holds for what was used (teaching 5.5). */
export function coolDownUnits(
  seconds: number,
  wishes: PlanWishes,
  combinations: readonly Combination[],
  units: readonly Unit[],
  materials: Materials,
  isWanted: (unit: Unit) => boolean,
): readonly Unit[] {
  const tempo = clampTempo(Math.min(SWAY_TEMPO, wishes.tempoNow))
  const [swaying, holding] = coolDownRows(tempo)
  const own = isWanted(holding) ? Math.min(SWAY_SECONDS, Math.round(seconds / 3)) : seconds
  const sways = movesUnit(
    swaying,
    own,
    (most) => coolDownMoves(combinations, materials.vocabulary, Math.min(2, most)),
    materials,
  )
  if (!isWanted(holding)) return [sways]
  const danced = isWanted(swaying) ? own : 0
  const rest = seconds - danced
  const each = materials.house.limits['plan.hold']
  const used = usedIn(units, materials)
  const chosen = []
  let room = rest
  for (const hold of holdsFor(used.length > 0 ? used : ['hips'], HOLDS.length)) {
    const own = each * hold.sides
    if (room - own < BREATHS_SECONDS && chosen.length > 0) continue
    room -= own
    chosen.push(hold.id)
  }
  const held = { ...holding, seconds: rest, holds: chosen }
  return danced > 0 ? [sways, held] : [held]
}

const coolDownRows = (tempo: Tempo): readonly [Unit, Unit] => [
  {
    kind: 'cool-down',
    phrases: [],
    layers: LAYERS,
    sides: ['R'],
    repeats: 1,
    talk: 0,
    tempo,
    stand: 'mirror',
    music: true,
  },
  saidUnit('cool-down', 0, tempo, { holds: [] }),
]

/** The steps a class begins and ends with, without their seconds. */
export const frameRows = ({ tempoNow }: PlanWishes): readonly Unit[] => [
  saidUnit('hello', 0, tempoNow),
  ...WarmStage.options.map((stage) => stageRow(stage, tempoNow)),
  saidUnit('recap', 0, tempoNow),
  ...coolDownRows(tempoNow),
]

const stageRow = (stage: WarmStage, tempo: Tempo): Unit =>
  stage === 'posture'
    ? saidUnit('warm-up', 0, tempo, { stage })
    : {
        kind: 'warm-up',
        stage,
        phrases: [],
        layers: LAYERS,
        sides: ['R'],
        repeats: 1,
        talk: 0,
        tempo: clampTempo(Math.min(120, tempo * stageTempo[stage])),
        stand: 'mirror',
        music: true,
      }

const dancedSeconds = (unit: Unit, materials: Materials): number => {
  const round = roundOf(unit, materials)
  return round ? Math.ceil(danceSeconds(unit, round, unit.repeats) - 1e-9) : 0
}

/** In no more minutes nothing is shown first. */
const LEAST_SHOWN = 15
const SHOWN_COUNTS = 64
const SHOWN_ROUNDS = 2

/**
 * All of it twice at its tempo, before the first step; a long dance in parts, each of which is
 * shown before what is new in it is taught (teaching 5.2).
 */
export function showUnits(teaching: Teaching, minutes: number): readonly Unit[] {
  if (minutes <= LEAST_SHOWN) return []
  const parts: Pass[][] = []
  let counts = 0
  for (const pass of teaching.material.lead.passes) {
    counts += pass.length / TICKS_PER_COUNT
    const part = parts.at(-1)
    if (part && counts <= SHOWN_COUNTS) part.push(pass)
    else {
      parts.push([pass])
      counts = pass.length / TICKS_PER_COUNT
    }
  }
  return parts
    .filter((part, i) => i === 0 || part.some(({ time }) => time === 1))
    .map((part) => ({
      ...unitOver(teaching, {
        kind: 'show',
        passes: part,
        sides: [teaching.lead],
        repeats: SHOWN_ROUNDS,
        talk: NAMED_SECONDS,
        layers: layersOf(part, teaching.material),
      }),
      tempo: teaching.tempo,
    }))
}

/** Puts what shows a later part of a dance before the first step that teaches something of it. */
export function withShown(each: readonly Unit[], parts: readonly Unit[]): readonly Unit[] {
  let units = each
  const seen = new Set<string>()
  for (const [i, part] of parts.entries()) {
    const fresh = part.phrases.filter((id) => !seen.has(id))
    for (const id of fresh) seen.add(id)
    const at = units.findIndex(
      ({ combination, kind, phrases }) =>
        combination === part.combination &&
        kind !== 'show' &&
        phrases.some((id) => fresh.includes(id)),
    )
    // The first one is shown before all else.
    if (i > 0 && at >= 0) units = [...units.slice(0, at), part, ...units.slice(at)]
  }
  return units
}
