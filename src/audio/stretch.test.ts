import { describe, expect, it } from 'vitest'
import { holding, mixedOf, PIECE, samplesOf } from './held'
import { createStretcher, heardFor, type Stretcher } from './stretch'

const RATE = 44_100
const EVERY = 0.5

/** Strokes every half second over a tone that never stops. */
const struck = Float32Array.from({ length: 24 * RATE }, (_, i) => {
  const since = (i / RATE) % EVERY
  const stroke = 0.7 * Math.exp(-since * 150) * Math.sin(2 * Math.PI * 1000 * since)
  return 0.05 * Math.sin((2 * Math.PI * 220 * i) / RATE) + (i < RATE / 4 ? 0 : stroke)
})

function held(rows: readonly Float32Array[], step = 10_007) {
  const taken = holding(RATE, rows.length)
  const long = rows[0]?.length ?? 0
  for (let at = 0; at < long; at += step) taken.take(rows.map((row) => row.subarray(at, at + step)))
  return taken.all()
}

/** Seconds by which a stroke is heard behind its place: where it has half its strength. */
function behind(row: Float32Array, due: number): number {
  const middle = Math.round(due * RATE)
  const heights: number[] = []
  for (let i = middle - 900; i < middle + 900; i++) {
    let top = 0
    for (let k = 0; k < 22; k++) top = Math.max(top, Math.abs(row[i - k] ?? 0))
    heights.push(top)
  }
  const half = 0.5 * Math.max(...heights)
  return (heights.findIndex((height) => height > half) - 900) / RATE
}

describe('the sound of a song', () => {
  it('is held in pieces and read from anywhere, also before its beginning and after its end', () => {
    const other = struck.map((value) => -value)
    const sound = held([struck, other])
    expect(sound).toMatchObject({ rate: RATE, length: struck.length, channels: 2 })
    for (const [from, to] of [
      [0, 100],
      [PIECE - 50, PIECE + 50],
      [-30, 40],
      [struck.length - 10, struck.length + 60],
    ] as const) {
      const [left, right] = samplesOf(sound, from, to)
      for (let i = 0; i < to - from; i++) {
        expect(left?.[i]).toBeCloseTo(struck[from + i] ?? 0, 4)
        expect(right?.[i]).toBeCloseTo(-(struck[from + i] ?? 0), 4)
      }
    }
    expect(mixedOf(sound).every((value) => Math.abs(value) < 1e-4)).toBe(true)
  })

  it.each([0.5, 0.7, 1.2])(
    'is slower or faster by %d at the same pitch, each stroke in its place, over the borders of windows',
    async (speed) => {
      const sound = held([struck])
      const stretcher = await createStretcher(RATE, 1, speed)
      const long = 690 * 128
      const at = (3 * long) / RATE
      const windowOf = (maker: Stretcher, k: number) => {
        const [first, to] = heardFor(k * long, long, speed)
        const rows = samplesOf(sound, first, to)
        return maker.window(k * long, long, { first, rows })[0] as Float32Array
      }
      const parts = [3, 4, 5].map((k) => windowOf(stretcher, k))
      const row = Float32Array.from(parts.flatMap((part) => [...part]))
      const lates: number[] = []
      for (let k = 0; k < 48; k++) {
        const due = (k * EVERY) / speed - at
        if (due > 0.1 && due < 5.9) lates.push(behind(row, due))
      }
      const sorted = lates.toSorted((a, b) => a - b)
      expect(sorted.length).toBeGreaterThanOrEqual(5)
      expect(Math.abs(sorted[sorted.length >> 1] as number)).toBeLessThan(0.002)
      expect(Math.abs(sorted[0] as number)).toBeLessThan(0.005)
      expect(Math.abs(sorted.at(-1) as number)).toBeLessThan(0.005)
      // As often through nought as the tone is high, between strokes.
      const quiet = row.subarray(Math.round(0.35 * RATE))
      let crossings = 0
      for (let i = 1; i < 4 * RATE; i++)
        if ((quiet[i - 1] as number) < 0 && (quiet[i] as number) >= 0) crossings++
      expect(crossings / 4).toBeGreaterThan(210)
      // One after the other they are as one: no sample leaps at a border.
      for (const border of [long, 2 * long]) {
        const leap = Math.abs((row[border] as number) - (row[border - 1] as number))
        expect(leap).toBeLessThan(0.05)
      }
      // A window by itself is as loud as in a row.
      const alone = windowOf(await createStretcher(RATE, 1, speed), 4)
      const power = (values: Float32Array) =>
        Math.sqrt(values.reduce((sum, value) => sum + value * value, 0))
      expect(power(alone) / power(parts[1] as Float32Array)).toBeCloseTo(1, 1)
    },
  )
})
