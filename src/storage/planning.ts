import { z } from 'zod'
import { readSoundChoice, type SoundChoice, USUAL_SOUND } from '../core/class/soundChoice'
import { readUnderWay, type UnderWay } from '../core/class/underWay'
import { type ClassEntry, type Group, readClass, readGroup } from '../core/diary/diary'
import { type Filmed, readFilmed } from '../core/lesson/filmed'
import { type Plan, readPlan } from '../core/plan/plan'
import { readSentPage, type SentPage } from '../core/practice/sentPage'
import { folded } from '../core/record/folded'
import { readSeries, type Series } from '../core/series/series'
import { type Database, SPOKEN_VERSION, SpokenRow, UnderWayRow } from './database'
import { kept, type OnKept } from './keeping'
import { createRecords, type Keeping, type Records } from './records'
import { createRepository } from './repository'
import { isUnreadable, readSlot, type Slots, slotsFrom, writeSlot } from './slots'

/** Words the instructor said herself. */
export interface SpokenWords {
  readonly list: () => Promise<readonly SpokenRow[]>
  readonly save: (word: Omit<SpokenRow, 'schemaVersion' | 'id'>) => Promise<void>
  readonly remove: (id: string) => Promise<void>
  /** Takes on words of a backup; what is here already stays. */
  readonly merge: (words: readonly SpokenRow[]) => Promise<number>
  readonly watch: (changed: () => void) => () => void
}

/** A class under way, and how many times it was written down. */
export interface UnderWayNote {
  readonly session: UnderWay
  readonly step: number
}

/**
 * A class under way, written down with every step: at once in local storage, since a closed tab
 * does not wait, and in the database, since a browser that is killed loses the other.
 */
interface UnderWayNotes {
  /** The step it was written as; what is newer already stays. */
  readonly write: (session: UnderWay, step: number) => void
  /** What is known at once, also of what another window has just written. */
  readonly glance: (id: string) => UnderWayNote | undefined
  readonly read: (id: string) => Promise<UnderWayNote | undefined>
  /** Those that are not over. */
  readonly list: () => Promise<readonly UnderWay[]>
  readonly clear: (id: string) => Promise<void>
}

/** What the instructor likes to hear on the floor. */
interface SoundNotes {
  readonly read: () => SoundChoice
  readonly write: (choice: SoundChoice) => void
}

/** Lessons on film, each under the id of its combination. */
interface FilmedNotes {
  readonly read: (id: string) => Filmed | undefined
  readonly write: (filmed: Filmed) => void
}

/** What a first visit finds. */
export interface PlanningDemo {
  readonly plans: readonly Plan[]
  readonly classes: readonly ClassEntry[]
  readonly groups: readonly Group[]
}

const Lists = z.object({
  plans: z.array(z.record(z.string(), z.unknown())),
  classes: z.array(z.record(z.string(), z.unknown())),
  groups: z.array(z.record(z.string(), z.unknown())),
})

/** @throws ZodError where the demo is damaged. */
export function readPlanningDemo(raw: unknown): PlanningDemo {
  const { plans, classes, groups } = Lists.parse(raw)
  return {
    plans: plans.map(readPlan),
    classes: classes.map(readClass),
    groups: groups.map(readGroup),
  }
}

/** Plans, classes and groups, and what belongs to them. */
export interface Planning {
  readonly plans: Records<Plan>
  readonly classes: Records<ClassEntry>
  readonly groups: Records<Group>
  readonly series: Records<Series>
  /** Practice pages that were sent out, and what came back of them. */
  readonly sent: Records<SentPage>
  readonly spoken: SpokenWords
  readonly underWay: UnderWayNotes
  readonly sound: SoundNotes
  /** The lesson that was filmed last of each combination. */
  readonly filmed: FilmedNotes
  /** Saves what windows that are gone have left; returns how much there was. */
  readonly recover: () => Promise<number>
  /** Loads the demo on the first visit, and never again. */
  readonly addDemoOnce: (read: () => Promise<PlanningDemo>) => Promise<void>
}

const PREFIX = 'molten-sway floor '

const SOUND_SLOT = 'molten-sway sound'
const FILMED_PREFIX = 'molten-sway lesson '

const createFilmedNotes = (slots: Slots): FilmedNotes => ({
  read: (id) => readSlot(slots, FILMED_PREFIX + id, readFilmed),
  write: (filmed) => writeSlot(slots, FILMED_PREFIX + filmed.id, filmed),
})

/** A note; one of an older app is the class itself, before all others. */
function readNote(raw: Record<string, unknown>): UnderWayNote {
  if (raw.kind === 'floor') return { session: readUnderWay(raw), step: 0 }
  const { step, record } = UnderWayRow.parse(raw)
  return { session: readUnderWay(record), step }
}

function createUnderWayNotes(
  { floors }: Database,
  slots: Slots,
  onKept: Keeping['onKept'],
): UnderWayNotes {
  const glance = (id: string) => readSlot(slots, PREFIX + id, readNote)
  const stored = (raw: UnderWayRow | undefined): UnderWayNote | undefined => {
    try {
      return raw && readNote({ ...raw })
    } catch (error) {
      if (!isUnreadable(error)) throw error
      return undefined
    }
  }
  const newer = (a: UnderWayNote | undefined, b: UnderWayNote | undefined) =>
    !a || (b && b.step > a.step) ? b : a
  return {
    write(session, step) {
      const row: UnderWayRow = { id: session.id, step, record: { ...session } }
      writeSlot(slots, PREFIX + session.id, row)
      kept(
        floors.put(row),
        onKept,
        'Make room on the disk and go on: the place in this class is written down again with the next drill.',
      ).catch(() => {})
    },
    glance,
    read: async (id) => newer(stored(await floors.get(id).catch(() => undefined)), glance(id)),
    async list() {
      const rows = await floors.toArray()
      const ids = new Set([
        ...rows.map(({ id }) => id),
        ...slotsFrom(slots, PREFIX).map((slot) => slot.slice(PREFIX.length)),
      ])
      const byId = new Map(rows.map((row) => [row.id, row]))
      return [...ids]
        .flatMap((id) => newer(stored(byId.get(id)), glance(id))?.session ?? [])
        .filter(({ phase }) => phase !== 'over')
    },
    async clear(id) {
      slots.removeItem(PREFIX + id)
      await floors.delete(id)
    },
  }
}

const createSoundNotes = (slots: Slots): SoundNotes => ({
  read: () => readSlot(slots, SOUND_SLOT, readSoundChoice) ?? USUAL_SOUND,
  write: (choice) => writeSlot(slots, SOUND_SLOT, choice),
})

function createSpoken(database: Database, onKept: OnKept): SpokenWords {
  const repository = createRepository<SpokenRow, SpokenRow>(database, {
    table: database.spoken,
    read: (row) => SpokenRow.parse(row),
    row: (word) => word,
    conflict: 'made in what is there',
  })
  return {
    list: async () => (await repository.list()).all,
    async save(word) {
      const row = { schemaVersion: SPOKEN_VERSION, id: folded(word.text), ...word } as const
      const saved = repository.change(row.id, () => row)
      await kept(saved, onKept, 'Make room on the disk, then say it again.')
    },
    async remove(id) {
      await kept(
        repository.change(id, () => undefined),
        onKept,
      )
    },
    merge: repository.merge,
    watch: repository.watch,
  }
}

/** The only code that touches plans, classes, groups, spoken words and notes from the floor. */
export function createPlanning(database: Database, slots: Slots, keeping: Keeping): Planning {
  const plans = createRecords(database, database.plans, readPlan, keeping)
  const classes = createRecords(database, database.classes, readClass, keeping)
  const groups = createRecords(database, database.groups, readGroup, keeping)
  const series = createRecords(database, database.series, readSeries, keeping)
  const sent = createRecords(database, database.sentPages, readSentPage, keeping)
  return {
    plans,
    classes,
    groups,
    series,
    sent,
    spoken: createSpoken(database, keeping.onKept),
    underWay: createUnderWayNotes(database, slots, keeping.onKept),
    sound: createSoundNotes(slots),
    filmed: createFilmedNotes(slots),
    recover: async () =>
      (await plans.recover()) +
      (await classes.recover()) +
      (await groups.recover()) +
      (await series.recover()) +
      (await sent.recover()),
    async addDemoOnce(read) {
      if (await database.flags.get(DEMO_FLAG)) return
      const demo = await read()
      const { flags } = database
      const tables = [flags, database.plans, database.classes, database.groups]
      await database.transaction('rw', tables, async () => {
        // Two windows may both have got this far.
        if (await flags.get(DEMO_FLAG)) return
        await plans.merge(demo.plans)
        await classes.merge(demo.classes)
        await groups.merge(demo.groups)
        await flags.put({ name: DEMO_FLAG, at: keeping.now() })
      })
    },
  }
}

const DEMO_FLAG = 'demo of teaching'
