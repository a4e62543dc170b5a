import { beforeEach, describe, expect, it } from 'vitest'
import {
  cursorOf,
  deck,
  linesOf,
  newId,
  opened,
  pressAll,
  TWO_PHRASES,
} from '../../../tests/openSession'
import { checkCombination } from '../../core/findings/check'
import { spotText } from '../../core/findings/findingText'
import { vocabulary } from '../../core/moves/vocabulary'
import { canonical } from '../../core/sheet/canonical'
import { tick } from '../../core/time/time'
import { checkedOf } from '../stores/checked'
import { copySelected, pasteHere } from '../stores/clipboard'
import { placeAtSelection } from '../stores/editing'
import { type Session, select, undoLast } from '../stores/session'
import { documentOf } from '../stores/state'
import { press, SHORTCUTS } from './shortcuts'

let session: Session
const open = (lines: string) => {
  session = opened(lines).session
}
const lines = () => linesOf(session)
const keys = (...list: string[]) => pressAll(session, list)
const at = () => cursorOf(session)

beforeEach(() => open(TWO_PHRASES))

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
    expect(session.getState().message).toBe('1 move pasted.')
  })

  it('say what can’t be done instead of doing nothing', () => {
    keys('7')
    copySelected(session)
    expect(session.getState().message).toBe('Nothing is selected to copy.')
    keys('1', 'Ctrl c')
    select(session, { ...session.getState().selection, pass: 1, at: tick(0) })
    pasteHere(session, newId, { only: 'head' })
    expect(session.getState().message).toBe('Nothing of the head was copied.')
    const halve = SHORTCUTS.find(({ does }) => does.includes('double time'))
    keys('Ctrl Shift ArrowRight')
    placeAtSelection(session, { kind: 'foot', action: { primitive: 'hold' } }, tick(3), newId)
    halve?.run(session, { key: '', ctrl: false, alt: false, shift: false }, deck)
    expect(session.getState().message).toMatch(/would fall between the smallest parts/)
  })

  it('open a figure, and every one of them is undone to the same combination', () => {
    open('phrase A 8\n feet 1-8 grapevine R\n hips 1-8 hip-bump R')
    const before = canonical(documentOf(session.getState()))
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
      while (session.getState().history.past.length > 0) undoLast(session)
      expect(canonical(documentOf(session.getState())), list.join()).toEqual(before)
    }
    keys('1', 'Ctrl o')
    expect(
      documentOf(session.getState()).phrases[0]?.events.filter(({ layer }) => layer === 'feet'),
    ).toHaveLength(8)
    expect(
      checkCombination(documentOf(session.getState()), vocabulary).findings.map(({ code }) => code),
    ).toEqual(['join.foot'])
  })

  it('let every letter look for a move, also over one that is there: no letter turns a foot', () => {
    for (const letter of 'abcdefghijklmnopqrstuvwxyz') {
      keys('1', letter)
      expect(session.getState().query, letter).toBe(letter)
      expect(lines()[0], letter).toBe('feet 1 step R side; 2 touch L in-place')
      session.setState({ query: undefined })
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

describe('the way through the findings', () => {
  it('goes to each in turn, on its own side, and round again', () => {
    open('phrase A 8\n feet 1 step R side; 2 step R side; 3 step R side; 4 close L')
    const { findings } = checkedOf(documentOf(session.getState()))
    const places: string[] = []
    for (let i = 0; i <= findings.length; i++) {
      keys('Ctrl ;')
      places.push(session.getState().message)
    }
    expect(places.slice(0, 2)).toEqual(['At A2.', 'At A3.'])
    expect(places.at(-1)).toBe(places[0])
    expect(new Set(places).size).toBe(new Set(findings.map(({ spot }) => spotText(spot))).size)
    expect(deck.panel).toBe('body')
  })

  it('leads to the other side where the finding is only there', () => {
    open('phrase A 8\n feet 1 step R side; 2 step L side !keep')
    const only = checkedOf(documentOf(session.getState())).findings.findIndex(
      ({ side }) => side === 'other',
    )
    expect(only).toBeGreaterThanOrEqual(0)
    for (let i = 0; i <= only; i++) keys('Ctrl ;')
    expect(session.getState().selection.dancing.side).toBe('L')
    expect(session.getState().shown).toBe('other')
  })

  it('says so where there is nothing to go to, and Alt with a digit shows a panel', () => {
    open('phrase A 8')
    keys('Ctrl ;')
    expect(session.getState().message).toMatch(/no findings/)
    keys('Alt 3')
    expect(deck.panel).toBe('level')
    expect(press(session, { key: '9', ctrl: false, alt: true, shift: false }, deck)).toBe(false)
    expect(deck.panel).toBe('level')
  })
})
