import * as phrases from '../../core/edits/phrases'
import { phraseIdHere } from '../stores/cursor'
import { change } from '../stores/session'
import { vocabularyOf } from '../stores/state'
import type { Shortcut } from './shortcut'

/** Changing whole phrases. */
export const PHRASES: readonly Shortcut[] = [
  {
    keys: '',
    does: 'add a phrase behind this one',
    matches: () => false,
    run: (session, _, { newId }) =>
      change(
        session,
        'add a phrase',
        phrases.addPhrase(newId(), session.getState().selection.pass),
      ),
  },
  {
    keys: '',
    does: 'dance this phrase again, right behind',
    matches: () => false,
    run: (session) =>
      change(session, 'repeat a phrase', phrases.repeatPass(session.getState().selection.pass)),
  },
  {
    keys: '',
    does: 'dance this phrase from the other side, or back from its own',
    matches: () => false,
    run: (session) =>
      change(session, 'turn a phrase round', phrases.turnPass(session.getState().selection.pass)),
  },
  {
    keys: '',
    does: 'take this phrase out here',
    matches: () => false,
    run: (session) =>
      change(session, 'take a phrase out', phrases.removePass(session.getState().selection.pass)),
  },
  {
    keys: '',
    does: 'dance this phrase in double time, in half the counts',
    matches: () => false,
    run: (session) =>
      change(
        session,
        'double time',
        phrases.retime(phraseIdHere(session), 0.5, vocabularyOf(session.getState())),
      ),
  },
  {
    keys: '',
    does: 'dance this phrase in half time, in twice the counts',
    matches: () => false,
    run: (session) =>
      change(
        session,
        'half time',
        phrases.retime(phraseIdHere(session), 2, vocabularyOf(session.getState())),
      ),
  },
]
