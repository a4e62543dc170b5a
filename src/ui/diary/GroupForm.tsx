import { Button, NativeSelect, TextInput } from '@mantine/core'
import { useState } from 'react'
import { DancerLevel } from '../../core/combination/combination'
import { GROUP_VERSION, type Group } from '../../core/diary/diary'
import { NumberField } from '../parts/NumberField'
import classes from './diary.module.css'

/** A group of people who come to the same class. */
export function GroupForm({
  group,
  newId,
  onSave,
  onRemove,
  onClose,
}: {
  readonly group: Group | undefined
  readonly newId: () => string
  readonly onSave: (group: Group) => void
  readonly onRemove: (group: Group) => void
  readonly onClose: () => void
}) {
  const [made, setMade] = useState<Group>(
    () =>
      group ?? {
        kind: 'group',
        schemaVersion: GROUP_VERSION,
        id: newId(),
        name: '',
        level: 'improver',
        minutes: 60,
        room: '',
      },
  )
  return (
    <form
      className={classes.groupForm}
      onSubmit={(event) => {
        event.preventDefault()
        if (made.name.trim() !== '') onSave({ ...made, name: made.name.trim() })
      }}
    >
      <TextInput
        size="xs"
        label="Name of the group"
        data-autofocus
        value={made.name}
        onChange={({ currentTarget: { value } }) => setMade((now) => ({ ...now, name: value }))}
      />
      <NativeSelect
        size="xs"
        label="Level"
        data={DancerLevel.options}
        value={made.level}
        onChange={({ currentTarget: { value } }) =>
          setMade((now) => ({ ...now, level: DancerLevel.parse(value) }))
        }
      />
      <NumberField
        label="Minutes of a class"
        min={10}
        max={180}
        step={5}
        value={made.minutes}
        onCommit={(minutes) => setMade((now) => ({ ...now, minutes }))}
      />
      <TextInput
        size="xs"
        label="Room"
        value={made.room}
        onChange={({ currentTarget: { value } }) => setMade((now) => ({ ...now, room: value }))}
      />
      <div className={classes.buttons}>
        <Button size="compact-sm" type="submit" disabled={made.name.trim() === ''}>
          Keep
        </Button>
        <Button size="compact-sm" variant="default" onClick={onClose}>
          Cancel
        </Button>
        {group && (
          <Button size="compact-sm" variant="default" onClick={() => onRemove(group)}>
            Delete group
          </Button>
        )}
      </div>
    </form>
  )
}
