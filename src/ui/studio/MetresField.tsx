import type { ComponentProps } from 'react'
import { NumberField } from '../parts/NumberField'

type MetresFieldProps = Omit<ComponentProps<typeof NumberField>, 'allowDecimal'>

/** Metres, kept to whole centimetres. */
export const MetresField = ({ onCommit, ...others }: MetresFieldProps) => (
  <NumberField
    allowDecimal
    // A sum with 0 has no -0.
    onCommit={(metres) => onCommit(Math.round(metres * 100) / 100 + 0)}
    {...others}
  />
)
