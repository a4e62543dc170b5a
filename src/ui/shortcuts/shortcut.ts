import type { KeyLine, Press } from '../parts/keys'
import type { Panel } from '../stores/panel'
import type { Session } from '../stores/session'
import { selectedEvents } from '../stores/state'

/** What only the screen can do. */
export interface KeyScope {
  readonly newId: () => string
  /** Opens the list of all that can be done. */
  readonly findCommand: () => void
  readonly toggleSheet: () => void
  /** Shows the film beside the braid, or puts it away. */
  readonly toggleFilm: () => void
  readonly showPanel: (panel: Panel) => void
  /** Opens the form that makes an own move of what is selected. */
  readonly makeMove: () => void
  readonly playOrStop: () => void
  readonly showHelp: () => void
  /** Puts the focus into the card of the selected move. */
  readonly goToCard: () => void
}

export interface Shortcut extends KeyLine {
  /** Stands for several keys at once, so it can't be run from a list. */
  readonly needsKey?: true
  readonly matches: (press: Press, session: Session) => boolean
  readonly run: (session: Session, press: Press, deck: KeyScope) => void
}

export const plain = (press: Press) => !press.ctrl && !press.alt
export const isKey =
  (...keys: string[]) =>
  (press: Press) =>
    plain(press) && keys.includes(press.key)
export const isArrow = ({ key }: Press) => key === 'ArrowLeft' || key === 'ArrowRight'
export const way = ({ key }: Press) => (key === 'ArrowLeft' || key === 'ArrowUp' ? -1 : 1)

export const isCtrl = (press: Press, key: string, { shift = false, alt = false } = {}) =>
  press.ctrl && press.shift === shift && press.alt === alt && press.key.toLowerCase() === key

export const hasSelected = (session: Session) => selectedEvents(session.getState()).length > 0
