import { isCounted } from '../plan/drill'
import type { ClassAction, UnderWay } from './underWay'

/** What a key, a presenter or a zone asks of a class. */
export type ClassKey =
  | 'go'
  | 'next'
  | 'again'
  | 'slower'
  | 'faster'
  | 'other-side'
  | 'clean'
  | 'not-yet'
  | 'skip'
  | 'back'
  | 'water'
  | 'to-runs'

/** What is done with the class, and with the music: played from what is left, halted, or at another tempo. */
export type ClassStep =
  | ClassAction
  | { readonly kind: 'play' }
  | { readonly kind: 'halt' }
  | { readonly kind: 'retune' }

const CLEAN: ClassStep = { kind: 'verdict', verdict: 'clean' }
const NOT_YET: ClassStep = { kind: 'verdict', verdict: 'not-yet' }
const PLAY: ClassStep = { kind: 'play' }
const HALT: ClassStep = { kind: 'halt' }

/** What it means that a song is danced from another moment on: at once where it sounds already. */
export const stepsFrom = ({ phase }: Pick<UnderWay, 'phase'>, ms: number): readonly ClassStep[] => [
  HALT,
  { kind: 'from', ms },
  ...(phase === 'dancing' ? [PLAY] : []),
]

/**
 * What a key means at this moment of the class, in order. The two page keys of a presenter are
 * enough for all of it: on, and again; after a drill they say clean, and not yet.
 */
export function stepsFor(
  { phase, index, drills }: Pick<UnderWay, 'phase' | 'index' | 'drills'>,
  key: ClassKey,
): readonly ClassStep[] {
  const drill = drills[index]
  if (phase === 'over') return key === 'back' ? [{ kind: 'go', index: index - 1 }] : []
  const isAsking = phase === 'asking'
  const isDancing = phase === 'dancing'
  // What has no count goes on by a touch: a count of a walk, or the next step.
  const isSaid = drill !== undefined && !isCounted(drill)
  const on: ClassStep = { kind: drill?.kind === 'walk' ? 'walk' : 'next' }
  if (isSaid && isDancing && (key === 'go' || key === 'next')) return [on]
  switch (key) {
    case 'water':
      return [HALT, { kind: 'water' }]
    case 'to-runs':
      return [HALT, { kind: 'to-runs' }]
    case 'go':
      if (isAsking) return [CLEAN]
      return isDancing ? [HALT, { kind: 'pause' }] : [PLAY]
    case 'next':
      if (isAsking) return [CLEAN]
      return phase === 'ready' ? [PLAY] : [HALT, { kind: 'next' }]
    case 'again':
      return isAsking ? [NOT_YET] : [HALT, { kind: 'again' }, PLAY]
    case 'clean':
      return isAsking ? [CLEAN] : []
    case 'not-yet':
      return isAsking ? [NOT_YET] : []
    case 'skip':
      return [HALT, { kind: 'next' }]
    case 'back':
      return [HALT, { kind: 'go', index: index - 1 }]
    case 'slower':
    case 'faster':
      return [{ kind: key }, ...(isDancing ? [{ kind: 'retune' } as const] : [])]
    case 'other-side':
      return [HALT, { kind: 'other-side' }, ...(isDancing ? [PLAY] : [])]
  }
}
