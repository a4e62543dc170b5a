import { describe, expect, it } from 'vitest'
import { labelOfSpan, labelOfTick, tick, tickOfLabel } from './time'

describe('time', () => {
  it('reads back every label it writes', () => {
    for (let t = 0; t < 16 * 12; t++) expect(tickOfLabel(labelOfTick(tick(t)))).toBe(t)
  })

  it.each([
    [0, '1'],
    [6, '1&'],
    [27, '3e'],
    [33, '3a'],
    [16, '2+4'],
    [-12, '0'],
  ])('calls tick %i “%s”', (t, label) => expect(labelOfTick(tick(t))).toBe(label))

  it.each(['', '&', '0', '1b', '1+12', '3 4'])('does not take “%s” for a place', (label) =>
    expect(tickOfLabel(label)).toBeUndefined(),
  )

  it.each([
    [0, 12, '1'],
    [0, 48, '1-4'],
    [54, 42, '5&-8'],
    [48, 30, '5-7e'],
    [48, 33, '5>7a'],
    [0, 4, '1>1+4'],
    [16, 4, '2+4'],
    [20, 4, '2+8'],
    [16, 8, '2+4-2&'],
    [6, 6, '1&'],
    [0, 6, '1-1e'],
  ])('calls the range from %i for %i “%s”', (at, length, label) =>
    expect(labelOfSpan({ at: tick(at), length: tick(length) })).toBe(label),
  )
})
