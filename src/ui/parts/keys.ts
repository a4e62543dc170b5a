import { capital } from '../../core/capital'

/** What a key press is, without the browser's own event. */
export interface Press {
  readonly key: string
  readonly ctrl: boolean
  readonly alt: boolean
  readonly shift: boolean
}

/** A line of the help: which keys do what. */
export interface KeyLine {
  readonly keys: string
  readonly does: string
}

/** Keys that do one thing on a screen: the line of its table, which the help is made from. */
export interface ScreenKey {
  /** As `Ctrl Shift z`, `PageDown`, `n`; any of them does it. */
  readonly on: readonly string[]
  readonly does: string
  /** Done somewhere else, where the focus has to be: only told here. */
  readonly run?: () => void
  /** Done again for as long as it is held down. */
  readonly repeats?: true
}

/** Keys by the name their cap has. */
const CAPS: Readonly<Record<string, string>> = {
  ' ': 'Space',
  '.': 'Full stop',
  PageDown: 'Page down',
  PageUp: 'Page up',
  ArrowRight: '→',
  ArrowLeft: '←',
  ArrowUp: '↑',
  ArrowDown: '↓',
}

/** A key as the help and the buttons show it. */
export const capOf = (key: string): string => {
  const parts = key === ' ' ? [key] : key.split(' ')
  return parts.map((part) => CAPS[part] ?? capital(part)).join(' ')
}

export const lineOf = ({ on, does }: Pick<ScreenKey, 'on' | 'does'>): KeyLine => ({
  keys: on.map(capOf).join(', '),
  does,
})

export const pressOf = (event: KeyboardEvent): Press => ({
  key: event.key,
  ctrl: event.ctrlKey || event.metaKey,
  alt: event.altKey,
  shift: event.shiftKey,
})

/** The name of what was pressed; Shift counts where it does not make another sign. */
function nameOf({ key, ctrl, alt, shift }: Press): string {
  const isSign = key.length === 1
  return [
    ctrl && 'Ctrl',
    alt && 'Alt',
    shift && (!isSign || ctrl) && 'Shift',
    isSign ? key.toLowerCase() : key,
  ]
    .filter(Boolean)
    .join(' ')
}

/** The line of a table that a press means. */
export const keyFor = (table: readonly ScreenKey[], press: Press): ScreenKey | undefined =>
  table.find(({ on, run }) => run && on.includes(nameOf(press)))

/** The usual keys for taking back and making again. */
export const undoKeys = (
  undo: (() => void) | undefined,
  redo: (() => void) | undefined,
): readonly ScreenKey[] => [
  { on: ['Ctrl z'], does: 'undo', run: () => undo?.(), repeats: true },
  { on: ['Ctrl Shift z', 'Ctrl y'], does: 'redo', run: () => redo?.(), repeats: true },
]
