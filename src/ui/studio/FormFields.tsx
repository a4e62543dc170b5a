import { NativeSelect } from '@mantine/core'
import { useMemo } from 'react'
import { type EventForm, formName } from '../../core/combination/forms'
import type { DancedEvent } from '../../core/combination/lengths'
import type { EventChange } from '../../core/edits/edits'
import type { Vocabulary } from '../../core/moves/vocabulary'
import classes from './studio.module.css'

/** A rung more than anybody has levels. */
const MOST_RUNGS = 4

/** What other levels dance instead, one form a level: nearest first. */
export function FormFields({
  event,
  vocabulary,
  set,
}: {
  readonly event: DancedEvent
  readonly vocabulary: Vocabulary
  readonly set: (changes: EventChange) => void
}) {
  const { layer, what } = event
  const own = what.kind === 'move' ? what.move : undefined
  const moves = useMemo(
    () =>
      vocabulary.moves
        .filter((move) => move.layer === layer && move.id !== own)
        .map(({ id, name }) => ({ value: `move ${id}`, label: name })),
    [vocabulary, layer, own],
  )
  return (['easier', 'harder'] as const).map((which) => {
    const forms = event[which] ?? []
    const change = (i: number, form: EventForm | undefined) => {
      const next = form ? forms.with(i, form) : forms.toSpliced(i, 1)
      set({ [which]: next.length > 0 ? next : undefined })
    }
    return (
      <div key={which} className={classes.cardRow}>
        {[...forms, undefined].slice(0, MOST_RUNGS).map((form, i) => (
          <NativeSelect
            // A rung has no name but its place.
            // biome-ignore lint/suspicious/noArrayIndexKey: it is the rung's place
            key={i}
            size="xs"
            className={classes.grow}
            label={labelOf(which, i)}
            data={[
              { value: '', label: form ? 'no form' : 'none' },
              { value: 'none', label: 'leave it out' },
              // What was written in words stays as it is.
              ...(form && 'what' in form
                ? [{ value: 'what', label: formName(form, layer, vocabulary) }]
                : []),
              ...moves,
            ]}
            value={wordFor(form)}
            onChange={({ currentTarget: { value } }) => {
              if (value === 'what') return
              const said: EventForm | undefined =
                value === ''
                  ? undefined
                  : value === 'none'
                    ? { none: true }
                    : { move: value.slice(5) }
              if (i < forms.length) change(i, said)
              else if (said) set({ [which]: [...forms, said] })
            }}
          />
        ))}
      </div>
    )
  })
}

const labelOf = (which: 'easier' | 'harder', rung: number): string =>
  rung === 0
    ? which === 'easier'
      ? 'Easier instead'
      : 'Harder instead'
    : `${which === 'easier' ? 'Easier' : 'Harder'} still`

const wordFor = (form: EventForm | undefined): string =>
  !form ? '' : 'none' in form ? 'none' : 'what' in form ? 'what' : `move ${form.move}`
