import { describe, expect, it } from 'vitest'
import { countsAt, evenMs, songWith } from '../../../tests/songs'
import { backOn, restSaid } from './backOn'
import type { Piece, RestHow } from './routine'

const song = songWith(countsAt(evenMs(96, 100), { silent: [{ from: 64, to: 72 }] }), {
  sections: [
    { id: 'v', at: 0, label: 'Verse', kind: 'verse', energy: 3 },
    { id: 'b', at: 32, label: 'Break', kind: 'break', energy: 2 },
    { id: 'c', at: 48, label: 'Chorus', kind: 'chorus', energy: 5 },
    { id: 'w', at: 72, label: 'Slow', kind: 'slow', energy: 2 },
    { id: 'e', at: 80, label: 'End', kind: 'end', energy: 4 },
  ],
})

const rest = (at: number, counts: number, how: RestHow = 'free', words = ''): Piece => ({
  id: 'p',
  at,
  counts,
  what: { kind: 'rest', how, words },
})

describe('a free part says what to come back on', () => {
  it.each([
    ['counts behind the drum', rest(32, 20), '4 counts after the drum is back'],
    ['one behind it', rest(32, 17), '1 count after the drum is back'],
    ['on the drum', rest(40, 8), 'when the drum is back'],
    ['on what is heard as nobody counts', rest(60, 12, 'pose'), 'when the count is back'],
    ['where the tempo is back', rest(74, 8), '2 counts after the tempo is back'],
    ['a section that begins', rest(28, 6), '2 counts after the break begins'],
    ['counts alone, with nothing new in it', rest(8, 8), 'after 8 counts'],
    ['the last of what is heard', rest(30, 19), '1 count after the drum is back'],
  ])('%s', (_, piece, said) => {
    expect(backOn(piece, song)).toBe(said)
    expect(restSaid(piece, song)).toContain(`, back ${said}`)
  })

  it.each([
    ['a pose with the count going on', rest(8, 8, 'pose')],
    ['the end of the song', rest(88, 8)],
    ['a pose within the silence', rest(64, 4, 'pose')],
    [
      'what is danced',
      { ...rest(0, 8), what: { kind: 'dance', combination: 'c', from: 0, side: 'R' } },
    ],
  ] as const)('and nothing for %s', (_, piece) => {
    expect(backOn(piece, song)).toBeUndefined()
  })
})
