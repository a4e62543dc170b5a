import type { ClassKey } from '../../core/class/keys'
import { capOf, type ScreenKey } from '../parts/keys'

/** What a key or a zone asks: of the class, or of the screen. */
export type Asked = ClassKey | 'full' | 'part' | 'follow'

/** A presenter has page keys, a full stop to darken, and some an arrow each way. */
const KEYS: Readonly<Record<Asked, Omit<ScreenKey, 'run'>>> = {
  go: { on: [' ', 'Enter', '.', 'b'], does: 'begin, pause, go on' },
  next: { on: ['PageDown', 'ArrowRight', 'n'], does: 'go on; after a drill it was clean' },
  again: { on: ['PageUp', 'ArrowLeft', 'a'], does: 'again; after a drill it was not yet' },
  faster: { on: ['ArrowUp', '+'], does: 'faster' },
  slower: { on: ['ArrowDown', '-'], does: 'slower' },
  'other-side': { on: ['s'], does: 'other side' },
  clean: { on: ['c'], does: 'it was clean' },
  'not-yet': { on: ['x'], does: 'not yet' },
  skip: { on: ['End'], does: 'next drill' },
  back: { on: ['Home'], does: 'the drill before' },
  water: { on: ['w'], does: 'water now' },
  'to-runs': { on: ['r'], does: 'on to the runs' },
  part: { on: ['p'], does: 'from the next part of the song' },
  full: { on: ['f'], does: 'full screen' },
  follow: { on: ['l'], does: 'let people follow' },
}

/** The key a zone shows, the one a presenter has too. */
export const capFor = (asked: Asked): string => capOf(KEYS[asked].on[0] ?? '')

/** The table of keys of a class under way. */
export const classKeys = (press: (asked: Asked) => void): readonly ScreenKey[] =>
  (Object.keys(KEYS) as Asked[]).map((asked) => ({ ...KEYS[asked], run: () => press(asked) }))
