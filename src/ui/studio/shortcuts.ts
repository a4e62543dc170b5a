import { HALF_COUNT, slotAt, TICKS_PER_COUNT, tick, tickOfCount } from '../../core/time/time'
import { LAYERS_DOWN } from '../braid/geometry'
import {
  documentOf,
  flip,
  keepSelected,
  layersShown,
  moveSelected,
  redoNext,
  removeSelected,
  type Selection,
  type Session,
  select,
  selectedEvents,
  showBoth,
  sidesShown,
  stretchSelected,
  turnSelected,
  undoLast,
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
  readonly playOrStop: () => void
  readonly showHelp: () => void
  /** Puts the focus into the card of the selected move. */
  readonly goToCard: () => void
}

export interface Shortcut {
  readonly keys: string
  readonly does: string
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

function phraseTicks(session: Session, pass: number): number {
  const { order, phrases } = documentOf(session.get())
  return (phrases.find(({ id }) => id === order[pass]?.phrase)?.counts ?? 1) * TICKS_PER_COUNT
}

function go(session: Session, to: Partial<Selection>): void {
  const { selection } = session.get()
  const at = to.at ?? selection.at
  select(session, { ...selection, ...to, at, length: to.length ?? slotAt(at), event: undefined })
}

/** One step in time; past an end of the phrase it goes on in the phrase before or after. */
function stepInTime(session: Session, by: number): void {
  const { selection } = session.get()
  const { order } = documentOf(session.get())
  const at =
    (by > 0 ? Math.floor(selection.at / by) : Math.ceil(selection.at / -by)) * Math.abs(by) + by
  if (at < 0) {
    const pass = selection.pass - 1
    if (pass >= 0) go(session, { pass, at: tick(phraseTicks(session, pass) + by) })
  } else if (at >= phraseTicks(session, selection.pass)) {
    if (selection.pass + 1 < order.length) go(session, { pass: selection.pass + 1, at: tick(0) })
  } else go(session, { at: tick(at) })
}

/** One layer up or down, over the lines of both sides. */
function stepLayer(session: Session, by: number): void {
  const state = session.get()
  const { selection } = state
  const shown = LAYERS_DOWN.filter((layer) => layersShown(state).has(layer))
  const sides = sidesShown(state)
  const lines = documentOf(state).order.flatMap((_, pass) => sides.map((side) => ({ pass, side })))
  const line = lines.findIndex(
    ({ pass, side }) => pass === selection.pass && side === selection.side,
  )
  const row = line * shown.length + shown.indexOf(selection.layer) + by
  const to = lines[Math.floor(row / shown.length)]
  const layer = shown[((row % shown.length) + shown.length) % shown.length]
  if (row < 0 || !to || !layer) return
  const at = Math.min(selection.at, phraseTicks(session, to.pass) - HALF_COUNT)
  go(session, { ...to, layer, at: tick(at), length: selection.length })
}

function typed(session: Session, query: string): void {
  session.set((state) => ({ ...state, query }))
}

const hasSelected = (session: Session) => selectedEvents(session.get()).length > 0

/** Every action of the Studio with its key; the help overlay is made from this. */
export const SHORTCUTS: readonly Shortcut[] = [
  {
    keys: 'A to Z',
    does: 'find a move to place here',
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
    keys: 'R, L',
    does: 'put the selected move on that side',
    matches: (press, session) => plain(press) && /^[rl]$/i.test(press.key) && hasSelected(session),
    run: (session, { key }) => turnSelected(session, key.toUpperCase() === 'R' ? 'R' : 'L'),
  },
  {
    keys: '← →',
    does: 'one count back or on',
    matches: (press) => plain(press) && !press.shift && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * TICKS_PER_COUNT),
  },
  {
    keys: 'Ctrl ← →',
    does: 'half a count back or on',
    matches: (press) => press.ctrl && !press.alt && isArrow(press),
    run: (session, press) => stepInTime(session, way(press) * HALF_COUNT),
  },
  {
    keys: '↑ ↓',
    does: 'one layer up or down',
    matches: isKey('ArrowUp', 'ArrowDown'),
    run: (session, press) => stepLayer(session, way(press)),
  },
  {
    keys: 'Shift ← →',
    does: 'select fewer or more counts',
    matches: (press) => plain(press) && press.shift && isArrow(press),
    run: (session, press) => {
      const { selection } = session.get()
      const most = phraseTicks(session, selection.pass) - selection.at
      const length = Math.min(
        most,
        Math.max(HALF_COUNT, selection.length + way(press) * TICKS_PER_COUNT),
      )
      go(session, { length: tick(length) })
    },
  },
  {
    keys: '1 to 9',
    does: 'jump to a count',
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
    matches: (press) => press.alt && !press.ctrl && !press.shift && isArrow(press),
    run: (session, press) => moveSelected(session, way(press) * HALF_COUNT),
  },
  {
    keys: 'Alt Shift ← →',
    does: 'make what is selected shorter or longer',
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
