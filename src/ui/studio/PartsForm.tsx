import { ActionIcon, Button, Modal, Select, Switch, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { useStore } from 'zustand'
import type { Part } from '../../core/combination/part'
import {
  addPart,
  changePart,
  makeForSeveral,
  type PartChange,
  removePart,
} from '../../core/edits/parts'
import { NumberField } from '../parts/NumberField'
import { PartBadge } from '../parts/PartBadge'
import { changeAll, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import classes from './parts.module.css'

interface PartsFormProps {
  readonly session: Session
  readonly onClose: () => void
}

const NEXT_NAMES = ['One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight']

/** Who dances it: names, places on the floor, who is whose image. */
export function PartsForm({ session, onClose }: PartsFormProps) {
  const { parts, title } = useStore(session, documentOf)
  return (
    <Modal opened onClose={onClose} title={`Dancers of “${title}”`} centered size="lg">
      {parts ? (
        <>
          <p className={classes.quiet}>
            All dance the same until you make something differ: pick a dancer above the braid, and
            what you change is hers.
          </p>
          {parts.map((part, i) => (
            <PartFields
              key={part.id}
              session={session}
              part={part}
              index={i}
              isOfTwo={parts.length === 2}
            />
          ))}
          <Button
            variant="default"
            size="compact-md"
            onClick={() =>
              changeAll(session, 'add a dancer', addPart(NEXT_NAMES[parts.length] ?? 'One more'))
            }
          >
            One dancer more
          </Button>
        </>
      ) : (
        <>
          <p className={classes.quiet}>
            It is for one dancer. For several, all dance it together until you make something
            differ.
          </p>
          <Button
            data-autofocus
            onClick={() =>
              changeAll(session, 'make it for two dancers', makeForSeveral(['One', 'Two']))
            }
          >
            Make it for two dancers
          </Button>
        </>
      )}
    </Modal>
  )
}

interface FieldsProps {
  readonly session: Session
  readonly part: Part
  readonly index: number
  readonly isOfTwo: boolean
}

function PartFields({ session, part, index, isOfTwo }: FieldsProps) {
  const { id, name, at, mirrored, height, lead } = part
  const [place = { right: 0, forward: 0 }, ...others] = at
  const set = (label: string, change: PartChange) =>
    changeAll(session, `change the ${label} of ${name}`, changePart(id, change), `${label} ${id}`)
  const rounded = (metres: number) => Math.round(metres * 100) / 100 + 0
  return (
    <fieldset className={classes.part}>
      <legend>
        <PartBadge index={index} name={name} />
      </legend>
      <div className={classes.row}>
        <TextInput
          size="xs"
          label="Name"
          className={classes.grow}
          value={name}
          onChange={({ currentTarget: { value } }) => value && set('name', { name: value })}
        />
        <NumberField
          size="xs"
          label="Metres right"
          w={104}
          step={0.25}
          min={-30}
          max={30}
          allowDecimal
          value={place.right}
          onCommit={(right) =>
            set('place', { at: [{ ...place, right: rounded(right) }, ...others] })
          }
        />
        <NumberField
          size="xs"
          label="Metres forward"
          w={112}
          step={0.25}
          min={-30}
          max={30}
          allowDecimal
          value={place.forward}
          onCommit={(forward) =>
            set('place', { at: [{ ...place, forward: rounded(forward) }, ...others] })
          }
        />
        <ActionIcon
          variant="default"
          size={30}
          aria-label={`Take ${name} out`}
          title={isOfTwo ? 'Take her out: the other one dances alone then' : 'Take her out'}
          onClick={() => changeAll(session, `take ${name} out`, removePart(id))}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </div>
      <div className={classes.row}>
        <Select
          size="xs"
          label="Leads with"
          w={150}
          data={[
            { value: '', label: 'as the others' },
            { value: 'R', label: 'the right' },
            { value: 'L', label: 'the left' },
          ]}
          value={lead ?? ''}
          allowDeselect={false}
          onChange={(value) =>
            set('lead', { lead: value === 'R' || value === 'L' ? value : undefined })
          }
        />
        <NumberField
          size="xs"
          label="Tall, metres"
          w={104}
          step={0.01}
          min={1}
          max={2.3}
          allowDecimal
          placeholder="1.65"
          value={height}
          onCommit={(tall) => set('height', { height: rounded(tall) })}
          onClear={() => set('height', { height: undefined })}
        />
        <Switch
          size="xs"
          mt={22}
          label="dances the others’ image"
          checked={mirrored === true}
          onChange={({ currentTarget: { checked } }) =>
            set('image', { mirrored: checked ? true : undefined })
          }
        />
      </div>
    </fieldset>
  )
}
