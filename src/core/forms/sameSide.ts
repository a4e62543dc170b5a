import { onSide, whatOf } from '../combination/whatOf'
import { turningOf } from '../moves/motion'
import type { Move } from '../moves/move'
import type { Vocabulary } from '../moves/vocabulary'
import type { What } from '../what/kinds'

/**
 * An easier or harder form, danced the way round the move it stands for goes; where one of
 * the two goes no way round, on its side (truth F9).
 */
export function sameSide(form: Move, as: What, vocabulary: Vocabulary): What {
  const what = whatOf(form)
  if (as.kind !== 'move') return what
  const side = as.side ?? (as.way && (as.way === 'cw' ? 'R' : 'L'))
  if (!side) return what
  const written = turningOf(vocabulary.find(as.move)?.motion ?? [])
  const own = turningOf(form.motion)
  const other = side === 'R' ? 'L' : 'R'
  return onSide(what, written && own && written !== own ? other : side)
}
