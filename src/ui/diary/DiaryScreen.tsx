import { Button, Menu, NativeSelect } from '@mantine/core'
import { IconDownload, IconPlus } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { untouched } from '../../core/diary/charts'
import { byDate, type ClassEntry, type Group, newClass } from '../../core/diary/diary'
import { diaryCsv } from '../../core/diary/export'
import { nextClassOf, reachedIn } from '../../core/diary/reached'
import { layerWord } from '../../core/moves/vocabulary'
import { emptyPlan } from '../../core/plan/edits'
import type { Materials } from '../../core/plan/material'
import { type Practised, practisedIn } from '../../core/practice/sentPage'
import { download } from '../parts/files'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { counted, dayWords } from '../parts/locale'
import { inWords, Problem, ProblemPage } from '../parts/Problem'
import { UndoButtons } from '../parts/UndoButtons'
import { useScreenKeys } from '../parts/useScreenKeys'
import { planBeside } from '../planning/planBeside'
import { today } from '../planning/today'
import { type PlanningRecords, usePlanningRecords } from '../planning/usePlanning'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { ClassForm } from './ClassForm'
import { LoadChart, SideChart, TempoChart } from './charts'
import classes from './diary.module.css'
import { GroupForm } from './GroupForm'
import { SentBack } from './SentBack'
import { useDiaryChanges } from './useDiaryChanges'

/** The classes that were given and are to come, and what they add up to. */
export function DiaryScreen() {
  const { error, ready } = usePlanningRecords()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  return <Diary {...ready} />
}

function Diary({
  planning,
  classes: all,
  unreadable,
  groups,
  combinations,
  materials,
  sent,
}: PlanningRecords) {
  const { judge, newId } = useServices()
  const navigate = useNavigate()
  const [query, setQuery] = useSearchParams()
  const hands = useDiaryChanges(planning)
  const keys = useScreenKeys(undoKeys(hands.undo, hands.redo))
  const [editing, setEditing] = useState<Group | 'new'>()
  const group = groups.find(({ id }) => id === query.get('group'))
  const shown = useMemo(
    () =>
      all
        .filter((one) => !group || one.group === group.id)
        .toSorted(byDate)
        .toReversed(),
    [all, group],
  )
  const open = shown.find(({ id }) => id === query.get('class')) ?? shown[0]
  const pages = useMemo(
    () => sent.filter((one) => !group || one.group === undefined || one.group === group.id),
    [sent, group],
  )
  const practised = useMemo(() => practisedIn(pages), [pages])
  const floors = useQuery({
    queryKey: ['floors', all],
    queryFn: () => planning.underWay.list(),
    staleTime: 0,
    gcTime: 0,
  })
  const underWay = useMemo(() => new Set(floors.data?.map(({ id }) => id)), [floors.data])
  const pick = (change: Readonly<Record<string, string | undefined>>) =>
    setQuery((now) => {
      for (const [key, value] of Object.entries(change))
        if (value === undefined) now.delete(key)
        else now.set(key, value)
      return now
    })
  const add = async () => {
    const entry = newClass({
      id: newId(),
      date: today(),
      start: '18:30',
      title: group?.name ?? 'Class',
      minutes: group?.minutes ?? 60,
      group,
    })
    await hands.add(entry, 'the new class')
    pick({ class: entry.id })
  }
  const saveCalendar = async () => {
    const { classesIcs } = await import('../../core/diary/calendar')
    download('classes.ics', classesIcs(shown, groups), 'text/calendar')
  }
  return (
    <main className={classes.diary}>
      <div className={classes.top}>
        <h1 className="display">Diary</h1>
        <NativeSelect
          aria-label="Group"
          data={[
            { value: '', label: 'every group' },
            ...groups.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          value={group?.id ?? ''}
          onChange={({ currentTarget: { value } }) =>
            pick({ group: value || undefined, class: undefined })
          }
        />
        <Button variant="default" size="compact-md" onClick={() => setEditing(group ?? 'new')}>
          {group ? 'Change group' : 'New group'}
        </Button>
        <Button
          variant="default"
          size="compact-md"
          leftSection={<IconPlus size={16} />}
          onClick={() => void add()}
        >
          New class
        </Button>
        <UndoButtons {...hands} />
        <KeysButton onClick={keys.onOpen} />
        <KeysHelp {...keys} />
        <Menu position="bottom-end">
          <Menu.Target>
            <Button variant="default" size="compact-md" leftSection={<IconDownload size={16} />}>
              Save as
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => void saveCalendar()}>
              Class dates for a calendar (ICS)
            </Menu.Item>
            <Menu.Item onClick={() => download('diary.csv', diaryCsv(shown, groups), 'text/csv')}>
              The diary as a table (CSV)
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      {unreadable.classes > 0 && (
        <Problem
          what={`${counted(unreadable.classes, 'class', 'classes')} can’t be read by this version.`}
          toDo="They stay where they are: update the app to see them."
        />
      )}
      {editing && (
        <GroupForm
          group={editing === 'new' ? undefined : editing}
          newId={newId}
          onClose={() => setEditing(undefined)}
          onSave={(made) => {
            setEditing(undefined)
            if (editing === 'new') void hands.add(made, 'the new group')
            else hands.regroup(editing, made)
            pick({ group: made.id })
          }}
          onRemove={(gone) => {
            setEditing(undefined)
            hands.remove(gone, 'taking out the group')
            pick({ group: undefined })
          }}
        />
      )}
      <div className={classes.body}>
        <nav className={classes.list} aria-label="Classes">
          {shown.length === 0 && (
            <p className={classes.quiet}>
              No class yet. Begin one from its plan, or write one down with “New class”.
            </p>
          )}
          {shown.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-current={one.id === open?.id ? 'true' : undefined}
              onClick={() => pick({ class: one.id })}
            >
              <b className="counts">{dayWords(one.date)}</b> {one.title}
              <span>
                {underWay.has(one.id) ? 'under way' : counted(one.danced.length, 'drill')}
                {one.next && ` · next: ${one.next}`}
              </span>
            </button>
          ))}
        </nav>
        {open ? (
          <ClassForm
            key={open.id}
            entry={open}
            groups={groups}
            combinations={combinations}
            materials={materials}
            isUnderWay={underWay.has(open.id)}
            onChange={(make, by) => hands.change(open, make, by)}
            onRemove={() => hands.remove(open, 'taking out the class')}
          />
        ) : (
          <div />
        )}
        <aside className={classes.views} aria-label="Totals">
          <NextClass
            given={shown}
            group={group}
            practised={practised}
            materials={materials}
            onPlan={async (wishes) => {
              const wanted = emptyPlan(
                newId(),
                `${group?.name ?? 'Next class'} · next`,
                wishes,
                group?.id,
              )
              const { plan } = await planBeside(judge, wanted, materials)
              await planning.plans.put(plan)
              await navigate(`/plan/${plan.id}`)
            }}
          />
          <SideChart given={shown} />
          <TempoChart given={shown} />
          <LoadChart given={shown} />
          <Reached given={shown} />
          <SentBack pages={pages} newId={newId} onChange={hands.sentBack} />
        </aside>
      </div>
    </main>
  )
}

function NextClass({
  given,
  group,
  practised,
  materials,
  onPlan,
}: {
  readonly given: readonly ClassEntry[]
  readonly group: Group | undefined
  readonly practised: readonly Practised[]
  readonly materials: Materials
  readonly onPlan: (wishes: NonNullable<ReturnType<typeof nextClassOf>>['wishes']) => Promise<void>
}) {
  const next = useMemo(
    () =>
      nextClassOf(
        given,
        group ?? { level: houseNow.getState().rules.level, minutes: given[0]?.minutes ?? 60 },
        materials,
        today(),
        practised,
      ),
    [given, group, materials, practised],
  )
  if (!next) return null
  return (
    <section className={classes.nextClass} aria-label="Next class">
      <h2 className="display">Next class</h2>
      <ul>
        {next.because.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
      <Button size="compact-md" onClick={() => void onPlan(next.wishes)}>
        Plan it
      </Button>
    </section>
  )
}

const LONG_DAYS = 21

/** How far this group is, phrase by phrase, and what was not touched for long. */
function Reached({ given }: { readonly given: readonly ClassEntry[] }) {
  const reached = useMemo(() => reachedIn(given), [given])
  const old = useMemo(
    () =>
      new Map(
        untouched(given, today(), LONG_DAYS).map((one) => [one.combination + one.phrase, one.days]),
      ),
    [given],
  )
  if (reached.length === 0) return null
  return (
    <table className={classes.reached}>
      <caption>How far they are</caption>
      <tbody>
        {reached.map((one) => (
          <tr key={one.combination + one.phrase}>
            <th scope="row">
              {one.combinationTitle} {one.name}
              <small>
                {one.layers.map((layer) => layerWord[layer].toLowerCase()).join(', ')} · R{' '}
                {one.counts.R}, L {one.counts.L} counts
              </small>
            </th>
            <td className="counts">
              {one.cleanTempo === undefined
                ? `${one.lastTempo}, not clean`
                : `${one.cleanTempo} clean`}
              <small>
                {old.has(one.combination + one.phrase)
                  ? `not touched for ${counted(old.get(one.combination + one.phrase) ?? 0, 'day')}`
                  : `due ${dayWords(one.due)}`}
              </small>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
