import { LAYERS, type Layer } from '../body/layers'
import type { Side } from '../body/side'
import { announcementOf } from '../calling/announce'
import type { CallMode, SpeechSeconds } from '../calling/called'
import { callModes } from '../calling/calls'
import { aloneFrom } from '../combination/dancing'
import type { Pass } from '../combination/passes'
import { type Performance, performanceOf } from '../performance/performance'
import { type Accompaniment, COUNT_IN, countInFor } from '../performance/segments'
import { stretchOf } from '../performance/stretches'
import { type Drill, isCounted, speedText } from '../plan/drill'
import {
  countsOnce,
  type DrillRound,
  type Material,
  type Materials,
  roundOf,
} from '../plan/material'
import { rhythmOf, usualRhythm } from '../rhythm/rhythms'
import { type Range, TICKS_PER_COUNT, tick } from '../time/time'
import { slowed, steady } from '../time/timeMap'
import type { ShownDrill } from './shownDrill'
import type { SoundChoice } from './soundChoice'

/** A drill as it is danced now, with all that sounds. */
export interface DrillDance {
  readonly drill: Drill
  /** What it is called and danced to. */
  readonly choice: SoundChoice
  readonly round: DrillRound
  readonly performance: Performance
}

/** How a drill is called: as the rounds go (model 11), always in one way, or not at all. */
type CallStyle = 'rounds' | CallMode

/** After a rest a class is counted in by a whole eight (teaching 7.4). */
export const choiceAfter = (choice: SoundChoice, before: Drill | undefined): SoundChoice =>
  before?.kind === 'pause' ? { ...choice, countIn: 8 } : choice

/** What a drill is danced to. */
export interface DrillSound extends Omit<Accompaniment, 'time'> {
  readonly call: CallStyle
  /** Counts that are counted in at least; 4 where it is not given. */
  readonly countIn?: number
}

/** What of a drill decides how it is performed. */
type Performed = Pick<Drill, 'sides' | 'inTurn' | 'repeats' | 'tempo' | 'layers' | 'song'> &
  Partial<Pick<Drill, 'kind' | 'isNew' | 'task' | 'talk'>>

/** Seconds before the count-in in which the first move is named; they are part of the talk (teaching 7.4). */
const NAMING_SECONDS = 3

/** A drill as it is performed: the sides in their order, each counted in, or in turn after one count-in. */
export function drillPerformance(
  drill: Performed,
  round: DrillRound,
  { call, countIn = countInFor(drill.tempo), ...sound }: DrillSound,
): Performance {
  const { sides, repeats, tempo, inTurn, layers, kind, talk = 0 } = drill
  const modes = callModes(repeats, {
    isNew: drill.isNew === true,
    endsSilent: drill.task === 'silent' || kind === 'free-run',
  })
  // What is only shown has its names, and nobody is counted through it.
  const style = call === 'rounds' && kind === 'show' ? 'cues' : call
  const modeOf = (i: number) => (style === 'rounds' ? (modes[i] ?? 'cues') : style)
  const rounds = Array.from({ length: repeats }, (_, i) => i)
  const range = { from: tick(round.from), to: tick(round.to) }
  const again = { ...range, from: tick(range.from + countsOnce(round) * TICKS_PER_COUNT) }
  const common = (i: number) => ({ layers, mode: modeOf(i), round: i + 1, rounds: repeats })
  const { intoOther, song } = round
  const order: readonly Danced[] = intoOther
    ? rounds.flatMap((i) => {
        // From each side into the other, in turn.
        const [from = 'R', to = 'L'] = i % 2 === 0 ? sides : sides.toReversed()
        return [
          { side: from, i, range, isCountedIn: true },
          { side: to, i, range: intoOther, isCountedIn: false },
        ]
      })
    : (inTurn
        ? rounds.flatMap((i) => sides.map((side) => ({ side, i })))
        : sides.flatMap((side) => rounds.map((i) => ({ side, i })))
      ).map(({ side, i }, place, all) => {
        const before = all[place - 1]?.side
        // A song begins anew with each round.
        const isCountedIn =
          before === undefined || (side !== before && !inTurn) || song !== undefined
        // What stands before the loop is danced once.
        return { side, i, range: isCountedIn ? range : again, isCountedIn }
      })
  const stretches = order.map(({ side, i, range: own, isCountedIn }, place) => {
    const dancing = aloneFrom(side)
    const said =
      place === 0 && talk >= NAMING_SECONDS
        ? announcementOf(
            round.material.from(dancing),
            own.from,
            layers,
            round.material.company?.(dancing),
          )
        : undefined
    return stretchOf(round.material, dancing, {
      ...common(i),
      range: own,
      countIn: isCountedIn ? countIn : undefined,
      song: song?.calls,
      names: said && { said, counts: Math.ceil((NAMING_SECONDS * tempo) / 60) },
    })
  })
  if (!song) return performanceOf(stretches, { ...sound, time: steady(tempo) })
  const rate = drill.song?.rate ?? 1
  const music = { mark: song.mark, from: song.second, rate }
  return performanceOf(stretches, { ...sound, time: slowed(song.time, rate), music })
}

interface Danced {
  readonly side: Side
  /** Which round it is of, from 0. */
  readonly i: number
  readonly range: Range
  readonly isCountedIn: boolean
}

/** The sound of a drill, by what the instructor chose and how long her voice takes. */
export function soundFor(
  { rhythm, call, countIn, extras, praise }: SoundChoice,
  { material, passes, from, to, song }: DrillRound,
  speech: SpeechSeconds,
  layers: readonly Layer[] = LAYERS,
): DrillSound {
  const usual = () => usualRhythm(material.combination.families, passes[0]?.phrase.counts)
  return {
    // Music has its own.
    rhythm: song ? undefined : rhythm === 'own' ? usual() : rhythmOf(rhythm),
    call,
    // A short count-in is as long as the tempo asks for.
    ...(countIn > COUNT_IN && { countIn }),
    speech,
    extras: {
      ...(extras.praise && { praise }),
      ...(extras.watch && { watch: slipsIn(material, passes, from, to, layers) }),
      ...(extras.breathe && { breathe: true }),
    },
  }
}

/** What to watch, as short as it can be said: up to its first stop. */
const slipsIn = (
  { lead }: Material,
  passes: readonly Pass[],
  from: number,
  to: number,
  layers: readonly Layer[],
): readonly string[] => [
  ...new Set(
    passes.flatMap((pass) =>
      pass.events
        .filter(
          ({ layer, at }) => layers.includes(layer) && pass.at + at >= from && pass.at + at < to,
        )
        .flatMap(({ what }) => {
          const watch = what.kind === 'move' ? lead.vocabulary.find(what.move)?.watch : undefined
          return watch?.split(/[,;.]/)[0] || []
        }),
    ),
  ),
]

/** Undefined where there is no drill, or nothing of it is left in its combination. */
export function drillDanceOf(
  drill: Drill | undefined,
  materials: Materials,
  choice: SoundChoice,
  speech: SpeechSeconds,
): DrillDance | undefined {
  const round = drill && roundOf(drill, materials)
  return (
    drill &&
    round && {
      drill,
      choice,
      round,
      performance: drillPerformance(drill, round, soundFor(choice, round, speech, drill.layers)),
    }
  )
}

/** A drill as those who dance it see it. */
export const shownDrill = ({ drill, round, performance }: DrillDance): ShownDrill => {
  const { repeats, moves, song, sides, layers, stand, kind } = drill
  return {
    combination: round.material.combination,
    from: round.material.from,
    performance,
    layers,
    speed: isCounted(drill) ? speedText(drill) : '',
    stand,
    // In a round of moves every second phrase is danced to the other side.
    lead: moves ? undefined : (sides[0] ?? 'R'),
    times: `${repeats} ${repeats === 1 ? 'round' : 'rounds'}${moves || song ? '' : ' a side'}`,
    start: round.from,
    isShown: kind === 'show',
    placeAt: round.song?.placeAt,
  }
}
