import { FRAMES_A_SECOND } from './features'
import { mean } from './numbers'

const MEAN_SECONDS = 1
const LEVEL_SECONDS = 12
/** The least a passage counts as loud, as a share of the whole. */
const LEVEL_FLOOR = 0.15

/** How clearly something begins in each frame: over its own surroundings, of any loudness. */
export function envelopeOf(flux: Float32Array): Float32Array {
  const usual = meanOver(flux, MEAN_SECONDS)
  const over = flux.map((value, i) => Math.max(0, value - (usual[i] as number)))
  const squares = over.map((value) => value * value)
  const power = meanOver(squares, LEVEL_SECONDS)
  const whole = mean(squares)
  const level = (i: number) =>
    Math.max(Math.sqrt(power[i] as number), LEVEL_FLOOR * Math.sqrt(whole), 1e-9)
  const even = over.map((value, i) => value / level(i))
  return even.map(
    (value, i) => 0.25 * (even[i - 1] ?? value) + 0.5 * value + 0.25 * (even[i + 1] ?? value),
  )
}

/** The mean of what is around each value. @param seconds how much that is */
function meanOver(values: Float32Array, seconds: number): Float32Array {
  const reach = Math.round((seconds * FRAMES_A_SECOND) / 2)
  const sums = new Float64Array(values.length + 1)
  for (let i = 0; i < values.length; i++) sums[i + 1] = (sums[i] as number) + (values[i] as number)
  return values.map((_, i) => {
    const from = Math.max(0, i - reach)
    const to = Math.min(values.length, i + reach + 1)
    return ((sums[to] as number) - (sums[from] as number)) / (to - from)
  })
}
