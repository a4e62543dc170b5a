import { LAYERS, type Layer } from '../body/layers'
import { SIDES, type Side } from '../body/side'
import type { SongCalls } from '../calling/cues'
import type { Combination } from '../combination/combination'
import { type Dancing, leadOf } from '../combination/dancing'
import { loopTick } from '../combination/loop'
import { withOptions } from '../combination/options'
import { phraseWith } from '../combination/optionWith'
import { partIds } from '../combination/partOf'
import type { Pass } from '../combination/passes'
import { judged } from '../findings/check'
import { tempoRoom } from '../findings/tempoLimits'
import { easedCombination } from '../forms/levels'
import type { House } from '../house/house'
import { footJoins } from '../joins/joins'
import { type CountLoad, loadsOf } from '../load/load'
import { NO_RISKS, type Risks, risksOf } from '../load/risk'
import { shippedFor, type Vocabulary } from '../moves/vocabulary'
import { COUNT_IN, countInCounts, countInFor } from '../performance/segments'
import { danceOf } from '../piece/dance'
import { dancedPiece } from '../piece/piece'
import type { Company } from '../simulate/company'
import type { Danced } from '../simulate/danced'
import { type Simulation, simulate } from '../simulate/simulate'
import type { Tempo } from '../time/tempo'
import { endOf, type Range, TICKS_PER_COUNT, tick } from '../time/time'
import { secondsBetween, slowed, steady, type TimeMap } from '../time/timeMap'
import { type Drill, type DrillSong, isCounted } from './drill'
import { movesCombination } from './moveRounds'

/** A combination as a planner looks at it. */
export interface Material {
  readonly combination: Combination
  readonly lead: Simulation
  /** Whether it has anything that who wants may dance. */
  readonly hasFlourish: boolean
  /** Whether the other side can follow without a stop, and the same one again. */
  readonly joins: { readonly switches: boolean; readonly repeats: boolean }
  readonly from: (dancing: Dancing) => Simulation
  /** All who dance it, where they are several. */
  readonly company?: NonNullable<Danced['company']>
  /** Some passes as each of them dances them. */
  readonly asEach: (passes: readonly Pass[]) => readonly (readonly Pass[])[]
  /** The dance of each of them, as `asEach` has them. */
  readonly each: () => readonly Simulation[]
  /** The load of every count for each of them when only some layers are danced. */
  readonly loads: (layers: readonly Layer[], tempo: Tempo) => readonly (readonly CountLoad[])[]
  /** The highest tempo at which nothing is hurried; none where no tempo is slow enough. */
  readonly hurriedFrom: () => Tempo | undefined
}

/** A stretch of a routine, to be danced with its song. */
export interface SongStretch {
  readonly material: Material
  /** Ticks of the material, half-open, and what is danced in them. */
  readonly range: Range
  readonly passes: readonly Pass[]
  /** How the ticks go by from its start, at the song's own speed. */
  readonly time: TimeMap
  /** The mark of the song's file, and the second of it at which it starts. */
  readonly mark: string
  readonly second: number
  /** Counts of a round from each side. */
  readonly sides: Readonly<Record<Side, number>>
  /** What it is called: the song, and which part of it. */
  readonly title: string
  readonly calls: SongCalls
  /** Where a tick of the material is in the song, as it is said: `Chorus 3·5`. */
  readonly placeAt: (tick: number) => string
}

/** The combinations a class is made of, and what its drills of moves are read by. */
export interface Materials {
  readonly vocabulary: Vocabulary
  readonly house: House
  readonly find: (id: string) => Material | undefined
  /** What is danced with a song; undefined where the routine or its song is gone. */
  readonly withSong: (song: DrillSong) => SongStretch | undefined
}

const only = (combination: Combination, layers: readonly Layer[]): Combination => ({
  ...combination,
  phrases: combination.phrases.map((phrase) =>
    phraseWith(phrase, (list) => list.filter(({ layer }) => layers.includes(layer))),
  ),
})

const materialOf = (combination: Combination, base: Vocabulary, house: House): Material =>
  materialFrom(danceOf(combination, base, house), combination)

/** What is danced, as a planner looks at it. */
export function materialFrom(dance: Danced, combination: Combination): Material {
  const { lead, from, vocabulary, company } = dance
  const { house } = lead
  let hurried: { readonly most: Tempo | undefined } | undefined
  const loads = new Map<string, readonly (readonly CountLoad[])[]>()
  const dancesOfEach = (): readonly Danced[] => {
    if (!company) return [dance]
    const piece = dancedPiece(combination, vocabulary, house)
    return partIds(combination).map(piece.of)
  }
  return {
    combination,
    lead,
    hasFlourish: combination.phrases.some(({ events }) => events.some(({ optional }) => optional)),
    joins: footJoins(lead, vocabulary),
    from,
    ...(company && { company }),
    asEach: (passes) => (company ? asEachIn(passes, company(leadOf(combination))) : [passes]),
    each: () =>
      company ? company(leadOf(combination)).dancers.map(({ simulation }) => simulation) : [lead],
    hurriedFrom() {
      hurried ??= {
        most: slowest(dancesOfEach().map((one) => tempoRoom(judged(one, one.written)).most)),
      }
      return hurried.most
    },
    loads(layers, tempo) {
      const key = `${layers.join()} ${tempo}`
      const found =
        loads.get(key) ??
        dancesOfEach().map((one) =>
          loadsOf(simulate(only(one.written, layers), vocabulary, house), steady(tempo)),
        )
      loads.set(key, found)
      return found
    },
  }
}

/** The lowest of some tempi; none where one of them is too fast at any. */
const slowest = (all: readonly (Tempo | undefined)[]): Tempo | undefined =>
  all.reduce((least, one) =>
    least === undefined || one === undefined ? undefined : Math.min(least, one),
  )

const asEachIn = (passes: readonly Pass[], { dancers }: Company) =>
  dancers.map(({ simulation }) => passes.flatMap(({ index }) => simulation.passes[index] ?? []))

export function materialsOf(
  combinations: readonly Combination[],
  vocabulary: Vocabulary,
  house: House,
  withSong: Materials['withSong'] = () => undefined,
): Materials {
  const byId = new Map(combinations.map((one) => [one.id, one]))
  const made = new Map<string, Material>()
  return {
    vocabulary,
    house,
    withSong,
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
  /** Set where sides are switched: its last counts, and then as many of the other side from its start. */
  readonly intoOther?: Range
  /** Set where it is danced with a song. */
  readonly song?: SongStretch
}

/** What of a drill decides what it dances. */
type Shown = Pick<Drill, 'combination' | 'phrases'> &
  Partial<Pick<Drill, 'kind' | 'task' | 'moves' | 'eased' | 'half' | 'front' | 'song'>>

/** Counts before the end, and after the beginning, of which a switch is made. */
const SWITCH_COUNTS = 4

/** What a drill dances; undefined where it dances nothing, or that is no longer there. */
export function roundOf(
  { combination, phrases, kind, task, moves, eased, half, front, song }: Shown,
  materials: Materials,
): DrillRound | undefined {
  if (song) return roundWith(materials.withSong(song))
  const own = combination === undefined ? undefined : materials.find(combination)
  const isPlain = kind !== undefined && !takesFlourishes(kind, task)
  const material = moves
    ? materialOfMoves(moves, materials)
    : own && formFor(own, { eased, isFront: front === true, isPlain }, materials)
  const passes = material && passesIn(material.lead.passes, phrases)
  const first = passes?.[0]
  const last = passes?.at(-1)
  if (!material || !first || !last) return undefined
  const end = endOf(last)
  const begin = first.at + ((half?.from ?? 1) - 1) * TICKS_PER_COUNT
  const until = half ? Math.min(end, first.at + half.to * TICKS_PER_COUNT) : end
  if (begin >= until) return undefined
  const isSwitch = kind === 'switch-practice'
  const into = isSwitch ? Math.min(SWITCH_COUNTS, end / TICKS_PER_COUNT) : 0
  const from = isSwitch ? end - into * TICKS_PER_COUNT : begin
  return {
    material,
    passes,
    from,
    to: until,
    counts: (until - from) / TICKS_PER_COUNT + into,
    countIn: countInCounts(material.combination, from === 0),
    ...(isSwitch && { intoOther: { from: tick(0), to: tick(into * TICKS_PER_COUNT) } }),
  }
}

function roundWith(song: SongStretch | undefined): DrillRound | undefined {
  if (!song) return undefined
  const { material, passes, range } = song
  const counts = (range.to - range.from) / TICKS_PER_COUNT
  return { material, passes, ...range, counts, countIn: COUNT_IN, song }
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

/** A flourish is for who wants it, once the dance is known: it is shown, and danced where that is the task (teaching 8.2). */
const takesFlourishes = (kind: Drill['kind'], task: Drill['task']): boolean =>
  kind === 'show' || kind === 'free-run' || task === 'harder'

/** In which form a combination is danced. */
interface Form {
  /** Ids of events that are danced in their easier form. */
  readonly eased: readonly string[] | undefined
  /** Without the turns of its steps. */
  readonly isFront: boolean
  /** Without its flourishes. */
  readonly isPlain: boolean
}

const otherForms = new WeakMap<Material, Map<string, Material>>()

/** A combination in some form; itself where that is as it is written. */
function formFor(
  own: Material,
  { eased, isFront, isPlain: wantsPlain }: Form,
  { vocabulary, house }: Materials,
): Material {
  const isPlain = wantsPlain && own.hasFlourish
  if (!eased && !isFront && !isPlain) return own
  const known = otherForms.get(own) ?? new Map<string, Material>()
  otherForms.set(own, known)
  const key = [isFront, isPlain, ...(eased ?? [])].join()
  const found = known.get(key)
  if (found) return found
  const easier = easedCombination(own.combination, eased ?? [], own.lead.vocabulary)
  const plain = isPlain ? withoutFlourishes(easier) : easier
  const made = materialOf(isFront ? withoutTurns(plain) : plain, vocabulary, house)
  known.set(key, made)
  return made
}

const withoutFlourishes = (combination: Combination): Combination => ({
  ...combination,
  phrases: combination.phrases.map((phrase) =>
    phraseWith(phrase, (list) => list.filter((one) => !('optional' in one && one.optional))),
  ),
})

/** Every step stays with the front wall. */
const withoutTurns = (combination: Combination): Combination => ({
  ...combination,
  phrases: combination.phrases.map((phrase) =>
    withOptions(phrase, ['front'], shippedFor(combination)),
  ),
})

/** Counts of a round that are danced once, before the loop of its combination: where it is danced again, they are not. */
export const countsOnce = ({
  material,
  from,
  to,
  song,
  intoOther,
}: Pick<DrillRound, 'material' | 'from' | 'to' | 'song' | 'intoOther'>): number =>
  song || intoOther || from !== 0 || to !== material.lead.length
    ? 0
    : loopTick(material.combination) / TICKS_PER_COUNT

/** Counts danced on each side, count-ins not among them. */
export function countsPerSide(drill: Drill, materials: Materials): Readonly<Record<Side, number>> {
  const round = roundOf(drill, materials)
  const each = isCounted(drill) && drill.kind !== 'show' ? (round?.counts ?? 0) * drill.repeats : 0
  // A drill of moves has both sides in each of its rounds, and so has a switch.
  if (drill.moves || round?.intoOther) return { R: each / 2, L: each / 2 }
  // What is danced with a song has its sides in it; from the other side each is the other one.
  if (round?.song) {
    const { R, L } = round.song.sides
    const isTurned = drill.sides[0] !== round.material.combination.lead
    const [right, left] = isTurned ? [L, R] : [R, L]
    return { R: drill.repeats * right, L: drill.repeats * left }
  }
  // A side that is counted in begins with what is danced once.
  const once = round && each > 0 ? countsOnce(round) : 0
  const [R = 0, L = 0] = SIDES.map((side) => {
    if (!drill.sides.includes(side)) return 0
    const begins = !drill.inTurn || side === drill.sides[0] ? 1 : 0
    return each - once * (drill.repeats - begins)
  })
  return { R, L }
}

/** Seconds of dancing, not rounded, at some repeats. */
export function danceSeconds(
  { sides, inTurn, tempo, song }: Pick<Drill, 'sides' | 'inTurn' | 'tempo' | 'song'>,
  round: DrillRound,
  repeats: number,
): number {
  const { counts, countIn, intoOther, song: stretch } = round
  // A song begins again with each round, and is counted in before it.
  if (stretch) {
    const time = slowed(stretch.time, song?.rate ?? 1)
    const counted = [countIn, counts].map((some) => secondsBetween(time, 0, some * TICKS_PER_COUNT))
    return repeats * counted.reduce((sum, seconds) => sum + seconds, 0)
  }
  const countIns = intoOther ? repeats : inTurn ? 1 : sides.length
  const danced =
    countIns * Math.max(countIn, countInFor(tempo)) +
    (intoOther ? 1 : sides.length) * repeats * counts -
    // Where nobody is counted in, what is danced once is not danced again.
    countsOnce(round) * Math.max(0, sides.length * repeats - countIns)
  return steady(tempo).secondsAt(danced * TICKS_PER_COUNT)
}

/** Whole seconds of a drill, talk and all (model 10); only its talk where it can't be danced. */
export function secondsOf(drill: Drill, materials: Materials): number {
  if (drill.seconds !== undefined) return drill.seconds + drill.talk
  const round = roundOf(drill, materials)
  // A sum that is whole but for its last binary digit is that whole number.
  return round
    ? Math.ceil(danceSeconds(drill, round, drill.repeats) - 1e-9) + drill.talk
    : drill.talk
}

/** The mean load of a count of a drill, for whoever has the most of it. */
export function meanLoad(
  { layers, tempo }: Pick<Drill, 'layers' | 'tempo'>,
  { material, from, to, counts }: DrillRound,
): number {
  const sums = material.loads(layers, tempo).map((own) => {
    const here = own.filter(({ at }) => at >= from && at < to)
    return here.reduce((sum, { total }) => sum + total, 0)
  })
  return Math.max(...sums) / Math.max(1, counts)
}

/** What one round of a drill strains each of those who dance it, on the lead side. */
export function risksOfRound(
  drill: Pick<Drill, 'layers' | 'seconds' | 'kind'>,
  round: DrillRound | undefined,
): readonly Risks[] {
  // What is walked, or shown to who looks, strains nobody.
  if (!round || !isCounted(drill) || drill.kind === 'show') return [NO_RISKS]
  const { from, to, material } = round
  return material.asEach(round.passes).map((passes) =>
    risksOf(
      passes.flatMap((pass) =>
        pass.events.filter(
          ({ layer, at }) =>
            drill.layers.includes(layer) && pass.at + at >= from && pass.at + at < to,
        ),
      ),
      material.lead.vocabulary,
    ),
  )
}

/** The layers that have something written in some passes, feet first. */
export const layersIn = (passes: readonly Pass[]): readonly Layer[] =>
  LAYERS.filter((layer) =>
    passes.some(
      ({ events, acts }) =>
        events.some((event) => event.layer === layer) ||
        // What is done with what is carried is learned with the arms.
        (layer === 'arms' && acts.length > 0),
    ),
  )
