import type { Event } from '../../core/combination/combination'
import { nameOf } from '../../core/combination/names'
import * as phrases from '../../core/edits/phrases'
import {
  HALF_COUNT,
  QUARTER_COUNT,
  THIRD_COUNT,
  TICKS_PER_COUNT,
  tick,
  tickOfCount,
} from '../../core/time/time'
import {
  copySelected,
  cutSelected,
  duplicateSelected,
  layerHere,
  pasteHere,
  repeatToEnd,
} from '../stores/clipboard'
import {
  countHere,
  go,
  phraseIdHere,
  phraseTicks,
  selectAll,
  selectPhrase,
  stepInTime,
  stepLayer,
  stretchLayers,
} from '../stores/cursor'
import {
  keepSelected,
  moveSelected,
  openSelectedFigure,
  removeSelected,
  stretchSelected,
  turnSelected,
} from '../stores/editing'
import {
  change,
  flip,
  redoNext,
  type Session,
  select,
  selectedEvents,
  showBoth,
  undoLast,
  vocabularyOf,
} from '../stores/session'

/** What a key press is, without the browser's own event. */
export interface Press {
  readonly key: string
  readonly ctrl: boolean
  readonly alt: boolean
  readonly shift: boolean
}

/** What only the screen can do. */
export interface Deck {
  readonly newId: () => string
  /** Opens the list of all that can be done. */
  readonly findCommand: () => void
  readonly toggleSheet: () => void
  /** Opens the form that makes an own move of what is selected. */
  readonly makeMove: () => void
  readonly playOrStop: () => void
  readonly showHelp: () => void
  /** Puts the focus into the card of the selected move. */
  readonly goToCard: () => void
}

export interface Shortcut {
  readonly keys: string
  readonly does: string
  /** Stands for several keys at once, so it can't be run from a list. */
  readonly needsKey?: true
  readonly matches: (press: Press, session: Session) => boolean
  readonly run: (session: Session, press: Press, deck: Deck) => void
}

const plain = (press: Press) => !press.ctrl && !press.alt
const isKey =
  (...keys: string[]) =>
  (press: Press) =>
    plain(press) && keys.includes(press.key)
const isArrow = ({ key }: Press) => key === 'ArrowLeft' || key === 'ArrowRight'
const way = ({ key }: Press) => (key === 'ArrowLeft' || key === 'ArrowUp' ? -1 : 1)

const isCtrl = (press: Press, key: string, { shift = false, alt = false } = {}) =>
  press.ctrl && press.shift === shift && press.alt === alt && press.key.toLowerCase() === key

function typed(session: Session, query: string): void {
  session.set((state) => ({ ...state, query }))
}

const hasSelected = (session: Session) => selectedEvents(session.get()).length > 0

const inWords = (session: Session) => (event: Event) => nameOf(event, vocabularyOf(session.get()))

/** Every action of the Studio with its key; the help overlay is made from this. */
export const SHORTCUTS: readonly Shortcut[] = [
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
  {
    keys: '← →',
    does: 'one count back or on',
    needsKey: true,
    matches: (press) => plain(press) && !press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * TICKS_PER_COUNT),
  },
  {
    keys: 'Ctrl ← →',
    does: 'half a count back or on',
    needsKey: true,
    matches: (press) => press.ctrl && !press.alt && !press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * HALF_COUNT),
  },
  {
    keys: 'Ctrl Shift ← →',
    does: 'a quarter of a count back or on',
    needsKey: true,
    matches: (press) => press.ctrl && !press.alt && press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * QUARTER_COUNT),
  },
  {
    keys: 'Ctrl , .',
    does: 'a third of a count back or on',
    needsKey: true,
    matches: (press) => press.ctrl && !press.alt && (press.key === ',' || press.key === '.'),
    run: (session, press) => stepInTime(session, press.key === ',' ? -THIRD_COUNT : THIRD_COUNT),
  },
  {
    keys: '↑ ↓',
    does: 'one layer up or down',
    needsKey: true,
    matches: (press) => !press.shift && isKey('ArrowUp', 'ArrowDown')(press),
    run: (session, press) => stepLayer(session, way(press)),
  },
  {
    keys: 'Shift ↑ ↓',
    does: 'select fewer or more layers',
    needsKey: true,
    matches: (press) => press.shift && isKey('ArrowUp', 'ArrowDown')(press),
    run: (session, press) => stretchLayers(session, way(press)),
  },
  {
    keys: 'Shift ← →',
    does: 'select fewer or more counts, on into the next phrase',
    needsKey: true,
    matches: (press) => plain(press) && press.shift && isArrow(press),
    run: (session, press) => {
      const { selection } = session.get()
      const length = Math.max(HALF_COUNT, selection.length + way(press) * TICKS_PER_COUNT)
      go(session, { length: tick(length), toLayer: selection.toLayer })
    },
  },
  {
    keys: 'Ctrl A',
    does: 'select everything',
    matches: (press) => isCtrl(press, 'a'),
    run: selectAll,
  },
  {
    keys: 'Ctrl Shift A',
    does: 'select this phrase, all layers',
    matches: (press) => isCtrl(press, 'a', { shift: true }),
    run: selectPhrase,
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
    run: (session, _, { newId }) => pasteHere(session, newId, { only: layerHere(session.get()) }),
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
    keys: '',
    does: 'add a phrase behind this one',
    matches: () => false,
    run: (session, _, { newId }) =>
      change(session, 'add a phrase', phrases.addPhrase(newId(), session.get().selection.pass)),
  },
  {
    keys: '',
    does: 'dance this phrase again, right behind',
    matches: () => false,
    run: (session) =>
      change(session, 'repeat a phrase', phrases.repeatPass(session.get().selection.pass)),
  },
  {
    keys: '',
    does: 'dance this phrase from the other side, or back from its own',
    matches: () => false,
    run: (session) =>
      change(session, 'turn a phrase round', phrases.turnPass(session.get().selection.pass)),
  },
  {
    keys: '',
    does: 'take this phrase out here',
    matches: () => false,
    run: (session) =>
      change(session, 'take a phrase out', phrases.removePass(session.get().selection.pass)),
  },
  {
    keys: '',
    does: 'dance this phrase in double time, in half the counts',
    matches: () => false,
    run: (session) =>
      change(session, 'double time', phrases.retime(phraseIdHere(session), 0.5, inWords(session))),
  },
  {
    keys: '',
    does: 'dance this phrase in half time, in twice the counts',
    matches: () => false,
    run: (session) =>
      change(session, 'half time', phrases.retime(phraseIdHere(session), 2, inWords(session))),
  },
  {
    keys: '1 to 9',
    does: 'jump to a count',
    needsKey: true,
    matches: (press) => plain(press) && /^[1-9]$/.test(press.key),
    run: (session, { key }) => {
      const at = tickOfCount(Number(key))
      if (at < phraseTicks(session, session.get().selection.pass)) go(session, { at })
    },
  },
  {
    keys: '&',
    does: 'jump to the “and” of this count',
    matches: isKey('&'),
    run: (session) => {
      const { at } = session.get().selection
      go(session, { at: tick(Math.floor(at / TICKS_PER_COUNT) * TICKS_PER_COUNT + HALF_COUNT) })
    },
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
      const [first] = selectedEvents(session.get())
      if (first) select(session, { ...session.get().selection, event: first.id })
      deck.goToCard()
    },
  },
  {
    keys: '!',
    does: 'keep it as written on the other side',
    matches: isKey('!'),
    run: keepSelected,
  },
  { keys: '/', does: 'flip to the other side and back', matches: isKey('/'), run: flip },
  { keys: '\\', does: 'both sides, count under count', matches: isKey('\\'), run: showBoth },
  {
    keys: 'Space',
    does: 'play, stop',
    matches: isKey(' '),
    run: (_, __, deck) => deck.playOrStop(),
  },
  {
    keys: 'Ctrl Z',
    does: 'undo',
    matches: (press) => press.ctrl && !press.shift && press.key.toLowerCase() === 'z',
    run: undoLast,
  },
  {
    keys: 'Ctrl Shift Z, Ctrl Y',
    does: 'redo',
    matches: (press) =>
      press.ctrl &&
      (press.key.toLowerCase() === 'y' || (press.shift && press.key.toLowerCase() === 'z')),
    run: redoNext,
  },
  {
    keys: '0',
    does: 'all layers again',
    matches: isKey('0'),
    run: (session) => session.set((state) => ({ ...state, only: undefined })),
  },
  {
    keys: 'Ctrl S',
    does: 'open or close the count sheet',
    matches: (press) => isCtrl(press, 's'),
    run: (_, __, deck) => deck.toggleSheet(),
  },
  {
    keys: 'Ctrl K',
    does: 'find anything that can be done',
    matches: (press) => isCtrl(press, 'k'),
    run: (_, __, deck) => deck.findCommand(),
  },
  {
    keys: '?',
    does: 'show these keys',
    matches: isKey('?'),
    run: (_, __, deck) => deck.showHelp(),
  },
]

/** Does what a key stands for. False when it stands for nothing here. */
export function press(session: Session, pressed: Press, deck: Deck): boolean {
  const found = SHORTCUTS.find((shortcut) => shortcut.matches(pressed, session))
  found?.run(session, pressed, deck)
  return found !== undefined
}
