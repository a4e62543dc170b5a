import { turnSelected } from '../../stores/editing'
import type { Session } from '../../stores/session'
import { hasSelected, isKey, plain, type Shortcut } from './shortcut'

function typed(session: Session, query: string): void {
  session.set((state) => ({ ...state, query }))
}

/** Finding a move and placing it. */
export const PLACING: readonly Shortcut[] = [
  {
    keys: 'A to Z',
    does: 'find a move to place here',
    needsKey: true,
    matches: (press, session) =>
      plain(press) &&
      /^[a-zʻ']$/i.test(press.key) &&
      !(/^[rl]$/i.test(press.key) && hasSelected(session)),
    run: (session, { key }) => typed(session, key),
  },
  {
    keys: 'Enter',
    does: 'show what fits here',
    matches: isKey('Enter'),
    run: (session) => typed(session, ''),
  },
  {
    keys: 'Tab, while typing',
    does: 'place what is found and go on behind it',
    needsKey: true,
    matches: () => false,
    run: () => {},
  },
  {
    keys: 'R, L',
    does: 'put the selected move on that side',
    needsKey: true,
    matches: (press, session) => plain(press) && /^[rl]$/i.test(press.key) && hasSelected(session),
    run: (session, { key }) => turnSelected(session, key.toUpperCase() === 'R' ? 'R' : 'L'),
  },
]
