import { FRAMES_A_SECOND } from './features'
import { featuresIn, type KeptFeatures } from './kept'
import { mean } from './numbers'

/** How a copy of a song lies beside the one that is known. */
export interface CopyFit {
  /** It begins that much later, in seconds. */
  readonly later: number
  /** How alike the two are then, 1 for the same. */
  readonly alike: number
}

/** A copy begins no more than that much earlier or later, in seconds. */
const REACH_SECONDS = 3
/** Copies of one song are that much alike. */
export const SAME_SONG = 0.6

/** How far two copies of a song lie apart, by what begins in them when. */
export function copyFit(known: KeptFeatures, copy: KeptFeatures): CopyFit {
  const [one, other] = [known, copy].map((kept) => {
    const { flux } = featuresIn(kept)
    const middle = mean(flux)
    return flux.map((value) => value - middle)
  }) as [Float32Array, Float32Array]
  const reach = Math.round(REACH_SECONDS * FRAMES_A_SECOND)
  let best: CopyFit = { later: 0, alike: 0 }
  for (let shift = -reach; shift <= reach; shift++) {
    const alike = alikeAt(one, other, shift)
    if (alike > best.alike) best = { later: shift / FRAMES_A_SECOND, alike }
  }
  return best
}

function alikeAt(one: Float32Array, other: Float32Array, shift: number): number {
  let [both, a, b] = [0, 0, 0]
  for (let i = Math.max(0, -shift); i < Math.min(one.length, other.length - shift); i++) {
    const [x, y] = [one[i] as number, other[i + shift] as number]
    both += x * y
    a += x * x
    b += y * y
  }
  return a === 0 || b === 0 ? 0 : both / Math.sqrt(a * b)
}
