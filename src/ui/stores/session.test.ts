import { beforeEach, describe, expect, it } from 'vitest'
import type { Combination } from '../../core/combination/combination'
import * as edits from '../../core/edits/edits'
import { checkCombination } from '../../core/findings/check'
import { spotText } from '../../core/findings/findingText'
import { vocabulary } from '../../core/moves/vocabulary'
import { canonical } from '../../core/sheet/canonical'
import { readSheet } from '../../core/sheet/readSheet'
import { writeSheet } from '../../core/sheet/writeSheet'
import { tick } from '../../core/time/time'
import type { Combinations, Stored } from '../../storage/combinations'
import type { Deck } from '../studio/shortcuts/shortcut'
import { press, SHORTCUTS } from '../studio/shortcuts/shortcuts'
import { checkedOf } from './checked'
import { copySelected, pasteHere } from './clipboard'
import { placeAtSelection, rewrite } from './editing'
import {
  change,
  changedEvents,
  documentOf,
  drawnState,
  flip,
  goBehind,
  hereAt,
  openSession,
  redoNext,
  type Session,
  select,
  selectedEvents,
  showPreview,
  sideMeant,
  undoLast,
} from './session'

/** A shelf of one combination, with another window that can save over it. */
function shelf(first: Combination) {
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

const read = (lines: string): Combination => readSheet(`sway 1\n${lines}`, vocabulary).combination
let ids = 0
const newId = () => `n${ids++}`
let shownPanel: string | undefined
const deck: Deck = {
  newId,
  findCommand: () => {},
  toggleSheet: () => {},
  showPanel: (panel) => {
    shownPanel = panel
  },
  makeMove: () => {},
  playOrStop: () => {},
  showHelp: () => {},
  goToCard: () => {},
}

let session: Session
let place: ReturnType<typeof shelf>
const open = (lines: string) => {
  place = shelf(read(lines))
  session = openSession(place.stored(), place.services)
}
const lines = () =>
  writeSheet(documentOf(session.get()), vocabulary)
    .split('\n')
    .filter((line) => line.startsWith('  '))
    .map((line) => line.trim().replace(/\s+/g, ' '))
/** Keys as they are said in the help: `Ctrl Shift v`. */
const keys = (...list: string[]) => {
  for (const said of list) {
    const words = said.split(' ')
    const key = words.at(-1) ?? ''
    const has = (word: string) => words.slice(0, -1).includes(word)
    const pressed = { key, ctrl: has('Ctrl'), alt: has('Alt'), shift: has('Shift') }
    expect(press(session, pressed, deck), said).toBe(true)
  }
}
const at = () => {
  const { pass, layer, at: start, length } = session.get().selection
  return `${pass} ${layer} ${start}+${length}`
}

beforeEach(() =>
  open(
    'phrase A 8\n feet 1 step side; 2 touch\n hips 2 hip-drop L\n arms 1 R high-v, L hips\nphrase B 4\n feet 1 step',
  ),
)

describe('an open combination', () => {
  it('is saved with every change, and undone and redone with its words', async () => {
    change(session, 'name it', (c) => ({ ...c, title: 'Lamp' }))
    expect(place.unsaved.get('sheet')?.title).toBe('Lamp')
    await expect.poll(() => session.saver.get().kind).toBe('saved')
    expect(place.stored()).toMatchObject({ revision: 2, combination: { title: 'Lamp' } })
    expect(place.unsaved.size).toBe(0)
    undoLast(session)
    expect(session.get().message).toBe('Undo: name it.')
    await expect.poll(() => place.stored().combination.title).toBe('')
    redoNext(session)
    await expect.poll(() => place.stored().combination.title).toBe('Lamp')
    undoLast(session)
    undoLast(session)
    expect(session.get().message).toBe('Nothing to undo.')
  })

  it('takes on what another window saved, as a step that can be undone', async () => {
    place.elsewhere((c) => ({ ...c, title: 'Theirs' }))
    await expect.poll(() => documentOf(session.get()).title).toBe('Theirs')
    undoLast(session)
    expect(documentOf(session.get()).title).toBe('')
  })

  it('goes on in a copy when both changed it at once', async () => {
    place.elsewhere((c) => ({ ...c, title: 'Theirs' }))
    change(session, 'name it', (c) => ({ ...c, title: 'Mine' }))
    await expect.poll(() => place.copies.length).toBe(1)
    expect(documentOf(session.get())).toMatchObject({ id: 'copy-0', title: 'Mine, copy' })
    expect(session.get().message).toMatch(/Both are kept/)
    change(session, 'go on', (c) => ({ ...c, tempo: 120 }))
    await expect
      .poll(() => place.stored())
      .toMatchObject({ combination: { id: 'copy-0', tempo: 120 } })
  })

  it('says when it can’t be saved, and keeps it in the journal', async () => {
    place.breakDisk()
    change(session, 'name it', (c) => ({ ...c, title: 'Lamp' }))
    await expect.poll(() => session.saver.get().kind).toBe('failed')
    expect(place.unsaved.get('sheet')?.title).toBe('Lamp')
    expect(documentOf(session.get()).title).toBe('Lamp')
  })
})

describe('placing', () => {
  it('means the free foot, and the other side in a line of the other side', () => {
    keys('3')
    expect(sideMeant(session.get())).toBe('L')
    flip(session)
    expect(sideMeant(session.get())).toBe('R')
    placeAtSelection(
      session,
      { kind: 'foot', action: { primitive: 'step', foot: 'R', direction: 'side' } },
      tick(12),
      newId,
    )
    expect(lines()[0]).toBe('feet 1 step R side; 2 touch L in-place; 3 step L side')
  })

  it('makes room where something starts, and is undone in one step', () => {
    keys('ArrowUp', '2')
    placeAtSelection(session, { kind: 'move', move: 'hip-bump', side: 'R' }, tick(12), newId)
    expect(lines()[1]).toBe('hips 2 hip-bump R')
    keys('Ctrl z')
    expect(lines()[1]).toBe('hips 2 hip-drop L')
  })

  it('knows what is there: weight, places, room and what was placed lately', () => {
    keys('ArrowUp', '3')
    placeAtSelection(session, { kind: 'at', place: 'R' }, tick(12), newId)
    goBehind(session)
    const here = hereAt(session.get())
    expect(here).toMatchObject({ room: 60, tempo: 96, places: { hips: 'R' } })
    expect(here.state.weight).toBe('R')
    expect(here.recent).toHaveLength(1)
    keys('8')
    goBehind(session)
    expect(at()).toBe('1 hips 0+12')
  })

  it('writes words from the other side as the lead side says them', () => {
    flip(session)
    keys('ArrowUp', '2')
    const [event] = selectedEvents(session.get())
    rewrite(session, event!, { cue: 'drop right', size: 60 })
    expect(lines()[1]).toBe('hips 2 hip-drop L size 60% cue "drop left"')
    rewrite(session, selectedEvents(session.get())[0]!, { cue: undefined, size: undefined })
    expect(lines()[1]).toBe('hips 2 hip-drop L')
  })
})

describe('the keys', () => {
  it.each([
    [['ArrowRight', 'ArrowRight'], '0 feet 24+12'],
    [['8', 'ArrowRight'], '1 feet 0+12'],
    [['8', 'ArrowRight', 'ArrowLeft'], '0 feet 84+12'],
    [['Ctrl ArrowRight'], '0 feet 6+6'],
    [['Ctrl Shift ArrowRight'], '0 feet 3+3'],
    [['Ctrl .', 'Ctrl .'], '0 feet 8+4'],
    [['Ctrl .', 'Ctrl ,'], '0 feet 0+12'],
    [['3', '&'], '0 feet 30+6'],
    [['ArrowUp'], '0 hips 0+12'],
    [['ArrowUp', 'ArrowUp', 'ArrowUp', 'ArrowUp'], '0 head 0+12'],
    [['ArrowDown'], '1 head 0+12'],
    [['Shift ArrowRight', 'Shift ArrowRight', 'Shift ArrowLeft'], '0 feet 0+24'],
    [['7', 'Shift ArrowRight', 'Shift ArrowRight', 'Shift ArrowRight'], '0 feet 72+48'],
    [['Ctrl a'], '0 head 0+144'],
    [['ArrowDown', 'Ctrl Shift a'], '1 head 0+48'],
  ])('%j lead to %s', (list, where) => {
    keys(...list)
    expect(at()).toBe(where)
  })

  it.each([
    [['2', '>'], 'feet 1 step R side; 2 touch R in-place'],
    [['2', 'Alt ArrowRight'], 'feet 1 step R side; 2& touch L in-place'.replace('touch', 'touch')],
    [['2', 'Delete'], 'feet 1 step R side'],
    [['1', '!'], 'feet 1 step R side !keep; 2 touch L in-place'],
    [['1', 'Ctrl Enter'], 'feet 2 step R side; 3 touch L in-place'],
    [['1', 'Ctrl Backspace'], 'feet 1 touch L in-place'],
    [
      ['1', 'Shift ArrowRight', 'Ctrl e'],
      'feet 1 step R side; 2 touch L in-place; 3 step R side; 4 touch L in-place; 5 step R side;',
    ],
  ])('%j change the feet to “%s”', (list, feet) => {
    keys(...list)
    expect(lines()[0]?.replace('2&-3e', '2&')).toBe(feet)
  })

  it('paste what was copied elsewhere, one layer of it, or its other side', () => {
    keys('Ctrl Shift a', 'Ctrl c')
    open('phrase A 8\n feet 1 hold')
    keys('Ctrl v')
    expect(lines()).toEqual([
      'feet 1 step R side; 2 touch L in-place',
      'hips 2 hip-drop L',
      'arms 1 R high-v, L hips',
    ])
    keys('5', 'Ctrl Shift v')
    expect(lines()[2]).toBe('arms 1 R high-v, L hips; 5 R hips, L high-v')
    keys('Ctrl z', 'ArrowUp', 'Ctrl Alt v')
    expect(lines()[1]).toBe('hips 2 hip-drop L; 6 hip-drop L')
    expect(session.get().message).toBe('1 move pasted.')
  })

  it('say what can’t be done instead of doing nothing', () => {
    keys('7')
    copySelected(session)
    expect(session.get().message).toBe('Nothing is selected to copy.')
    keys('1', 'Ctrl c')
    select(session, { ...session.get().selection, pass: 1, at: tick(0) })
    pasteHere(session, newId, { only: 'head' })
    expect(session.get().message).toBe('Nothing of the head was copied.')
    const halve = SHORTCUTS.find(({ does }) => does.includes('double time'))
    keys('Ctrl Shift ArrowRight')
    placeAtSelection(session, { kind: 'foot', action: { primitive: 'hold' } }, tick(3), newId)
    halve?.run(session, { key: '', ctrl: false, alt: false, shift: false }, deck)
    expect(session.get().message).toMatch(/would fall between the smallest parts/)
  })

  it('open a figure, and every one of them is undone to the same combination', () => {
    open('phrase A 8\n feet 1-8 grapevine R\n hips 1-8 hip-bump R')
    const before = canonical(documentOf(session.get()))
    const steps = [
      ['Ctrl o'],
      ['Ctrl d'],
      ['!'],
      ['Alt ArrowRight'],
      ['Alt Shift ArrowLeft'],
      ['Ctrl Alt ArrowRight'],
      ['Ctrl Alt Shift ArrowLeft'],
      ['Ctrl x'],
      ['Ctrl Enter'],
    ]
    for (const list of steps) {
      keys('1', ...list)
      while (session.get().history.past.length > 0) undoLast(session)
      expect(canonical(documentOf(session.get())), list.join()).toEqual(before)
    }
    keys('1', 'Ctrl o')
    expect(
      documentOf(session.get()).phrases[0]?.events.filter(({ layer }) => layer === 'feet'),
    ).toHaveLength(8)
    expect(
      checkCombination(documentOf(session.get()), vocabulary).findings.map(({ code }) => code),
    ).toEqual(['join.foot'])
  })

  it('let every letter look for a move, also over one that is there: no letter turns a foot', () => {
    for (const letter of 'abcdefghijklmnopqrstuvwxyz') {
      keys('1', letter)
      expect(session.get().query, letter).toBe(letter)
      expect(lines()[0], letter).toBe('feet 1 step R side; 2 touch L in-place')
      session.set((state) => ({ ...state, query: undefined }))
    }
    keys('2', '>')
    expect(lines()[0]).toBe('feet 1 step R side; 2 touch R in-place')
    keys('<')
    expect(lines()[0]).toBe('feet 1 step R side; 2 touch L in-place')
  })

  it('have one meaning each', () => {
    const plain = { ctrl: false, alt: false, shift: false }
    const presses = [
      ...[
        'a',
        'z',
        'Enter',
        'ArrowLeft',
        'ArrowUp',
        'Delete',
        '&',
        '!',
        '/',
        '\\',
        ' ',
        '0',
        '5',
        '?',
        '=',
        '<',
        '>',
      ].map((key) => ({ ...plain, key })),
      ...[
        'a',
        'c',
        'x',
        'v',
        'd',
        'e',
        'o',
        'm',
        's',
        'k',
        'z',
        'y',
        'Enter',
        'Backspace',
        ',',
        'ArrowLeft',
      ].map((key) => ({ ...plain, ctrl: true, key })),
      ...['a', 'v', 'z', 'ArrowRight'].map((key) => ({ ...plain, ctrl: true, shift: true, key })),
    ]
    keys('1')
    for (const pressed of presses) {
      const meant = SHORTCUTS.filter(({ matches }) => matches(pressed, session))
      expect(
        meant.map(({ keys: said }) => said),
        JSON.stringify(pressed),
      ).toHaveLength(1)
    }
    const said = SHORTCUTS.map(({ does }) => does)
    expect(new Set(said).size).toBe(said.length)
  })
})

describe('what is only looked at', () => {
  const slip = 'phrase A 8\n feet 1 step R side; 2 step R side; 3 close L'
  const without = (id: string) => edits.removeEvents([id])

  it('is drawn and not kept: taking anything ends it, and undo knows nothing of it', () => {
    open(slip)
    const before = documentOf(session.get())
    const [, second] = before.phrases[0]?.events ?? []
    const preview = without(second?.id ?? '')(before)
    showPreview(session, preview)
    expect(documentOf(drawnState(session.get()))).toBe(preview)
    expect(documentOf(session.get())).toBe(before)
    expect(session.get().history.past).toEqual([])
    expect(changedEvents(before, preview)).toEqual(new Set())
    expect(changedEvents(preview, before)).toEqual(new Set([second?.id]))
    change(session, 'take it', () => preview)
    expect(session.get().preview).toBeUndefined()
    expect(drawnState(session.get())).toBe(session.get())
    undoLast(session)
    expect(documentOf(session.get())).toBe(before)
  })

  it('keeps the cursor inside what is drawn', () => {
    open('phrase A 4\n feet 1 step R side\nphrase B 4\n feet 1 step L side')
    keys('ArrowDown')
    const { order } = documentOf(session.get())
    select(session, { ...session.get().selection, pass: 1 })
    showPreview(session, { ...documentOf(session.get()), order: order.slice(0, 1) })
    expect(drawnState(session.get()).selection.pass).toBe(0)
    showPreview(session, undefined)
    expect(session.get().selection.pass).toBe(1)
  })
})

describe('the way through the findings', () => {
  it('goes to each in turn, on its own side, and round again', () => {
    open('phrase A 8\n feet 1 step R side; 2 step R side; 3 step R side; 4 close L')
    const { findings } = checkedOf(documentOf(session.get()))
    const places: string[] = []
    for (let i = 0; i <= findings.length; i++) {
      keys('Ctrl ;')
      places.push(session.get().message)
    }
    expect(places.slice(0, 2)).toEqual(['At A2.', 'At A3.'])
    expect(places.at(-1)).toBe(places[0])
    expect(new Set(places).size).toBe(new Set(findings.map(({ spot }) => spotText(spot))).size)
    expect(shownPanel).toBe('body')
  })

  it('leads to the other side where the finding is only there', () => {
    open('phrase A 8\n feet 1 step R side; 2 step L side !keep')
    const only = checkedOf(documentOf(session.get())).findings.findIndex(
      ({ side }) => side === 'other',
    )
    expect(only).toBeGreaterThanOrEqual(0)
    for (let i = 0; i <= only; i++) keys('Ctrl ;')
    expect(session.get().selection.side).toBe('L')
    expect(session.get().shown).toBe('other')
  })

  it('says so where there is nothing to go to, and Alt with a digit shows a panel', () => {
    open('phrase A 8')
    keys('Ctrl ;')
    expect(session.get().message).toMatch(/no findings/)
    keys('Alt 3')
    expect(shownPanel).toBe('level')
    expect(press(session, { key: '9', ctrl: false, alt: true, shift: false }, deck)).toBe(false)
    expect(shownPanel).toBe('level')
  })
})
