import { goToNextFinding } from '../findings/goTo'
import { PANELS } from '../stores/panel'
import { flip, redoNext, showBoth, undoLast } from '../stores/session'
import { isCtrl, isKey, type Shortcut } from './shortcut'

/** What is shown, played, undone and asked for. */
export const SCREEN: readonly Shortcut[] = [
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
    run: (session) => session.setState({ only: undefined }),
  },
  {
    keys: 'Ctrl S',
    does: 'open or close the count sheet',
    matches: (press) => isCtrl(press, 's'),
    run: (_, __, deck) => deck.toggleSheet(),
  },
  {
    keys: 'Alt 1 to 6',
    does: 'body, floor, level, moves, sheet or song beside the braid',
    needsKey: true,
    matches: ({ alt, ctrl, key }) => alt && !ctrl && PANELS[Number(key) - 1] !== undefined,
    run: (_, { key }, deck) => {
      const panel = PANELS[Number(key) - 1]
      if (panel) deck.showPanel(panel)
    },
  },
  {
    keys: 'Alt V',
    does: 'show the film of the song beside the braid, or put it away',
    matches: ({ alt, ctrl, key }) => alt && !ctrl && key.toLowerCase() === 'v',
    run: (_, __, deck) => deck.toggleFilm(),
  },
  {
    keys: 'Ctrl ;',
    does: 'go to the next finding',
    matches: (press) => isCtrl(press, ';'),
    run: (session, _, deck) => {
      deck.showPanel('body')
      goToNextFinding(session)
    },
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
