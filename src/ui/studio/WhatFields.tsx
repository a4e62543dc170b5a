import { Checkbox, NativeSelect } from '@mantine/core'
import { Direction, type FootAction, factsOf } from '../../core/body/feet'
import {
  ArmPlace,
  Compass,
  compassWord,
  Gaze,
  LegPlace,
  ShoulderPlace,
  shoulderName,
  TrunkPlace,
  trunkName,
  Via,
} from '../../core/body/places'
import type { Event } from '../../core/combination/combination'
import { TICKS_PER_COUNT, tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import { gazeName } from '../../core/what/look'
import { NumberField } from '../parts/NumberField'
import classes from './studio.module.css'

/** What a move does, field by field: its place, direction, step or arms. */
export function WhatFields({ event, write }: { event: Event; write: (what: What) => void }) {
  const { what } = event
  switch (what.kind) {
    case 'foot':
      return <FootFields action={what.action} write={(action) => write({ kind: 'foot', action })} />
    case 'at':
      return (
        <NativeSelect
          size="xs"
          label="Place"
          data={Compass.options.map((place) => ({ value: place, label: compassWord[place] }))}
          value={what.place}
          onChange={({ currentTarget }) =>
            write({ ...what, place: Compass.parse(currentTarget.value) })
          }
        />
      )
    case 'legs':
      return <LegFields what={what} write={write} />
    case 'trunk':
      return (
        <NativeSelect
          size="xs"
          label="Trunk"
          data={TrunkPlace.options.map((place) => ({ value: place, label: trunkName[place] }))}
          value={what.place}
          onChange={({ currentTarget }) =>
            write({ ...what, place: TrunkPlace.parse(currentTarget.value) })
          }
        />
      )
    case 'shoulder':
      return (
        <NativeSelect
          size="xs"
          label={what.side === 'R' ? 'Right shoulder' : 'Left shoulder'}
          data={ShoulderPlace.options.map((place) => ({
            value: place,
            label: shoulderName[place],
          }))}
          value={what.place}
          onChange={({ currentTarget }) =>
            write({ ...what, place: ShoulderPlace.parse(currentTarget.value) })
          }
        />
      )
    case 'look':
      return (
        <NativeSelect
          size="xs"
          label="Look"
          data={Gaze.options.map((gaze) => ({ value: gaze, label: gazeName[gaze] }))}
          value={what.gaze}
          onChange={({ currentTarget }) =>
            write({ ...what, gaze: Gaze.parse(currentTarget.value) })
          }
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
            const halves = Math.round(degrees * 2) / 2
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
          label="Again"
          data={[
            { value: '0', label: 'as it comes' },
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

function LegFields({
  what,
  write,
}: {
  what: Extract<What, { kind: 'legs' }>
  write: (what: What) => void
}) {
  return (
    <div className={classes.cardRow}>
      {(['L', 'R'] as const).map((side) => (
        <NativeSelect
          key={side}
          size="xs"
          label={side === 'R' ? 'Right leg' : 'Left leg'}
          className={classes.grow}
          data={['', ...LegPlace.options].map((place) => ({
            value: place,
            label: place || 'stays',
          }))}
          value={what[side] ?? ''}
          onChange={({ currentTarget }) => {
            const place = LegPlace.safeParse(currentTarget.value).data
            const [R, L] = side === 'R' ? [place, what.L] : [what.R, place]
            if (R || L) write({ kind: 'legs', ...(R && { R }), ...(L && { L }) })
          }}
        />
      ))}
    </div>
  )
}

function ArmFields({
  what,
  write,
}: {
  what: Extract<What, { kind: 'arms' }>
  write: (what: What) => void
}) {
  const places = ['', ...ArmPlace.options].map((place) => ({
    value: place,
    label: place || 'stays',
  }))
  const arm = (side: 'R' | 'L', value: string) => {
    const { R, L, ...rest } = what
    const place = ArmPlace.safeParse(value).data
    const arms = { R, L, [side]: place }
    // An arms move without any arm would be nothing: take it out instead.
    if (arms.R || arms.L)
      write({ ...rest, ...(arms.R && { R: arms.R }), ...(arms.L && { L: arms.L }) })
  }
  return (
    <div className={classes.cardRow}>
      {(['L', 'R'] as const).map((side) => (
        <NativeSelect
          key={side}
          size="xs"
          label={side === 'R' ? 'Right arm' : 'Left arm'}
          className={classes.grow}
          data={places}
          value={what[side] ?? ''}
          onChange={({ currentTarget }) => arm(side, currentTarget.value)}
        />
      ))}
      <NativeSelect
        size="xs"
        label="By the"
        className={classes.grow}
        data={['', ...Via.options].map((via) => ({ value: via, label: via || 'straight' }))}
        value={what.via ?? ''}
        onChange={({ currentTarget }) => {
          const { via: _, ...rest } = what
          const via = Via.safeParse(currentTarget.value)
          write({ ...rest, ...(via.success && { via: via.data }) })
        }}
      />
    </div>
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
            const turn = Math.round(said * 2) / 2
            if (turn !== 0) write({ ...action, turn })
            else if (action.primitive !== 'pivot') write(without('turn'))
          }}
        />
      )}
    </div>
  )
}
