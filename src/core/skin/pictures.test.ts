import { dequal } from 'dequal'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { LAYERS } from '../body/layers'
import { DancerOutfit, USUAL_LOOK } from '../house/dancerLook'
import type { Move } from '../moves/move'
import { vocabulary } from '../moves/vocabulary'
import { dancerOf } from '../pose/dancer'
import { JOINTS, newPose } from '../pose/joints'
import { keyPoses } from '../pose/keyPoses'
import { bestLook, moveLoop } from '../pose/moveLoop'
import { seen, VIEWS, type View } from '../pose/views'
import { readSheet } from '../sheet/readSheet'
import { simulate } from '../simulate/simulate'
import { FLAT, flatOf } from './flat'
import { dressFor } from './outfits'
import { posesSvg } from './posesSvg'

const anyLook = fc.record({
  shape: fc.constantFrom('woman' as const, 'man' as const),
  hair: fc.constantFrom('braid' as const, 'knot' as const, 'short' as const),
  skin: fc.constant('warm' as const),
  outfit: fc.constantFrom(...DancerOutfit.options),
  waist: fc.constantFrom('bare' as const, 'covered' as const),
})

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
      fc.property(
        anyCombination(),
        anyLook,
        fc.double({ min: 0, max: 120, noNaN: true }),
        (one, look, tick) => {
          const worn = dressFor(look, one.families)
          const pose = dancerOf(simulate(one, vocabulary)).poseAt(tick)
          for (const view of VIEWS)
            for (const { d } of flatOf(pose, view, worn)) {
              expect(d).not.toMatch(/NaN|Infinity/)
              for (const [, x, y] of d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)) {
                expect(Math.abs(Number(x))).toBeLessThan(2 * FLAT.width)
                expect(Number(y)).toBeGreaterThan(FLAT.top - 60)
                expect(Number(y)).toBeLessThan(FLAT.top + FLAT.height + 60)
              }
            }
        },
      ),
      { numRuns: 120, seed: 531 },
    )
  })

  it('is of the clothes that are worn: each outfit and shape is a drawing of its own', () => {
    const pose = dance('feet 1 step R side').poseAt(6)
    const drawn = DancerOutfit.options
      .filter((outfit) => outfit !== 'family')
      .flatMap((outfit) =>
        (['woman', 'man'] as const).map((shape) =>
          flatOf(pose, 'behind', dressFor({ ...USUAL_LOOK, outfit, shape }, []))
            .map(({ d }) => d)
            .join(),
        ),
      )
    expect(new Set(drawn).size).toBe(8)
    // A skirt hides the knees that a scarf leaves to be seen.
    const hipsDown = (outfit: 'scarf' | 'long skirt') =>
      Math.max(
        ...flatOf(pose, 'behind', dressFor({ ...USUAL_LOOK, outfit }, []))
          .filter(({ layer }) => layer === 'hips')
          .flatMap(({ d }) =>
            [...d.matchAll(/[ML]-?[\d.]+ (-?[\d.]+)/g)].map(([, y]) => Number(y)),
          ),
      )
    expect(hipsDown('long skirt')).toBeGreaterThan(hipsDown('scarf') + 40)
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
    const svg = posesSvg('<Tide> & "more"', 'From behind.', [{ pose, label: 'A1&' }], 'behind', {
      look: USUAL_LOOK,
      families: [],
    })
    expect(svg).toContain('&#60;Tide&#62; &#38; &#34;more&#34;')
    expect(svg).toContain('>A1&#38;<')
    expect(svg.match(/<svg /g)).toHaveLength(1)
  })
})

/** How a move looks from somewhere: every joint, and how each part is turned, over some time. */
function looksOf(move: Move) {
  const loop = moveLoop(move, 'R', vocabulary)
  const pose = newPose()
  const from = (view: View, raised: number) =>
    Array.from({ length: 56 }, (_, i) => {
      // No whole number of ticks is the beat of a texture.
      loop.dancer.poseAt((1.7 * i) % loop.length, pose)
      const joints = JOINTS.flatMap((joint) => {
        const { right, up, near } = seen(pose, joint, view)
        return [right, up - raised * near]
      })
      // A part is told by what stands out of it by a hand's breadth.
      const turns = [...pose.pelvis, ...pose.chest, ...pose.head, ...pose.palms]
      return [...joints, ...turns.map((way) => 0.08 * way)]
    })
  return { best: bestLook(loop), from }
}

describe('moves of the vocabulary', () => {
  it('that differ are told apart from where one of them is seen best', () => {
    const alike: string[] = []
    for (const layer of LAYERS) {
      const seenMoves = vocabulary.moves
        .filter((move) => move.layer === layer)
        .map((move) => ({ move, ...looksOf(move) }))
      const ways = [...new Set(seenMoves.map(({ best }) => `${best.view} ${best.isRaised}`))]
      const pictures = new Map(
        ways.map((way) => {
          const [view, isRaised] = way.split(' ')
          return [
            way,
            seenMoves.map(({ from }) => from(view as View, isRaised === 'true' ? RAISED : 0)),
          ]
        }),
      )
      for (const [i, a] of seenMoves.entries())
        for (const [k, b] of seenMoves.entries()) {
          // The same steps have another name in another family.
          if (k <= i || beginsLike(a.move, b.move)) continue
          const far = [a, b].map(({ best }) => {
            const here = pictures.get(`${best.view} ${best.isRaised}`) ?? []
            return farthest(here[i] ?? [], here[k] ?? [])
          })
          if (Math.max(...far) < TOLD) alike.push(`${a.move.id}, ${b.move.id}`)
        }
    }
    expect(alike).toEqual([])
  })
})

/** Metres between the same point of two pictures that are told apart: three pixels of a near picture 400 high. */
const TOLD = 0.006
/** What the raised camera sees of a way forward. */
const RAISED = 0.39

/** Whether the steps of the longer one begin with all of the shorter one's. */
function beginsLike({ pattern: one = [] }: Move, { pattern: other = [] }: Move): boolean {
  const both = Math.min(one.length, other.length)
  return both > 0 && dequal(one.slice(0, both), other.slice(0, both))
}

const farthest = (one: readonly (readonly number[])[], other: readonly (readonly number[])[]) =>
  one.reduce(
    (most, row, i) =>
      row.reduce((far, value, j) => Math.max(far, Math.abs(value - (other[i]?.[j] ?? 0))), most),
    0,
  )
