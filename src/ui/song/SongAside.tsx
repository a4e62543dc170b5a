import { Button, NativeSelect, TextInput } from '@mantine/core'
import type { ReactNode } from 'react'
import { PART_KINDS } from '../../core/beats/parts'
import {
  countedAgain,
  countedOn,
  half,
  nudged,
  phraseOf,
  restartHere,
  thisIsOne,
  twice,
  uncounted,
} from '../../core/song/correct'
import {
  sectionChanged,
  sectionFrom,
  sectionJoined,
  sectionMoved,
  stopToggled,
  withCounts,
  wordSet,
} from '../../core/song/edits'
import { labelOf } from '../../core/song/heard'
import { placeWords } from '../../core/song/lines'
import {
  MOST_PHRASE,
  oneAt,
  type Section,
  type Song,
  type SongCounts,
  sureAt,
} from '../../core/song/song'
import { NumberField } from '../parts/NumberField'
import { clockWords, sureWord } from '../songs/songWords'
import classes from './song.module.css'
import type { Counts } from './useSongPlay'

/** Makes a change of the song, told in words. */
export type Change = (label: string, make: (song: Song) => Song, mark?: string) => void

/** Milliseconds that counts are moved by. */
export const NUDGE = { little: 5, much: 20 } as const

/** What of the counts is changed: those that are selected, or all where it is only one. */
export const selected = ({ from, to }: Counts): Counts | undefined =>
  to - from > 1 ? { from, to } : undefined

/** What can be done to the counts of a song, each one undo. */
export const countChanges = (change: Change, selection: Counts) => {
  const { from } = selection
  const counts = (label: string, make: (counts: SongCounts) => SongCounts, mark?: string) =>
    change(label, (song) => withCounts(song, make(song.counts)), mark)
  const stretch = selected(selection) ?? { from, to: from + 1 }
  return {
    one: () => counts('this is 1', (now) => thisIsOne(now, from)),
    anew: () => counts('count anew here', (now) => restartHere(now, from)),
    on: () => counts('count on through here', (now) => countedOn(now, from)),
    twice: () => counts('twice as many counts', twice),
    half: () => counts('half as many counts', half),
    nudge: (by: number) =>
      counts('move counts', (now) => nudged(now, by, selected(selection)), 'nudge'),
    phrase: (length: number) =>
      counts('phrase length', (now) => phraseOf(now, from, length), 'phrase length'),
    uncount: () =>
      counts('no count here', (now) =>
        now.silent.some((one) => one.from <= stretch.from && one.to >= stretch.to)
          ? countedAgain(now, stretch)
          : uncounted(now, stretch),
      ),
  }
}

/** What is known of the selected count and its section, and what can be done to them. */
export function SongAside({
  song,
  selection,
  taps,
  isAsking,
  message,
  newId,
  onTap,
  onTempo,
  change,
}: {
  readonly song: Song
  readonly selection: Counts
  /** How often has been tapped; undefined while nobody does. */
  readonly taps: number | undefined
  readonly isAsking: boolean
  readonly message: string
  readonly newId: () => string
  readonly onTap: () => void
  /** Counts anew at so many times the tempo. */
  readonly onTempo: (times: number) => void
  readonly change: Change
}) {
  const { from, to } = selection
  const { counts, sections } = song
  const edits = countChanges(change, selection)
  const one = oneAt(counts, from)
  const section = sections.findLast(({ at }) => at <= from)
  const sure = sureWord(sureAt(counts, from))
  const isSilent = counts.silent.some((each) => from >= each.from && from < each.to)
  const tick = 12 * (from - (counts.ones[0]?.at ?? 0))
  const word = song.words.find(({ at }) => at === tick)?.text ?? ''
  return (
    <aside className={classes.aside} aria-label="This count">
      <p className={classes.where}>
        <b className="display">{placeWords(song, from)}</b>
        <span className="counts">
          {to - from > 1 && `${to - from} counts · `}
          {clockWords((counts.ms[from] ?? 0) / 1000)}
          {!isSilent && (
            <span className={classes.sure} data-sure={sure}>
              {sure === 'sure' ? 'sure' : sure === 'look' ? 'look at it' : 'a guess'}
            </span>
          )}
        </span>
      </p>
      <p className={classes.message} role="status">
        {message}
      </p>
      <Button size="md" className={classes.tap} onClick={onTap} loading={isAsking}>
        {taps === undefined
          ? 'Tap along'
          : taps < 8
            ? `Tap on each count: ${taps} of 8`
            : `${taps} taps: stop tapping`}
      </Button>
      <Row>
        <Tool onClick={edits.one}>This is 1</Tool>
        {counts.ones.some((each) => each.at === from) && from !== counts.ones[0]?.at ? (
          <Tool onClick={edits.on}>Count on through</Tool>
        ) : (
          <Tool onClick={edits.anew}>Count anew here</Tool>
        )}
      </Row>
      <p className={classes.hint}>Tap “This is 1” on the count that is, if this is not.</p>
      <Row>
        <Tool onClick={edits.twice}>Twice as many</Tool>
        <Tool onClick={edits.half}>Half as many</Tool>
      </Row>
      <Row>
        <Tool onClick={() => onTempo(3 / 2)}>3 for 2</Tool>
        <Tool onClick={() => onTempo(2 / 3)}>2 for 3</Tool>
      </Row>
      <Row>
        <Tool onClick={() => edits.nudge(-NUDGE.much)}>20 ms earlier</Tool>
        <Tool onClick={() => edits.nudge(NUDGE.much)}>20 ms later</Tool>
      </Row>
      <Row>
        <Tool onClick={edits.uncount}>{isSilent ? 'Count here again' : 'No count here'}</Tool>
        <Tool onClick={() => change('stop here', (now) => stopToggled(now, from))}>
          {song.stops.some(({ at }) => at === from) ? 'No stop here' : 'Stop here'}
        </Tool>
      </Row>
      <Row>
        <NumberField
          label="Phrase of"
          value={one.counts}
          min={1}
          max={MOST_PHRASE}
          onCommit={edits.phrase}
        />
        <TextInput
          size="xs"
          label="Your word here"
          maxLength={24}
          value={word}
          onChange={({ currentTarget: { value } }) =>
            change('word', (now) => wordSet(now, tick, value), `word ${tick}`)
          }
        />
      </Row>
      {section && (
        <SectionForm song={song} section={section} at={from} newId={newId} change={change} />
      )}
    </aside>
  )
}

function SectionForm({
  song,
  section,
  at,
  newId,
  change,
}: {
  readonly song: Song
  readonly section: Section
  readonly at: number
  readonly newId: () => string
  readonly change: Change
}) {
  const { id } = section
  const others = song.sections.filter((one) => one.id !== id && one.as === undefined)
  const set = (made: Parameters<typeof sectionChanged>[2], mark: string) =>
    change('section', (now) => sectionChanged(now, id, made), `${id} ${mark}`)
  return (
    <fieldset className={classes.form}>
      <legend>Section</legend>
      <Row>
        <TextInput
          size="xs"
          label="Name"
          maxLength={40}
          value={section.label}
          onChange={({ currentTarget: { value } }) =>
            value !== '' && set({ label: value }, 'label')
          }
        />
        <NativeSelect
          size="xs"
          label="What it is"
          data={PART_KINDS.map((kind) => ({ value: kind, label: labelOf(kind) }))}
          value={section.kind}
          onChange={({ currentTarget }) => {
            const kind = currentTarget.value as Section['kind']
            const isNamed = section.label !== labelOf(section.kind)
            set({ kind, ...(!isNamed && { label: labelOf(kind) }) }, 'kind')
          }}
        />
      </Row>
      <Row>
        <NumberField
          label="Energy, 1 to 5"
          value={section.energy}
          min={1}
          max={5}
          onCommit={(energy) => set({ energy }, 'energy')}
        />
        <NativeSelect
          size="xs"
          label="Same as"
          data={[
            { value: '', label: 'no other' },
            ...others.map((one) => ({
              value: one.id,
              label: `${one.label}, ${clockWords((song.counts.ms[one.at] ?? 0) / 1000)}`,
            })),
          ]}
          value={section.as ?? ''}
          onChange={({ currentTarget }) => set({ as: currentTarget.value || undefined }, 'as')}
        />
      </Row>
      <Row>
        <Tool
          onClick={() => change('new section', (now) => sectionFrom(now, at, newId()))}
          isOff={section.at === at}
        >
          New from here
        </Tool>
        <Tool
          onClick={() => change('join sections', (now) => sectionJoined(now, id))}
          isOff={song.sections[0]?.id === id}
        >
          Join to the last
        </Tool>
      </Row>
      <Row>
        <Tool
          onClick={() => change('section', (now) => sectionMoved(now, id, section.at - 1))}
          isOff={song.sections[0]?.id === id}
        >
          A count earlier
        </Tool>
        <Tool
          onClick={() => change('section', (now) => sectionMoved(now, id, section.at + 1))}
          isOff={song.sections[0]?.id === id}
        >
          A count later
        </Tool>
      </Row>
    </fieldset>
  )
}

const Row = ({ children }: { readonly children: ReactNode }) => (
  <div className={classes.pair}>{children}</div>
)

const Tool = ({
  onClick,
  isOff = false,
  children,
}: {
  readonly onClick: () => void
  readonly isOff?: boolean
  readonly children: ReactNode
}) => (
  <Button className={classes.tool} size="xs" variant="default" disabled={isOff} onClick={onClick}>
    {children}
  </Button>
)
