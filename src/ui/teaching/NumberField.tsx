import { NumberInput, type NumberInputProps } from '@mantine/core'
import { useDraft } from './useDraft'

interface NumberFieldProps extends Omit<NumberInputProps, 'value' | 'onChange' | 'min' | 'max'> {
  readonly value: number
  readonly min: number
  readonly max: number
  readonly onCommit: (value: number) => void
}

/** A whole number: taken on as soon as it is within its range, so that half a number is never meant. */
export function NumberField({ value, min, max, onCommit, ...others }: NumberFieldProps) {
  const { draft, setDraft, send, leave } = useDraft<number | string>(value)
  return (
    <NumberInput
      size="xs"
      allowDecimal={false}
      {...others}
      min={min}
      max={max}
      value={draft}
      onChange={(now) => {
        setDraft(now)
        if (typeof now !== 'number' || now < min || now > max || now === value) return
        send(Math.round(now))
        onCommit(Math.round(now))
      }}
      onBlur={() => {
        leave()
        setDraft(value)
      }}
    />
  )
}
