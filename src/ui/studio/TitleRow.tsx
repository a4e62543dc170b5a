import {
  ActionIcon,
  Button,
  Menu,
  NativeSelect,
  Popover,
  Switch,
  TagsInput,
  TextInput,
} from '@mantine/core'
import { IconSettings } from '@tabler/icons-react'
import { useQuery } from '@tanstack/react-query'
import { memo } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import { Level } from '../../core/body/places'
import { otherSide, sideWord, Weight } from '../../core/body/side'
import { capital } from '../../core/capital'
import { DancerLevel, teachTempoOf } from '../../core/combination/combination'
import { textsTurned } from '../../core/combination/mirror'
import * as edits from '../../core/edits/edits'
import { otherSideWritten } from '../../core/edits/otherSide'
import * as phrases from '../../core/edits/phrases'
import { familiesNamed, familiesWith } from '../../core/moves/move'
import { countCallsText, readCountCalls } from '../../core/sheet/countCalls'
import { FORMATS, type Format } from '../../core/sheet/formats'
import { FASTEST, SLOWEST } from '../../core/time/tempo'
import { FORMAT_WORDS } from '../combinations/CombinationCard'
import { fileBehind, saveBack } from '../parts/fileBack'
import { focusBraidAfter } from '../parts/focusBraid'
import { KeysButton } from '../parts/KeysHelp'
import { NumberField } from '../parts/NumberField'
import { inWords } from '../parts/Problem'
import { SavedWord } from '../parts/SavedWord'
import { UndoButtons } from '../parts/UndoButtons'
import { checkedOf } from '../stores/checked'
import { PANELS, type Panel } from '../stores/panel'
import { useServices } from '../stores/services'
import {
  change,
  changeAll,
  flip,
  redoNext,
  type Session,
  showBoth,
  undoLast,
} from '../stores/session'
import { danceOf, documentOf, type LinesShown, vocabularyOf, writtenOf } from '../stores/state'
import { saveOpen } from './saveOpen'
import classes from './studio.module.css'

interface TitleRowProps {
  readonly session: Session
  readonly onHelp: () => void
  readonly panel: Panel
  readonly onPanel: (panel: Panel) => void
  readonly onParts: () => void
  readonly onProps: () => void
}

/** The combination's own line: title, facts, sides, undo, and what can be done with all of it. */
export const TitleRow = memo(function TitleRow(props: TitleRowProps) {
  const { session, onHelp, panel, onPanel, onParts, onProps } = props
  // Picks, not the whole combination: most edits change nothing in this row.
  const lead = useStore(session, (s) => danceOf(s).lead)
  const id = useStore(session, (s) => documentOf(s).id)
  const title = useStore(session, (s) => documentOf(s).title)
  const families = useStore(session, (s) => documentOf(s).families)
  const counts = useStore(session, (s) => checkedOf(documentOf(s)).lead.length / 12)
  const shown = useStore(session, (s) => s.shown)
  const canUndo = useStore(session, (s) => s.history.past.length > 0)
  const canRedo = useStore(session, (s) => s.history.future.length > 0)
  const setShown = (wanted: LinesShown) => {
    if ((wanted === 'both') !== (shown === 'both')) showBoth(session)
    const isOther = session.getState().shown === 'other'
    if (wanted !== 'both' && (wanted === 'other') !== isOther) flip(session)
  }
  const sides: readonly { value: LinesShown; label: string }[] = [
    { value: 'lead', label: capital(sideWord[lead]) },
    { value: 'other', label: capital(sideWord[otherSide[lead]]) },
    { value: 'both', label: 'Both' },
  ]
  return (
    <div className={classes.titleRow}>
      <h1 className="only-read">{title}</h1>
      <TextInput
        aria-label="Title"
        classNames={{ root: classes.titleBox ?? '', input: `display ${classes.title}` }}
        variant="unstyled"
        value={title}
        onChange={({ currentTarget }) =>
          change(
            session,
            'change the title',
            edits.describe({ title: currentTarget.value }),
            'title',
          )
        }
      />
      <p className={classes.facts}>
        {families.join(', ')} · <span className="counts">{counts}</span> counts
        <span className={classes.saved}>
          {' '}
          · <SaveWord session={session} />
        </span>
      </p>
      <div className={classes.sides} role="group" aria-label="Side shown">
        {sides.map(({ value, label }) => (
          <button
            key={value}
            type="button"
            aria-pressed={shown === value}
            aria-label={value === 'both' ? undefined : `${label} side`}
            onClick={() => setShown(value)}
          >
            {label}
          </button>
        ))}
      </div>
      <div className={classes.sides} role="group" aria-label="Beside the braid">
        {PANELS.map((value) => (
          <button
            key={value}
            type="button"
            aria-pressed={panel === value}
            onClick={() => onPanel(value)}
          >
            {PANEL_SHORT[value]}
          </button>
        ))}
      </div>
      <UndoButtons
        undo={canUndo ? () => undoLast(session) : undefined}
        redo={canRedo ? () => redoNext(session) : undefined}
      />
      <Settings session={session} />
      <KeysButton onClick={onHelp} />
      <Menu position="bottom-end" returnFocus={false} onExitTransitionEnd={focusBraidAfter}>
        <Menu.Target>
          <Button variant="default" size="compact-md">
            More
          </Button>
        </Menu.Target>
        <Menu.Dropdown>
          {(Object.keys(FORMATS) as Format[]).map((format) => (
            <Menu.Item key={format} onClick={() => void saveOpen(session, format)}>
              {FORMAT_WORDS[format]}
            </Menu.Item>
          ))}
          <SaveBack session={session} id={id} />
          <Menu.Divider />
          <Menu.Item onClick={onParts}>Dancers…</Menu.Item>
          <Menu.Item onClick={onProps}>What is carried…</Menu.Item>
          <Menu.Item onClick={() => leadOther(session)}>
            Lead with the {sideWord[otherSide[lead]]} instead
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <Button component={Link} to={`/combination/${id}/teach`} size="compact-md">
        Teach
      </Button>
    </div>
  )
})

/** Saves the other side as the one that leads, and says which texts were turned with it. */
function leadOther(session: Session): void {
  const before = documentOf(session.getState())
  changeAll(session, 'lead with the other side', (combination) =>
    otherSideWritten(combination, vocabularyOf(session.getState())),
  )
  const turned = textsTurned(before, documentOf(session.getState()))
  if (turned.length === 0) return
  const shown = turned.slice(0, 3).map(({ from, to }) => `“${from}” is now “${to}”`)
  const more = turned.length > 3 ? `, and ${turned.length - 3} more` : ''
  const message = `Texts turned too: ${shown.join(', ')}${more}.`
  session.setState({ message })
}

/** Into the file it was opened from, where the browser lets it. */
function SaveBack({ session, id }: { readonly session: Session; readonly id: string }) {
  const { files } = useServices()
  const { data: name } = useQuery({
    queryKey: ['file of', id],
    queryFn: async () => (await fileBehind(files, id)) ?? null,
    staleTime: 0,
  })
  if (!name) return null
  const save = async () => {
    try {
      session.setState({
        message: `Saved into “${await saveBack(files, writtenOf(session.getState()))}”.`,
      })
    } catch (error) {
      const { what, toDo } = inWords(error)
      session.setState({ message: `${what} ${toDo}` })
    }
  }
  return <Menu.Item onClick={() => void save()}>Save back into “{name}”</Menu.Item>
}

const PANEL_SHORT: Readonly<Record<Panel, string>> = {
  body: 'Body',
  floor: 'Floor',
  level: 'Level',
  moves: 'Moves',
  sheet: 'Sheet',
  song: 'Song',
}

/** Changes twice an edit, so it renders by itself. */
function SaveWord({ session }: { session: Session }) {
  const kind = useStore(session.saver, (save) => save.kind)
  return <SavedWord state={kind} />
}

const WEIGHT_WORD: Readonly<Record<Weight, string>> = {
  L: 'on the left',
  R: 'on the right',
  both: 'on both feet',
}

const NUMBERS = 'numbers'
/** What the caller can be asked to say, as the sheet writes it. */
const CALLED = [
  { value: NUMBERS, label: 'their numbers' },
  { value: 'numbers 1,3,5,7', label: '1, 3, 5 and 7 only' },
  { value: 'words', label: 'the words that go with them' },
  { value: 'names', label: 'the name of each new move' },
  { value: 'none', label: 'nothing' },
]

/** Tempo, families and start stance, behind one button. */
function Settings({ session }: { session: Session }) {
  const start = useStore(session, (s) => danceOf(s).start)
  const tempo = useStore(session, (s) => documentOf(s).tempo)
  const teachTempo = useStore(session, (s) => documentOf(s).teachTempo)
  const usualTeachTempo = useStore(session, (s) => teachTempoOf(documentOf(s)))
  const families = useStore(session, (s) => documentOf(s).families)
  const level = useStore(session, (s) => documentOf(s).level ?? checkedOf(documentOf(s)).level)
  const pickup = useStore(session, (s) => documentOf(s).pickup)
  const keepTurns = useStore(session, (s) => documentOf(s).keepTurns === true)
  const isOnce = useStore(session, (s) => documentOf(s).once === true)
  const called = useStore(session, (s) => {
    const { call } = documentOf(s)
    return call ? countCallsText(call) : NUMBERS
  })
  const setPickup = (counts: number, each: boolean) =>
    change(session, 'change the pickup', phrases.setPickup(counts, each))
  const describe = (label: string, changes: Parameters<typeof edits.describe>[0]) =>
    change(session, `change the ${label}`, edits.describe(changes), label)
  return (
    <Popover
      position="bottom-end"
      width={340}
      withArrow
      trapFocus
      onExitTransitionEnd={focusBraidAfter}
    >
      <Popover.Target>
        <ActionIcon variant="default" aria-label="Tempo, families and start">
          <IconSettings size={18} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={classes.cardRow}>
          <NumberField
            size="sm"
            label="Target tempo"
            className={classes.grow}
            min={SLOWEST}
            max={FASTEST}
            value={tempo}
            onCommit={(made) => describe('tempo', { tempo: made })}
          />
          <NumberField
            size="sm"
            label="Teaching tempo"
            className={classes.grow}
            min={SLOWEST}
            max={FASTEST}
            placeholder={String(usualTeachTempo)}
            value={teachTempo}
            onCommit={(made) => describe('teaching tempo', { teachTempo: made })}
            onClear={() => change(session, 'change the teaching tempo', edits.withoutTeachTempo)}
          />
        </div>
        <TagsInput
          label="Families"
          description="Choose, or write your own."
          data={[...familiesWith(families)]}
          value={[...families]}
          comboboxProps={{ withinPortal: false }}
          onChange={(picked) => describe('families', { families: familiesNamed(picked) })}
        />
        <div className={classes.cardRow}>
          <NativeSelect
            label="Starts with the weight"
            className={classes.grow}
            data={Weight.options.map((weight) => ({ value: weight, label: WEIGHT_WORD[weight] }))}
            value={start.weight}
            onChange={({ currentTarget }) =>
              describe('start', { start: { ...start, weight: Weight.parse(currentTarget.value) } })
            }
          />
          <NativeSelect
            label="Level"
            data={Level.options}
            value={start.level}
            onChange={({ currentTarget }) =>
              describe('start', { start: { ...start, level: Level.parse(currentTarget.value) } })
            }
          />
        </div>
        <div className={classes.cardRow}>
          <NativeSelect
            label="Dancers’ level"
            className={classes.grow}
            data={DancerLevel.options}
            value={level}
            onChange={({ currentTarget }) =>
              describe('level', { level: DancerLevel.parse(currentTarget.value) })
            }
          />
          <NumberField
            size="sm"
            label="Pickup, counts"
            className={classes.grow}
            min={0}
            max={8}
            value={pickup?.counts ?? 0}
            waits
            onCommit={(counts) => setPickup(counts, pickup?.each ?? false)}
          />
        </div>
        <NativeSelect
          label="Caller says on the counts"
          data={[
            ...CALLED,
            ...(CALLED.some(({ value }) => value === called)
              ? []
              : [{ value: called, label: called }]),
          ]}
          value={called}
          onChange={({ currentTarget: { value } }) =>
            change(
              session,
              'change what is said on the counts',
              edits.callCounts(value === NUMBERS ? undefined : readCountCalls(value)),
            )
          }
        />
        <Switch
          mt="xs"
          label="Turns keep their direction on the other side"
          checked={keepTurns}
          onChange={({ currentTarget }) =>
            change(session, 'change the rule of turns', edits.keepTurns(currentTarget.checked))
          }
        />
        <Switch
          mt="xs"
          label="Danced once: the end need not lead back to the beginning"
          checked={isOnce}
          onChange={({ currentTarget }) =>
            change(session, 'dance it once', edits.dancedOnce(currentTarget.checked))
          }
        />
        {pickup && (
          <Switch
            mt="xs"
            label="Dance the pickup before every round"
            checked={pickup.each}
            onChange={({ currentTarget }) => setPickup(pickup.counts, currentTarget.checked)}
          />
        )}
      </Popover.Dropdown>
    </Popover>
  )
}
