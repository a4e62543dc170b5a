import { NumberInput, type NumberInputProps } from '@mantine/core'
import { useRef } from 'react'
import { useDraft } from './useDraft'

interface NumberFieldProps
  extends Omit<NumberInputProps, 'value' | 'onChange' | 'min' | 'max' | 'onBlur' | 'onKeyDown'> {
  /** Absent where the field may be empty and is. */
  readonly value: number | undefined
  readonly min: number
  readonly max: number
  /** Whole numbers only, unless it says otherwise. */
  readonly allowDecimal?: boolean
  /** Waits until the number is complete (Enter, the arrows, leaving), where half a number would do harm. */
  readonly waits?: boolean
  readonly onCommit: (value: number) => void
  /** For a field that may be empty. */
  readonly onClear?: () => void
}

/**
 * The one field for numbers. What is typed stands as it is typed; it is taken on as soon as it
 * is within its range, so that half a number is never meant, and put right when it is left.
 */
export function NumberField({
  value,
  min,
  max,
  allowDecimal = false,
  waits = false,
  onCommit,
  onClear,
  ...others
}: NumberFieldProps) {
  const { draft, setDraft, send, leave } = useDraft<number | string>(value ?? '')
  const isTyping = useRef(false)
  const take = (now: number | string) => {
    if (now === '') {
      if (onClear && value !== undefined) {
        send('')
        onClear()
      }
      return
    }
    if (typeof now !== 'number' || now < min || now > max) return
    const made = allowDecimal ? now : Math.round(now)
    if (made === value) return
    send(made)
    onCommit(made)
  }
  /** What was typed beyond the range means its end. */
  const finish = () => {
    isTyping.current = false
    const said = typeof draft === 'number' ? draft : Number(draft || Number.NaN)
    if (waits || (Number.isFinite(said) && (said < min || said > max)))
      take(Number.isFinite(said) ? Math.min(max, Math.max(min, said)) : draft)
  }
  return (
    <NumberInput
      size="xs"
      allowDecimal={allowDecimal}
      allowedDecimalSeparators={['.', ',']}
      // The field clamps when it is left, not while a number is being typed.
      clampBehavior="none"
      {...others}
      min={min}
      max={max}
      value={draft}
      onChange={(now) => {
        setDraft(now)
        if (!waits || !isTyping.current) take(now)
      }}
      onKeyDown={({ key }) => {
        if (key === 'Enter') finish()
        else isTyping.current = key !== 'ArrowUp' && key !== 'ArrowDown'
      }}
      onPointerDown={() => {
        isTyping.current = false
      }}
      onBlur={() => {
        finish()
        leave()
        setDraft(value ?? '')
      }}
    />
  )
}
