import { z } from 'zod'
import { LAYERS, Layer } from '../body/layers'
import { Side } from '../body/side'
import { DancedCombination } from '../combination/combination'
import { HouseRules } from '../house/house'
import { MOST_LETTERS } from '../plan/drill'
import type { DancedMove } from '../practice/movesUsed'
import { Tempo } from '../time/tempo'

const Text = z.string().max(MOST_LETTERS)
const Index = z.int().min(0).max(100_000)
/** Rises with each news of a kind: what is older than what is known is dropped. */
const N = z.number().min(0)
/** What is danced, by its content. */
const Mark = z.string().min(1).max(40)
/** A moment: a tick, and the second it is heard at. */
const Knots = z
  .array(z.tuple([z.number(), z.number()]))
  .min(2)
  .max(4000)
  .readonly()

/** A move as it is danced: it was read and checked where it comes from. */
const Moved = z.custom<DancedMove>(
  (value) =>
    typeof value === 'object' &&
    value !== null &&
    'id' in value &&
    typeof value.id === 'string' &&
    'layer' in value &&
    LAYERS.some((layer) => layer === value.layer),
  'is no move',
)

/** What is danced: once a class and combination. */
export const PieceNews = z
  .object({
    t: z.literal('piece'),
    n: N,
    mark: Mark,
    combination: DancedCombination,
    moves: z.array(Moved).max(500).readonly(),
    house: HouseRules,
    /** How its ticks go by, where that is not one tempo: danced to a song. */
    knots: Knots.optional(),
  })
  .readonly()
export type PieceNews = z.infer<typeof PieceNews>

/** Something that is called: its tick, the tick of what it is of, its kind and its words. */
const CallNews = z
  .object({
    at: z.number(),
    of: z.number(),
    what: z.string().max(20),
    text: Text,
    /** A voice says it; on its own count where that is set. */
    say: z.enum(['on', 'ahead']).optional(),
  })
  .readonly()

/** A segment of a drill as it is performed. */
export const PartNews = z
  .object({
    from: z.int(),
    length: z.int().min(1),
    dancing: z.object({ part: z.string(), side: Side }).readonly(),
    round: Index,
    rounds: Index,
    countIn: z.array(z.int()).readonly().optional(),
    isStill: z.boolean(),
    isCalled: z.boolean(),
    /** Where several dance together. */
    isTogether: z.boolean(),
    calls: z.array(CallNews).max(4000).readonly(),
    time: z.union([Tempo, Knots]),
    /** Counts of the dance nobody hears a number for, in a song. */
    uncounted: z.array(z.int()).max(4000).readonly().optional(),
  })
  .readonly()
export type PartNews = z.infer<typeof PartNews>

/** How it is danced: once a drill, and again where its tempo is changed. */
export const DrillNews = z
  .object({
    t: z.literal('drill'),
    n: N,
    /** Which one it is in this class; another tempo makes it another one. */
    drill: Mark,
    /** Of the piece it dances. */
    mark: Mark,
    title: Text,
    speed: z.string().max(20),
    stand: z.enum(['mirror', 'back']),
    layers: z.array(Layer).readonly(),
    /** The side it begins with; absent where both are in each round. */
    lead: Side.optional(),
    /** How often, as it is said before it begins. */
    times: z.string().max(60),
    /** The tick it stands at before it begins. */
    from: z.int(),
    /** From its second round on it is seen from behind. */
    isShown: z.boolean(),
    parts: z.array(PartNews).min(1).max(1000).readonly(),
    /** Where in its song a tick is, from that tick on. */
    places: z
      .array(z.tuple([z.int(), Text]))
      .max(4000)
      .readonly()
      .optional(),
  })
  .readonly()
export type DrillNews = z.infer<typeof DrillNews>

/** Where it is: from a moment of the server's clock on, in milliseconds since 1970. */
export const RunNews = z
  .object({ t: z.literal('run'), n: N, drill: Mark, at: z.number(), tick: z.number() })
  .readonly()
export type RunNews = z.infer<typeof RunNews>

/** Where a walk is. */
export const WalkNews = z
  .object({
    /** Absent before it begins. */
    count: z.int().optional(),
    /** Nothing of it is behind. */
    isFirst: z.boolean(),
    /** Where it stands: where the count has led. */
    tick: z.number(),
    side: Side,
    phrase: Text,
    /** What starts on the count, a line a layer. */
    lines: z
      .array(z.object({ layer: Layer, text: Text }).readonly())
      .max(40)
      .readonly(),
    weight: Text.optional(),
    next: Text.optional(),
  })
  .readonly()
export type WalkNews = z.infer<typeof WalkNews>

/** Nothing sounds. */
export const RestNews = z
  .object({
    t: z.literal('rest'),
    n: N,
    phase: z.enum(['ready', 'talk', 'walk', 'asking', 'over']),
    title: Text,
    /** What is to be read. */
    text: Text,
    /** When it is over, as planned, on the server's clock. */
    until: z.number().optional(),
    walk: WalkNews.optional(),
    /** What is walked or danced next, where something is. */
    drill: Mark.optional(),
  })
  .readonly()
export type RestNews = z.infer<typeof RestNews>

/** What the floor tells those who follow. */
export const FloorNews = z.discriminatedUnion('t', [PieceNews, DrillNews, RunNews, RestNews])
export type FloorNews = z.infer<typeof FloorNews>
