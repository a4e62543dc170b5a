import { clampTempo } from '../time/tempo'

/** Tempos from what is danced now to what is meant, each at most 12 % up (model 10). */
export function tempoSteps(now: number, target: number): readonly number[] {
  if (target < now) return [clampTempo(target)]
  const tempos: number[] = []
  for (let tempo = now; tempo < target; ) {
    const left = Math.ceil(Math.log(target / tempo) / Math.log(MOST_RISE) - 1e-9)
    tempo =
      left <= 1 ? target : Math.max(tempo + 1, Math.floor(tempo * (target / tempo) ** (1 / left)))
    tempos.push(clampTempo(tempo))
  }
  return tempos
}

/** A tempo rises by steps of at most 12 % (model 10). */
export const MOST_RISE = 1.12
