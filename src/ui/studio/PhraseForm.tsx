import { Modal, TextInput } from '@mantine/core'
import { useStore } from 'zustand'
import type { Pass } from '../../core/combination/passes'
import * as phrases from '../../core/edits/phrases'
import { NumberField } from '../parts/NumberField'
import { change, type Session } from '../stores/session'
import { documentOf } from '../stores/state'

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
  const { id, name, title, counts } = phrase
  return (
    <Modal opened onClose={onClose} title={`Phrase ${name}`} centered size="sm">
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
    </Modal>
  )
}
