import { describe, expect, it } from 'vitest'
import { combination, feet, move, on } from '../../../tests/write'
import { LAYERS } from '../body/layers'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { tick } from '../time/time'
import { fillPhrase } from './fill'
import { gapsOf } from './gaps'
import { numbersFrom } from './numbers'
import { newFindings, placed, suggestMoves } from './suggest'

const base = combination(
  [
    [
      ...feet(
        '1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R forward; 6 step L back; 7 step R side; 8 touch L together',
      ),
      on('hips', '1', { kind: 'at', place: 'L' }),
    ],
  ],
  { families: ['belly'] },
)
const checked = checkCombination(base, vocabulary)
const bad = (after: typeof base) =>
  newFindings(checked, checkCombination(after, vocabulary)).filter((one) =>
    ['fault', 'snag'].includes(severityOf(one)),
  )

describe('ideas for empty counts', () => {
  it.each(LAYERS.slice(1))(
    'on the %s bring no fault, say why, and have doubts only with a snag or a caution',
    (layer) => {
      const gap = { pass: 0, layer, at: tick(24), length: tick(48) }
      const ideas = suggestMoves(base, gap, vocabulary, USUAL_HOUSE)
      expect(ideas.length).toBeGreaterThan(3)
      expect(new Set(ideas.map(({ offer }) => offer.id)).size).toBe(ideas.length)
      for (const { offer, doubts, reasons, length } of ideas) {
        const { changed, length: given } = placed(base, gap, offer, 'new')
        expect(given).toBe(length)
        expect(bad(changed).filter((one) => severityOf(one) === 'fault')).toEqual([])
        expect(bad(changed).length > 0).toBe(doubts.length > 0 && bad(changed).length > 0)
        expect(reasons.length).toBeGreaterThan(0)
      }
      // What has no doubts comes before what has.
      const doubtful = ideas.map(({ doubts }) => doubts.length)
      expect(doubtful).toEqual([...doubtful].sort((a, b) => a - b))
    },
  )

  it('put first what starts where the hips are', () => {
    const ideas = suggestMoves(
      base,
      { pass: 0, layer: 'hips', at: tick(12), length: tick(24) },
      vocabulary,
      USUAL_HOUSE,
    )
    const half = ideas.find(({ offer }) => offer.name === 'half circle front R')
    expect(half?.doubts ?? []).toEqual([])
  })

  it('on the feet use the foot that is free', () => {
    const open = combination([feet('1 step R side; 2 close L')])
    const ideas = suggestMoves(
      open,
      { pass: 0, layer: 'feet', at: tick(24), length: tick(24) },
      vocabulary,
      USUAL_HOUSE,
    )
    expect(ideas[0]?.reasons[0]).toBe('right foot is free')
    expect(ideas.filter(({ doubts }) => doubts.length === 0).length).toBeGreaterThan(2)
  })
})

describe('ways to fill a phrase', () => {
  it.each(['hips', 'torso', 'arms', 'head', 'feet'] as const)(
    'on the %s: clean, full, different, and the same for the same number',
    (layer) => {
      const start = layer === 'feet' ? combination([[]]) : base
      const wish = { pass: 0, layer, seed: 7 }
      const ways = fillPhrase(start, wish, vocabulary, USUAL_HOUSE)
      expect(ways.length).toBeGreaterThan(1)
      expect(ways.length).toBeLessThanOrEqual(5)
      const before = checkCombination(start, vocabulary)
      for (const { combination: filled } of ways) {
        expect(gapsOf(filled, 0, layer, vocabulary)).toEqual([])
        const fresh = newFindings(before, checkCombination(filled, vocabulary))
        expect(fresh.filter((one) => ['fault', 'snag'].includes(severityOf(one)))).toEqual([])
      }
      expect(new Set(ways.map(({ names }) => names.join())).size).toBe(ways.length)
      expect(fillPhrase(start, wish, vocabulary, USUAL_HOUSE)).toEqual(ways)
      expect(fillPhrase(start, { ...wish, seed: 8 }, vocabulary, USUAL_HOUSE)).not.toEqual(ways)
    },
  )

  it('leave what stands there as it is', () => {
    const taken = combination([
      [move('hip-circle-small', '3-4'), ...feet('1 step R side; 2 touch L together')],
    ])
    for (const { combination: filled } of fillPhrase(
      taken,
      { pass: 0, layer: 'hips', seed: 1 },
      vocabulary,
      USUAL_HOUSE,
    ))
      expect(filled.phrases[0]?.events).toEqual(
        expect.arrayContaining([...taken.phrases[0]!.events]),
      )
  })

  it('draw from a stream that is even and always the same', () => {
    const next = numbersFrom(42)
    const drawn = Array.from({ length: 4000 }, next)
    const again = numbersFrom(42)
    expect(drawn.every((value) => value === again() && value >= 0 && value < 1)).toBe(true)
    expect(drawn.reduce((a, b) => a + b, 0) / drawn.length).toBeCloseTo(0.5, 1)
  })
})
