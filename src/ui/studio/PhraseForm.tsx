import { Modal, TextInput } from '@mantine/core'
import { useStore } from 'zustand'
import { ownPickup, type Pass } from '../../core/combination/passes'
import * as phrases from '../../core/edits/phrases'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { NumberField } from '../parts/NumberField'
import { change, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import { VoiceFields } from './VoiceFields'

/** The name and the counts of one phrase. */
export function PhraseForm({
  session,
  pass,
  onClose,
}: {
  session: Session
  pass: Pass
  onClose: () => void
}) {
  const combination = useStore(session, documentOf)
  const phrase = combination.phrases.find(({ id }) => id === pass.phrase.id)
  if (!phrase) return null
  const { id, name, title, counts, from = 1 } = phrase
  const isFirst = id === combination.order[0]?.phrase
  return (
    <Modal
      opened
      onClose={onClose}
      title={`Phrase ${name}`}
      centered
      size={combination.parts ? 'lg' : 'sm'}
    >
      <TextInput
        label="Name for the class"
        data-autofocus
        value={title}
        onChange={({ currentTarget }) =>
          change(
            session,
            `name phrase ${name}`,
            phrases.namePhrase(id, currentTarget.value),
            `name ${id}`,
          )
        }
      />
      <NumberField
        size="sm"
        waits
        label="Counts"
        mt="sm"
        min={1}
        max={16}
        value={counts}
        description="What no longer fits at the end is cut; undo brings it back."
        onCommit={(wanted) =>
          change(session, `change the counts of ${name}`, phrases.setCounts(id, wanted))
        }
      />
      <NumberField
        size="sm"
        waits
        label="Its first count is called"
        mt="sm"
        min={1}
        max={16}
        value={from}
        onCommit={(first) =>
          change(session, `number the counts of ${name}`, phrases.numberFrom(id, first))
        }
      />
      {!isFirst && (
        <NumberField
          size="sm"
          waits
          label="Counts that lead into it"
          mt="sm"
          min={0}
          max={counts}
          value={ownPickup(phrase) / TICKS_PER_COUNT}
          description="A pickup: it is danced over the end of what comes before."
          onCommit={(wanted) =>
            change(session, `change the pickup of ${name}`, phrases.setOwnPickup(id, wanted))
          }
        />
      )}
      <VoiceFields session={session} phraseId={id} />
    </Modal>
  )
}
