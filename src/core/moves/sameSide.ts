import type { What } from '../combination/combination'
import { onSide } from './search'

/** An easier or harder form is danced on the side of what it stands for. */
export function sameSide(what: What, as: What): What {
  if (as.kind !== 'move') return what
  const side = as.side ?? (as.way && (as.way === 'cw' ? 'R' : 'L'))
  return side ? onSide(what, side) : what
}
