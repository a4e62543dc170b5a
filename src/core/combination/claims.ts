import type { BodyPart, MoveKind } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import type { Event } from './combination'

/** What an event needs for itself while it runs, and how it behaves in time. */
export interface Claim {
  readonly kind: MoveKind
  readonly parts: readonly BodyPart[]
  /** A wave that takes the head along; a look over it goes wrong, but can be danced. */
  readonly wave: boolean
}

const mirrorPart: Readonly<Partial<Record<BodyPart, BodyPart>>> = {
  armR: 'armL',
  armL: 'armR',
  handR: 'handL',
  handL: 'handR',
}

/** The parts of the body an event claims from its start to its end (model 5). */
export function claimOf({ layer, what }: Event, vocabulary: Vocabulary): Claim {
  switch (what.kind) {
    case 'foot':
      return { kind: 'steps', parts: ['feet'], wave: false }
    case 'at':
      return { kind: 'place', parts: [layer === 'torso' ? 'ribs' : 'pelvis'], wave: false }
    case 'arms':
      return {
        kind: 'place',
        parts: [...(what.R ? (['armR'] as const) : []), ...(what.L ? (['armL'] as const) : [])],
        wave: false,
      }
    case 'look':
      return { kind: 'place', parts: ['head'], wave: false }
    case 'move': {
      const move = vocabulary.find(what.move)
      if (!move) return { kind: 'path', parts: [], wave: false }
      const wave = move.motion.some((item) => item.verb === 'wave')
      const parts = what.side === 'L' ? move.claims.map((p) => mirrorPart[p] ?? p) : move.claims
      return { kind: move.kind, parts, wave }
    }
  }
}
