import { Button, TextInput } from '@mantine/core'
import type { ReactNode } from 'react'
import { LEAST_TAPS } from '../../core/beats/tapped'
import type { Selection } from '../../core/song/correct'
import { placeWords } from '../../core/song/lines'
import { stopToggled, wordOn, wordSet } from '../../core/song/marks'
import { firstOne, isSilent, MOST_PHRASE, oneAt, type Song, sureAt } from '../../core/song/song'
import { clockText } from '../../core/time/clock'
import { NumberField } from '../parts/NumberField'
import { Tool } from '../parts/Tool'
import { type Change, countChanges, NUDGE } from './countChanges'
import { Pair } from './Pair'
import { SectionForm } from './SectionForm'
import classes from './song.module.css'

const SURE_WORDS = { sure: 'sure', look: 'look at it', guess: 'a guess' } as const

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
  film,
}: {
  readonly song: Song
  readonly selection: Selection
  /** How often has been tapped; undefined while nobody does. */
  readonly taps: number | undefined
  readonly isAsking: boolean
  readonly message: string
  readonly newId: () => string
  readonly onTap: () => void
  /** Counts anew at so many times the tempo. */
  readonly onTempo: (times: number) => void
  readonly change: Change
  /** Its pictures, where it is a film and they are wished for. */
  readonly film: ReactNode
}) {
  const { from, to } = selection
  const { counts, sections } = song
  const edits = countChanges(change, selection)
  const one = oneAt(counts, from)
  const section = sections.findLast(({ at }) => at <= from)
  const sure = sureAt(counts, from)
  const isOff = isSilent(counts, from)
  return (
    <aside className={classes.aside} aria-label="This count">
      {film}
      <p className={classes.where}>
        <b className="display">{placeWords(song, from)}</b>
        <span className="counts">
          {to - from > 1 && `${to - from} counts · `}
          {clockText((counts.ms[from] ?? 0) / 1000)}
          {!isOff && (
            <span className={classes.sure} data-sure={sure}>
              {SURE_WORDS[sure]}
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
          : taps < LEAST_TAPS
            ? `Tap on each count: ${taps} of ${LEAST_TAPS}`
            : `${taps} taps: stop tapping`}
      </Button>
      <Pair>
        <Tool onClick={edits.one}>This is 1</Tool>
        {counts.ones.some((each) => each.at === from) && from !== firstOne(counts) ? (
          <Tool onClick={edits.on}>Count on through</Tool>
        ) : (
          <Tool onClick={edits.anew}>Count anew here</Tool>
        )}
      </Pair>
      <p className={classes.hint}>Tap “This is 1” on the count that is, if this is not.</p>
      <Pair>
        <Tool onClick={edits.twice}>Twice as many</Tool>
        <Tool onClick={edits.half}>Half as many</Tool>
      </Pair>
      <Pair>
        <Tool onClick={() => onTempo(3 / 2)}>3 for 2</Tool>
        <Tool onClick={() => onTempo(2 / 3)}>2 for 3</Tool>
      </Pair>
      <Pair>
        <Tool onClick={() => edits.nudge(-NUDGE.much)}>20 ms earlier</Tool>
        <Tool onClick={() => edits.nudge(NUDGE.much)}>20 ms later</Tool>
      </Pair>
      <Pair>
        <Tool onClick={edits.uncount}>{isOff ? 'Count here again' : 'No count here'}</Tool>
        <Tool onClick={() => change('stop here', (now) => stopToggled(now, from))}>
          {song.stops.some(({ at }) => at === from) ? 'No stop here' : 'Stop here'}
        </Tool>
      </Pair>
      <Pair>
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
          value={wordOn(song, from)}
          onChange={({ currentTarget: { value } }) =>
            change('word', (now) => wordSet(now, from, value), `word ${from}`)
          }
        />
      </Pair>
      {section && (
        <SectionForm song={song} section={section} at={from} newId={newId} change={change} />
      )}
    </aside>
  )
}
