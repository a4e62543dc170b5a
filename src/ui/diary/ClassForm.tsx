import { ActionIcon, Button, NativeSelect, Textarea, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { Link } from 'react-router'
import type { Combination } from '../../core/combination/combination'
import { type ClassEntry, type DancedDrill, Day, type Group, Verdict } from '../../core/diary/diary'
import type { Materials } from '../../core/plan/material'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { TimeOfDay } from '../../core/time/timeOfDay'
import { NumberField } from '../parts/NumberField'
import { useDraft } from '../parts/useDraft'
import field from '../planning/planning.module.css'
import { AddDanced } from './AddDanced'
import classes from './diary.module.css'

interface ClassFormProps {
  readonly entry: ClassEntry
  readonly groups: readonly Group[]
  readonly combinations: readonly Combination[]
  readonly materials: Materials
  /** It is under way, or was left in the middle. */
  readonly isUnderWay: boolean
  /** @param by what the change did, in words, and what marks changes that are one with it. */
  readonly onChange: (
    make: (now: ClassEntry) => ClassEntry,
    by: { readonly label: string; readonly mark?: string },
  ) => void
  readonly onRemove: () => void
}

const VERDICT_WORDS: Readonly<Record<Verdict, string>> = { clean: 'clean', 'not-yet': 'not yet' }

const FIELD_WORDS: Partial<Record<keyof ClassEntry, string>> = {
  title: 'the name',
  date: 'the date',
  start: 'the time',
  minutes: 'the minutes',
  room: 'the room',
  notes: 'the notes',
  next: 'the next time',
}

/** One class: what the floor wrote down, corrected by hand, and what to do next time. */
export function ClassForm({
  entry,
  groups,
  combinations,
  materials,
  isUnderWay,
  onChange,
  onRemove,
}: ClassFormProps) {
  const set = <K extends keyof ClassEntry>(key: K, value: ClassEntry[K]) =>
    onChange((now) => ({ ...now, [key]: value }), { label: FIELD_WORDS[key] ?? key, mark: key })
  const setDrill = (id: string, change: Partial<DancedDrill>) =>
    onChange(
      (now) => ({
        ...now,
        danced: now.danced.map((drill) => (drill.id === id ? { ...drill, ...change } : drill)),
      }),
      { label: 'what was danced', mark: `${id} ${Object.keys(change).join()}` },
    )
  return (
    <section className={classes.class} aria-label="Class">
      <div className={classes.classTop}>
        <LiveText
          label="Name of the class"
          className={`${classes.name} ${field.title}`}
          value={entry.title}
          onCommit={(title) => set('title', title)}
        />
        {(isUnderWay || entry.plan !== undefined) && (
          <Button
            component={Link}
            to={`/class/${entry.id}`}
            size="compact-md"
            className={classes.goOn ?? ''}
          >
            {isUnderWay ? 'Go on with the class' : 'To the floor'}
          </Button>
        )}
        {entry.plan !== undefined && (
          <Button component={Link} to={`/plan/${entry.plan}`} variant="default" size="compact-md">
            Its plan
          </Button>
        )}
        <ActionIcon variant="subtle" color="gray" aria-label="Delete this class" onClick={onRemove}>
          <IconTrash size={18} />
        </ActionIcon>
      </div>
      <div className={classes.fields}>
        <TextInput
          size="xs"
          type="date"
          label="Date"
          value={entry.date}
          onChange={({ currentTarget: { value } }) =>
            Day.safeParse(value).success && set('date', value)
          }
        />
        <TextInput
          size="xs"
          type="time"
          label="Begins"
          value={entry.start}
          onChange={({ currentTarget: { value } }) =>
            TimeOfDay.safeParse(value).success && set('start', value)
          }
        />
        <NumberField
          label="Minutes"
          min={1}
          max={600}
          value={entry.minutes}
          onCommit={(minutes) => set('minutes', minutes)}
        />
        <NativeSelect
          size="xs"
          label="Group"
          data={[
            { value: '', label: 'no group' },
            ...groups.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          value={entry.group ?? ''}
          onChange={({ currentTarget: { value } }) =>
            onChange(({ group: _, ...now }) => (value === '' ? now : { ...now, group: value }), {
              label: 'the group',
            })
          }
        />
        <LiveText label="Room" shown value={entry.room} onCommit={(room) => set('room', room)} />
      </div>
      {entry.danced.length === 0 ? (
        <p className={classes.quiet}>
          Nothing danced yet. The floor writes down every round that is finished; what was danced
          without it, you write down here.
        </p>
      ) : (
        <table className={classes.danced}>
          <thead>
            <tr>
              <th scope="col">Danced</th>
              <th scope="col">Right</th>
              <th scope="col">Left</th>
              <th scope="col">Tempo</th>
              <th scope="col">How</th>
              <th scope="col">
                <span className="only-read">Take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {entry.danced.map((drill) => (
              <tr key={drill.id}>
                <th scope="row">
                  {drill.title}
                  <small>
                    {drill.combinationTitle}
                    {drill.eased && ', easier form'}
                  </small>
                </th>
                {(['R', 'L'] as const).map((side) => (
                  <td key={side}>
                    <NumberField
                      aria-label={`Rounds ${side === 'R' ? 'right' : 'left'}, ${drill.title}`}
                      min={0}
                      max={99}
                      hideControls
                      value={drill.rounds[side]}
                      onCommit={(rounds) =>
                        setDrill(drill.id, { rounds: { ...drill.rounds, [side]: rounds } })
                      }
                    />
                  </td>
                ))}
                <td>
                  <NumberField
                    aria-label={`Tempo, ${drill.title}`}
                    min={SLOWEST}
                    max={FASTEST}
                    hideControls
                    value={drill.tempo}
                    onCommit={(tempo) => setDrill(drill.id, { tempo })}
                  />
                </td>
                <td>
                  <NativeSelect
                    size="xs"
                    aria-label={`How it was, ${drill.title}`}
                    data={[
                      { value: '', label: '–' },
                      ...Verdict.options.map((value) => ({ value, label: VERDICT_WORDS[value] })),
                    ]}
                    value={drill.verdict ?? ''}
                    onChange={({ currentTarget: { value } }) => {
                      const verdict = Verdict.safeParse(value).data
                      setDrill(drill.id, { verdict })
                    }}
                  />
                </td>
                <td>
                  <ActionIcon
                    variant="subtle"
                    color="gray"
                    aria-label={`Remove ${drill.title}`}
                    onClick={() =>
                      onChange(
                        (now) => ({
                          ...now,
                          danced: now.danced.filter(({ id }) => id !== drill.id),
                        }),
                        { label: `taking out ${drill.title}` },
                      )
                    }
                  >
                    <IconTrash size={16} />
                  </ActionIcon>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <AddDanced
        combinations={combinations}
        materials={materials}
        onAdd={(row) =>
          onChange((now) => ({ ...now, danced: [...now.danced, row] }), {
            label: `writing down ${row.title}`,
          })
        }
      />
      <div className={classes.notes}>
        <LiveArea label="Notes" value={entry.notes} onCommit={(notes) => set('notes', notes)} />
        <LiveArea label="Next time" value={entry.next} onCommit={(next) => set('next', next)} />
      </div>
    </section>
  )
}

function useText(value: string, onCommit: (value: string) => void) {
  const { draft, setDraft, send, leave } = useDraft(value)
  return {
    value: draft,
    onChange: ({ currentTarget }: { currentTarget: { value: string } }) => {
      setDraft(currentTarget.value)
      send(currentTarget.value)
      onCommit(currentTarget.value)
    },
    onBlur: leave,
  }
}

function LiveText(props: {
  readonly label: string
  readonly shown?: boolean
  readonly className?: string
  readonly value: string
  readonly onCommit: (value: string) => void
}) {
  const draft = useText(props.value, props.onCommit)
  return (
    <TextInput
      size={props.shown ? 'xs' : 'md'}
      {...(props.className && { className: props.className })}
      {...(props.shown
        ? { label: props.label }
        : { 'aria-label': props.label, placeholder: props.label })}
      {...draft}
    />
  )
}

function LiveArea(props: {
  readonly label: string
  readonly value: string
  readonly onCommit: (value: string) => void
}) {
  const draft = useText(props.value, props.onCommit)
  return <Textarea size="sm" label={props.label} autosize minRows={2} maxRows={8} {...draft} />
}
