import { byDate, type ClassEntry, daysBetween, type Verdict } from '../diary/diary'
import { paceOf } from '../diary/reached'
import { frameRoom } from '../plan/frame'
import type { Materials } from '../plan/material'
import { type Plan, SLOT_MINUTES } from '../plan/plan'
import type { Routine } from '../routine/routine'
import { classDays, minutesOf, type Series, type SeriesDay } from './series'
import { type ClassRoom, type SpreadClass, spread } from './spread'
import { layersOfUnit, type SeriesUnit, taughtOf, unitsOf, wishesIn } from './units'

/** A class of a series: what is planned for it, or what was. */
export interface Column {
  readonly day: SeriesDay
  /** From 0. */
  readonly index: number
  readonly minutes: number
  /** It is over: nothing of it changes any more. */
  readonly isPast: boolean
  /** In seconds: what is not teaching, what goes over what there is, what could be new. */
  readonly fixed: number
  readonly review: number
  readonly run: number
  readonly room: number
  /** New in it, in order; of a class that is over as it was planned then. */
  readonly units: readonly SeriesUnit[]
  /** What was danced whole in it, for the first time. */
  readonly taught: readonly SeriesUnit[]
  /** As the diary has it. */
  readonly entry: ClassEntry | undefined
}

/** A series as it stands on a day. */
export interface Course {
  readonly columns: readonly Column[]
  readonly units: readonly SeriesUnit[]
  /** What has no room, in order. */
  readonly left: readonly SeriesUnit[]
  /** Planned for a class that is over, and not taught yet. */
  readonly late: readonly SeriesUnit[]
  /** Taught before it was planned. */
  readonly ahead: readonly SeriesUnit[]
  /** The class that comes next. */
  readonly next: Column | undefined
}

/** What is known when a series is looked at. */
export interface Around {
  readonly materials: Materials
  readonly routines: readonly Routine[]
  /** All classes of the diary, and all plans. */
  readonly classes: readonly ClassEntry[]
  readonly plans: readonly Plan[]
  /** As it is written in a calendar. */
  readonly today: string
}

/** The share of a class its pauses take. */
const PAUSES = 0.1

/** Seconds of a class that are neither new nor review: beginning, pauses, end. */
function fixedOf(series: Series, minutes: number, { materials, routines }: Around): number {
  const taught = taughtOf(series, materials, routines)
  const [first] = taught
  if (!first) return 0
  const { usual } = frameRoom(
    { ...wishesIn(series, first), minutes },
    taught.map(({ combination }) => combination),
    materials,
  )
  const pauses = minutes > SLOT_MINUTES ? PAUSES * minutes * 60 : 0
  return usual.hello + usual.warmUp + usual.recap + usual.coolDown + pauses
}

/** This group may need so many times what the steps take, at the most (h). */
const SLOWEST = 2

/** How many times what the steps take this group has needed until a day: never less than they take (teaching 2.8). */
function slownessOf(
  { group }: Series,
  units: readonly SeriesUnit[],
  day: SeriesDay | undefined,
  { classes, materials }: Around,
): number {
  const own = classes.filter(
    (one) => group !== undefined && one.group === group && (!day || one.date < day.day),
  )
  const pace = paceOf(own, materials)
  const counts = units.reduce((sum, unit) => sum + unit.counts, 0)
  const usual = units.reduce((sum, { seconds }) => sum + seconds, 0) / 60 / (counts / 8)
  return pace === undefined || counts === 0 ? 1 : Math.min(SLOWEST, Math.max(1, pace / usual))
}

/** The class of the diary that is one of a series: begun from it, or of its group on its day. */
export const entryOf = (
  { id, group }: Series,
  { id: dayId, day }: SeriesDay,
  classes: readonly ClassEntry[],
): ClassEntry | undefined =>
  classes.find(({ series }) => series?.id === id && series.day === dayId) ??
  classes.find(
    (one) => !one.series && one.group !== undefined && one.group === group && one.date === day,
  )

/** What was danced of a unit so far: the sides it was danced whole on, and how it went last. */
interface Danced {
  readonly sides: Set<string>
  last: Verdict | undefined
}

/** Ids of the units that are taught once some classes are over: whole, on their sides, not left as not yet. */
function taughtIn(
  units: readonly SeriesUnit[],
  classes: readonly ClassEntry[],
  series: Series,
  around: Around,
): ReadonlySet<string> {
  const danced = new Map(
    units.map(({ id }): [string, Danced] => [id, { sides: new Set(), last: undefined }]),
  )
  const sidesOf = new Map(
    taughtOf(series, around.materials, around.routines).map((one) => [
      one.combination.id,
      wishesIn(series, one).sides === 'both' ? 2 : 1,
    ]),
  )
  const layersIn = new Map(units.map((unit) => [unit.id, layersOfUnit(unit, around.materials)]))
  for (const entry of [...classes].sort(byDate))
    for (const row of entry.danced)
      for (const unit of units) {
        const own = danced.get(unit.id)
        if (!own || row.combination !== unit.combination) continue
        if (!row.phrases.some(({ id }) => id === unit.phrase)) continue
        if (layersIn.get(unit.id)?.some((layer) => !row.layers.includes(layer))) continue
        for (const side of ['R', 'L'] as const) if (row.rounds[side] > 0) own.sides.add(side)
        own.last = row.verdict ?? own.last
      }
  return new Set(
    units
      .filter(({ id, combination }) => {
        const own = danced.get(id)
        return own && own.sides.size >= (sidesOf.get(combination) ?? 2) && own.last !== 'not-yet'
      })
      .map(({ id }) => id),
  )
}

/**
 * Works out what each class of a series teaches, as it stands: what is over stays as it was, what
 * was taught is asked from the diary, the rest is shared out anew after each class, moving as
 * little as it can.
 */
export function courseOf(series: Series, around: Around): Course {
  const { materials, routines, classes, today } = around
  const units = unitsOf(series, materials, routines)
  const days = classDays(series)
  const entries = days.map((day) => entryOf(series, day, classes))
  const isOver = (i: number) =>
    daysBetween(days[i]?.day ?? today, today) > 0 || (entries[i]?.danced.length ?? 0) > 0
  // A class that was given out of turn does not close those before it.
  const overs = days.findIndex((_, i) => !isOver(i))
  const over = overs < 0 ? days.length : overs
  const fixed = new Map<number, number>()
  const fixedFor = (minutes: number) => {
    const known = fixed.get(minutes) ?? fixedOf(series, minutes, around)
    fixed.set(minutes, known)
    return known
  }
  const coming: readonly SpreadClass[] = days.map((day, index) => {
    const minutes = minutesOf(series, day)
    return { id: day.id, seconds: minutes * 60, fixed: fixedFor(minutes), index }
  })
  const locks = new Map(series.locks.map(({ unit, day }) => [unit, day]))
  const byId = new Map(units.map((unit) => [unit.id, unit]))
  const find = (ids: readonly string[]) => ids.flatMap((id) => byId.get(id) ?? [])
  /** What a class was planned to teach, where its plan is kept. */
  const plannedIn = ({ id }: SeriesDay): readonly string[] | undefined => {
    const own = around.plans.find((one) => one.series?.id === series.id && one.series.day === id)
    const only = own?.wishes.only
    return (
      only &&
      units
        .filter((unit) =>
          only.some(
            ({ combination, phrase, feet }) =>
              combination === unit.combination &&
              phrase === unit.phrase &&
              (feet === true) === (unit.half === 'feet'),
          ),
        )
        .map((unit) => unit.id)
    )
  }
  let last: ReadonlyMap<string, string> = new Map()
  let known: ReadonlySet<string> = new Set()
  let left: readonly string[] = []
  const columns: Column[] = []
  const planned = new Set<string>()
  const column = (
    index: number,
    room: ClassRoom,
    isPast: boolean,
    taught: readonly SeriesUnit[],
  ) => {
    const day = days[index] as SeriesDay
    columns.push({
      day,
      index,
      minutes: minutesOf(series, day),
      isPast,
      fixed: fixedFor(minutesOf(series, day)),
      review: room.review,
      run: room.run,
      room: room.room,
      units: find(room.units),
      taught,
      entry: entries[index],
    })
  }
  for (let done = 0; ; done++) {
    const slower = slownessOf(series, units, days[done], around)
    const open = units
      .filter(({ id }) => !known.has(id))
      .map((unit) => ({ ...unit, seconds: unit.seconds * slower }))
    const before = units.filter(({ id }) => known.has(id))
    const found = spread({
      units: open,
      classes: coming.slice(done),
      of: days.length,
      before: {
        seconds: before.reduce((sum, { seconds }) => sum + seconds, 0),
        run: before.reduce((sum, { run }) => sum + run, 0),
      },
      // What is to stay in a class that is over goes where there is room.
      locks: new Map(
        [...locks].filter(([, day]) => coming.slice(done).some(({ id }) => id === day)),
      ),
      last,
    })
    last = new Map(found.classes.flatMap(({ id, units: own }) => own.map((unit) => [unit, id])))
    left = found.left
    if (done === over) {
      // What is to come takes as long as this group needs.
      for (const unit of open) byId.set(unit.id, unit)
      for (const [i, room] of found.classes.entries()) column(over + i, room, false, [])
      break
    }
    const now = taughtIn(
      units,
      entries.slice(0, done + 1).flatMap((one) => one ?? []),
      series,
      around,
    )
    const [shared] = found.classes
    const day = days[done]
    if (shared && day) {
      const room = { ...shared, units: plannedIn(day) ?? shared.units }
      for (const id of room.units) planned.add(id)
      column(
        done,
        room,
        true,
        units.filter(({ id }) => now.has(id) && !known.has(id)),
      )
    }
    known = now
  }
  return {
    columns,
    units: [...byId.values()],
    left: find(left),
    late: units.filter(({ id }) => planned.has(id) && !known.has(id)),
    ahead: units.filter(({ id }) => !planned.has(id) && known.has(id)),
    next: columns.find(({ isPast }) => !isPast),
  }
}

/** The class a unit is in; undefined where it has no room. */
export const columnOf = ({ columns }: Course, unit: string): Column | undefined =>
  columns.find(({ isPast, units, taught }) =>
    isPast ? taught.some(({ id }) => id === unit) : units.some(({ id }) => id === unit),
  )
