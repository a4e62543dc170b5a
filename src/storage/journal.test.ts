import { beforeEach, describe, expect, it } from 'vitest'
import { notesOf, slots } from '../../tests/slots'
import { combination, feet } from '../../tests/write'
import { summaryOf } from '../core/findings/summary'
import { vocabulary } from '../core/moves/vocabulary'
import { createCombinations } from './combinations'
import { Database } from './database'
import { createJournal } from './journal'

let shelves = 0
let shelf: ReturnType<typeof createCombinations>
beforeEach(() => {
  shelf = createCombinations(new Database(`journal-${shelves++}`), {
    now: () => 1,
    newId: () => 'copy',
    summarise: (c) => summaryOf(c, vocabulary),
  })
})

const lantern = combination([feet('1 step R side')], { id: 'lantern', title: 'Lantern' })
const later = { ...lantern, title: 'Later' }

describe('the journal', () => {
  it('gives what a window that is gone left behind to the next one, once', async () => {
    const storage = slots()
    await shelf.add(lantern)
    createJournal(notesOf(storage, { window: 'one' })).write(later, 1)
    const next = createJournal(notesOf(storage, { window: 'two', areGone: true }))
    expect(await next.recover(shelf)).toBe(1)
    expect((await shelf.get('lantern'))?.combination).toEqual(later)
    expect(await next.recover(shelf)).toBe(0)
    expect(storage.length).toBe(0)
  })

  it('leaves alone what a living window is still saving, and its own', async () => {
    const storage = slots()
    await shelf.add(lantern)
    createJournal(notesOf(storage, { window: 'one' })).write(later, 1)
    expect(await createJournal(notesOf(storage, { window: 'two' })).recover(shelf)).toBe(0)
    expect(
      await createJournal(notesOf(storage, { window: 'one', areGone: true })).recover(shelf),
    ).toBe(0)
    expect((await shelf.get('lantern'))?.combination).toEqual(lantern)
    expect(storage.length).toBe(1)
  })

  it('keeps both when the shelf has moved on since', async () => {
    const storage = slots()
    await shelf.add(lantern)
    createJournal(notesOf(storage, { window: 'one' })).write(later, 1)
    await shelf.save({ ...lantern, title: 'Meanwhile' }, 1)
    await createJournal(notesOf(storage, { window: 'two', areGone: true })).recover(shelf)
    const titles = (await shelf.list()).stored.map((s) => s.summary.title)
    expect(titles.sort()).toEqual(['Later', 'Meanwhile'])
  })

  it('is cleared by its own window, survives a full store, and passes over garbage', async () => {
    const storage = slots()
    const own = createJournal(notesOf(storage, { window: 'one', areGone: true }))
    own.write(later, 1)
    own.clear('lantern')
    expect(storage.length).toBe(0)
    createJournal(notesOf(slots(true), { window: 'one', areGone: true })).write(later, 1)
    storage.setItem('molten-sway unsaved zero x', '{"revision":1,"record":{')
    storage.setItem('molten-sway unsaved zero y', '{"revision":1,"record":{"title":"Bent"}}')
    storage.setItem('something else', 'stays')
    await own.recover(shelf)
    expect(storage.length).toBe(1)
    expect((await shelf.list()).stored).toEqual([])
  })
})
