import { SIDES, sideWord } from '../../core/body/side'
import { claimOf } from '../../core/combination/claims'
import type { DancedEvent } from '../../core/combination/lengths'
import { nameOf, sideOf } from '../../core/combination/names'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { COUNT, HALF_COUNT, TICKS_PER_COUNT, tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import { removeSelected, rewrite, stretchSelected, turnSelected } from '../stores/editing'
import type { Session } from '../stores/session'
import classes from './placing.module.css'

/** Lengths that are one touch away, in counts. */
const LENGTHS = [1, 2, 3, 4, 6, 8] as const

interface PlacedRowProps {
  readonly session: Session
  readonly event: DancedEvent
  readonly vocabulary: Vocabulary
  /** Counts it is danced on, in words. */
  readonly when: string
  readonly onAbout: () => void
  /** What is touched next is the end of what is selected. */
  readonly onExtend: () => void
}

/** What was placed, or is picked: its side, direction, length and turn as large buttons. */
export function PlacedRow({ session, event, vocabulary, when, onAbout, onExtend }: PlacedRowProps) {
  const { what, layer } = event
  const side = sideOf(what)
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  // A single step lands where it stands; how long it lasts is the next one's to say.
  const hasLength = what.kind !== 'foot'
  const write = (made: What) => rewrite(session, event, { what: made })
  return (
    <div className={classes.placed}>
      <p className={`layer-${layer}`}>
        <b>{nameOf(event, vocabulary)}</b>
        <span>{when}</span>
      </p>
      {side && move?.sided !== 'direction' && (
        <Choices
          label="Side"
          options={SIDES.toReversed().map((one) => ({ value: one, word: sideWord[one] }))}
          value={side}
          onPick={(value) => turnSelected(session, value)}
        />
      )}
      {what.kind === 'move' && move?.sided === 'direction' && (
        <Choices
          label="Direction"
          options={[
            { value: 'cw', word: 'clockwise' },
            { value: 'ccw', word: 'anticlockwise' },
          ]}
          value={what.way ?? 'cw'}
          onPick={(way) => {
            const { by: _, ...rest } = what
            write({ ...rest, way })
          }}
        />
      )}
      {hasLength && (
        <Choices
          label="Length, counts"
          options={LENGTHS.map((counts) => ({ value: String(counts), word: String(counts) }))}
          value={String(event.length / COUNT)}
          onPick={(counts) => stretchSelected(session, Number(counts) * COUNT - event.length)}
        />
      )}
      {hasLength && (
        <div className={classes.pair}>
          <button
            type="button"
            aria-label="Half a count shorter"
            onClick={() => stretchSelected(session, -HALF_COUNT)}
          >
            −½
          </button>
          <button
            type="button"
            aria-label="Half a count longer"
            onClick={() => stretchSelected(session, HALF_COUNT)}
          >
            +½
          </button>
        </div>
      )}
      {what.kind === 'foot' && what.action.primitive !== 'hold' && (
        <div className={classes.pair}>
          {[-45, 45].map((by) => (
            <button
              key={by}
              type="button"
              aria-label={by < 0 ? 'Turn 45° left' : 'Turn 45° right'}
              onClick={() => {
                const turn = (what.action.turn ?? 0) + by
                const { turn: _, ...rest } = what.action
                if (turn === 0 && rest.primitive === 'pivot') return
                write({ kind: 'foot', action: turn === 0 ? rest : { ...rest, turn } })
              }}
            >
              {by < 0 ? '↺ 45°' : '↻ 45°'}
            </button>
          ))}
        </div>
      )}
      {what.kind === 'move' && claimOf(event, vocabulary).kind === 'accent' && (
        <Choices
          label="Repeat"
          options={[
            { value: '0', word: 'once' },
            { value: String(TICKS_PER_COUNT), word: 'each count' },
            { value: String(HALF_COUNT), word: 'each half' },
          ]}
          value={String(what.every ?? 0)}
          onPick={(ticks) => {
            const { every: _, ...rest } = what
            write({ ...rest, ...(Number(ticks) > 0 && { every: tick(Number(ticks)) }) })
          }}
        />
      )}
      <div className={classes.pair}>
        <button type="button" onClick={onExtend}>
          Select on to…
        </button>
        <button type="button" onClick={onAbout}>
          All about it
        </button>
        <button type="button" onClick={() => removeSelected(session)}>
          Remove
        </button>
      </div>
    </div>
  )
}

/** One of a few, each as large as a finger. */
export function Choices<T extends string>({
  label,
  options,
  value,
  onPick,
}: {
  readonly label: string
  readonly options: readonly { readonly value: T; readonly word: string }[]
  readonly value: T | undefined
  readonly onPick: (value: T) => void
}) {
  return (
    <div className={classes.choices} role="group" aria-label={label}>
      {options.map((one) => (
        <button
          key={one.value}
          type="button"
          aria-pressed={one.value === value}
          onClick={() => onPick(one.value)}
        >
          {one.word}
        </button>
      ))}
    </div>
  )
}
