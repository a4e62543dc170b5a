import { expect } from 'vitest'
import type { Combination } from '../src/core/combination/combination'
import { vocabulary } from '../src/core/moves/vocabulary'
import { readSheet } from '../src/core/sheet/readSheet'
import { writeSheet } from '../src/core/sheet/writeSheet'
import type { Combinations, Stored } from '../src/storage/combinations'
import type { KeyScope } from '../src/ui/shortcuts/shortcut'
import { press } from '../src/ui/shortcuts/shortcuts'
import { openSession, type Session } from '../src/ui/stores/session'
import { documentOf } from '../src/ui/stores/state'

/** A shelf of one combination, with another window that can save over it. */
export function shelf(first: Combination) {
  let stored: Stored = { combination: first, revision: 1, changedAt: 0 }
  const copies: Combination[] = []
  let watcher: () => void = () => {}
  let fails = false
  const combinations: Pick<Combinations, 'get' | 'save' | 'watch'> = {
    get: async (id) => (id === stored.combination.id ? stored : undefined),
    save: async (combination, revision) => {
      if (fails) throw new Error('the disk is full')
      if (combination.id !== stored.combination.id || revision !== stored.revision) {
        const copy = {
          ...combination,
          id: `copy-${copies.length}`,
          title: `${combination.title}, copy`,
        }
        copies.push(copy)
        stored = { combination: copy, revision: 1, changedAt: 0 }
        return { kind: 'elsewhere', copy }
      }
      stored = { combination, revision: revision + 1, changedAt: 0 }
      return { kind: 'saved', revision: revision + 1 }
    },
    watch: (changed) => {
      watcher = changed
      return () => {}
    },
  }
  const unsaved = new Map<string, Combination>()
  const journal = {
    write: (combination: Combination) => void unsaved.set(combination.id, combination),
    clear: (id: string) => void unsaved.delete(id),
    recover: async () => 0,
  }
  const services = { combinations: combinations as Combinations, journal, onSaved: () => {} }
  return {
    services,
    stored: () => stored,
    unsaved,
    copies,
    breakDisk: () => {
      fails = true
    },
    elsewhere(change: (c: Combination) => Combination) {
      stored = {
        combination: change(stored.combination),
        revision: stored.revision + 1,
        changedAt: 0,
      }
      watcher()
    },
  }
}

/** A combination of some lines of a sheet. */
const read = (lines: string): Combination => readSheet(`sway 1\n${lines}`, vocabulary).combination

/** A combination that is open, with another window that can save over it. */
export function opened(lines: string): {
  readonly session: Session
  readonly place: ReturnType<typeof shelf>
} {
  const place = shelf(read(lines))
  return { session: openSession(place.stored(), place.services), place }
}

/** Moves on three layers, and a second phrase. */
export const TWO_PHRASES =
  'phrase A 8\n feet 1 step side; 2 touch\n hips 2 hip-drop L\n arms 1 R high-v, L hips\nphrase B 4\n feet 1 step'

/** What is selected: `0 feet 24+12`. */
export function cursorOf(session: Session): string {
  const { pass, layer, at, length } = session.getState().selection
  return `${pass} ${layer} ${at}+${length}`
}

/** The lines of its phrases, as they are printed. */
export const linesOf = (session: Session): readonly string[] =>
  writeSheet(documentOf(session.getState()), vocabulary)
    .split('\n')
    .filter((line) => line.startsWith('  '))
    .map((line) => line.trim().replace(/\s+/g, ' '))

let ids = 0
export const newId = () => `n${ids++}`

/** What a screen does for the keys; it notes the panel it was asked for. */
export const deck: KeyScope & { panel: string | undefined } = {
  panel: undefined,
  newId,
  findCommand: () => {},
  toggleSheet: () => {},
  toggleFilm: () => {},
  showPanel(panel) {
    deck.panel = panel
  },
  makeMove: () => {},
  playOrStop: () => {},
  showHelp: () => {},
  goToCard: () => {},
}

/** Presses keys as they are said in the help: `Ctrl Shift v`. */
export function pressAll(session: Session, list: readonly string[]): void {
  for (const said of list) {
    const words = said.split(' ')
    const key = words.at(-1) ?? ''
    const has = (word: string) => words.slice(0, -1).includes(word)
    const pressed = { key, ctrl: has('Ctrl'), alt: has('Alt'), shift: has('Shift') }
    expect(press(session, pressed, deck), said).toBe(true)
  }
}
