import Dexie, { type Table } from 'dexie'
import { z } from 'zod'
import type { KeptFeatures } from '../core/beats/kept'
import { Summary } from '../core/findings/summary'
import { OwnMove } from '../core/moves/move'
import type { Upgrade } from '../core/record/upgrade'

/** One stored combination. The record has its own schema version; this row only carries it. */
export const Row = z.object({
  id: z.string(),
  /** Goes up with every save, so that two windows notice each other. */
  revision: z.int().positive(),
  /** Milliseconds since 1970. */
  changedAt: z.number(),
  removedAt: z.number().optional(),
  record: z.record(z.string(), z.unknown()),
})
export type Row = z.infer<typeof Row>

/** What the shelf shows of a row; kept beside it, so that thousands are listed without reading them. */
export const SummaryRow = z.object({
  id: z.string(),
  changedAt: z.number(),
  removedAt: z.number().optional(),
  summary: Summary,
})
export type SummaryRow = z.infer<typeof SummaryRow>

export const OWN_VERSION = 2

/** Version 2 knows of an own move what it risks and needs, its forms, its own time, where it starts and what else it is called. */
export const OWN_UPGRADES: readonly Upgrade[] = [{ from: 1, up: (record) => record }]

/** What an instructor changed in the vocabulary: a name, a favourite, or a move of her own. */
export const OwnEntry = z
  .object({
    schemaVersion: z.literal(OWN_VERSION),
    /** The id of the move. */
    id: z.string().min(1),
    name: z.string().min(1).optional(),
    favourite: z.literal(true).optional(),
    move: OwnMove.optional(),
  })
  .readonly()
export type OwnEntry = z.infer<typeof OwnEntry>

/** The house rules, one row. */
export const HouseRow = z.object({
  id: z.enum(['house', 'damaged house']),
  record: z.record(z.string(), z.unknown()),
})
export type HouseRow = z.infer<typeof HouseRow>

/** A plan, a class or a group. The record has its own schema version; this row only carries it. */
export const RecordRow = z.object({
  id: z.string(),
  /** Milliseconds since 1970. */
  changedAt: z.number(),
  removedAt: z.number().optional(),
  record: z.record(z.string(), z.unknown()),
})
export type RecordRow = z.infer<typeof RecordRow>

/** A class under way, as the floor writes it down. */
export const UnderWayRow = z.object({
  id: z.string(),
  /** Goes up with every step: of two notes the higher one is the newer. */
  step: z.int().nonnegative(),
  record: z.record(z.string(), z.unknown()),
})
export type UnderWayRow = z.infer<typeof UnderWayRow>

export const SPOKEN_VERSION = 1

/** A word the instructor said herself. */
export const SpokenRow = z.object({
  schemaVersion: z.literal(SPOKEN_VERSION),
  /** The text without case and accents. */
  id: z.string().min(1),
  text: z.string().min(1),
  samples: z.instanceof(Float32Array),
  /** Samples a second. */
  rate: z.number().positive(),
  /** Seconds until its vowel. */
  onset: z.number().min(0),
})
export type SpokenRow = z.infer<typeof SpokenRow>

/** The sound of a song, or a file it can be read from again. Never read where songs are listed. */
interface MediaRow {
  /** The mark of the file. */
  readonly id: string
  readonly blob: Blob
  readonly bytes: number
}
interface HandleRow {
  readonly id: string
  readonly handle: FileSystemFileHandle
}

/** The file a combination was opened from and can be saved back into. */
export interface FileRow extends HandleRow {
  /** When the file was changed last, as it was read or written here: milliseconds since 1970. */
  readonly at: number
}

/** What was heard of a file; can be heard again, so it may be thrown away. */
interface HeardRow {
  readonly id: string
  readonly version: number
  readonly features: KeptFeatures
}

/** Two seconds or so of a film of the room. */
interface TakePieceRow {
  /** In the order they came. */
  readonly id?: number
  /** Id of the take. */
  readonly take: string
  readonly piece: Blob
  readonly bytes: number
}

/** What was done once and for all, such as loading the demo. */
interface Flag {
  readonly name: string
  readonly at: number
}

export class Database extends Dexie {
  readonly combinations!: Table<Row, string>
  readonly summaries!: Table<SummaryRow, string>
  readonly own!: Table<OwnEntry, string>
  readonly flags!: Table<Flag, string>
  readonly settings!: Table<HouseRow, string>
  readonly plans!: Table<RecordRow, string>
  readonly classes!: Table<RecordRow, string>
  readonly groups!: Table<RecordRow, string>
  readonly spoken!: Table<SpokenRow, string>
  readonly floors!: Table<UnderWayRow, string>
  readonly songs!: Table<RecordRow, string>
  readonly routines!: Table<RecordRow, string>
  readonly media!: Table<MediaRow, string>
  readonly handles!: Table<HandleRow, string>
  readonly heard!: Table<HeardRow, string>
  readonly takes!: Table<RecordRow, string>
  readonly takePieces!: Table<TakePieceRow, number>
  readonly sentPages!: Table<RecordRow, string>
  readonly series!: Table<RecordRow, string>
  readonly files!: Table<FileRow, string>

  constructor(name = 'molten-sway') {
    super(name)
    this.version(1).stores({ combinations: 'id, changedAt', flags: 'name' })
    // Summaries of what is there already are made when the shelf is first listed.
    this.version(2).stores({ summaries: 'id, changedAt', own: 'id' })
    this.version(3).stores({ settings: 'id' })
    this.version(4).stores({ plans: 'id', classes: 'id', groups: 'id', spoken: 'id' })
    // The floor's place stood in local storage alone, which a browser that is killed loses.
    this.version(5).stores({ floors: 'id' })
    this.version(6).stores({ songs: 'id', media: 'id', handles: 'id', heard: 'id' })
    this.version(7).stores({ routines: 'id' })
    this.version(8).stores({ takes: 'id', takePieces: '++id, take' })
    this.version(9).stores({ sentPages: 'id' })
    this.version(10).stores({ series: 'id' })
    this.version(11).stores({ files: 'id' })
  }
}
