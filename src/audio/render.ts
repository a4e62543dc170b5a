import type { Performance } from '../core/performance/performance'
import type { SegmentMusic } from '../core/performance/played'
import type { Sound } from '../core/performance/sounds'
import { loudnessOf, type Mix, type Sample } from './sounds'

/** A sound at its time from the start, in seconds. */
interface Scheduled {
  readonly sound: Sound
  readonly seconds: number
}

/** A song that goes along from a second to another. */
interface ScheduledMusic extends SegmentMusic {
  readonly at: number
  readonly until: number
}

/** All that sounds in something, and how long it lasts. */
export interface Schedule {
  readonly sounds: readonly Scheduled[]
  readonly music: readonly ScheduledMusic[]
  readonly seconds: number
}

/** When every sound of a performance is due. */
export function scheduleOf({ sounds, length, time, segments }: Performance): Schedule {
  let ends = 0
  const music = segments.flatMap((segment) => {
    const at = ends
    ends += segment.time.secondsAt(segment.length)
    return segment.music ? [{ ...segment.music, at, until: ends }] : []
  })
  return {
    sounds: sounds.map((sound) => ({ sound, seconds: time.secondsAt(sound.at) })),
    music,
    seconds: time.secondsAt(length),
  }
}

/** The last sound dies away, in seconds. */
const AFTER = 0.8
/** Said now and then, not at every sound. */
const TOLD_EVERY = 200

/**
 * Adds all sounds into one row of samples, each begun on the sample nearest to its time;
 * made quieter as a whole where it would clip.
 * @param told is told the share that is done, 0 to 1.
 * @param under what sounds with it from its beginning, at that rate
 */
export function renderSounds(
  { sounds, seconds }: Schedule,
  rate: number,
  mix: Mix,
  sampleOf: (sound: Sound) => Sample,
  told: (share: number) => void = () => {},
  under: Float32Array = new Float32Array(),
): Float32Array<ArrayBuffer> {
  const sum = new Float32Array(Math.ceil((seconds + AFTER) * rate))
  sum.set(under.subarray(0, sum.length))
  for (const [i, { sound, seconds: due }] of sounds.entries()) {
    const loud = loudnessOf(sound, mix)
    if (loud > 0) {
      const { samples, early } = sampleOf(sound)
      const at = Math.round((due - early) * rate)
      for (let j = Math.max(0, -at); j < samples.length && at + j < sum.length; j++)
        sum[at + j] = (sum[at + j] ?? 0) + loud * (samples[j] ?? 0)
    }
    if (i % TOLD_EVERY === 0) told(i / sounds.length)
  }
  let peak = 0
  for (const x of sum) peak = Math.max(peak, Math.abs(x))
  if (peak > 1) for (let i = 0; i < sum.length; i++) sum[i] = (sum[i] ?? 0) / peak
  told(1)
  return sum
}
