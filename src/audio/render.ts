import type { Part, Sound } from '../core/teaching/program'
import { secondsOfTicks } from '../core/time/tempo'
import { loudnessOf, type Mix, type Sample } from './sounds'

/** A sound at its time from the start, in seconds. */
export interface Scheduled {
  readonly sound: Sound
  readonly seconds: number
}

/** When every sound of some parts is due, each from the start of its part and never from sums of lengths. */
export function scheduleOf(parts: readonly Part[]): {
  readonly sounds: readonly Scheduled[]
  readonly seconds: number
} {
  let start = 0
  const sounds: Scheduled[] = []
  for (const { sounds: own, length, tempo } of parts) {
    for (const sound of own)
      sounds.push({ sound, seconds: start + secondsOfTicks(sound.at, tempo) })
    start += secondsOfTicks(length, tempo)
  }
  return { sounds, seconds: start }
}

/** The last sound dies away, in seconds. */
const AFTER = 0.8
/** Said now and then, not at every sound. */
const TOLD_EVERY = 200

/**
 * Adds all sounds into one row of samples, each begun on the sample nearest to its time;
 * made quieter as a whole where it would clip.
 * @param told is told the share that is done, 0 to 1.
 */
export function renderSounds(
  { sounds, seconds }: ReturnType<typeof scheduleOf>,
  rate: number,
  mix: Mix,
  sampleOf: (sound: Sound) => Sample,
  told: (share: number) => void = () => {},
): Float32Array<ArrayBuffer> {
  const sum = new Float32Array(Math.ceil((seconds + AFTER) * rate))
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
