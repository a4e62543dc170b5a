import { turnSelected } from '../stores/editing'
import type { Session } from '../stores/session'
import { hasSelected, isKey, plain, type Shortcut } from './shortcut'

function typed(session: Session, query: string): void {
  session.setState({ query })
}

/** Finding a move and placing it. */
export const PLACING: readonly Shortcut[] = [
  {
    keys: 'A to Z',
    does: 'find a move to place here',
    needsKey: true,
    matches: (press) => plain(press) && /^[a-zʻ']$/i.test(press.key),
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
    keys: '< >',
    does: 'put the selected move on the left or the right side',
    needsKey: true,
    // No name begins with these: a letter must never turn a foot round.
    matches: (press, session) => isKey('<', '>')(press) && hasSelected(session),
    run: (session, { key }) => turnSelected(session, key === '>' ? 'R' : 'L'),
  },
]
