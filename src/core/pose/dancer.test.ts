import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import type { HandShape } from '../body/hands'
import { LAYERS, type Layer } from '../body/layers'
import { palmAt } from '../body/places'
import { SIDES, type Side, signOf } from '../body/side'
import { phraseWith } from '../combination/optionWith'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { intoRoom } from '../simulate/landing'
import { simulate, stateAt } from '../simulate/simulate'
import { type Dancer, dancerOf } from './dancer'
import { JOINTS, jointOf, type Pose, TOLD_SHAPES } from './joints'
import { BODY } from './proportions'

const dance = (lines: string, layers: ReadonlySet<Layer> = new Set(LAYERS)): Dancer =>
  dancerOf(
    simulate(readSheet(`sway 2\nphrase A 8\n${lines}`, vocabulary).combination, vocabulary),
    { layers },
  )
/** A count of the phrase as a tick. */
const on = (count: number) => (count - 1) * 12

/** The floor point under the ankle of a foot that lies flat, from its ball. */
function footPoint(pose: Pose, side: Side): { right: number; forward: number } {
  const [x, , z] = jointOf(pose, `ball${side}`)
  const back = intoRoom(pose.facing + signOf(side) * 9, 0, -BODY.ball)
  return { right: x + back.right, forward: z + back.forward }
}
const height = (pose: Pose, side: Side) =>
  Math.min(jointOf(pose, `ball${side}`)[1], jointOf(pose, `heel${side}`)[1])

describe('the feet of the figure', () => {
  it('are where the simulation puts them on every tick something lands', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const simulation = simulate(combination, vocabulary)
        const { poseAt } = dancerOf(simulation)
        for (const { at, action } of simulation.danced) {
          if (action.primitive === 'hold') continue
          const state = stateAt(simulation, at)
          const pose = poseAt(at)
          expect(pose.facing).toBeCloseTo(state.facing, 6)
          // A pressed foot has half of the weight for as long as it is pressed.
          const isShared =
            state.weight === 'both' || (state.pressed ?? state.weight) !== state.weight
          const share = isShared ? 0.5 : state.weight === 'R' ? 1 : 0
          expect(pose.weight[0]).toBeCloseTo(share, 9)
          for (const side of SIDES) {
            const { place, contact } = state.feet[side]
            expect(pose.contacts[side]).toBe(contact)
            // Up on the ball or the heel the foot turns about another point.
            if (contact !== 'flat' && contact !== 'ball') continue
            const { right, forward } = footPoint(pose, side)
            const off = Math.hypot(right - place.right, forward - place.forward)
            // On the toes the ball rolls a little forward over its own thickness.
            // What no leg reaches after a fault hangs from it; all else stands.
            if (height(pose, side) < 0.02) expect(off, `${side} at ${at}`).toBeLessThan(0.008)
          }
        }
      }),
      { numRuns: 150, seed: 521 },
    )
  })

  it('leave the floor to step, land on the count, and are still in between', () => {
    const { poseAt } = dance('feet 1 step R side; 4 step L side; 7 touch R together')
    expect(height(poseAt(on(1)), 'R')).toBeCloseTo(0.01, 6)
    expect(height(poseAt(on(3.6)), 'L')).toBeGreaterThan(0.03)
    expect(height(poseAt(on(4)), 'L')).toBeCloseTo(0.01, 6)
    for (const count of [1.2, 2, 2.9])
      for (const side of SIDES)
        expect(footPoint(poseAt(on(count)), side)).toEqual(footPoint(poseAt(on(2)), side))
  })

  it('kick high and come back, hop and jump off the floor, rise on the toes', () => {
    const kick = dance('feet 1 step R side; 3 kick L forward; 8 close L')
    const leg = (count: number) => jointOf(kick.poseAt(on(count)), 'ankleL')
    expect(leg(3)[1]).toBeGreaterThan(0.3)
    expect(leg(3)[2]).toBeGreaterThan(0.45)
    expect(leg(4)[1]).toBeLessThan(0.25)
    const hop = dance('feet 1 step R side; 3 hop R; 5 jump out')
    expect(height(hop.poseAt(on(2.7)), 'R')).toBeGreaterThan(0.03)
    expect(height(hop.poseAt(on(3)), 'R')).toBeCloseTo(0.01, 6)
    for (const side of SIDES) expect(height(hop.poseAt(on(4.65)), side)).toBeGreaterThan(0.05)
    const rise = dance('feet 1 centre; 3 rise; 5 lower; 6 bend')
    const heel = (count: number) => jointOf(rise.poseAt(on(count)), 'heelR')[1]
    expect([heel(2), heel(3), heel(5)].map((up) => up > 0.05)).toEqual([false, true, false])
    const pelvis = (count: number) => jointOf(rise.poseAt(on(count)), 'pelvis')[1]
    expect(pelvis(3)).toBeGreaterThan(pelvis(2) + 0.03)
    expect(pelvis(6)).toBeLessThan(pelvis(5) - 0.08)
  })

  it('turn with the step or the pivot that turns, the whole way round', () => {
    const { poseAt } = dance('feet 1 step R forward; 4 pivot 360; 6 step L side turn -90')
    const facing = (count: number) => poseAt(on(count)).facing
    expect(facing(2)).toBe(0)
    // A whole turn takes two counts, half a turn one.
    expect(facing(3)).toBeCloseTo(180, 6)
    expect(facing(4)).toBe(360)
    expect(facing(5)).toBe(360)
    expect(facing(5.5)).toBeLessThan(360)
    expect(facing(6)).toBe(270)
    // The free foot goes round with the body, it is not wound up under it.
    const [x, , z] = jointOf(poseAt(on(3)), 'ballL')
    const [sx, , sz] = jointOf(poseAt(on(3)), 'ballR')
    expect(Math.hypot(x - sx, z - sz)).toBeLessThan(0.5)
    expect(height(poseAt(on(3)), 'L')).toBeGreaterThan(0.02)
  })
})

describe('the layers of the figure', () => {
  it('that are not shown stay as they start, whatever is written on them', () => {
    holds(
      fc.property(
        anyCombination(),
        fc.constantFrom(...LAYERS),
        fc.double({ min: 0, max: 120, noNaN: true }),
        (any, hidden, tick) => {
          // A turned leg goes home where its foot leaves the floor, also where nobody sees the feet.
          const combination =
            hidden === 'feet'
              ? {
                  ...any,
                  phrases: any.phrases.map((phrase) =>
                    phraseWith(phrase, (list) => list.filter(({ layer }) => layer !== 'legs')),
                  ),
                }
              : any
          const without = {
            ...combination,
            phrases: combination.phrases.map((phrase) =>
              phraseWith(phrase, (list) => list.filter(({ layer }) => layer !== hidden)),
            ),
          }
          // A hidden layer still takes the body along for the others: only its own places count.
          const shown = new Set(LAYERS.filter((layer) => layer !== hidden))
          const hiding = dancerOf(simulate(combination, vocabulary), { layers: shown }).poseAt(tick)
          const lacking = dancerOf(simulate(without, vocabulary), { layers: shown }).poseAt(tick)
          const joints =
            hidden === 'feet'
              ? (['heelR', 'heelL', 'ballR', 'ballL'] as const)
              : hidden === 'head'
                ? (['head'] as const)
                : ([] as const)
          if (hidden === 'feet' || hidden === 'head')
            for (const joint of joints)
              for (const [i, value] of jointOf(hiding, joint).entries())
                expect(value).toBeCloseTo(jointOf(lacking, joint)[i] ?? 0, 9)
          if (hidden === 'head') expect([...hiding.head]).toEqual([...lacking.head])
          if (hidden === 'hips') expect([...hiding.pelvis]).toEqual([...lacking.pelvis])
          if (hidden === 'torso') expect([...hiding.chest]).toEqual([...lacking.chest])
        },
      ),
      { numRuns: 200, seed: 522 },
    )
  })

  it('move only their own parts: hips under still ribs, ribs over still hips', () => {
    const still = dance('')
    const hips = dance('hips 1-2 at R\n feet 1 centre')
    const ribs = dance('torso 1-2 at L\n feet 1 centre')
    const far = (a: Pose, b: Pose, joint: 'pelvis' | 'chest' | 'head') => {
      const [p, q] = [jointOf(a, joint), jointOf(b, joint)]
      return p[0] - (a.over[0] ?? 0) - (q[0] - (b.over[0] ?? 0))
    }
    const rest = still.poseAt(on(4))
    expect(far(hips.poseAt(on(4)), rest, 'pelvis')).toBeCloseTo(0.09, 3)
    expect(far(hips.poseAt(on(4)), rest, 'chest')).toBeCloseTo(0, 3)
    expect(far(ribs.poseAt(on(4)), rest, 'chest')).toBeCloseTo(-0.06, 3)
    expect(far(ribs.poseAt(on(4)), rest, 'pelvis')).toBeCloseTo(0, 3)
    // The head stays near the middle when the ribs go aside.
    expect(Math.abs(far(ribs.poseAt(on(4)), rest, 'head'))).toBeLessThan(0.04)
  })

  it('bring the palms where the house says its places are', () => {
    for (const place of ['second', 'high-v', 'front', 'level', 'diagonal-up'] as const) {
      const pose = dance(`arms 1 both ${place} on`).poseAt(on(2))
      for (const side of SIDES) {
        const there = palmAt(side, place)
        const [x, y, z] = jointOf(pose, `palm${side}`)
        const [cx, cy, cz] = jointOf(pose, 'chest')
        const off = Math.hypot(x - cx - there.right, y - cy - there.up, z - cz - there.forward)
        // Hands that would lie in each other make way.
        expect(off, `${side} ${place}`).toBeLessThan(place === 'level' ? 0.036 : 0.02)
      }
    }
  })

  it('look where the head is sent, and lean the whole body when it is written', () => {
    const forward = (lines: string, count: number) => dance(lines).poseAt(on(count)).head
    expect(forward('head 1 look R on', 2)[6]).toBeCloseTo(Math.sin(Math.PI / 3), 6)
    expect(forward('head 1 look down on', 2)[7]).toBeLessThan(-0.4)
    const lean = dance('torso 2 hinge-back').poseAt(on(2))
    expect(jointOf(lean, 'head')[2]).toBeLessThan(jointOf(lean, 'pelvis')[2] - 0.1)
  })
})

it('a taller dancer has the same dance in longer steps', () => {
  holds(
    fc.property(
      anyCombination(),
      fc.double({ min: 0.6, max: 1.3, noNaN: true }),
      fc.double({ min: 0, max: 120, noNaN: true }),
      (combination, scale, tick) => {
        const simulation = simulate(combination, vocabulary)
        const [usual, tall] = [
          dancerOf(simulation).poseAt(tick),
          dancerOf(simulation, { scale }).poseAt(tick),
        ]
        for (const joint of JOINTS)
          for (const [i, value] of jointOf(usual, joint).entries())
            expect(jointOf(tall, joint)[i]).toBeCloseTo(value * scale, 9)
        expect([...tall.chest]).toEqual([...usual.chest])
      },
    ),
    { numRuns: 60, seed: 523 },
  )
})

describe('hands that are told', () => {
  const told = (pose: Pose, side: Side, shape: HandShape): number =>
    pose.hands[(side === 'R' ? 0 : TOLD_SHAPES.length) + TOLD_SHAPES.indexOf(shape as 'fist')] ?? 0
  const palmOf = ({ palms }: Pose, side: Side) => [...palms].slice(side === 'R' ? 0 : 3).slice(0, 3)

  it('take their shape and keep it until another one, each by itself', () => {
    const { poseAt } = dance('arms 1 both front; 2 R fist; 5 R flat, L point until 6')
    expect([told(poseAt(on(1)), 'R', 'fist'), told(poseAt(on(4)), 'R', 'fist')]).toEqual([0, 1])
    expect(told(poseAt(on(4)), 'L', 'fist')).toBe(0)
    const then = poseAt(on(6.9))
    expect([told(then, 'R', 'fist'), told(then, 'R', 'flat'), told(then, 'L', 'point')]).toEqual([
      0, 1, 1,
    ])
    const back = poseAt(on(8))
    // Each goes back to what it was before.
    expect([told(back, 'L', 'point'), told(back, 'R', 'fist')]).toEqual([0, 1])
  })

  it.each([
    ['up', [0, 1, 0]],
    ['down', [0, -1, 0]],
    ['front', [0, 0, 1]],
    ['in', [-1, 0, 0]],
    ['out', [1, 0, 0]],
  ] as const)('look %s with their palms, from wherever the arm is', (way, [x, y, z]) => {
    for (const place of ['low', 'front', 'second', 'high-v', 'heart']) {
      const pose = dance(`arms 1 both ${place} palm ${way}`).poseAt(on(3))
      for (const side of SIDES) {
        const due = [signOf(side) * x, y, z]
        const [px = 0, py = 0, pz = 0] = palmOf(pose, side)
        const along =
          (px * (due[0] ?? 0) + py * (due[1] ?? 0) + pz * (due[2] ?? 0)) / Math.hypot(px, py, pz)
        expect(along, `${place} ${side}`).toBeGreaterThan(0.95)
        // The fingers lie in the palm: it is no hand else.
        const [a, b] = [jointOf(pose, `wrist${side}`), jointOf(pose, `fingers${side}`)]
        const reach = [b[0] - a[0], b[1] - a[1], b[2] - a[2]]
        const long = Math.hypot(...reach)
        const into = reach.reduce((sum, one, i) => sum + (one * (due[i] ?? 0)) / long, 0)
        expect(Math.abs(into), `${place} ${side}`).toBeLessThan(0.75)
      }
    }
  })

  it('cross with the arm in front that is said to be', () => {
    const ahead = (line: string) => {
      const pose = dance(line).poseAt(on(4))
      return jointOf(pose, 'palmR')[2] - jointOf(pose, 'palmL')[2]
    }
    expect(ahead('arms 1 R cross-chest over, L cross-chest')).toBeGreaterThan(0.02)
    expect(ahead('arms 1 R cross-chest, L cross-chest over')).toBeLessThan(-0.02)
  })
})
