import type { Side } from '../body/side'
import type { Move } from '../moves/move'
import type { What } from '../what/kinds'
import { mirrorWhat } from './mirror'
import { sideOf } from './names'

/** What is placed when a move is picked. */
export const whatOf = ({ id, sided }: Move): What => ({
  kind: 'move',
  move: id,
  ...(sided === 'side' && { side: 'R' as const }),
  ...(sided === 'direction' && { way: 'cw' as const }),
})

/** The same on a side; what has none stays as it is. */
export const onSide = (what: What, side: Side): What => {
  const has = sideOf(what)
  return has !== undefined && has !== side ? mirrorWhat(what) : what
}
