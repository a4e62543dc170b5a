import { NativeSelect, Switch } from '@mantine/core'
import { useStore } from 'zustand'
import type { Part } from '../../core/combination/part'
import { leadersFor, type Voice, voiceOf } from '../../core/combination/voice'
import { changeVoice, removeVoice, type VoiceChange } from '../../core/edits/voices'
import { changeAll, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import { LaterField } from './LaterField'
import classes from './parts.module.css'

interface VoiceFieldsProps {
  readonly session: Session
  readonly phraseId: string
}

/** Who follows whom through a phrase, and how many counts later. */
export function VoiceFields({ session, phraseId }: VoiceFieldsProps) {
  const { parts, phrases } = useStore(session, documentOf)
  const phrase = phrases.find(({ id }) => id === phraseId)
  if (!parts || !phrase) return null
  return (
    <fieldset className={classes.part}>
      <legend>Who follows whom in it</legend>
      {parts.map((part) => (
        <VoiceRow
          key={part.id}
          session={session}
          phraseId={phraseId}
          part={part}
          parts={parts}
          voices={phrase.voices ?? []}
        />
      ))}
    </fieldset>
  )
}

interface VoiceRowProps extends VoiceFieldsProps {
  readonly part: Part
  readonly parts: readonly Part[]
  readonly voices: readonly Voice[]
}

function VoiceRow({ session, phraseId, part, parts, voices }: VoiceRowProps) {
  const voice = voiceOf({ voices }, part.id)
  const write = (change: VoiceChange) =>
    changeAll(
      session,
      `let ${part.name} follow`,
      changeVoice(phraseId, part.id, change),
      `voice ${part.id}`,
    )
  const ids = leadersFor(
    part.id,
    parts.map(({ id }) => id),
    voices,
  )
  const leaders = parts.filter(({ id }) => ids.includes(id))
  return (
    <div className={classes.row}>
      <NativeSelect
        size="xs"
        label={part.name}
        data={[
          { value: '', label: 'dances what is written' },
          ...leaders.map(({ id, name }) => ({ value: id, label: `follows ${name}` })),
        ]}
        value={voice?.of ?? ''}
        onChange={({ currentTarget: { value } }) =>
          value
            ? write({ of: value })
            : changeAll(
                session,
                `let ${part.name} dance by herself`,
                removeVoice(phraseId, part.id),
              )
        }
      />
      {voice && (
        <>
          <LaterField value={voice.by} most={16} onCommit={(by) => write({ by })} />
          <Switch
            size="xs"
            mt={22}
            label="as her image"
            checked={voice.mirrored === true}
            onChange={({ currentTarget: { checked } }) =>
              write({ mirrored: checked ? true : undefined })
            }
          />
        </>
      )}
    </div>
  )
}
