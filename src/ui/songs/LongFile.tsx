import { Button } from '@mantine/core'
import { useState } from 'react'
import type { Part } from '../../audio/decode'
import { NumberField } from '../parts/NumberField'

/** A part is no longer than that, in minutes. */
const MOST_MINUTES = 60
const USUAL_MINUTES = 10

/** Which part of a long file is read. */
export function LongFile({
  seconds,
  onRead,
}: {
  readonly seconds: number
  readonly onRead: (part: Part) => void
}) {
  const whole = Math.floor(seconds / 60)
  const [from, setFrom] = useState(0)
  const [to, setTo] = useState(USUAL_MINUTES)
  const isRight = to > from && to - from <= MOST_MINUTES
  return (
    <>
      <NumberField label="From minute" value={from} min={0} max={whole} onCommit={setFrom} />
      <NumberField label="To minute" value={to} min={1} max={whole + 1} onCommit={setTo} />
      <Button
        size="compact-sm"
        disabled={!isRight}
        onClick={() => onRead({ from: 60 * from, to: Math.min(seconds, 60 * to) })}
      >
        Read this part
      </Button>
    </>
  )
}
