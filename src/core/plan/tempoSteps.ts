import type { House } from '../house/house'
import { clampTempo, type Tempo } from '../time/tempo'

/** A tempo rises by at most so much where the floor or a review sets it, or where time is short. */
export const MOST_RISE = 1.12
/** Near what hangs on time a step is small, from so far below it on. */
const NEAR = 0.9

/**
 * The tempos from what is danced now to what is meant, the last of them that (teaching 4.1): none
 * between where they are near, one where they are not, more where a step would be too long.
 * @param hurried the tempo from which something hangs on time, where there is one
 */
export function tempoSteps(
  now: Tempo,
  target: Tempo,
  { limits }: House,
  hurried?: Tempo,
): readonly Tempo[] {
  if (target === now) return []
  if (target < now) return [target]
  const ratio = target / now
  const between =
    ratio <= limits['plan.riseNone']
      ? 0
      : ratio <= limits['plan.riseOne']
        ? 1
        : Math.max(2, Math.ceil(Math.log(ratio) / Math.log(limits['plan.rise']) - 1e-9) - 1)
  const plain = Array.from({ length: between + 1 }, (_, i) =>
    i === between ? target : clampTempo(now * ratio ** ((i + 1) / (between + 1))),
  )
  if (hurried === undefined || target < hurried * NEAR) return plain
  const slow = plain.filter((tempo) => tempo < hurried * NEAR)
  const steps = [...slow]
  for (let tempo = slow.at(-1) ?? now; tempo < target; ) {
    const most =
      tempo < hurried * NEAR ? Math.max(hurried * NEAR, tempo * MOST_RISE) : tempo * MOST_RISE
    tempo = Math.min(target, Math.max(tempo + 1, Math.floor(most)))
    steps.push(clampTempo(tempo))
  }
  return steps
}
