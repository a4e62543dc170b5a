import { sideOf } from '../../core/combination/names'
import { onSide, whatOf } from '../../core/combination/whatOf'
import * as edits from '../../core/edits/edits'
import { UserError } from '../../core/errors'
import { moveOfOwn, type OwnMove } from '../../core/moves/move'
import { TICKS_PER_COUNT, tick } from '../../core/time/time'
import { ownMoveOf } from '../../core/writing/makeOwn'
import { placeAtSelection } from '../stores/editing'
import { change, type Session, select } from '../stores/session'
import { selectedEvents, vocabularyOf } from '../stores/state'

/** A first form of an own move from what is selected; a sentence where there is none. */
export function draftOfSelection(session: Session): OwnMove | undefined {
  const state = session.getState()
  const { selection } = state
  try {
    return ownMoveOf(
      selectedEvents(state),
      { from: selection.at, length: selection.length },
      'My move',
      vocabularyOf(state),
    )
  } catch (error) {
    if (!(error instanceof UserError)) throw error
    session.setState((now) => ({ ...now, message: `${error.message} ${error.whatToDo}` }))
    return undefined
  }
}

/** Puts an own move in place of what it was made of. */
export function replaceSelected(session: Session, move: OwnMove, newId: () => string): void {
  const events = selectedEvents(session.getState())
  const side = events.map(({ what }) => sideOf(what)).find((one) => one !== undefined)
  const { selection } = session.getState()
  select(session, { ...selection, event: undefined, toLayer: undefined })
  change(session, `bring ${move.name}`, edits.bringMove(move))
  const what = whatOf(moveOfOwn(move))
  placeAtSelection(
    session,
    side ? onSide(what, side) : what,
    tick(move.counts * TICKS_PER_COUNT),
    newId,
  )
}
