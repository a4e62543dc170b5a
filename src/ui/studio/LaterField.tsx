import { TICKS_PER_COUNT, type Tick, tick } from '../../core/time/time'
import { NumberField } from '../parts/NumberField'

interface LaterFieldProps {
  readonly value: Tick | undefined
  /** Counts. */
  readonly most: number
  readonly onCommit: (value: Tick) => void
  /** Where it may be empty. */
  readonly onClear?: () => void
}

/** By how many counts somebody is later than others. */
export const LaterField = ({ value, most, onCommit, onClear }: LaterFieldProps) => (
  <NumberField
    label="Counts later"
    w={96}
    step={1}
    min={0}
    max={most}
    allowDecimal
    placeholder="0"
    value={value === undefined ? undefined : value / TICKS_PER_COUNT}
    onCommit={(counts) => onCommit(tick(Math.round(counts * TICKS_PER_COUNT)))}
    {...(onClear && { onClear })}
  />
)
