import * as phrases from '../../core/edits/phrases'
import { HALF_COUNT, QUARTER_COUNT } from '../../core/time/time'
import type { Press } from '../parts/keys'
import {
  copySelected,
  cutSelected,
  duplicateSelected,
  layerHere,
  pasteHere,
  repeatToEnd,
} from '../stores/clipboard'
import { countHere, phraseIdHere } from '../stores/cursor'
import {
  actHere,
  keepSelected,
  meetHere,
  moveSelected,
  openSelectedFigure,
  removeSelected,
  stretchSelected,
} from '../stores/editing'
import { change, select, selectWhom } from '../stores/session'
import { documentOf, selectedEvents } from '../stores/state'
import { hasSelected, isArrow, isCtrl, isKey, type Shortcut, way } from './shortcut'

/** The part a key with a number stands for; 0 for all. */
const partOfKey = ({ key }: Press) => Number(key)

/** Changing what is selected. */
export const EDITING: readonly Shortcut[] = [
  {
    keys: 'Alt 0 to 8',
    does: 'for whom it is: 0 for all, 1 to 8 for one of the parts',
    needsKey: true,
    matches: (press, session) =>
      press.alt &&
      !press.ctrl &&
      partOfKey(press) <= (documentOf(session.getState()).parts?.length ?? -1),
    run: (session, press) =>
      selectWhom(session, documentOf(session.getState()).parts?.[partOfKey(press) - 1]?.id),
  },
  {
    keys: 'Alt T',
    does: 'let two dancers do something together on the selected counts',
    matches: (press) => press.alt && !press.ctrl && press.key.toLowerCase() === 't',
    run: (session, _, { newId }) => meetHere(session, newId),
  },
  {
    keys: 'Alt C',
    does: 'do something with what is carried on the selected counts',
    matches: (press) => press.alt && !press.ctrl && press.key.toLowerCase() === 'c',
    run: (session, _, { newId }) => actHere(session, newId),
  },
  {
    keys: 'Ctrl C',
    does: 'copy what is selected',
    matches: (press) => isCtrl(press, 'c'),
    run: copySelected,
  },
  {
    keys: 'Ctrl X',
    does: 'cut what is selected',
    matches: (press) => isCtrl(press, 'x'),
    run: cutSelected,
  },
  {
    keys: 'Ctrl V',
    does: 'paste here',
    matches: (press) => isCtrl(press, 'v'),
    run: (session, _, { newId }) => pasteHere(session, newId),
  },
  {
    keys: 'Ctrl Shift V',
    does: 'paste from the other side',
    matches: (press) => isCtrl(press, 'v', { shift: true }),
    run: (session, _, { newId }) => pasteHere(session, newId, { mirrored: true }),
  },
  {
    keys: 'Ctrl Alt V',
    does: 'paste only what belongs to this layer',
    matches: (press) => isCtrl(press, 'v', { alt: true }),
    run: (session, _, { newId }) =>
      pasteHere(session, newId, { only: layerHere(session.getState()) }),
  },
  {
    keys: 'Ctrl D',
    does: 'double what is selected, right behind',
    matches: (press) => isCtrl(press, 'd'),
    run: (session, _, { newId }) => duplicateSelected(session, newId),
  },
  {
    keys: 'Ctrl E',
    does: 'repeat what is selected to the end of its phrase',
    matches: (press) => isCtrl(press, 'e'),
    run: (session, _, { newId }) => repeatToEnd(session, newId),
  },
  {
    keys: 'Ctrl O',
    does: 'open a figure into its steps',
    matches: (press) => isCtrl(press, 'o'),
    run: (session, _, { newId }) => openSelectedFigure(session, newId),
  },
  {
    keys: 'Ctrl M',
    does: 'make an own move of what is selected',
    matches: (press) => isCtrl(press, 'm'),
    run: (_, __, deck) => deck.makeMove(),
  },
  {
    keys: 'Ctrl Enter',
    does: 'put an empty count in before this one',
    matches: (press) => isCtrl(press, 'enter'),
    run: (session) =>
      change(
        session,
        'put a count in',
        phrases.insertCounts(phraseIdHere(session), countHere(session), 1),
      ),
  },
  {
    keys: 'Ctrl Backspace',
    does: 'take this count out, with all that starts on it',
    matches: (press) => isCtrl(press, 'backspace'),
    run: (session) =>
      change(
        session,
        'take a count out',
        phrases.deleteCounts(phraseIdHere(session), countHere(session), 1),
      ),
  },
  {
    keys: 'Alt ← →',
    does: 'move what is selected by half a count',
    needsKey: true,
    matches: (press) => press.alt && !press.ctrl && !press.shift && isArrow(press),
    run: (session, press) => moveSelected(session, way(press) * HALF_COUNT),
  },
  {
    keys: 'Ctrl Alt ← →',
    does: 'move what is selected by a quarter',
    needsKey: true,
    matches: (press) => press.alt && press.ctrl && !press.shift && isArrow(press),
    run: (session, press) => moveSelected(session, way(press) * QUARTER_COUNT),
  },
  {
    keys: 'Ctrl Alt Shift ← →',
    does: 'make what is selected a quarter shorter or longer',
    needsKey: true,
    matches: (press) => press.alt && press.ctrl && press.shift && isArrow(press),
    run: (session, press) => stretchSelected(session, way(press) * QUARTER_COUNT),
  },
  {
    keys: 'Alt Shift ← →',
    does: 'make what is selected shorter or longer',
    needsKey: true,
    matches: (press) => press.alt && !press.ctrl && press.shift && isArrow(press),
    run: (session, press) => stretchSelected(session, way(press) * HALF_COUNT),
  },
  {
    keys: 'Delete',
    does: 'take out what is selected',
    matches: isKey('Delete', 'Backspace'),
    run: removeSelected,
  },
  {
    keys: '=',
    does: 'open the card of the selected move',
    matches: (press, session) => isKey('=')(press) && hasSelected(session),
    run: (session, _, deck) => {
      const [first] = selectedEvents(session.getState())
      if (first) select(session, { ...session.getState().selection, event: first.id })
      deck.goToCard()
    },
  },
  {
    keys: '!',
    does: 'keep it as written on the other side',
    matches: isKey('!'),
    run: keepSelected,
  },
]
