import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../tests/arbitraries'
import { demo } from '../../tests/demo'
import { holds } from '../../tests/holds'
import { LAYERS } from '../core/body/layers'
import { otherSide, type Side } from '../core/body/side'
import type { Combination } from '../core/combination/combination'
import { aloneFrom } from '../core/combination/dancing'
import { USUAL_HOUSE } from '../core/house/house'
import { vocabulary } from '../core/moves/vocabulary'
import type { Seam } from '../core/performance/seam'
import { type Dancers, dancersOf } from '../core/pose/dancers'
import { JOINTS, jointOf } from '../core/pose/joints'
import { danced } from '../core/simulate/danced'
import { type Beside, createFrames, type FrameChoice, standingOf, trailJoints } from './frames'

const plain: FrameChoice & Beside = { both: false, trails: false, ghost: 'none' }

/** The frames of a dance with what is chosen. */
function framesOf(dancers: Dancers, joints: ReturnType<typeof trailJoints> = []) {
  const frames = createFrames(joints)
  const stands = standingOf(dancers)
  return (side: Side, tick: number, choice: FrameChoice & Beside, seam?: Seam) =>
    frames.at(stands({ dancing: aloneFrom(side), tick, seam }, choice), choice)
}

const dancersIn = (combination: Combination): Dancers =>
  dancersOf(danced(combination, vocabulary, USUAL_HOUSE).from)

describe('a frame of the stage', () => {
  it('shows one side, or both far enough apart that they never meet', () => {
    holds(
      fc.property(
        anyCombination({ kept: false }),
        fc.constantFrom<Side>('R', 'L'),
        fc.array(fc.double({ min: 0, max: 120, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (combination, side, ticks) => {
          const dancers = dancersIn(combination)
          const frames = framesOf(dancers)
          for (const tick of ticks) {
            const [one, ...none] = frames(side, tick, plain)
            expect(none).toEqual([])
            expect(one?.aside).toBe(0)
            expect(one?.pose.joints).toEqual(dancers(aloneFrom(side)).poseAt(tick).joints)
            const [a, b] = frames(side, tick, { ...plain, both: true })
            if (!a || !b) throw new Error('both sides, but not two figures')
            expect(b.pose.joints).toEqual(dancers(aloneFrom(otherSide[side])).poseAt(tick).joints)
            const apart = (a.pose.over[0] ?? 0) + a.aside - (b.pose.over[0] ?? 0) - b.aside
            expect(Math.abs(apart)).toBeGreaterThan(0.7)
            // Whoever is asked for first, each side keeps its own place.
            const swapped = frames(otherSide[side], tick, { ...plain, both: true })
            expect(swapped.map(({ aside }) => aside)).toEqual([b.aside, a.aside])
          }
        },
      ),
      { numRuns: 80, seed: 561 },
    )
  })

  it('holds as many dancers as stand in it, each with a pose of its own', () => {
    const dancers = demo.flatMap((combination) =>
      (['R', 'L'] as const).map((side) => dancersIn(combination)(aloneFrom(side))),
    )
    const standing = dancers.map((dancer, i) => ({ dancer, tick: 7 * i + 0.5, aside: i - 3 }))
    const frames = createFrames([])
    frames.at(standing.slice(0, 2), plain)
    const shown = frames.at(standing, plain)
    expect(shown.map(({ aside }) => aside)).toEqual(standing.map(({ aside }) => aside))
    for (const [i, { dancer, tick }] of standing.entries())
      expect(shown[i]?.pose.joints).toEqual(dancer.poseAt(tick).joints)
  })

  it('leads over into the next round: there at its end, not begun before its last ticks', () => {
    for (const combination of demo) {
      const dancers = dancersIn(combination)
      const frames = framesOf(dancers)
      const side = combination.lead
      const { length } = dancers(aloneFrom(side)).simulation
      const next = otherSide[side]
      const seam = (left: number, share: number) => ({
        dancing: aloneFrom(next),
        tick: -left,
        share,
      })
      const [gone] = frames(side, length, plain, seam(0, 1))
      const first = dancers(aloneFrom(next)).poseAt(0)
      for (const joint of JOINTS)
        for (const [i, value] of jointOf(first, joint).entries())
          expect(gone && jointOf(gone.pose, joint)[i]).toBeCloseTo(value, 9)
      const [begun] = frames(side, length - 9, plain, seam(9, 0))
      expect(begun?.pose.joints).toEqual(dancers(aloneFrom(side)).poseAt(length - 9).joints)
    }
  })

  it('has trails that end where the joint is now, and the pose of the next count', () => {
    const [combination] = demo
    if (!combination) throw new Error('no demo')
    const dancers = dancersIn(combination)
    for (const only of [undefined, ...LAYERS]) {
      const joints = trailJoints(only)
      const frames = framesOf(dancers, joints)
      const [shown] = frames('R', 40.5, { ...plain, trails: true, ghost: 'next' })
      expect(shown?.trails).toHaveLength(joints.length)
      for (const [k, { joint, layer }] of joints.entries()) {
        expect(shown?.trails[k]?.layer).toBe(layer)
        const end = [...(shown?.trails[k]?.points ?? [])].slice(-3)
        for (const [i, value] of jointOf(dancers(aloneFrom('R')).poseAt(40.5), joint).entries())
          expect(end[i]).toBeCloseTo(value, 9)
      }
      expect(shown?.ghost?.joints).toEqual(dancers(aloneFrom('R')).poseAt(48).joints)
    }
  })
})
