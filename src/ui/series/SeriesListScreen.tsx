import { ActionIcon, Button } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { courseOf } from '../../core/series/course'
import { newSeries, type Series } from '../../core/series/series'
import { standingWords } from '../../core/series/words'
import { BringBack } from '../parts/BringBack'
import { dayWords } from '../parts/locale'
import { inWords, ProblemPage, Unreadable } from '../parts/Problem'
import { today } from '../planning/today'
import { type PlanningRecords, usePlanningRecords } from '../planning/usePlanning'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import classes from './series.module.css'

/** All series: how far each has come, and when it goes on. */
export function SeriesListScreen() {
  const { error, ready } = usePlanningRecords()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  return <Shelf {...ready} />
}

function Shelf(records: PlanningRecords) {
  const { planning, series, unreadable } = records
  const { newId } = useServices()
  const navigate = useNavigate()
  const [gone, setGone] = useState<Series>()
  const make = async () => {
    const { level } = houseNow.getState().rules
    const made = newSeries(newId(), { title: '', level, minutes: 60 })
    await planning.series.put(made)
    await navigate(`/series/${made.id}`)
  }
  return (
    <main className={classes.shelf}>
      <div className={classes.top}>
        <h1 className="display">Series</h1>
        <Link to="/plans" className={classes.back}>
          Plans of single classes
        </Link>
        <Button size="compact-md" onClick={() => void make()}>
          New series
        </Button>
      </div>
      {gone && (
        <BringBack
          title={gone.title}
          onBack={() => {
            setGone(undefined)
            void planning.series.restore(gone.id)
          }}
        />
      )}
      <Unreadable count={unreadable.series} of="series" />
      {series.length === 0 && (
        <p className={classes.empty}>
          No series yet. A series is something taught over weeks: choose what and when, and each
          class is worked out, again after each that was danced.
        </p>
      )}
      <ul className={classes.list}>
        {series.map((one) => (
          <li key={one.id}>
            <Link to={`/series/${one.id}`}>
              <b className="display">{one.title || 'Without a name'}</b>
              <Standing series={one} records={records} />
            </Link>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Delete ${one.title || 'this series'}`}
              onClick={() => {
                setGone(one)
                void planning.series.remove(one.id)
              }}
            >
              <IconTrash size={18} />
            </ActionIcon>
          </li>
        ))}
      </ul>
    </main>
  )
}

function Standing({
  series,
  records: { materials, classes: given, plans, groups },
}: {
  readonly series: Series
  readonly records: PlanningRecords
}) {
  const course = useMemo(
    () =>
      courseOf(series, {
        materials,
        routines: materials.laidSongs.routines,
        classes: given,
        plans,
        today: today(),
      }),
    [series, materials, given, plans],
  )
  const { columns, next } = course
  const over = columns.filter(({ isPast }) => isPast).length
  return (
    <span className="counts">
      {[
        groups.find(({ id }) => id === series.group)?.name,
        `${over} of ${columns.length}`,
        columns.length > 0 && standingWords(course),
        next && `next ${dayWords(next.day.day)}`,
      ]
        .filter(Boolean)
        .join(' · ')}
    </span>
  )
}
