import { Button, TextInput } from '@mantine/core'
import { lazy, Suspense, useEffect, useMemo, useState } from 'react'
import type { Column, Course } from '../../core/series/course'
import { movedDay, offDay, type Series, timedDay, withoutDay } from '../../core/series/series'
import { classTitle, roundsIn, shortName, unitName } from '../../core/series/words'
import { counted, dayWords, listed } from '../parts/locale'
import { NumberField } from '../parts/NumberField'
import { SheetPaper } from '../plan/SheetPaper'
import type { ClassMaterials } from '../planning/usePlanning'
import type { ChangeSeries } from './change'
import classes from './series.module.css'

const PageForm = lazy(async () => ({ default: (await import('../practice/PageForm')).PageForm }))

/** A combination of a class, and the phrases of it. */
interface Of {
  readonly combination: string
  readonly phrases: readonly string[]
}

/** One class of a series: its day, and what it is given with. */
export function ClassOfSeries({
  series,
  course,
  column,
  materials,
  change,
  onPlan,
  onStart,
}: {
  readonly series: Series
  readonly course: Course
  readonly column: Column
  readonly materials: ClassMaterials
  readonly change: ChangeSeries
  readonly onPlan: () => void
  readonly onStart: () => void
}) {
  const { day, index, minutes, isPast, units, taught, entry } = column
  const [off, setOff] = useState('')
  const [page, setPage] = useState<Of>()
  const [paper, setPaper] = useState<Of>()
  useEffect(() => {
    if (!paper) return
    window.print()
    setPaper(undefined)
  }, [paper])
  const title = classTitle(series, course, index)
  const own = useMemo(() => byCombination(isPast ? taught : units), [isPast, taught, units])
  // Who missed this class learns all that came since.
  const since = useMemo(
    () =>
      byCombination(
        course.columns
          .filter((one) => one.isPast && one.index >= index)
          .flatMap((one) => one.taught),
      ),
    [course, index],
  )
  const titleOf = (id: string) => materials.find(id)?.combination.title ?? ''
  const next = course.columns[index + 1]
  const many = own.length > 1
  const shown = paper && materials.find(paper.combination)
  const begin = page && {
    phrases: page.phrases,
    group: series.group,
    next: next?.day.day,
    inSeries: { n: index + 1, of: course.columns.length },
  }
  const combination = page && materials.find(page.combination)?.combination
  return (
    <section className={classes.one} aria-label={title}>
      <h2>
        {title}, {dayWords(day.day)}
      </h2>
      <p>
        {isPast
          ? `${entry ? `${counted(roundsIn(entry), 'round')} danced` : 'Nothing was written down'}${taught.length > 0 ? `; taught: ${listed(taught.map(unitName))}` : ''}.`
          : units.length > 0
            ? `New: ${units
                .map((unit) =>
                  [shortName(unit), unit.title, unit.of && `of ${unit.of}`]
                    .filter(Boolean)
                    .join(' '),
                )
                .join(', ')}.`
            : 'Nothing new: it goes over what there is.'}
      </p>
      <div className={classes.fields}>
        <Button variant="default" onClick={onPlan}>
          Plan
        </Button>
        {own.map((one) => (
          <Button key={one.combination} variant="default" onClick={() => setPage(one)}>
            Practice page{many ? ` of ${titleOf(one.combination)}` : ''}
          </Button>
        ))}
        {isPast &&
          since
            .filter((one) => one.phrases.length > phrasesIn(own, one.combination))
            .map((one) => (
              <Button
                key={`since ${one.combination}`}
                variant="default"
                onClick={() => setPage(one)}
              >
                Page for who missed it{since.length > 1 ? `: ${titleOf(one.combination)}` : ''}
              </Button>
            ))}
        {own.map((one) => (
          <Button key={`paper ${one.combination}`} variant="default" onClick={() => setPaper(one)}>
            Print handout{many ? ` of ${titleOf(one.combination)}` : ''}
          </Button>
        ))}
        {!isPast && <Button onClick={onStart}>Begin class</Button>}
      </div>
      {!isPast && (
        <div className={classes.fields}>
          <TextInput
            label="Day"
            type="date"
            value={day.day}
            onChange={({ currentTarget: { value } }) =>
              value && change('day', (now) => movedDay(now, day.id, value))
            }
          />
          <NumberField
            size="sm"
            label="Minutes of this class"
            value={minutes}
            min={10}
            max={180}
            waits
            onCommit={(value) =>
              change('minutes of a class', (now) =>
                timedDay(now, day.id, value === now.minutes ? undefined : value),
              )
            }
          />
          <TextInput
            label="No class on this day, because"
            placeholder="holiday"
            value={off}
            maxLength={60}
            onChange={({ currentTarget: { value } }) => setOff(value)}
          />
          <Button
            variant="default"
            onClick={() => change('no class', (now) => offDay(now, day.id, off.trim()))}
          >
            No class
          </Button>
          <Button
            variant="default"
            onClick={() => change('take a date out', (now) => withoutDay(now, day.id))}
          >
            Remove this date
          </Button>
        </div>
      )}
      {combination && begin && (
        <Suspense fallback={<p>Opening…</p>}>
          <PageForm combination={combination} begin={begin} onClose={() => setPage(undefined)} />
        </Suspense>
      )}
      {shown && paper && (
        <SheetPaper
          material={shown}
          part={undefined}
          isLarge={false}
          only={{ phrases: paper.phrases, title }}
        />
      )}
    </section>
  )
}

function byCombination(
  units: readonly { readonly combination: string; readonly phrase: string }[],
): readonly Of[] {
  const found = new Map<string, Set<string>>()
  for (const { combination, phrase } of units)
    found.set(combination, (found.get(combination) ?? new Set()).add(phrase))
  return [...found].map(([combination, phrases]) => ({ combination, phrases: [...phrases] }))
}

const phrasesIn = (all: readonly Of[], id: string): number =>
  all.find(({ combination }) => combination === id)?.phrases.length ?? 0
