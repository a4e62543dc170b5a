import { ActionIcon, Button, Modal, Select, Switch, TextInput } from '@mantine/core'
import { IconTrash } from '@tabler/icons-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import type { Combination } from '../../core/combination/combination'
import { placeIn } from '../../core/combination/names'
import type { Part } from '../../core/combination/part'
import { joinAsParts } from '../../core/edits/joinParts'
import {
  addPart,
  changePart,
  makeForSeveral,
  type PartChange,
  removePart,
  withSwappedRoles,
} from '../../core/edits/parts'
import { type Solo, soloOf } from '../../core/edits/solo'
import { labelOfSpan } from '../../core/time/time'
import { PartBadge } from '../parts/PartBadge'
import { useCombinations } from '../planning/usePlanning'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { changeAll, type Session } from '../stores/session'
import { documentOf } from '../stores/state'
import { words } from '../stores/words'
import { LaterField } from './LaterField'
import { MetresField } from './MetresField'
import classes from './parts.module.css'

interface PartsFormProps {
  readonly session: Session
  readonly onClose: () => void
}

const NEXT_NAMES = ['One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight']

/** Who dances it: names, places on the floor, who is whose image. */
export function PartsForm({ session, onClose }: PartsFormProps) {
  const combination = useStore(session, documentOf)
  const { parts, title, swapRoles } = combination
  const [solo, setSolo] = useState<SoloMade>()
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
              onSolo={() => setSolo(soloFor(combination, part))}
            />
          ))}
          {parts.length === 2 && (
            <Switch
              mb="sm"
              label="On the other side each dances the other one’s part"
              checked={swapRoles === true}
              onChange={({ currentTarget: { checked } }) =>
                changeAll(session, 'swap the roles', withSwappedRoles(checked))
              }
            />
          )}
          {solo && <SoloList solo={solo} />}
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
          <JoinSelect session={session} />
        </>
      )}
    </Modal>
  )
}

/** Another combination for one, as what a second dancer dances to the same counts. */
function JoinSelect({ session }: { readonly session: Session }) {
  const own = useStore(session, documentOf)
  const { data = [] } = useCombinations()
  const others = data.filter(({ id, parts }) => id !== own.id && !parts)
  const message = useStore(session, (s) => s.message)
  if (others.length === 0) return null
  return (
    <>
      <Select
        mt="md"
        label="Or lay another combination over it, as a second dancer’s"
        placeholder="choose one with the same phrases"
        data={others.map(({ id, title }) => ({ value: id, label: title || 'Combination' }))}
        value={null}
        onChange={(id) => {
          const other = others.find((one) => one.id === id)
          if (other) changeAll(session, `join it with ${other.title}`, joinAsParts(other))
        }}
      />
      <p className={classes.quiet} aria-live="polite">
        {message}
      </p>
    </>
  )
}

interface FieldsProps {
  readonly session: Session
  readonly part: Part
  readonly index: number
  readonly isOfTwo: boolean
  readonly onSolo: () => void
}

function PartFields({ session, part, index, isOfTwo, onSolo }: FieldsProps) {
  const { id, name, at, mirrored, height, lead, delay } = part
  const [place = { right: 0, forward: 0 }, ...others] = at
  const set = (label: string, change: PartChange) =>
    changeAll(session, `change the ${label} of ${name}`, changePart(id, change), `${label} ${id}`)
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
        <MetresField
          label="Metres right"
          w={104}
          step={0.25}
          min={-30}
          max={30}
          value={place.right}
          onCommit={(right) => set('place', { at: [{ ...place, right: right }, ...others] })}
        />
        <MetresField
          label="Metres forward"
          w={112}
          step={0.25}
          min={-30}
          max={30}
          value={place.forward}
          onCommit={(forward) => set('place', { at: [{ ...place, forward: forward }, ...others] })}
        />
        <ActionIcon
          variant="default"
          size={30}
          aria-label={`Remove ${name}`}
          title={isOfTwo ? 'Remove her: the other one dances alone' : 'Remove her'}
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
        <MetresField
          label="Tall, metres"
          w={104}
          step={0.01}
          min={1}
          max={2.3}
          placeholder="1.65"
          value={height}
          onCommit={(tall) => set('height', { height: tall })}
          onClear={() => set('height', { height: undefined })}
        />
        <LaterField
          value={delay}
          most={64}
          onCommit={(later) => set('delay', { delay: later > 0 ? later : undefined })}
          onClear={() => set('delay', { delay: undefined })}
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
      <Button size="compact-xs" variant="default" mt={8} onClick={onSolo}>
        What {name} dances alone…
      </Button>
    </fieldset>
  )
}

interface SoloMade extends Solo {
  readonly name: string
}

const soloFor = (combination: Combination, { id, name }: Part): SoloMade => ({
  ...soloOf(combination, id, words.getState().vocabulary, houseNow.getState().house),
  name,
})

/** What is danced otherwise without a partner, and the button that keeps it. */
function SoloList({ solo }: { readonly solo: SoloMade }) {
  const { combinations, newId } = useServices()
  const [kept, setKept] = useState<string>()
  const { name, combination, replaced } = solo
  const keep = async () => {
    const id = newId()
    await combinations.addAll([{ ...combination, id }])
    setKept(id)
  }
  return (
    <section className={classes.solo} aria-label={`${name} alone`}>
      <h3>{name} without her partners</h3>
      {replaced.length === 0 && <p className={classes.quiet}>Nothing she does needs a partner.</p>}
      <ul>
        {replaced.map(({ phrase, at, length, what, instead }) => (
          <li key={`${phrase} ${at} ${what}`}>
            <b className="counts">{placeIn(phrase, labelOfSpan({ at, length }))}</b> {what}:{' '}
            <b>{instead}</b>
          </li>
        ))}
      </ul>
      {kept ? (
        <p role="status">
          “{combination.title}” is kept beside this one.{' '}
          <Link to={`/combination/${kept}`}>Open it</Link>
        </p>
      ) : (
        <Button size="compact-sm" onClick={() => void keep()}>
          Keep it as a combination of its own
        </Button>
      )}
    </section>
  )
}
