import { z } from 'zod'
import { Layer } from '../body/layers'
import { Side, sideWord } from '../body/side'
import { layerWord } from '../moves/vocabulary'
import { Tempo } from '../time/tempo'

/** What a drill is for, in the order a class meets them (domain: how a combination is taught). */
export const DrillKind = z.enum([
  'warm-up',
  'review',
  'feet',
  'alone',
  'on-feet',
  'all',
  'join',
  'catch-up',
  'sides',
  'run',
  'free-run',
  'cool-down',
])
export type DrillKind = z.infer<typeof DrillKind>

/** Facing the class as its mirror image, or with the back to it. */
export const Stand = z.enum(['mirror', 'back'])
export type Stand = z.infer<typeof Stand>

/** The longest a drill may be repeated, a side. */
export const MOST_REPEATS = 99
/** Seconds; an hour of talk is no drill. */
export const MOST_TALK = 3600

/** One stretch of a class: what is danced, on which sides, how fast, how often (model 10). */
export const Drill = z
  .object({
    id: z.string().min(1),
    kind: DrillKind,
    /** Id of the combination; warm-up and cool-down are made of moves instead. */
    combination: z.string().min(1).optional(),
    /** Ids of the phrases in the order they are danced; none stands for all of the combination. */
    phrases: z.array(z.string().min(1)).readonly(),
    layers: z.array(Layer).min(1).readonly(),
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
    /** Ids of the moves of a warm-up or a cool-down. */
    moves: z.array(z.string().min(1)).readonly().optional(),
    /** Ids of events that are danced in their easier form. */
    eased: z.array(z.string().min(1)).readonly().optional(),
    /** Stays as it is when the rest is planned again. */
    locked: z.literal(true).optional(),
  })
  .readonly()
export type Drill = z.infer<typeof Drill>

/** What makes two drills the same one, however often and fast it is danced. */
export const drillKey = ({
  kind,
  combination,
  phrases,
  layers,
  tempo,
}: Omit<Drill, 'id'>): string =>
  [kind, combination ?? '', phrases.join('+'), layers.join('+'), kind === 'run' ? tempo : ''].join(
    '|',
  )

const list = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

/** What a drill is called. @param names of its phrases. */
export function titleOf({ kind, layers, tempo, sides }: Drill, names: readonly string[]): string {
  const where = names.length > 0 ? ` · ${[...new Set(names)].join(' ')}` : ''
  const above = layers.filter((layer) => layer !== 'feet').map((layer) => layerWord[layer])
  switch (kind) {
    case 'warm-up':
      return 'Warm up'
    case 'cool-down':
      return 'Cool down'
    case 'review':
      return `Review${where}`
    case 'feet':
      return `Feet${where}`
    case 'alone':
      return `${list(above)} alone${where}`
    case 'on-feet':
      return `${list(above)} on the feet${where}`
    case 'all':
      return `${above.length > 1 ? 'All layers' : list(layers.map((layer) => layerWord[layer]))}${where}`
    case 'join':
      return `Join${where}`
    case 'catch-up':
      return `${sides.map((side) => sideWord[side]).join(' and ')} side again${where}`
    case 'sides':
      return `Both sides${where}`
    case 'run':
      return `Run at ${tempo}${where}`
    case 'free-run':
      return `Free runs with music${where}`
  }
}
