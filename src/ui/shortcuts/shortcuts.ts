import type { Press } from '../parts/keys'
import type { Session } from '../stores/session'
import { CURSOR } from './cursor'
import { EDITING } from './editing'
import { PHRASES } from './phrases'
import { PLACING } from './placing'
import { SCREEN } from './screen'
import type { KeyScope, Shortcut } from './shortcut'
/** Every action of the Studio with its key; the help overlay is made from this. */
export const SHORTCUTS: readonly Shortcut[] = [
  ...PLACING,
  ...CURSOR,
  ...EDITING,
  ...PHRASES,
  ...SCREEN,
]

/** Does what a key stands for. False when it stands for nothing here. */
export function press(session: Session, pressed: Press, deck: KeyScope): boolean {
  const found = SHORTCUTS.find((shortcut) => shortcut.matches(pressed, session))
  found?.run(session, pressed, deck)
  return found !== undefined
}
