import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { vocabulary } from '../moves/vocabulary'
import { dancerOf } from '../pose/dancer'
import { JOINTS, newPose } from '../pose/joints'
import { keyPoses } from '../pose/keyPoses'
import { seen, VIEWS } from '../pose/views'
import { readSheet } from '../sheet/readSheet'
import { simulate } from '../simulate/simulate'
import { FLAT, flatOf } from './flat'
import { posesSvg } from './posesSvg'

const dance = (lines: string) =>
  dancerOf(simulate(readSheet(`sway 1\nphrase A 8\n${lines}`, vocabulary).combination, vocabulary))
const counts = Array.from({ length: 8 }, (_, i) => i * 12)

describe('key poses', () => {
  it('are in order, as many as asked for, and leave out what tells least', () => {
    const still = dance('arms 3 both high-v on; 4 both low on')
    // Everything stands but for one count with the arms up: that one stays to the last but its way in.
    for (const most of [2, 3, 5, 8]) {
      const chosen = keyPoses(still, counts, most).map(({ tick }) => tick)
      expect(chosen).toHaveLength(most)
      expect(chosen).toEqual([...chosen].sort((a, b) => a - b))
      expect(chosen).toContain(24)
    }
  })
})

describe('a flat drawing', () => {
  it('of any pose lies inside its picture, from wherever it is seen', () => {
    holds(
      fc.property(anyCombination(), fc.double({ min: 0, max: 120, noNaN: true }), (one, tick) => {
        const pose = dancerOf(simulate(one, vocabulary)).poseAt(tick)
        for (const view of VIEWS)
          for (const { d } of flatOf(pose, view)) {
            expect(d).not.toMatch(/NaN|Infinity/)
            for (const [, x, y] of d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)) {
              expect(Math.abs(Number(x))).toBeLessThan(2 * FLAT.width)
              expect(Number(y)).toBeGreaterThan(FLAT.top - 60)
              expect(Number(y)).toBeLessThan(FLAT.top + FLAT.height + 60)
            }
          }
      }),
      { numRuns: 120, seed: 531 },
    )
  })

  it('has right where the view says it is', () => {
    const pose = dance('arms 1 R high-v on').poseAt(0, newPose())
    const right = (view: (typeof VIEWS)[number]) => Math.sign(seen(pose, 'palmR', view).right)
    expect([right('behind'), right('mirror'), right('facing'), right('above')]).toEqual([
      1, 1, -1, 1,
    ])
    // From its right side the front is to the right.
    expect(seen(pose, 'toeR', 'side').right).toBeGreaterThan(seen(pose, 'heelR', 'side').right)
    expect(JOINTS.every((joint) => Number.isFinite(seen(pose, joint, 'side').near))).toBe(true)
  })

  it('as a file says what it shows, in words that cannot break it', () => {
    const pose = dance('').poseAt(0)
    const svg = posesSvg('<Tide> & "more"', 'From behind.', [{ pose, label: 'A1&' }], 'behind')
    expect(svg).toContain('&#60;Tide&#62; &#38; &#34;more&#34;')
    expect(svg).toContain('>A1&#38;<')
    expect(svg.match(/<svg /g)).toHaveLength(1)
  })
})
