import { Menu } from '@mantine/core'
import { IconLock } from '@tabler/icons-react'
import { line } from 'd3-shape'
import type { CSSProperties, KeyboardEvent } from 'react'
import type { Around, Column, Course } from '../../core/series/course'
import { lockOf } from '../../core/series/lock'
import { dropped, lockedIn, offDay, type Series, splitUnit } from '../../core/series/series'
import type { SeriesUnit } from '../../core/series/units'
import { shortName, unitName } from '../../core/series/words'
import type { ScreenKey } from '../parts/keys'
import { dayShort, dayWords } from '../parts/locale'
import type { ChangeSeries } from './change'
import classes from './series.module.css'

/** What does something where a unit has the focus. */
export const STRIP_KEYS: readonly ScreenKey[] = [
  { on: ['ArrowLeft', 'ArrowRight'], does: 'a unit to the class before, or after, where it stays' },
  { on: ['u'], does: 'a unit where there is room again' },
  { on: ['h'], does: 'its feet a class before the rest, or all at once' },
  { on: ['x'], does: 'leave a unit out' },
]

/** Heights are in pixels a minute. */
const PX = 2.4
const LOAD_HEIGHT = 44

/** How many colours things that are taught together have. */
const COLOURS = 8

interface StripProps {
  readonly series: Series
  readonly course: Course
  readonly around: Around
  /** Id of the day that is looked at. */
  readonly chosen: string | undefined
  readonly onChoose: (day: string) => void
  readonly change: ChangeSeries
  readonly say: (text: string) => void
}

/** The classes of a series beside each other: how their minutes are filled, what is new in each, how hard that is. */
export function SeriesStrip(props: StripProps) {
  const { series, course, around, chosen, onChoose, change, say } = props
  const colours = new Map(
    [...new Set(course.units.map(({ combination }) => combination))].map((id, i) => [
      id,
      `var(--part-${(i % COLOURS) + 1})`,
    ]),
  )
  const lock = (unit: string, day: string) => {
    const found = lockOf(series, course, around, [unit, day])
    if (found.series === undefined) say(found.why)
    else change('keep in a class', (now) => lockedIn(now, unit, day))
  }
  const hands: UnitHands = {
    colour: ({ combination }) => colours.get(combination) ?? 'var(--ember)',
    isLocked: ({ id }) => series.locks.some(({ unit }) => unit === id),
    isSplit: ({ combination, phrase }) => series.splits.includes(`${combination}|${phrase}`),
    lock,
    unlock: ({ id }) => change('anywhere', (now) => lockedIn(now, id, undefined)),
    drop: ({ id, half, combination, phrase }) =>
      change('leave out', (now) => dropped(now, half ? `${combination}|${phrase}` : id, true)),
    split: ({ combination, phrase }) => {
      const key = `${combination}|${phrase}`
      change('feet first', (now) => splitUnit(now, key, !now.splits.includes(key)))
    },
  }
  const off = series.days.filter((day) => day.off !== undefined)
  return (
    <section className={classes.strip} aria-label="The classes">
      <ol className={classes.columns}>
        {course.columns.map((column) => (
          <ClassColumn
            key={column.day.id}
            column={column}
            course={course}
            isChosen={column.day.id === chosen}
            onChoose={() => onChoose(column.day.id)}
            hands={hands}
          />
        ))}
      </ol>
      {course.columns.length > 1 && <Load course={course} />}
      {course.left.length > 0 && (
        <p className={classes.left}>
          <b>No room for</b>
          {course.left.map((unit) => (
            <Unit key={unit.id} unit={unit} column={undefined} course={course} hands={hands} />
          ))}
        </p>
      )}
      {off.length > 0 && (
        <p className={classes.off}>
          <b>No class</b>
          {off.map(({ id, day, off: why }) => (
            <button
              key={id}
              type="button"
              className={classes.back}
              onClick={() => change('a class again', (now) => offDay(now, id, undefined))}
            >
              {dayWords(day)}
              {why ? ` (${why})` : ''}: a class again
            </button>
          ))}
        </p>
      )}
      <p className={classes.legend}>
        <span data-kind="fixed">beginning, pauses, end</span>
        <span data-kind="review">goes over what there is</span>
        <span data-kind="new">new</span>
        <span data-kind="open">open</span>
      </p>
    </section>
  )
}

/** What can be done with a unit. */
interface UnitHands {
  readonly colour: (unit: SeriesUnit) => string
  readonly isLocked: (unit: SeriesUnit) => boolean
  readonly isSplit: (unit: SeriesUnit) => boolean
  readonly lock: (unit: string, day: string) => void
  readonly unlock: (unit: SeriesUnit) => void
  readonly drop: (unit: SeriesUnit) => void
  readonly split: (unit: SeriesUnit) => void
}

const DRAGGED = 'text/x-sway-unit'

function ClassColumn({
  column,
  course,
  isChosen,
  onChoose,
  hands,
}: {
  readonly column: Column
  readonly course: Course
  readonly isChosen: boolean
  readonly onChoose: () => void
  readonly hands: UnitHands
}) {
  const { day, index, minutes, isPast, fixed, review, run, units, taught } = column
  const used = units.reduce((sum, { seconds }) => sum + seconds, 0)
  const open = Math.max(0, minutes * 60 - fixed - review - run - used)
  const high = (seconds: number): CSSProperties => ({ height: (seconds / 60) * PX })
  const done = new Set(taught.map(({ id }) => id))
  return (
    <li
      className={classes.column}
      data-past={isPast}
      data-chosen={isChosen}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(DRAGGED)) event.preventDefault()
      }}
      onDrop={(event) => {
        event.preventDefault()
        hands.lock(event.dataTransfer.getData(DRAGGED), day.id)
      }}
    >
      <button
        type="button"
        className={classes.day}
        aria-pressed={isChosen}
        aria-label={`Class ${index + 1}, ${dayWords(day.day)}, ${minutes} minutes${isPast ? ', over' : ''}`}
        onClick={onChoose}
      >
        <b className="counts">{index + 1}</b> {dayShort(day.day)}
        <span className="counts">{minutes} min</span>
      </button>
      <div className={classes.bar} aria-hidden="true">
        <i data-kind="open" style={high(open)} />
        {units.toReversed().map((unit) => (
          <i
            key={unit.id}
            data-kind="new"
            style={{ ...high(unit.seconds), background: hands.colour(unit) }}
          />
        ))}
        <i data-kind="review" style={high(review + run)} />
        <i data-kind="fixed" style={high(fixed)} />
      </div>
      <div className={classes.units}>
        {units.map((unit) =>
          isPast ? (
            <span key={unit.id} className={classes.given} data-done={done.has(unit.id)}>
              {shortName(unit)} {done.has(unit.id) ? '✓' : 'not yet'}
            </span>
          ) : (
            <Unit key={unit.id} unit={unit} column={column} course={course} hands={hands} />
          ),
        )}
        {taught
          .filter(({ id }) => !units.some((one) => one.id === id))
          .map((unit) => (
            <span key={unit.id} className={classes.given} data-done="true">
              {shortName(unit)} ✓
            </span>
          ))}
        {!isPast && units.length === 0 && <span className={classes.nothing}>nothing new</span>}
      </div>
    </li>
  )
}

/** One thing that is taught: dragged, by keys, or by what its menu offers. */
function Unit({
  unit,
  column,
  course,
  hands,
}: {
  readonly unit: SeriesUnit
  readonly column: Column | undefined
  readonly course: Course
  readonly hands: UnitHands
}) {
  const coming = course.columns.filter(({ isPast }) => !isPast)
  const place = coming.findIndex(({ day }) => day.id === column?.day.id)
  const isLocked = hands.isLocked(unit)
  const minutes = Math.round(unit.seconds / 60)
  const press = (event: KeyboardEvent) => {
    const does = new Map([
      ['ArrowLeft', () => to(-1)],
      ['ArrowRight', () => to(1)],
      ['u', () => hands.unlock(unit)],
      ['h', () => hands.split(unit)],
      ['x', () => hands.drop(unit)],
    ])
    const act = does.get(event.key)
    if (!act || event.ctrlKey || event.altKey || event.metaKey) return
    event.preventDefault()
    act()
  }
  const to = (by: number) => {
    const next = coming[place + by]
    if (next && place >= 0) hands.lock(unit.id, next.day.id)
  }
  return (
    <Menu position="bottom-start">
      <Menu.Target>
        <button
          type="button"
          className={classes.unit}
          style={{ borderColor: hands.colour(unit) }}
          data-unit={unit.name}
          draggable
          onDragStart={(event) => event.dataTransfer.setData(DRAGGED, unit.id)}
          onKeyDown={press}
          aria-label={`${unitName(unit)}${unit.title ? `, ${unit.title}` : ''}, ${minutes} minutes, ${unit.isBoth ? 'both sides' : 'the lead side'}${isLocked ? ', stays here' : ''}`}
        >
          <b>{shortName(unit)}</b>
          <span className="counts">
            {minutes}′ {unit.isBoth ? 'R L' : 'one side'}
          </span>
          {isLocked && <IconLock size={13} aria-hidden="true" />}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {coming
          .filter(({ day }) => day.id !== column?.day.id)
          .map(({ day, index }) => (
            <Menu.Item key={day.id} onClick={() => hands.lock(unit.id, day.id)}>
              To class {index + 1}, {dayWords(day.day)}
            </Menu.Item>
          ))}
        {isLocked && (
          <Menu.Item onClick={() => hands.unlock(unit)}>Wherever there is room</Menu.Item>
        )}
        <Menu.Item onClick={() => hands.split(unit)}>
          {hands.isSplit(unit)
            ? 'Feet and the rest in one class'
            : 'The feet may come a class before'}
        </Menu.Item>
        <Menu.Item onClick={() => hands.drop(unit)}>Leave it out</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  )
}

/** How hard what is new in each class is, as a line. */
function Load({ course: { columns } }: { readonly course: Course }) {
  const loads = columns.map(({ units }) => units.reduce((sum, { load }) => sum + load, 0))
  const most = Math.max(1, ...loads)
  const points = loads.map((load, i): [number, number] => [
    ((i + 0.5) / loads.length) * 100,
    LOAD_HEIGHT - 4 - (load / most) * (LOAD_HEIGHT - 10),
  ])
  return (
    <svg
      className={classes.load}
      viewBox={`0 0 100 ${LOAD_HEIGHT}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`How hard what is new is: ${loads.map((load, i) => `class ${i + 1} ${Math.round((100 * load) / most)} %`).join(', ')}`}
    >
      <path d={line()(points) ?? ''} />
    </svg>
  )
}
