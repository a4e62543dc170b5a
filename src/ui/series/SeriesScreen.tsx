import { Button, TextInput } from '@mantine/core'
import { useMemo, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { practisedIn } from '../../core/practice/sentPage'
import { seriesIcs } from '../../core/series/calendar'
import { planOfClass } from '../../core/series/classOf'
import { type Column, courseOf } from '../../core/series/course'
import { type Series, wrongWith } from '../../core/series/series'
import { addOnWords, changeWords, clashesWith, standingWords } from '../../core/series/words'
import { DocumentButtons } from '../parts/DocumentButtons'
import { download } from '../parts/files'
import { KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { dayShort, dayWords } from '../parts/locale'
import { inWords, Problem, ProblemPage } from '../parts/Problem'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { useScreenKeys } from '../parts/useScreenKeys'
import field from '../planning/planning.module.css'
import { today } from '../planning/today'
import { useBegin } from '../planning/useBegin'
import { type PlanningRecords, usePlanningRecords } from '../planning/usePlanning'
import { useServices } from '../stores/services'
import { useDocument } from '../stores/useDocument'
import { ClassOfSeries } from './ClassOfSeries'
import type { ChangeSeries } from './change'
import { SeriesForm } from './SeriesForm'
import { SeriesStrip, STRIP_KEYS } from './SeriesStrip'
import classes from './series.module.css'

/** One series: what is taught, when, and what each class has of it. */
export function SeriesScreen() {
  const { id = '' } = useParams()
  const { error, ready } = usePlanningRecords()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  const first = ready.series.find((one) => one.id === id)
  if (!first)
    return (
      <ProblemPage what="This series is not here." toDo="Go to Plans, Series; it may be deleted." />
    )
  return <OpenSeries key={id} first={first} records={ready} />
}

function OpenSeries({
  first,
  records,
}: {
  readonly first: Series
  readonly records: PlanningRecords
}) {
  const { planning, materials, plans, groups, sent, classes: given, series: all } = records
  const { newId } = useServices()
  const navigate = useNavigate()
  const document = useDocument(first, planning.series)
  const series = document.history.present
  const [said, say] = useState('')
  const [chosen, setChosen] = useState<string>()
  const begin = useBegin(planning, groups)
  const around = useMemo(
    () => ({
      materials,
      routines: materials.laidSongs.routines,
      classes: given,
      plans,
      today: today(),
    }),
    [materials, given, plans],
  )
  const course = useMemo(() => courseOf(series, around), [series, around])
  const change: ChangeSeries = (label, make, mark) => {
    const after = make(series)
    say(
      wrongWith(after, around.today) ? '' : changeWords(course, courseOf(after, around), dayShort),
    )
    document.change(label, make, mark)
  }
  const keys = useScreenKeys([...undoKeys(document.undo, document.redo), ...STRIP_KEYS])
  useLeaveWarning(document.kept === 'failed')
  const wrong = wrongWith(series, around.today)
  const clashes = clashesWith(series, all, dayWords)
  const addOn = addOnWords(course)
  const column = course.columns.find(({ day }) => day.id === chosen) ?? course.next
  /** The plan of a class, as things stand: made, or made anew round what was fixed in it by hand. */
  const planFor = async (one: Column) => {
    const known = plans.find(
      (plan) => plan.series?.id === series.id && plan.series.day === one.day.id,
    )
    // What was danced by a plan stays as it was.
    if (known && one.isPast) return known
    const planned = planOfClass(series, course, one, {
      ...around,
      practised: practisedIn(sent.filter(({ group }) => group === series.group)),
      newId,
      plan: known,
    })
    if (!planned) {
      say('Nothing is taught yet by then: there is nothing to plan.')
      return undefined
    }
    await planning.plans.put(planned.plan)
    return planned.plan
  }
  const openPlan = async (one: Column) => {
    const plan = await planFor(one)
    if (plan) await navigate(`/plan/${plan.id}`)
  }
  const start = async (one: Column) => {
    const plan = await planFor(one)
    if (plan) await begin(plan)
  }
  return (
    <main className={classes.screen}>
      <div className={classes.top}>
        <Link to="/series" className={classes.back}>
          All series
        </Link>
        <TextInput
          className={`${classes.title} ${field.title}`}
          aria-label="Name of the series"
          placeholder="Name of the series"
          value={series.title}
          onChange={({ currentTarget: { value } }) =>
            document.change('name', (now) => ({ ...now, title: value }), 'name')
          }
        />
        {course.columns.length > 0 && !wrong && (
          <p className={`counts ${classes.standing}`}>{standingWords(course)}</p>
        )}
        <DocumentButtons document={document} onKeys={keys.onOpen} />
        <KeysHelp {...keys} />
        <Button
          variant="default"
          size="compact-md"
          disabled={course.columns.length === 0}
          onClick={() =>
            download(
              `${series.title || 'Series'}.ics`,
              seriesIcs(
                series,
                groups.find(({ id }) => id === series.group),
              ),
              'text/calendar',
            )
          }
        >
          Save as calendar
        </Button>
      </div>
      <SeriesForm series={series} records={records} change={change} />
      {wrong ? <Problem {...wrong} /> : null}
      {clashes.slice(0, 2).map((text) => (
        <p key={text} className={classes.clash} role="alert">
          {text}
        </p>
      ))}
      {series.days.length > 0 && (
        <SeriesStrip
          series={series}
          course={course}
          around={around}
          chosen={column?.day.id}
          onChoose={setChosen}
          change={change}
          say={say}
        />
      )}
      <p className={classes.said} role="status">
        {said || addOn || ''}
        {said && document.undo && (
          <Button variant="subtle" size="compact-sm" onClick={document.undo}>
            Undo
          </Button>
        )}
      </p>
      {column && !wrong && (
        <ClassOfSeries
          key={column.day.id}
          series={series}
          course={course}
          column={column}
          materials={materials}
          change={change}
          onPlan={() => void openPlan(column)}
          onStart={() => void start(column)}
        />
      )}
    </main>
  )
}
