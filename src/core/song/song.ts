import { z } from 'zod'
import { PART_KINDS } from '../beats/parts'
import { FIRST_FAMILIES } from '../moves/move'
import { remembered } from '../record/remembered'
import { type Upgrade, upgrade } from '../record/upgrade'
import { TICKS_PER_COUNT } from '../time/time'
import { beaten, type TimeMap } from '../time/timeMap'

export const SONG_VERSION = 1

/** Counts a song may have, and milliseconds between two of them. */
export const LEAST_COUNTS = 2
export const MOST_COUNTS = 6000
export const LEAST_GAP = 200
export const MOST_GAP = 4000
/** A phrase of the count is no longer. */
export const MOST_PHRASE = 16

/** The file a song is heard from. Its sound is kept apart, or not here at all. */
const Media = z
  .object({
    name: z.string(),
    type: z.string(),
    bytes: z.int().min(0),
    seconds: z.number().min(0),
    /** Whether it has a picture too. */
    picture: z.boolean(),
    /** What tells this very file: a hash of its size, its beginning and its end. */
    mark: z.string().regex(/^[0-9a-f]{64}$/),
    keep: z.enum(['here', 'linked']),
    /** The seconds of the file that are the song, where it is longer. */
    part: z
      .object({ from: z.number().min(0), to: z.number().positive() })
      .readonly()
      .optional(),
    /** Milliseconds by which this copy begins later than the one that was counted. */
    shift: z.int().min(-5000).max(5000),
  })
  .readonly()

/** "This is 1": a place of a count from which is counted anew, in phrases of so many. */
const One = z
  .object({
    at: z.int().min(0),
    counts: z.int().min(1).max(MOST_PHRASE),
    label: z.string().min(1).max(40).optional(),
    /** As it was heard, and nobody has said so. */
    found: z.literal(true).optional(),
  })
  .readonly()
export type One = z.infer<typeof One>

/** The counts of a song, as they were found, tapped or set by hand. */
export const SongCounts = z
  .object({
    /** When each is, in whole milliseconds, rising. */
    ms: z.array(z.int().min(0)).min(LEAST_COUNTS).max(MOST_COUNTS).readonly(),
    by: z.enum(['found', 'tapped', 'hand']),
    /** Places of those that were set by hand, and are kept when it is counted again. */
    fixed: z.array(z.int().min(0)).readonly(),
    /** How sure each eight counts in a row are, in hundredths. */
    sure: z.array(z.int().min(0).max(100)).readonly(),
    /** In order; counting begins at the first. */
    ones: z.array(One).min(1).readonly(),
    /** Where it may well be counted anew, as it was heard: never without being asked. */
    anew: z.array(z.int().min(0)).readonly(),
    /** Where nobody counts: half-open, by places. */
    silent: z.array(z.object({ from: z.int().min(0), to: z.int().min(1) }).readonly()).readonly(),
  })
  .superRefine(({ ms, fixed, ones, anew, silent }, context) => {
    const say = (message: string, path: (string | number)[]) =>
      context.addIssue({ code: 'custom', message, path })
    for (let i = 1; i < ms.length; i++) {
      const gap = (ms[i] as number) - (ms[i - 1] as number)
      if (gap < LEAST_GAP || gap > MOST_GAP)
        say(`count ${i + 1} is ${gap} ms behind the one before it`, ['ms', i])
    }
    const isRising = (places: readonly number[]) =>
      places.every((at, i) => at < ms.length && (i === 0 || at > (places[i - 1] as number)))
    if (!isRising(fixed)) say('not in order', ['fixed'])
    if (!isRising(anew)) say('not in order', ['anew'])
    if (!isRising(ones.map(({ at }) => at))) say('not in order', ['ones'])
    if (!isRising(silent.flatMap(({ from, to }) => [from, to - 0.5])))
      say('not in order', ['silent'])
  })
  .readonly()
export type SongCounts = z.infer<typeof SongCounts>

const SectionKind = z.enum(PART_KINDS)

/** A part of a song, to where the next one begins. */
const Section = z
  .object({
    id: z.string().min(1),
    at: z.int().min(0),
    label: z.string().min(1).max(40),
    kind: SectionKind,
    energy: z.int().min(1).max(5),
    /** Id of the section it is like. */
    as: z.string().min(1).optional(),
    /** As it was heard, and nobody has said yes to it. */
    found: z.literal(true).optional(),
  })
  .readonly()
export type Section = z.infer<typeof Section>

/** A song of the instructor: her file, its counts, its sections. */
export const Song = z
  .object({
    kind: z.literal('song'),
    schemaVersion: z.literal(SONG_VERSION),
    id: z.string().min(1),
    title: z.string().min(1).max(120),
    by: z.string().max(120),
    notes: z.string().max(4000),
    family: z.enum(FIRST_FAMILIES).optional(),
    /** Id of a rhythm that goes with it. */
    rhythm: z.string().min(1).optional(),
    media: Media,
    counts: SongCounts,
    /** In order, the first one where the song begins. */
    sections: z.array(Section).readonly(),
    /** Where playing waits. */
    stops: z
      .array(z.object({ at: z.int().min(0), label: z.string().max(40) }).readonly())
      .readonly(),
    /** The instructor's own words, called in place of numbers. */
    words: z
      .array(z.object({ at: z.int(), text: z.string().min(1).max(24) }).readonly())
      .max(2000)
      .readonly(),
  })
  .refine(({ sections }) => sections.every(({ at }, i) => at > (sections[i - 1]?.at ?? -1)), {
    message: 'sections are not in order',
    path: ['sections'],
  })
  .readonly()
export type Song = z.infer<typeof Song>

const UPGRADES: readonly Upgrade[] = []

/**
 * Reads a stored song.
 * @throws UserError or ZodError when it is of a newer version, or damaged.
 */
export const readSong = (record: Record<string, unknown>): Song =>
  Song.parse(upgrade(record, SONG_VERSION, UPGRADES))

/** Where counting begins. */
export const firstOne = ({ ones }: Pick<SongCounts, 'ones'>): number => ones[0]?.at ?? 0

/** The tick of a count; of a place between counts one that is not whole. */
export const tickOfCount = ({ counts }: Pick<Song, 'counts'>, at: number): number =>
  TICKS_PER_COUNT * (at - firstOne(counts))

/** The count that has a tick; not rounded. */
export const countOfTick = ({ counts }: Pick<Song, 'counts'>, tick: number): number =>
  tick / TICKS_PER_COUNT + firstOne(counts)

/** When a place of a song is heard, in seconds. */
export const secondsOfCount = (song: Song, at: number): number =>
  songTime(song).secondsAt(tickOfCount(song, at))

/** Counts a minute of a stretch, in the mean; behind the last count as before it. */
export function tempoBetween({ counts }: Pick<Song, 'counts'>, from: number, to: number): number {
  const { ms } = counts
  const first = Math.max(0, Math.min(from, ms.length - 2))
  const last = Math.max(first + 1, Math.min(to, ms.length - 1))
  return (60_000 * (last - first)) / ((ms[last] as number) - (ms[first] as number))
}

/** Whether nobody counts there. */
export const isSilent = ({ silent }: SongCounts, at: number): boolean =>
  silent.some(({ from, to }) => at >= from && at < to)

/** How the ticks of a song go by: 0 is where counting begins, what is before it is below 0. */
export const songTime = ({ counts, media }: Pick<Song, 'counts' | 'media'>): TimeMap =>
  timeOf(counts, media.shift)

/** Asked for at every turn, and the same for as long as nobody counts it otherwise. */
const timeOf = remembered(
  (counts: SongCounts, shift: number): TimeMap =>
    beaten(
      counts.ms.map((at, i) => ({
        tick: tickOfCount({ counts }, i),
        seconds: (at + shift) / 1000,
      })),
    ),
)

/** Where a count is, as it is said: `Chorus 3·5` is the fifth count of the third phrase. */
export interface SongPlace {
  readonly section: Section | undefined
  /** Phrases from the section's beginning, from 1. */
  readonly phrase: number
  /** Counts in it, from 1. */
  readonly count: number
}

/** Sure counts, those worth a look, and guesses: from these hundredths on. */
const SURE = { sure: 60, look: 30 } as const
/** Counts that are told to be sure together. */
export const SURE_COUNTS = 8

export type Sureness = 'sure' | 'look' | 'guess'

const sureness = (hundredths: number): Sureness =>
  hundredths >= SURE.sure ? 'sure' : hundredths >= SURE.look ? 'look' : 'guess'

/** How sure the counts round a place are: whoever tapped or set them is. */
export const sureAt = ({ sure }: SongCounts, at: number): Sureness =>
  sureness(sure[Math.floor(at / SURE_COUNTS)] ?? 100)

/** How many places are worth a look: eights in a row are one. */
export const unsurePlaces = ({ sure }: SongCounts): number =>
  sure.filter((one, i) => sureness(one) !== 'sure' && sureness(sure[i - 1] ?? 100) === 'sure')
    .length

/** The one that is counted from at a place; the first where counting has not begun. */
export const oneAt = ({ ones }: SongCounts, at: number): One =>
  ones.findLast((one) => one.at <= at) ?? (ones[0] as One)

/** Counts from one to the next 1 of a phrase, or to where counting begins, or begins anew. */
export function leftInPhrase({ counts }: Pick<Song, 'counts'>, at: number): number {
  const one = oneAt(counts, at)
  const next = counts.ones.find((each) => each.at > at)?.at ?? Number.POSITIVE_INFINITY
  const own = at < one.at ? one.at - at : one.counts - ((at - one.at) % one.counts)
  return Math.min(own, next - at)
}

/** Where a count of a song is; before counting begins counts are below 1. */
export function placeIn(
  { counts, sections }: Pick<Song, 'counts' | 'sections'>,
  at: number,
): SongPlace {
  const one = oneAt(counts, at)
  const section = sections.findLast((each) => each.at <= at)
  // Phrases are told from where the section begins, or counting began anew within it.
  const from = Math.max(one.at, section && section.at <= at ? section.at : one.at)
  const off = (from - one.at) % one.counts
  const into = at - from + off
  return at < one.at
    ? { section, phrase: 0, count: at - one.at + 1 }
    : { section, phrase: Math.floor(into / one.counts) + 1, count: (into % one.counts) + 1 }
}
