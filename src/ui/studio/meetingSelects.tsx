import { NativeSelect } from '@mantine/core'
import { SIDES, sideWord } from '../../core/body/side'
import { type Hand, isHand, type Met, SpotName } from '../../core/combination/between'
import type { Part } from '../../core/combination/part'

interface PartSelectProps {
  readonly label: string
  readonly data: readonly { readonly value: string; readonly label: string }[]
  readonly value: string
  readonly onChange: (id: string) => void
}

export const PartSelect = ({ label, data, value, onChange }: PartSelectProps) => (
  <NativeSelect
    size="xs"
    label={label}
    data={[...data]}
    value={value}
    onChange={({ currentTarget }) => onChange(currentTarget.value)}
  />
)

interface TwoSelectProps {
  readonly labels: readonly [string, string]
  readonly parts: readonly Part[]
  readonly two: readonly [string, string]
  readonly onChange: (two: readonly [string, string]) => void
}

/** Two dancers, never the same one. */
export function TwoSelect({ labels, parts, two: [first, second], onChange }: TwoSelectProps) {
  const others = (not: string) =>
    parts.filter(({ id }) => id !== not).map(({ id, name }) => ({ value: id, label: name }))
  return (
    <>
      <PartSelect
        label={labels[0]}
        data={others(second)}
        value={first}
        onChange={(id) => onChange([id, second])}
      />
      <PartSelect
        label={labels[1]}
        data={others(first)}
        value={second}
        onChange={(id) => onChange([first, id])}
      />
    </>
  )
}

interface PickProps<T extends string> {
  readonly label: string
  readonly all: readonly T[]
  readonly value: T | undefined
  /** What it is called where nothing is chosen; it can't be left open without one. */
  readonly empty?: string
  readonly onChange: (value: T | undefined) => void
}

export function Pick<T extends string>({ label, all, value, empty, onChange }: PickProps<T>) {
  return (
    <NativeSelect
      size="xs"
      label={label}
      data={[
        ...(empty === undefined ? [] : [{ value: '', label: empty }]),
        ...all.map((one) => ({ value: one, label: one.replaceAll('-', ' ') })),
      ]}
      value={value ?? ''}
      onChange={({ currentTarget }) => onChange(all.find((one) => one === currentTarget.value))}
    />
  )
}

interface HandSelectProps {
  readonly label: string
  readonly hand: Hand
  readonly parts: readonly Part[]
  readonly not: string
  readonly onChange: (hand: Hand) => void
}

export function HandSelect({ label, hand, parts, not, onChange }: HandSelectProps) {
  return (
    <NativeSelect
      size="xs"
      label={label}
      data={parts
        .filter(({ id }) => id !== not)
        .flatMap(({ id, name }) =>
          SIDES.map((side) => ({
            value: `${id}.${side}`,
            label: `${name}’s ${sideWord[side]}`,
          })),
        )}
      value={`${hand.part}.${hand.side}`}
      onChange={({ currentTarget }) => {
        const [part = '', side] = currentTarget.value.split('.')
        onChange({ part, side: side === 'L' ? 'L' : 'R' })
      }}
    />
  )
}

export function MetSelect({
  met,
  parts,
  not,
  onChange,
}: {
  readonly met: Met
  readonly parts: readonly Part[]
  readonly not: string
  readonly onChange: (met: Met) => void
}) {
  const keyOf = (one: Met) =>
    isHand(one) ? `${one.part}.${one.side}` : `${one.part}..${one.on}.${one.side ?? ''}`
  return (
    <NativeSelect
      size="xs"
      label="Meets"
      data={parts
        .filter(({ id }) => id !== not)
        .flatMap(({ id, name }) => [
          ...SIDES.map((side) => ({
            value: `${id}.${side}`,
            label: `${name}’s ${sideWord[side]} hand`,
          })),
          ...SpotName.options.map((on) => ({
            value: `${id}..${on}.${isHand(met) || met.on !== on ? '' : (met.side ?? '')}`,
            label: `${name}’s ${on}`,
          })),
        ])}
      value={keyOf(met)}
      onChange={({ currentTarget }) => {
        const [part = '', side = '', on] = currentTarget.value.split('.')
        const spot = SpotName.safeParse(on).data
        onChange(spot ? { part, on: spot } : { part, side: side === 'L' ? 'L' : 'R' })
      }}
    />
  )
}
