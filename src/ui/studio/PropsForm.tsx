import {
  ActionIcon,
  Button,
  Modal,
  MultiSelect,
  NativeSelect,
  Switch,
  TextInput,
} from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { useStore } from 'zustand'
import { SIDES, sideWord } from '../../core/body/side'
import { capital } from '../../core/capital'
import { Drape, FEATURES_OF, type Prop, PropKind } from '../../core/combination/carried'
import type { Edit } from '../../core/edits/edit'
import {
  addProp,
  changeProp,
  holdFromStart,
  type PropChange,
  readyFromStart,
  removeProp,
} from '../../core/edits/props'
import { isCloth } from '../../core/props/acts'
import { DRAPE_WORDS, FEATURE_WORDS } from '../../core/props/held'
import { changeAll, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import { MetresField } from './MetresField'
import classes from './parts.module.css'

interface PropsFormProps {
  readonly session: Session
  readonly onClose: () => void
}

/** What is carried: veil, scarf, skirt, stick or fan, how large, and how it is held on count 1. */
export function PropsForm({ session, onClose }: PropsFormProps) {
  const { title, carried = [], parts = [] } = useStore(session, documentOf)
  return (
    <Modal opened onClose={onClose} title={`What is carried in “${title}”`} centered size="lg">
      <p className={classes.quiet}>
        {carried.length === 0
          ? 'The hands are empty. Say what is in them, and each hand, edge and turn of it is followed.'
          : 'How it is held on count 1. What is done with it later is written in its own line of the braid.'}
      </p>
      {carried.map((prop) => (
        <PropFields key={prop.id} session={session} prop={prop} parts={parts} />
      ))}
      <div className={classes.row}>
        {PropKind.options.map((kind) => (
          <Button
            key={kind}
            variant="default"
            size="compact-md"
            onClick={() => changeAll(session, `carry a ${kind}`, addProp(kind, capital(kind)))}
          >
            {carried.some((one) => one.kind === kind) ? `One more ${kind}` : `A ${kind}`}
          </Button>
        ))}
      </div>
    </Modal>
  )
}

interface FieldsProps {
  readonly session: Session
  readonly prop: Prop
  readonly parts: readonly { readonly id: string; readonly name: string }[]
}

function PropFields({ session, prop, parts }: FieldsProps) {
  const { id, kind, name, part, size, start, keepHand } = prop
  const edit = (label: string, change: Edit) =>
    changeAll(session, `change the ${label} of ${name}`, change, `${label} ${id}`)
  const set = (label: string, change: PropChange) => edit(label, changeProp(id, change))
  return (
    <fieldset className={classes.part}>
      <legend>{capital(kind)}</legend>
      <div className={classes.row}>
        <TextInput
          size="xs"
          label="Name"
          className={classes.grow}
          value={name}
          onChange={({ currentTarget: { value } }) => value && set('name', { name: value })}
        />
        <MetresField
          label="Metres long"
          w={96}
          step={0.1}
          min={0.1}
          max={12}
          value={size.long}
          onCommit={(long) => set('size', { size: { ...size, long: long } })}
        />
        {kind !== 'stick' && (
          <MetresField
            label="Metres deep"
            w={96}
            step={0.1}
            min={0.01}
            max={12}
            value={size.deep}
            onCommit={(deep) => set('size', { size: { ...size, deep: deep } })}
          />
        )}
        <ActionIcon
          variant="default"
          size={30}
          aria-label={`Remove ${name}`}
          onClick={() => changeAll(session, `carry ${name} no more`, removeProp(id))}
        >
          <IconTrash size={16} />
        </ActionIcon>
      </div>
      <div className={classes.row}>
        {SIDES.map((side) => (
          <MultiSelect
            key={side}
            size="xs"
            label={`${capital(sideWord[side])} hand on`}
            w={220}
            maxValues={2}
            data={FEATURES_OF[kind].map((value) => ({ value, label: FEATURE_WORDS[value] }))}
            value={[...(start.hands[side]?.at ?? [])]}
            placeholder={start.hands[side] ? '' : 'free'}
            onChange={(on) => edit('hold', holdFromStart(id, side, on))}
          />
        ))}
        {isCloth(kind) && (
          <NativeSelect
            size="xs"
            label="Where the cloth is"
            data={Drape.options.map((value) => ({
              value,
              label: DRAPE_WORDS[value] || 'in the hands',
            }))}
            value={start.drape}
            onChange={({ currentTarget: { value } }) =>
              set('place', { start: { ...start, drape: Drape.catch('none').parse(value) } })
            }
          />
        )}
        {parts.length > 0 && (
          <NativeSelect
            size="xs"
            label="Whose"
            data={[
              { value: '', label: 'each has one' },
              ...parts.map((one) => ({ value: one.id, label: one.name })),
            ]}
            value={part ?? ''}
            onChange={({ currentTarget: { value } }) => set('owner', { part: value || undefined })}
          />
        )}
        <Switch
          size="xs"
          mt={22}
          label="stays in its hand on the other side"
          checked={keepHand === true}
          onChange={({ currentTarget: { checked } }) =>
            set('hand', { keepHand: checked ? true : undefined })
          }
        />
        {kind === 'veil' && (
          <Switch
            size="xs"
            mt={22}
            label="hair out of the way"
            checked={start.ready.includes('hair-in')}
            onChange={({ currentTarget: { checked } }) =>
              edit('hair', readyFromStart(id, 'hair-in', checked))
            }
          />
        )}
      </div>
    </fieldset>
  )
}
