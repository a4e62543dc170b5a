import { NativeSelect } from '@mantine/core'
import { Direction, type FootAction, factsOf } from '../../core/body/feet'
import { ArmPlace, Compass, compassWord, Gaze, Via } from '../../core/body/places'
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
  const travels = facts.direction !== undefined
  return (
    <div className={classes.cardRow}>
      {travels && (
        <NativeSelect
          size="xs"
          label="Where"
          className={classes.grow}
          data={Direction.options.map((direction) => ({
            value: direction,
            label: direction.replace('-', ' '),
          }))}
          value={action.direction}
          onChange={({ currentTarget }) =>
            write({ ...action, direction: Direction.parse(currentTarget.value) })
          }
        />
      )}
      {travels && (
        <NativeSelect
          size="xs"
          label="Size"
          data={[{ value: '', label: 'plain' }, 'small', 'large']}
          value={action.size ?? ''}
          onChange={({ currentTarget }) => choose('size', currentTarget.value)}
        />
      )}
      {facts.needs === 'free' && (
        <NativeSelect
          size="xs"
          label="On the"
          data={[{ value: '', label: 'whole foot' }, 'ball', 'heel']}
          value={action.contact ?? ''}
          onChange={({ currentTarget }) => choose('contact', currentTarget.value)}
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
          value={action.turn ?? 0}
          onCommit={(turn) => {
            if (turn !== 0) write({ ...action, turn })
            else if (action.primitive !== 'pivot') write(without('turn'))
          }}
        />
      )}
    </div>
  )
}
