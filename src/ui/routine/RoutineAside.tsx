import { Button } from '@mantine/core'
import type { ReactNode } from 'react'
import type { Combination } from '../../core/combination/combination'
import type { Units } from '../../core/house/lengths'
import { backOn } from '../../core/routine/backOn'
import type { SongFact } from '../../core/routine/fit'
import { isLeft, leftAsIs, takenUp } from '../../core/routine/leaves'
import { type Piece, REST_WORDS, type RestHow, type Routine } from '../../core/routine/routine'
import { nameOf, songFactPlace, songFactText } from '../../core/routine/words'
import { placeWords } from '../../core/song/lines'
import type { Song } from '../../core/song/song'
import { Tool } from '../parts/Tool'
import map from '../song/song.module.css'
import classes from './routine.module.css'
import { useFacts } from './useFacts'
import type { Hands } from './useHands'
import type { ChangeRoutine } from './useRoutine'

const PACES = [
  { pace: 1, words: 'As written' },
  { pace: 2, words: 'Double time' },
  { pace: 0.5, words: 'Half time' },
] as const

const keyOf = (fact: SongFact): string =>
  `${fact.code} ${fact.at} ${fact.code === 'song.dance' ? fact.finding.code : ''}`

/** Counts that nothing is laid on are not left, they are danced freely. */
const canBeLeft = ({ code }: SongFact): boolean => code !== 'song.gap' && code !== 'song.lost'

/** What is danced at the cursor, what can be done to it, and what is worth a look in all of it. */
export function RoutineAside({
  routine,
  song,
  units,
  combinations,
  at,
  piece,
  hands,
  message,
  figure,
  onSelect,
  change,
}: {
  readonly routine: Routine
  readonly song: Song
  readonly units: Units
  readonly combinations: readonly Combination[]
  readonly at: number
  readonly piece: Piece | undefined
  readonly hands: Hands
  readonly message: string
  readonly figure: ReactNode
  readonly onSelect: (at: number) => void
  readonly change: ChangeRoutine
}) {
  const { facts: all, offersFor } = useFacts(routine, song, combinations, at)
  const facts = all.filter((fact) => !isLeft(routine, fact))
  const left = all.filter((fact) => isLeft(routine, fact))
  const textOf = (fact: SongFact) => songFactText(fact, song, units)
  const { phrase, move, longer, turn, remove, rest, makeUp, pace, lock } = hands
  const on = piece && backOn(piece, song)
  const ownPace = piece?.what.kind === 'dance' ? (piece.what.pace ?? 1) : 1
  return (
    <aside className={classes.aside} aria-label="Danced here">
      {figure}
      <p className={map.where}>
        <b className="display">{placeWords(song, at)}</b>
        <span>
          {piece
            ? [nameOf(piece, combinations), on && `back ${on}`].filter(Boolean).join(', ')
            : 'nothing is laid here'}
        </span>
      </p>
      <p className={map.message} role="status">
        {message}
      </p>
      <div className={classes.tools}>
        {piece ? (
          <>
            <Tool onClick={turn}>Other side</Tool>
            <Tool onClick={remove}>Take away</Tool>
            <Tool onClick={() => longer(-phrase)}>Shorter</Tool>
            <Tool onClick={() => longer(phrase)}>Longer</Tool>
            <Tool onClick={() => move(-phrase)}>Earlier</Tool>
            <Tool onClick={() => move(phrase)}>Later</Tool>
            <Tool onClick={lock}>{piece.locked ? 'Unlock' : 'Lock'}</Tool>
            {piece.what.kind === 'dance' &&
              PACES.filter(({ pace: one }) => one !== ownPace).map(({ pace: one, words }) => (
                <Tool key={one} onClick={() => pace(one)}>
                  {words}
                </Tool>
              ))}
          </>
        ) : (
          <>
            {(Object.keys(REST_WORDS) as RestHow[]).map((how) => (
              <Tool key={how} onClick={() => rest(how)}>
                {REST_WORDS[how]} here
              </Tool>
            ))}
            <Tool onClick={makeUp}>Make something up</Tool>
          </>
        )}
      </div>
      <section aria-label="Worth a look">
        <ul className={classes.facts}>
          {facts.map((fact) => (
            <li key={keyOf(fact)}>
              <button type="button" onClick={() => onSelect(fact.at)}>
                <b>{songFactPlace(fact, song)}</b> {textOf(fact)}
              </button>
              {offersFor(fact).map((offer) => (
                <Button
                  key={offer.words}
                  className={classes.offer}
                  size="compact-sm"
                  onClick={() => hands.take(offer)}
                >
                  {offer.words}
                </Button>
              ))}
              {fact.at === at && canBeLeft(fact) && (
                <Button
                  className={classes.offer}
                  size="compact-sm"
                  variant="default"
                  onClick={() => change('leave it as it is', (now) => leftAsIs(now, fact))}
                >
                  Ignore it
                </Button>
              )}
            </li>
          ))}
        </ul>
        {left.length > 0 && (
          <details className={classes.left}>
            <summary>Ignored: {left.length}</summary>
            <ul className={classes.facts}>
              {left.map((fact) => (
                <li key={keyOf(fact)}>
                  <button type="button" onClick={() => onSelect(fact.at)}>
                    <b>{songFactPlace(fact, song)}</b> {textOf(fact)}
                  </button>
                  <Button
                    className={classes.offer}
                    size="compact-sm"
                    variant="default"
                    onClick={() => change('say it again', (now) => takenUp(now, fact))}
                  >
                    Show it again
                  </Button>
                </li>
              ))}
            </ul>
          </details>
        )}
      </section>
    </aside>
  )
}
