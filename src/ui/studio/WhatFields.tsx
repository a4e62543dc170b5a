import { Checkbox, NativeSelect } from '@mantine/core'
import { toHalfDegrees } from '../../core/body/facing'
import { Direction, type FootAction, factsOf } from '../../core/body/feet'
import {
  Compass,
  compassWord,
  Gaze,
  LegPlace,
  ShoulderPlace,
  shoulderName,
  TrunkPlace,
  trunkName,
} from '../../core/body/places'
import type { Event } from '../../core/combination/combination'
import { TICKS_PER_COUNT, tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import { gazeName } from '../../core/what/look'
import { NumberField } from '../parts/NumberField'
import { ArmFields } from './ArmFields'
import { PairSelect } from './PairSelect'
import classes from './studio.module.css'

/** What a move does, field by field: its place, direction, step or arms. */
export function WhatFields({ event, write }: { event: Event; write: (what: What) => void }) {
  const { what } = event
  switch (what.kind) {
    case 'foot':
      return <FootFields action={what.action} write={(action) => write({ kind: 'foot', action })} />
    case 'at':
      return (
        <PlaceSelect
          label="Place"
          places={Compass.options}
          wordOf={(place) => compassWord[place]}
          value={what.place}
          onPlace={(place) => write({ ...what, place })}
        />
      )
    case 'legs':
      return (
        <div className={classes.cardRow}>
          <PairSelect
            part="leg"
            places={LegPlace.options}
            value={what}
            // Without any it would be nothing: take it out instead.
            onPair={(pair) => (pair.R || pair.L) && write({ kind: 'legs', ...pair })}
          />
        </div>
      )
    case 'trunk':
      return (
        <PlaceSelect
          label="Trunk"
          places={TrunkPlace.options}
          wordOf={(place) => trunkName[place]}
          value={what.place}
          onPlace={(place) => write({ ...what, place })}
        />
      )
    case 'shoulder':
      return (
        <PlaceSelect
          label={what.side === 'R' ? 'Right shoulder' : 'Left shoulder'}
          places={ShoulderPlace.options}
          wordOf={(place) => shoulderName[place]}
          value={what.place}
          onPlace={(place) => write({ ...what, place })}
        />
      )
    case 'look':
      return (
        <PlaceSelect
          label="Look"
          places={Gaze.options}
          wordOf={(gaze) => gazeName[gaze]}
          value={what.gaze}
          onPlace={(gaze) => write({ ...what, gaze })}
        />
      )
    case 'share':
      return (
        <NumberField
          size="xs"
          label="Turn °, shared"
          w={110}
          step={45}
          min={-1080}
          max={1080}
          allowDecimal
          value={what.degrees}
          onCommit={(degrees) => {
            const halves = toHalfDegrees(degrees)
            if (halves !== 0) write({ ...what, degrees: halves })
          }}
        />
      )
    case 'arms':
      return <ArmFields what={what} write={write} />
    case 'move': {
      const { every, ...rest } = what
      return (
        <NativeSelect
          size="xs"
          label="Repeat"
          data={[
            { value: '0', label: 'once' },
            ...[6, 12, 24, 48].map((ticks) => ({
              value: String(ticks),
              label:
                ticks === 6
                  ? 'every half count'
                  : ticks === 12
                    ? 'every count'
                    : `every ${ticks / TICKS_PER_COUNT} counts`,
            })),
          ]}
          value={String(every ?? 0)}
          onChange={({ currentTarget }) => {
            const ticks = Number(currentTarget.value)
            write({ ...rest, ...(ticks > 0 && { every: tick(ticks) }) })
          }}
        />
      )
    }
  }
}

/** One of some places, by the words for them. */
function PlaceSelect<P extends string>({
  label,
  places,
  wordOf,
  value,
  onPlace,
}: {
  readonly label: string
  readonly places: readonly P[]
  readonly wordOf: (place: P) => string
  readonly value: P
  readonly onPlace: (place: P) => void
}) {
  return (
    <NativeSelect
      size="xs"
      label={label}
      data={places.map((place) => ({ value: place, label: wordOf(place) }))}
      value={value}
      onChange={({ currentTarget }) => {
        const chosen = places.find((place) => place === currentTarget.value)
        if (chosen) onPlace(chosen)
      }}
    />
  )
}

/** A jump to a side goes there. */
const isAside = ({ jump }: FootAction): boolean => jump === 'R' || jump === 'L'

/** What of a foot may come down: the whole of it where nothing is said, but of a touch or a press the ball. */
function contactsOf({ primitive }: FootAction): readonly { value: string; label: string }[] {
  const usual = { value: '', label: 'whole foot' }
  const ball = { value: 'ball', label: 'ball' }
  const heel = { value: 'heel', label: 'heel' }
  if (factsOf(primitive).needs === 'free') return [usual, ball, heel]
  return primitive === 'touch' || primitive === 'press'
    ? [{ value: '', label: 'ball' }, { value: 'flat', label: 'whole foot' }, heel]
    : []
}

function FootFields({
  action,
  write,
}: {
  action: FootAction
  write: (action: FootAction) => void
}) {
  const facts = factsOf(action.primitive)
  const without = <K extends keyof FootAction>(key: K) => {
    const { [key]: _, ...rest } = action
    return rest as FootAction
  }
  const choose = <K extends 'size' | 'contact'>(key: K, value: string) =>
    write(value ? ({ ...action, [key]: value } as FootAction) : without(key))
  const ways = facts.direction ? Direction.options : isAside(action) ? [] : (facts.travels ?? [])
  const contacts = contactsOf(action)
  return (
    <div className={classes.cardRow}>
      {ways.length > 0 && (
        <NativeSelect
          size="xs"
          label="Where"
          className={classes.grow}
          data={[
            ...(facts.direction ? [] : [{ value: '', label: 'in place' }]),
            ...ways.map((direction) => ({ value: direction, label: direction.replace('-', ' ') })),
          ]}
          value={action.direction ?? ''}
          onChange={({ currentTarget: { value } }) =>
            write(value ? { ...action, direction: Direction.parse(value) } : without('direction'))
          }
        />
      )}
      {(ways.length > 0 || facts.direction) && (
        <NativeSelect
          size="xs"
          label="Size"
          data={[{ value: '', label: 'plain' }, 'small', 'large']}
          value={action.size ?? ''}
          onChange={({ currentTarget }) => choose('size', currentTarget.value)}
        />
      )}
      {contacts.length > 0 && (
        <NativeSelect
          size="xs"
          label="On the"
          data={contacts}
          value={action.contact ?? ''}
          onChange={({ currentTarget }) => choose('contact', currentTarget.value)}
        />
      )}
      {facts.shares && (
        <Checkbox
          size="xs"
          label="weight on both"
          checked={action.shared === true}
          onChange={({ currentTarget: { checked } }) =>
            write(checked ? { ...action, shared: true } : without('shared'))
          }
        />
      )}
      {action.primitive !== 'hold' && (
        <NumberField
          size="xs"
          label="Turn °"
          w={84}
          step={45}
          min={-720}
          max={720}
          allowDecimal
          value={action.turn ?? 0}
          onCommit={(said) => {
            const turn = toHalfDegrees(said)
            if (turn !== 0) write({ ...action, turn })
            else if (action.primitive !== 'pivot') write(without('turn'))
          }}
        />
      )}
    </div>
  )
}
