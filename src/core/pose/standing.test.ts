import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { mirror } from '../combination/mirror'
import { LAYERS, type Layer } from '../moves/move'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { simulate } from '../simulate/simulate'
import { type StandingBody, standingAt } from './standing'

const all: ReadonlySet<Layer> = new Set(LAYERS)
const dance = (lines: string) =>
  simulate(readSheet(`sway 1\nphrase A 8\n${lines}`, vocabulary).combination, vocabulary)
const at = (lines: string, count: number, layers = all) =>
  standingAt(dance(lines), (count - 1) * 12, layers)

const flipped = (body: StandingBody) => {
  const shift = ({ right, up, tilt }: StandingBody['hips']) => ({
    right: 0 - right,
    up,
    tilt: 0 - tilt,
  })
  const palm = ({ right, up }: { right: number; up: number }) => ({ right: 0 - right, up })
  return {
    weight: 0 - body.weight,
    hips: shift(body.hips),
    ribs: shift(body.ribs),
    palms: { R: palm(body.palms.L), L: palm(body.palms.R) },
    head: { turn: 0 - body.head.turn, nod: body.head.nod, tilt: 0 - body.head.tilt },
    lifted: { R: body.lifted.L, L: body.lifted.R },
  }
}
const plain = ({ palms, ...body }: StandingBody) => ({
  ...body,
  palms: {
    R: { right: palms.R.right, up: palms.R.up },
    L: { right: palms.L.right, up: palms.L.up },
  },
})
const rounded = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value, (_, v) => (typeof v === 'number' ? Math.round(v * 1e9) / 1e9 + 0 : v)),
  )

describe('the standing body', () => {
  it('of the mirrored combination is the mirrored body, at every tick', () => {
    fc.assert(
      fc.property(
        anyCombination({ kept: false }),
        fc.double({ min: -24, max: 300, noNaN: true }),
        (combination, tick) => {
          const here = standingAt(simulate(combination, vocabulary), tick, all)
          const there = standingAt(simulate(mirror(combination), vocabulary), tick, all)
          expect(rounded(plain(there))).toEqual(rounded(flipped(here)))
        },
      ),
      { numRuns: 300, seed: 91 },
    )
  })

  it('goes over the foot that carries by the time it lands, and lifts the one that moves', () => {
    const steps = 'feet 1 step R side; 3 step L side; 5 kick R; 7 centre'
    expect(at(steps, 1.5).weight).toBe(1)
    expect(at(steps, 3).weight).toBe(-1)
    expect(at(steps, 2.7).lifted.L).toBeGreaterThan(0.02)
    expect(at(steps, 2.2).lifted).toEqual({ R: 0, L: 0 })
    expect(at(steps, 5.5).lifted.R).toBeGreaterThan(0.1)
    expect(at(steps, 7.5).weight).toBe(0)
  })

  it('moves each layer where it is sent, and only that one', () => {
    expect(at('hips 1 at R', 2.5).hips.right).toBeCloseTo(0.09, 6)
    expect(at('torso 1 at L', 2.5).ribs.right).toBeCloseTo(-0.06, 6)
    expect(at('arms 1-2 both high-v', 3.5).palms.R.up).toBeCloseTo(0.58, 6)
    expect(at('arms 1-2 both high-v', 1).palms.R.up).toBeCloseTo(-0.44, 6)
    expect(at('head 1 look L', 2.5).head.turn).toBe(-60)
    const only = at('hips 1 at R\n arms 1 both crown', 3, new Set<Layer>(['feet', 'hips']))
    expect(only.hips.right).toBeCloseTo(0.09, 6)
    expect(only.palms.R.up).toBeCloseTo(-0.44, 6)
  })

  it.each([
    ['a lift raises its side', 'hips 1 hip-lift R', 1, (b: StandingBody) => b.hips.tilt > 8],
    ['a drop lowers it', 'hips 1 hip-drop R', 1, (b: StandingBody) => b.hips.tilt < -8],
    [
      'on the left it is the other way',
      'hips 1 hip-lift L',
      1,
      (b: StandingBody) => b.hips.tilt < -8,
    ],
    ['a bump goes to its side', 'hips 1 hip-bump L', 1, (b: StandingBody) => b.hips.right < -0.06],
    [
      'an accent is over before the next count',
      'hips 1 hip-bump R',
      1.9,
      (b: StandingBody) => Math.abs(b.hips.right) < 0.01,
    ],
    [
      'it strikes again on each count of its range',
      'hips 1-4 hip-bump R',
      3,
      (b: StandingBody) => b.hips.right > 0.06,
    ],
    [
      'a texture trembles while it runs',
      'hips 1-4 knee-shimmy',
      2.125,
      (b: StandingBody) => Math.abs(b.hips.tilt) > 2,
    ],
    [
      'and rests when it is over',
      'hips 1-4 knee-shimmy',
      5.125,
      (b: StandingBody) => b.hips.tilt === 0,
    ],
    [
      'a chest lift is not the hips',
      'torso 1 chest-lift',
      1,
      (b: StandingBody) => b.ribs.up > 0.03 && b.hips.up === 0,
    ],
  ])('%s', (_, lines, count, holds) => expect(holds(at(lines, count))).toBe(true))

  it('is the same however its tick is reached, and never leaps', () => {
    const simulation = dance(
      'feet 1-8 grapevine R\n hips 1-4 hip-circle-large cw; 5-8 hip-sway R\n arms 1-4 both high-v via side; 5-8 both low via front\n head 4 look L; 5 look front',
    )
    let before = standingAt(simulation, 0, all)
    for (let tick = 0.05; tick < 96; tick += 0.05) {
      const now = standingAt(simulation, tick, all)
      // 8 mm in 1 ms at 120 counts a minute would be 0.33 m a tick; nothing here comes near.
      for (const [a, b] of [
        [before.hips.right, now.hips.right],
        [before.palms.R.up, now.palms.R.up],
        [before.lifted.L, now.lifted.L],
      ] as const)
        expect(Math.abs(a - b)).toBeLessThan(0.02)
      before = now
    }
    expect(standingAt(simulation, 40, all)).toEqual(standingAt(simulation, 40, all))
  })
})
