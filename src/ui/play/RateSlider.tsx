import { Slider } from '@mantine/core'
import { FASTEST_RATE, hundredths, RATE_STEP, SLOWEST_RATE } from '../../core/song/rate'

/** How fast a song is played, in hundredths of its own speed. */
export function RateSlider({
  label,
  speed,
  onSpeed,
}: {
  readonly label: string
  readonly speed: number
  readonly onSpeed: (speed: number) => void
}) {
  return (
    <Slider
      thumbLabel={label}
      label={null}
      min={hundredths(SLOWEST_RATE)}
      max={hundredths(FASTEST_RATE)}
      step={hundredths(RATE_STEP)}
      value={speed}
      marks={[{ value: hundredths(1) }]}
      onChange={onSpeed}
      styles={{ track: { minWidth: 90 } }}
    />
  )
}
