import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../tests/arbitraries'
import { demo } from '../../tests/demo'
import { holds } from '../../tests/holds'
import { otherSide, type Side } from '../core/body/side'
import type { Combination } from '../core/combination/combination'
import { mirror } from '../core/combination/mirror'
import { vocabulary } from '../core/moves/vocabulary'
import type { Dancers } from '../core/performance/performance'
import { dancerOf } from '../core/pose/dancer'
import { JOINTS, jointOf } from '../core/pose/joints'
import { simulate } from '../core/simulate/simulate'
import { createFrames, type FrameChoice, trailJoints } from './frames'

const plain: FrameChoice = { both: false, trails: false, next: false }

const dancersOf = (combination: Combination): Dancers => {
  const lead = dancerOf(simulate(combination, vocabulary))
  const other = dancerOf(simulate(mirror(combination), vocabulary))
  return combination.lead === 'R' ? { R: lead, L: other } : { R: other, L: lead }
}

describe('a frame of the stage', () => {
  it('shows one side, or both far enough apart that they never meet', () => {
    holds(
      fc.property(
        anyCombination({ kept: false }),
        fc.constantFrom<Side>('R', 'L'),
        fc.array(fc.double({ min: 0, max: 120, noNaN: true }), { minLength: 8, maxLength: 8 }),
        (combination, side, ticks) => {
          const dancers = dancersOf(combination)
          const frames = createFrames(dancers, [])
          for (const tick of ticks) {
            const [one, ...none] = frames.at(side, tick, plain)
            expect(none).toEqual([])
            expect(one?.aside).toBe(0)
            expect(one?.pose.joints).toEqual(dancers[side].poseAt(tick).joints)
            const [a, b] = frames.at(side, tick, { ...plain, both: true })
            if (!a || !b) throw new Error('both sides, but not two figures')
            expect(b.pose.joints).toEqual(dancers[otherSide[side]].poseAt(tick).joints)
            const apart = (a.pose.over[0] ?? 0) + a.aside - (b.pose.over[0] ?? 0) - b.aside
            expect(Math.abs(apart)).toBeGreaterThan(0.7)
            // Whoever is asked for first, each side keeps its own place.
            const swapped = frames.at(otherSide[side], tick, { ...plain, both: true })
            expect(swapped.map(({ aside }) => aside)).toEqual([b.aside, a.aside])
          }
        },
      ),
      { numRuns: 80, seed: 561 },
    )
  })

  it('leads over into the next round: there at its end, not begun before its last ticks', () => {
    for (const combination of demo) {
      const dancers = dancersOf(combination)
      const frames = createFrames(dancers, [])
      const side = combination.lead
      const { length } = dancers[side].simulation
      const next = otherSide[side]
      const seam = (left: number, share: number) => ({ side: next, tick: -left, share })
      const [gone] = frames.at(side, length, plain, seam(0, 1))
      const first = dancers[next].poseAt(0)
      for (const joint of JOINTS)
        for (const [i, value] of jointOf(first, joint).entries())
          expect(gone && jointOf(gone.pose, joint)[i]).toBeCloseTo(value, 9)
      const [begun] = frames.at(side, length - 9, plain, seam(9, 0))
      expect(begun?.pose.joints).toEqual(dancers[side].poseAt(length - 9).joints)
    }
  })

  it('has trails that end where the joint is now, and the pose of the next count', () => {
    const [combination] = demo
    if (!combination) throw new Error('no demo')
    const dancers = dancersOf(combination)
    for (const only of [undefined, 'hips', 'arms', 'torso', 'head']) {
      const joints = trailJoints(only)
      const frames = createFrames(dancers, joints)
      const [shown] = frames.at('R', 40.5, { ...plain, trails: true, next: true })
      expect(shown?.trails).toHaveLength(joints.length)
      for (const [k, joint] of joints.entries()) {
        const end = [...(shown?.trails[k] ?? [])].slice(-3)
        for (const [i, value] of jointOf(dancers.R.poseAt(40.5), joint).entries())
          expect(end[i]).toBeCloseTo(value, 9)
      }
      expect(shown?.ghost?.joints).toEqual(dancers.R.poseAt(48).joints)
    }
  })
})
