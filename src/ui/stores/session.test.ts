import { beforeEach, describe, expect, it } from 'vitest'
import { cursorOf, linesOf, newId, opened, pressAll, TWO_PHRASES } from '../../../tests/openSession'
import * as edits from '../../core/edits/edits'
import { tick } from '../../core/time/time'
import { placeAtSelection, rewrite } from './editing'
import {
  change,
  flip,
  goBehind,
  redoNext,
  type Session,
  select,
  showPreview,
  undoLast,
} from './session'
import { changedEvents, documentOf, drawnState, hereAt, selectedEvents, sideMeant } from './state'

let session: Session
let place: ReturnType<typeof opened>['place']
const open = (lines: string) => {
  ;({ session, place } = opened(lines))
}
const lines = () => linesOf(session)
const keys = (...list: string[]) => pressAll(session, list)
const at = () => cursorOf(session)

beforeEach(() => open(TWO_PHRASES))

describe('an open combination', () => {
  it('is saved with every change, and undone and redone with its words', async () => {
    change(session, 'name it', (c) => ({ ...c, title: 'Lamp' }))
    expect(place.unsaved.get('sheet')?.title).toBe('Lamp')
    await expect.poll(() => session.saver.getState().kind).toBe('saved')
    expect(place.stored()).toMatchObject({ revision: 2, combination: { title: 'Lamp' } })
    expect(place.unsaved.size).toBe(0)
    undoLast(session)
    expect(session.getState().message).toBe('Undo: name it.')
    await expect.poll(() => place.stored().combination.title).toBe('')
    redoNext(session)
    await expect.poll(() => place.stored().combination.title).toBe('Lamp')
    undoLast(session)
    undoLast(session)
    expect(session.getState().message).toBe('Nothing to undo.')
  })

  it('takes on what another window saved, as a step that can be undone', async () => {
    place.elsewhere((c) => ({ ...c, title: 'Theirs' }))
    await expect.poll(() => documentOf(session.getState()).title).toBe('Theirs')
    undoLast(session)
    expect(documentOf(session.getState()).title).toBe('')
  })

  it('goes on in a copy when both changed it at once', async () => {
    place.elsewhere((c) => ({ ...c, title: 'Theirs' }))
    change(session, 'name it', (c) => ({ ...c, title: 'Mine' }))
    await expect.poll(() => place.copies.length).toBe(1)
    expect(documentOf(session.getState())).toMatchObject({ id: 'copy-0', title: 'Mine, copy' })
    expect(session.getState().message).toMatch(/Both are kept/)
    change(session, 'go on', (c) => ({ ...c, tempo: 120 }))
    await expect
      .poll(() => place.stored())
      .toMatchObject({ combination: { id: 'copy-0', tempo: 120 } })
  })

  it('says when it can’t be saved, and keeps it in the journal', async () => {
    place.breakDisk()
    change(session, 'name it', (c) => ({ ...c, title: 'Lamp' }))
    await expect.poll(() => session.saver.getState().kind).toBe('failed')
    expect(place.unsaved.get('sheet')?.title).toBe('Lamp')
    expect(documentOf(session.getState()).title).toBe('Lamp')
  })
})

describe('placing', () => {
  it('means the free foot, and the other side in a line of the other side', () => {
    keys('3')
    expect(sideMeant(session.getState())).toBe('L')
    flip(session)
    expect(sideMeant(session.getState())).toBe('R')
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
    const here = hereAt(session.getState())
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
    const [event] = selectedEvents(session.getState())
    rewrite(session, event!, { cue: 'drop right', size: 60 })
    expect(lines()[1]).toBe('hips 2 hip-drop L size 60% cue "drop left"')
    rewrite(session, selectedEvents(session.getState())[0]!, { cue: undefined, size: undefined })
    expect(lines()[1]).toBe('hips 2 hip-drop L')
  })
})

describe('what is only looked at', () => {
  const slip = 'phrase A 8\n feet 1 step R side; 2 step R side; 3 close L'
  const without = (id: string) => edits.removeEvents([id])

  it('is drawn and not kept: taking anything ends it, and undo knows nothing of it', () => {
    open(slip)
    const before = documentOf(session.getState())
    const [, second] = before.phrases[0]?.events ?? []
    const preview = without(second?.id ?? '')(before)
    showPreview(session, preview)
    expect(documentOf(drawnState(session.getState()))).toBe(preview)
    expect(documentOf(session.getState())).toBe(before)
    expect(session.getState().history.past).toEqual([])
    expect(changedEvents(before, preview)).toEqual(new Set())
    expect(changedEvents(preview, before)).toEqual(new Set([second?.id]))
    change(session, 'take it', () => preview)
    expect(session.getState().preview).toBeUndefined()
    expect(drawnState(session.getState())).toBe(session.getState())
    undoLast(session)
    expect(documentOf(session.getState())).toBe(before)
  })

  it('keeps the cursor inside what is drawn', () => {
    open('phrase A 4\n feet 1 step R side\nphrase B 4\n feet 1 step L side')
    keys('ArrowDown')
    const { order } = documentOf(session.getState())
    select(session, { ...session.getState().selection, pass: 1 })
    showPreview(session, { ...documentOf(session.getState()), order: order.slice(0, 1) })
    expect(drawnState(session.getState()).selection.pass).toBe(0)
    showPreview(session, undefined)
    expect(session.getState().selection.pass).toBe(1)
  })
})
