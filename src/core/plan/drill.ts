import { z } from 'zod'
import { Layer } from '../body/layers'
import { Side, sideWord } from '../body/side'
import { layerWord } from '../moves/vocabulary'
import { FASTEST_RATE, hundredths, percent, SLOWEST_RATE } from '../song/rate'
import { clampTempo, Tempo } from '../time/tempo'

/** What a step is for, in the order a class meets them (domain: how a combination is taught). */
export const DrillKind = z.enum([
  'hello',
  'show',
  'warm-up',
  'review',
  'walk',
  'feet',
  'alone',
  'on-feet',
  'all',
  'walls',
  'other-side',
  'join',
  'catch-up',
  'switch-practice',
  'technique',
  'sides',
  'run',
  'free-run',
  'song',
  'pause',
  'recap',
  'open',
  'cool-down',
])
export type DrillKind = z.infer<typeof DrillKind>

/** Facing the class as its mirror image, or with the back to it. */
const Stand = z.enum(['mirror', 'back'])

/** What a run is danced for, so that it is no repetition. */
export const RunTask = z.enum([
  'weight',
  'turned-away',
  'names',
  'breath',
  'size',
  'harder',
  'halves',
  'silent',
  'last-showing',
])
export type RunTask = z.infer<typeof RunTask>

/** The stages of a warm-up, in their order. */
export const WarmStage = z.enum(['posture', 'pulse', 'joints', 'build'])
export type WarmStage = z.infer<typeof WarmStage>

/** The longest a drill may be repeated, a side. */
export const MOST_REPEATS = 99
/** Seconds; an hour of talk is no drill. */
const MOST_TALK = 3600
/** Seconds of a step without a count; no class is longer. */
const MOST_SECONDS = 3 * 3600
/** Lines and letters of what is said before a step. */
export const MOST_LINES = 12
export const MOST_LETTERS = 400

/** The stretch of a song a class dances to, as a routine has it. */
export const DrillSong = z
  .object({
    /** Id of the routine. */
    routine: z.string().min(1),
    /** Where it begins and ends in the song, in milliseconds: found again however it is counted. */
    from: z.int().min(0),
    to: z.int().min(0),
    /** Of its own speed. */
    rate: z.number().min(SLOWEST_RATE).max(FASTEST_RATE),
  })
  .refine(({ from, to }) => from < to, 'ends before it begins')
  .readonly()
export type DrillSong = z.infer<typeof DrillSong>

/** One stretch of a class: what is danced, on which sides, how fast, how often (model 10). */
export const Drill = z
  .object({
    id: z.string().min(1),
    kind: DrillKind,
    /** Id of the combination; what is made of moves, and what is not danced, has none. */
    combination: z.string().min(1).optional(),
    /** Ids of the phrases in the order they are danced; none stands for all of the combination. */
    phrases: z.array(z.string().min(1)).readonly(),
    /** None where nothing is danced. */
    layers: z.array(Layer).readonly(),
    /** In the order they are danced. */
    sides: z.array(Side).min(1).max(2).readonly(),
    /** The sides follow each other without a stop, round by round, after one count-in. */
    inTurn: z.literal(true).optional(),
    /** Times a side. */
    repeats: z.int().min(1).max(MOST_REPEATS),
    tempo: Tempo,
    /** Whole seconds of showing and saying. */
    talk: z.int().min(0).max(MOST_TALK),
    stand: Stand,
    /** Danced to the music rather than to the count alone. */
    music: z.literal(true).optional(),
    /** The song it is danced with, and how fast; the tempo is what that comes to. */
    song: DrillSong.optional(),
    /** Ids of the moves of a warm-up, a cool-down or a loop of technique. */
    moves: z.array(z.string().min(1)).readonly().optional(),
    /** Ids of events that are danced in their easier form. */
    eased: z.array(z.string().min(1)).readonly().optional(),
    /** Stays as it is when the rest is planned again. */
    locked: z.literal(true).optional(),
    /** Whole seconds besides the talk, of what has no count: a walk, a pause. It is not danced then. */
    seconds: z.int().min(0).max(MOST_SECONDS).optional(),
    /** What is said, where it was written by hand; else it is worked out. */
    say: z.array(z.string().min(1).max(MOST_LETTERS)).max(MOST_LINES).readonly().optional(),
    /** Something in it is met for the first time. */
    isNew: z.literal(true).optional(),
    task: RunTask.optional(),
    /** So many rounds a side, the last ones, are danced small or in the easier form. */
    marked: z.int().min(1).max(MOST_REPEATS).optional(),
    /** Only these counts of its one phrase, from 1. */
    half: z
      .object({ from: z.int().min(1), to: z.int().min(1) })
      .refine(({ from, to }) => from <= to, 'ends before it begins')
      .readonly()
      .optional(),
    /** Without the turns of single steps: everybody stays with the front wall. */
    front: z.literal(true).optional(),
    stage: WarmStage.optional(),
    /** Ids of what is held, of a cool-down. */
    holds: z.array(z.string().min(1)).readonly().optional(),
    /** What a loop of technique looks at, a minute each. */
    focus: z.array(z.string().min(1)).readonly().optional(),
    /** Words of what who wants more dances instead. */
    option: z.string().min(1).optional(),
    /** What was changed since the group was taught it, a line each. */
    changed: z.array(z.string().min(1)).readonly().optional(),
  })
  .readonly()
export type Drill = z.infer<typeof Drill>

/** Whether it has a count to be danced to; else it is said, walked, held or waited through. */
export const isCounted = ({ seconds }: Pick<Drill, 'seconds'>): boolean => seconds === undefined

/** A drill with its song at another speed, whole hundredths of its own. */
export function atRate(drill: Drill, song: DrillSong, wanted: number): Drill {
  const rate = hundredths(Math.min(FASTEST_RATE, Math.max(SLOWEST_RATE, wanted))) / 100
  return { ...drill, song: { ...song, rate }, tempo: clampTempo((drill.tempo * rate) / song.rate) }
}

/** What makes two drills the same one, however often and fast it is danced. */
export const drillKey = ({
  kind,
  combination,
  phrases,
  layers,
  tempo,
  half,
  task,
  stage,
  moves,
  song,
}: Omit<Drill, 'id'>): string =>
  [
    [
      kind,
      combination ?? '',
      phrases.join('+'),
      layers.join('+'),
      kind === 'run' ? tempo : '',
    ].join('|'),
    half && `${half.from}-${half.to}`,
    task,
    stage,
    kind === 'technique' && moves?.join('+'),
    song && [song.routine, song.from, song.to, song.rate].join(' '),
  ]
    .filter(Boolean)
    .join('|')

/** A drill as fast as another one is danced. */
export const atSpeedOf = (drill: Drill, { tempo, song }: Drill): Drill => ({
  ...drill,
  tempo,
  ...(drill.song && song && { song: { ...drill.song, rate: song.rate } }),
})

/** How fast a drill is, as it is shown: counts a minute, or a share of its song's own speed. */
export const speedText = ({ tempo, song }: Pick<Drill, 'tempo' | 'song'>): string =>
  song ? percent(song.rate) : String(tempo)

/** Words as they are listed: `a, b and c`. */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

const TASK_TITLES: Readonly<Record<RunTask, string>> = {
  weight: 'where the weight is',
  'turned-away': 'turned away',
  names: 'names called',
  breath: 'breath and face',
  size: 'size and travel',
  harder: 'more for who wants it',
  halves: 'half the room looks',
  silent: 'without a word',
  'last-showing': 'last showing',
}
const STAGE_TITLES: Readonly<Record<WarmStage, string>> = {
  posture: 'Posture',
  pulse: 'Warm up: pulse',
  joints: 'Warm up: joints',
  build: 'Warm up: what is to come',
}

/** What a drill is called. @param names of its phrases. */
export function titleOf(drill: Drill, names: readonly string[]): string {
  const { kind, layers, tempo, sides, half, task, stage, music, focus, song } = drill
  const where =
    names.length > 0
      ? ` · ${[...new Set(names)].join(' ')}${half ? ` ${half.from}-${half.to}` : ''}`
      : ''
  const above = layers.filter((layer) => layer !== 'feet').map((layer) => layerWord[layer])
  const said = listed(layers.map((layer) => layerWord[layer]))
  switch (kind) {
    case 'hello':
      return 'Hello'
    case 'show':
      return `Show it${where}`
    case 'warm-up':
      return stage ? STAGE_TITLES[stage] : 'Warm up'
    case 'cool-down':
      return drill.holds ? 'Cool down: hold and breathe' : 'Cool down'
    case 'review':
      return `Review${where}`
    case 'walk':
      return `Walk it${where}`
    case 'feet':
      return `${above.length > 0 ? said : 'Feet'}${where}`
    case 'alone':
      return `${listed(above)} alone${where}`
    case 'on-feet':
      return `${listed(above)} on the feet${where}`
    case 'all':
      return `${layers.length > 1 ? 'All layers' : said}${where}`
    case 'walls':
      return `Walls${where}`
    case 'other-side':
      return `Other side${above.length > 0 || layers.length === 0 ? '' : ', feet'}${where}`
    case 'join':
      return `From the top${where}`
    case 'catch-up':
      return `${sides.map((side) => sideWord[side]).join(' and ')} side again${where}`
    case 'switch-practice':
      return 'Switch sides'
    case 'technique':
      return `Technique: ${focus?.[0] ?? said}`
    case 'sides':
      return `Both sides${where}`
    case 'run':
      return task
        ? `${music ? 'With music' : `At ${tempo}`}, ${TASK_TITLES[task]}${where}`
        : `${music ? 'A taste of the music' : `Run at ${tempo}`}${where}`
    case 'free-run':
      return `Free runs with music${where}`
    case 'song':
      return `${names.length > 0 ? names.join(', ') : 'With music'}, ${percent(song?.rate ?? 1)}`
    case 'pause':
      return 'Water'
    case 'recap':
      return 'Recap'
    case 'open':
      return 'Open'
  }
}
