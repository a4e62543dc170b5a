import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { linedUpByClaps } from './claps'
import { newTake, type Take } from './take'

const RATE = 22_050
const GAP_MS = 600

/** Sixteen counts, the first of them two seconds after the film began. */
const take: Take = {
  ...newTake({
    id: 't',
    at: '2026-11-29T10:00:00.000Z',
    title: 'Claps',
    of: { kind: 'combination', id: 'c' },
    camera: 'Front camera',
    nudge: 20,
    type: 'video/webm',
  }),
  danced: Array.from({ length: 16 }, (_, i) => ({
    side: 'R',
    tick: 12 * (i - 4),
    ms: 2000 + GAP_MS * i,
  })),
}

/** A room: its noise, a low stroke on every count as of a drum, and claps at these milliseconds. */
function room(claps: readonly number[], seed: number, noise = 0.005): Float32Array {
  const samples = new Float32Array(13 * RATE)
  let state = seed + 1
  const random = () => {
    state = (state * 16_807) % 2_147_483_647
    return (2 * state) / 2_147_483_647 - 1
  }
  for (let i = 0; i < samples.length; i++) samples[i] = noise * random()
  for (const { ms } of take.danced)
    for (let i = 0; i < 0.15 * RATE; i++) {
      const at = Math.round((ms * RATE) / 1000) + i
      samples[at] =
        (samples[at] ?? 0) + 0.3 * Math.exp(-i / (0.05 * RATE)) * Math.sin((i * 440) / RATE)
    }
  for (const ms of claps)
    for (let i = 0; i < 0.06 * RATE; i++) {
      const at = Math.round((ms * RATE) / 1000) + i
      samples[at] = (samples[at] ?? 0) + 0.6 * Math.exp(-i / (0.01 * RATE)) * random()
    }
  return samples
}

describe('two claps in the sound of a take', () => {
  it('put its pictures right by as much as they are heard beside their counts', () => {
    holds(
      fc.property(
        fc.uniqueArray(fc.nat(15), { minLength: 2, maxLength: 2 }),
        fc.integer({ min: -250, max: 280 }),
        fc.tuple(fc.integer({ min: -15, max: 15 }), fc.integer({ min: -15, max: 15 })),
        fc.nat(1000),
        (counts, late, human, seed) => {
          const claps = counts.map((count, i) => 2000 + GAP_MS * count + late + (human[i] ?? 0))
          const lined = linedUpByClaps(take, room(claps, seed), RATE)
          expect(Math.abs((lined?.nudge ?? Number.NaN) - late)).toBeLessThanOrEqual(22)
          expect({ ...lined, nudge: take.nudge }).toEqual(take)
        },
      ),
      { numRuns: 100 },
    )
  })

  it('are not made up where there is one, none, or two that do not agree', () => {
    for (const claps of [[], [2900], [2000 + 3 * GAP_MS - 150, 2000 + 7 * GAP_MS + 150]])
      expect(linedUpByClaps(take, room(claps, 5), RATE), claps.join()).toBeUndefined()
    expect(linedUpByClaps(take, new Float32Array(RATE), RATE)).toBeUndefined()
    expect(linedUpByClaps({ ...take, danced: [] }, room([2600, 3200], 5), RATE)).toBeUndefined()
  })
})
