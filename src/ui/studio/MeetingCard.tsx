import { ActionIcon, NativeSelect, TextInput } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useStore } from 'zustand'
import { capital } from '../../core/capital'
import type { Meeting } from '../../core/combination/between'
import {
  anotherMeeting,
  type BetweenChange,
  changeBetween,
  removeBetween,
} from '../../core/edits/between'
import { meetingWords } from '../../core/teaching/meetingWords'
import { labelIn, labelOfSpan } from '../../core/time/time'
import { changeAll, type Session } from '../stores/session'
import { documentOf, meetingPicked } from '../stores/state'
import { MeetingFields } from './MeetingFields'
import { SpanButtons } from './SpanButtons'
import classes from './studio.module.css'

/** Everything about what two do with each other, to be changed by hand. */
export function MeetingCard({
  session,
  onClose,
}: {
  readonly session: Session
  readonly onClose: () => void
}) {
  const picked = useStore(session, meetingPicked)
  const { parts = [], carried = [], phrases } = useStore(session, documentOf)
  const phrase = phrases.find(({ between = [] }) => between.some(({ id }) => id === picked?.id))
  if (!picked || !phrase) return null
  const set = (change: BetweenChange, mark?: string) =>
    changeAll(session, `change the ${picked.what.kind}`, changeBetween(picked.id, change), mark)
  const write = (what: Meeting) => set({ what })
  return (
    <section className={classes.card} aria-label="What they do together">
      <header className={classes.cardHead}>
        <h2 className="display">{capital(picked.what.kind)}</h2>
        <ActionIcon variant="subtle" color="gray" aria-label="Close" onClick={onClose}>
          <IconX size={16} />
        </ActionIcon>
      </header>
      <p className={classes.cardWhen}>
        {meetingWords(picked.what, parts)}, counts {labelOfSpan(picked, labelIn(phrase))}
      </p>
      <div className={classes.cardRow}>
        <NativeSelect
          size="xs"
          aria-label="What they do"
          data={KINDS.filter(({ value }) => value !== 'pass' || carried.length > 0)}
          value={picked.what.kind}
          onChange={({ currentTarget }) =>
            write(
              anotherMeeting(picked.what, currentTarget.value as Meeting['kind'], {
                parts,
                carried,
              }),
            )
          }
        />
        <SpanButtons
          span={picked}
          set={set}
          onRemove={() => {
            changeAll(session, `take the ${picked.what.kind} out`, removeBetween(picked.id))
            onClose()
          }}
        />
      </div>
      <MeetingFields what={picked.what} parts={parts} carried={carried} write={write} />
      <div className={classes.cardRow}>
        {(['cue', 'note'] as const).map((key) => (
          <TextInput
            key={key}
            size="xs"
            label={capital(key)}
            className={classes.grow}
            value={picked[key] ?? ''}
            onChange={({ currentTarget: { value } }) =>
              set({ [key]: value }, `${key} ${picked.id}`)
            }
          />
        ))}
      </div>
    </section>
  )
}

const KINDS: readonly { value: Meeting['kind']; label: string }[] = [
  { value: 'hold', label: 'hold' },
  { value: 'touch', label: 'touch' },
  { value: 'place', label: 'place' },
  { value: 'orbit', label: 'go round' },
  { value: 'support', label: 'support' },
  { value: 'led', label: 'lead a turn' },
  { value: 'look', label: 'look' },
  { value: 'pass', label: 'pass on' },
  { value: 'wait', label: 'wait' },
]
