import { NativeSelect } from '@mantine/core'
import { type Side, sideWord } from '../../core/body/side'
import { capital } from '../../core/capital'
import classes from './studio.module.css'

/** Where each of a pair goes, or that it stays. */
export function PairSelect<P extends string>({
  part,
  places,
  value,
  onPair,
  wordOf = (place) => place,
}: {
  readonly part: string
  readonly places: readonly P[]
  readonly value: { readonly R?: P | undefined; readonly L?: P | undefined }
  readonly onPair: (pair: { R?: P; L?: P }) => void
  readonly wordOf?: (place: P) => string
}) {
  const change = (side: Side, said: string) => {
    const place = places.find((one) => one === said)
    const [R, L] = side === 'R' ? [place, value.L] : [value.R, place]
    onPair({ ...(R && { R }), ...(L && { L }) })
  }
  return (['L', 'R'] as const).map((side) => (
    <NativeSelect
      key={side}
      size="xs"
      label={`${capital(sideWord[side])} ${part}`}
      className={classes.grow}
      data={[
        { value: '', label: 'stays' },
        ...places.map((place) => ({ value: place, label: wordOf(place) })),
      ]}
      value={value[side] ?? ''}
      onChange={({ currentTarget }) => change(side, currentTarget.value)}
    />
  ))
}
