import { sidesWords } from '../../core/class/underWay'
import type { Drill } from '../../core/plan/drill'
import type { StepWords } from '../../core/plan/words'

/** Lines that are read from three metres before a drill. */
const MOST_SAID = 3

/** What to say before a drill: how it goes, what is said, what may be danced instead. */
export function DrillWords({
  drill,
  words,
  isPaused,
}: {
  readonly drill: Drill
  readonly words: StepWords | undefined
  readonly isPaused: boolean
}) {
  return (
    <>
      <p>
        <b>{isPaused ? 'Paused. ' : ''}</b>
        {!drill.moves &&
          `${sidesWords(drill)}, ${drill.stand === 'mirror' ? 'face them as their mirror' : 'back to the class'}.`}
      </p>
      {words?.say.slice(0, MOST_SAID).map((line) => (
        <p key={line}>{line}</p>
      ))}
      {words?.easier.slice(0, 1).map((form) => (
        <p key={form}>
          <b>Or</b> {form}
        </p>
      ))}
    </>
  )
}
