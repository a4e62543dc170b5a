import { describe, expect, it } from 'vitest'
import { keyFor, lineOf, undoKeys } from '../parts/keys'
import { type Asked, capFor, classKeys } from './classKeys'

const press = (key: string, held: Partial<{ ctrl: true; shift: true; alt: true }> = {}) => ({
  key,
  ctrl: false,
  shift: false,
  alt: false,
  ...held,
})

describe('the keys of a class', () => {
  const asked: Asked[] = []
  const table = classKeys((one) => asked.push(one))

  it('mean one thing each, and all that is asked has a key that its zone and the help show', () => {
    const all = table.flatMap(({ on }) => on)
    expect(new Set(all).size).toBe(all.length)
    for (const key of table) {
      for (const one of key.on) expect(keyFor(table, press(one))).toBe(key)
      key.run?.()
      expect(lineOf(key).keys.split(', ')).toContain(capFor(asked.at(-1) as Asked))
    }
    expect(new Set(asked).size).toBe(table.length)
  })

  it('are heard in capitals and with the Shift a sign needs, and left alone with Ctrl or Alt', () => {
    const does = (key: string, held = {}) => keyFor(table, press(key, held))?.does
    expect(does('S', { shift: true })).toBe('other side')
    expect(does('+', { shift: true })).toBe('faster')
    expect(does('s', { ctrl: true })).toBeUndefined()
    expect(does('PageDown', { alt: true })).toBeUndefined()
    const undo = undoKeys(undefined, undefined)
    expect(keyFor(undo, press('Z', { ctrl: true, shift: true }))?.does).toBe('redo')
    expect(keyFor(undo, press('z', { ctrl: true }))?.does).toBe('undo')
    expect(undo.map((key) => lineOf(key).keys)).toEqual(['Ctrl Z', 'Ctrl Shift Z, Ctrl Y'])
  })
})
