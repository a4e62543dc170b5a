import { ActionIcon, Button, NativeSelect, Select, TextInput } from '@mantine/core'
import { IconArrowLeft, IconArrowRight, IconX } from '@tabler/icons-react'
import { useState } from 'react'
import { DancerLevel } from '../../core/combination/combination'
import { addDays } from '../../core/diary/diary'
import {
  dropped,
  MOST_DAYS,
  type Series,
  type Teaches,
  taughtIn,
  taughtMoved,
  withWeeks,
} from '../../core/series/series'
import { NumberField } from '../parts/NumberField'
import { today } from '../planning/today'
import type { PlanningRecords } from '../planning/usePlanning'
import { useServices } from '../stores/services'
import type { ChangeSeries } from './change'
import classes from './series.module.css'

/** Weeks that are offered at first. */
const USUAL_WEEKS = 6

/** What is taught, to whom, how long, and on which dates. */
export function SeriesForm({
  series,
  records: { combinations, groups, materials },
  change,
}: {
  readonly series: Series
  readonly records: PlanningRecords
  readonly change: ChangeSeries
}) {
  const { newId } = useServices()
  const { routines } = materials.laidSongs
  const last = [...series.days].sort((a, b) => a.day.localeCompare(b.day)).at(-1)
  const [from, setFrom] = useState('')
  const [weeks, setWeeks] = useState(USUAL_WEEKS)
  const begins = from || (last ? addDays(last.day, 7) : today())
  const titleOf = (one: Teaches): string =>
    'routine' in one
      ? `${routines.find(({ id }) => id === one.routine)?.title ?? 'A routine that is gone'} (routine)`
      : (combinations.find(({ id }) => id === one.combination)?.title ??
        'A combination that is gone')
  return (
    <div className={classes.form}>
      <ul className={classes.taught} aria-label="What is taught">
        {series.teaches.map((one, i) => {
          const title = titleOf(one)
          return (
            <li key={'routine' in one ? one.routine : one.combination}>
              <b>{title}</b>
              {'combination' in one && (
                <NativeSelect
                  size="xs"
                  aria-label={`Sides of ${title}`}
                  data={[
                    { value: 'both', label: 'both sides' },
                    { value: 'lead', label: 'lead side' },
                  ]}
                  value={one.sides ?? 'both'}
                  onChange={({ currentTarget: { value } }) =>
                    change('sides', (now) => ({
                      ...now,
                      teaches: now.teaches.map((each) =>
                        'combination' in each && each.combination === one.combination
                          ? { ...each, sides: value === 'lead' ? 'lead' : 'both' }
                          : each,
                      ),
                    }))
                  }
                />
              )}
              {i > 0 && (
                <ActionIcon
                  variant="subtle"
                  color="gray"
                  size={36}
                  aria-label={`${title} earlier`}
                  onClick={() => change('order', (now) => taughtMoved(now, i, -1))}
                >
                  <IconArrowLeft size={16} />
                </ActionIcon>
              )}
              {i < series.teaches.length - 1 && (
                <ActionIcon
                  variant="subtle"
                  color="gray"
                  size={36}
                  aria-label={`${title} later`}
                  onClick={() => change('order', (now) => taughtMoved(now, i, 1))}
                >
                  <IconArrowRight size={16} />
                </ActionIcon>
              )}
              <ActionIcon
                variant="subtle"
                color="gray"
                size={36}
                aria-label={`Remove ${title}`}
                onClick={() => change('what is taught', (now) => taughtIn(now, one, false))}
              >
                <IconX size={16} />
              </ActionIcon>
            </li>
          )
        })}
        <li>
          <Select
            size="sm"
            aria-label="Teach in this series"
            placeholder="Teach…"
            searchable
            data={[
              ...combinations.map(({ id, title }) => ({ value: `c ${id}`, label: title })),
              ...routines.map(({ id, title }) => ({
                value: `r ${id}`,
                label: `${title} (routine)`,
              })),
            ]}
            value={null}
            onChange={(value) => {
              if (value === null) return
              const id = value.slice(2)
              const one: Teaches = value.startsWith('r ') ? { routine: id } : { combination: id }
              change('what is taught', (now) => {
                const next = taughtIn(now, one, true)
                return now.title === '' ? { ...next, title: titleOf(one) } : next
              })
            }}
          />
        </li>
        {series.dropped.map((unit) => (
          <li key={unit}>
            <Button
              variant="subtle"
              size="compact-sm"
              onClick={() => change('take back', (now) => dropped(now, unit, false))}
            >
              Take {nameOf(unit, combinations)} back
            </Button>
          </li>
        ))}
      </ul>
      <div className={classes.fields}>
        <NativeSelect
          label="For"
          data={[
            { value: '', label: 'nobody in particular' },
            ...groups.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          value={series.group ?? ''}
          onChange={({ currentTarget: { value } }) =>
            change('group', ({ group: _, ...now }) => {
              const group = groups.find(({ id }) => id === value)
              return group
                ? { ...now, group: group.id, wishes: { ...now.wishes, level: group.level } }
                : now
            })
          }
        />
        <NativeSelect
          label="Level"
          data={[...DancerLevel.options]}
          value={series.wishes.level}
          onChange={({ currentTarget: { value } }) => {
            const level = DancerLevel.options.find((one) => one === value)
            if (level) change('level', (now) => ({ ...now, wishes: { ...now.wishes, level } }))
          }}
        />
        <NumberField
          size="sm"
          label="Minutes"
          value={series.minutes}
          min={10}
          max={180}
          onCommit={(minutes) => change('minutes', (now) => ({ ...now, minutes }), 'minutes')}
        />
        <TextInput
          label="Begins at"
          type="time"
          value={series.start ?? ''}
          onChange={({ currentTarget: { value } }) =>
            change(
              'time of day',
              ({ start: _, ...now }) => ({ ...now, ...(value && { start: value }) }),
              'start',
            )
          }
        />
        <TextInput
          label="Dates from"
          type="date"
          value={begins}
          onChange={({ currentTarget: { value } }) => setFrom(value)}
        />
        <NumberField
          size="sm"
          label="Weeks"
          value={weeks}
          min={1}
          max={MOST_DAYS}
          onCommit={setWeeks}
        />
        <Button
          variant="default"
          onClick={() => {
            setFrom('')
            change('dates', (now) => withWeeks(now, { from: begins, weeks, newId }))
          }}
        >
          Add dates
        </Button>
      </div>
    </div>
  )
}

/** What a unit is called that is left out, of a combination that may be gone. */
function nameOf(unit: string, combinations: PlanningRecords['combinations']): string {
  const [combination, phrase] = unit.split('|')
  const one = combinations.find(({ id }) => id === combination)
  const name = one?.phrases.find(({ id }) => id === phrase)?.name
  return [name ?? 'it', one?.title && `of ${one.title}`].filter(Boolean).join(' ')
}
