import { median } from '../beats/numbers'
import { nudgedTake, type Take } from './take'

/** A clap is as sharp as that: loudness is told over so many seconds, and against so many before (h). */
const SHARP = 0.004
const BEFORE = 0.06
/** It is so many times as loud as what was heard before it (h). */
const RISE = 8
/** Two claps are no nearer to each other, in seconds. */
const APART = 0.15
/** Two claps that are meant lie beside their counts alike, to so many milliseconds (h). */
const ALIKE = 40
/** So many of the strongest strokes are looked at: the claps are among them. */
const LOOKED = 12

/** A sharp stroke in the sound of a film. */
interface Stroke {
  /** Milliseconds from the film's beginning. */
  readonly ms: number
  readonly strength: number
}

/**
 * A take whose pictures are put right by two claps on two of its counts, as they are heard in the
 * sound of the room. Undefined where no two are heard that lie beside their counts alike.
 */
export function linedUpByClaps(take: Take, samples: Float32Array, rate: number): Take | undefined {
  const strokes = strokesIn(samples, rate).slice(0, LOOKED)
  const beside = strokes.flatMap((stroke) => {
    const count = nearestCount(take.danced, stroke.ms)
    return count ? [{ count: count.ms, late: stroke.ms - count.ms }] : []
  })
  // The strongest is a clap; another on another count is as late.
  for (const { count, late } of beside) {
    const alike = beside.filter((one) => Math.abs(one.late - late) <= ALIKE)
    if (alike.every((one) => one.count === count)) continue
    const nudge = Math.round(median(alike.map((one) => one.late)))
    return nudgedTake(take, nudge - take.nudge)
  }
  return undefined
}

function nearestCount(danced: Take['danced'], ms: number): Take['danced'][number] | undefined {
  let best: Take['danced'][number] | undefined
  for (const one of danced) if (!best || Math.abs(one.ms - ms) < Math.abs(best.ms - ms)) best = one
  // Before the first count and behind the last nothing is near.
  const [first, second] = danced
  const gap = first && second ? second.ms - first.ms : 0
  return best && Math.abs(best.ms - ms) <= gap / 2 ? best : undefined
}

/** Sharp strokes, the strongest first. */
function strokesIn(samples: Float32Array, rate: number): readonly Stroke[] {
  const step = Math.max(1, Math.round(SHARP * rate))
  const frames = Math.floor(samples.length / step)
  // What is low, as a drum or a step, is weak in what changes from sample to sample.
  const loud = Float32Array.from({ length: frames }, (_, i) => {
    let sum = 0
    for (let k = Math.max(1, i * step); k < (i + 1) * step; k++)
      sum += ((samples[k] as number) - (samples[k - 1] as number)) ** 2
    return Math.sqrt(sum / step)
  })
  const most = loud.reduce((a, b) => Math.max(a, b), 0)
  const reach = Math.round(BEFORE / SHARP)
  const strokes: Stroke[] = []
  for (let i = reach; i < frames; i++) {
    const now = loud[i] as number
    if (now < most / 20) continue
    let before = 0
    for (let k = i - reach; k < i; k++) before += loud[k] as number
    if (now > RISE * (before / reach + most / 1000)) {
      const last = strokes.at(-1)
      const ms = (1000 * (i * step + step / 2)) / rate
      if (!last || ms - last.ms > 1000 * APART) strokes.push({ ms, strength: now })
    }
  }
  return strokes.sort((a, b) => b.strength - a.strength)
}
