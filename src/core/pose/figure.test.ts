import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { TEMPO_CODES } from '../../../tests/tempoCodes'
import { SIDES } from '../body/side'
import type { Combination, Event, Phrase } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { checkCombination } from '../findings/check'
import { vocabulary } from '../moves/vocabulary'
import { simulate, stateAt } from '../simulate/simulate'
import { type Dancer, dancerOf } from './dancer'
import { JOINTS, type Joint, jointOf, newPose, type Pose } from './joints'
import { BODY } from './proportions'

const dancer = (combination: Combination) => dancerOf(simulate(combination, vocabulary))

const between = (pose: Pose, a: Joint, b: Joint) => {
  const [p, q] = [jointOf(pose, a), jointOf(pose, b)]
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])
}

/** Takes out what has no time at 120 counts a minute, and leaves all other faults in. */
function inTime(combination: Combination): Combination {
  for (let one = combination; ; ) {
    const { findings, left } = checkCombination(one, vocabulary)
    const hasty = [...findings, ...left].filter(({ code }) => TEMPO_CODES.includes(code))
    if (hasty.length === 0) return one
    const out = new Set(hasty.flatMap(({ events }) => events))
    const without = <T extends { readonly events: readonly Event[] }>(list: T): T => ({
      ...list,
      events: list.events.filter(({ id }) => !out.has(id)),
    })
    const phrases = one.phrases.map((phrase) => ({
      ...without(phrase),
      ...(phrase.options && { options: phrase.options.map(without) }),
    }))
    const size = (all: readonly Phrase[]) => JSON.stringify(all).length
    // What is opened into its steps, or found nowhere, can't be taken out by itself.
    if (size(phrases) === size(one.phrases))
      return {
        ...one,
        phrases: one.phrases.map(({ options: _, ...phrase }) => ({ ...phrase, events: [] })),
        order: one.order.map(({ options: _, ...entry }) => entry),
      }
    one = { ...one, phrases }
  }
}

const danceable = anyCombination({ kept: false }).map((one) => inTime({ ...one, tempo: 120 }))

const BONES: readonly (readonly [Joint, Joint, number])[] = SIDES.flatMap(
  (side): (readonly [Joint, Joint, number])[] => [
    [`hip${side}`, `knee${side}`, BODY.thigh],
    [`knee${side}`, `ankle${side}`, BODY.shin],
    [`shoulder${side}`, `elbow${side}`, BODY.upperArm],
    [`elbow${side}`, `wrist${side}`, BODY.forearm],
    [`wrist${side}`, `fingers${side}`, BODY.hand],
    [`ankle${side}`, `ball${side}`, Math.hypot(BODY.ball, BODY.ankle - 0.01)],
    [`pelvis`, `hip${side}`, Math.hypot(BODY.hipAside, BODY.hipBelow)],
  ],
)

const moment = fc.double({ min: -20, max: 130, noNaN: true })
const moments = fc.array(moment, { minLength: 24, maxLength: 24 })
/** A thousandth of a second at 120 counts a minute, in ticks. */
const MILLISECOND = 0.024
const across = (joint: Joint) =>
  (joint.endsWith('R') ? joint.replace(/R$/, 'L') : joint.replace(/L$/, 'R')) as Joint

/** Runs a check over generated dances, each looked at in many moments. */
function always(
  dances: fc.Arbitrary<Combination>,
  seed: number,
  check: (danced: Dancer, tick: number) => void,
): void {
  holds(
    fc.property(dances, moments, (one, ticks) => {
      const danced = dancer(one)
      for (const tick of ticks) check(danced, tick)
    }),
    { numRuns: RUNS, seed },
  )
}
const RUNS = Number(process.env.LIMIT_RUNS ?? 120)

const sub = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
const dot = (a: Point, b: Point) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
type Point = readonly [number, number, number]

/** How far a point is from the line between two others. */
function fromLine(p: Point, a: Point, b: Point): number {
  const [ab, ap] = [sub(b, a), sub(p, a)]
  const t = Math.min(1, Math.max(0, dot(ap, ab) / dot(ab, ab)))
  return Math.hypot(...sub(ap, [ab[0] * t, ab[1] * t, ab[2] * t]))
}

describe('the figure, whatever is danced in time,', () => {
  it('has bones that keep their length', () => {
    always(anyCombination(), 511, ({ poseAt }, tick) => {
      const pose = poseAt(tick)
      for (const [a, b, long] of BONES)
        expect(Math.abs(between(pose, a, b) - long), `${a} to ${b}`).toBeLessThan(0.001)
    })
  })

  it('moves no joint over 8 mm in a millisecond at 120', () => {
    always(danceable, 512, ({ poseAt }, tick) => {
      const [a, b] = [poseAt(tick), poseAt(tick + MILLISECOND)]
      for (const joint of JOINTS)
        expect(Math.hypot(...sub(jointOf(a, joint), jointOf(b, joint))), joint).toBeLessThan(0.008)
    })
  })

  it('stands still on the foot that carries it', () => {
    always(danceable, 513, ({ poseAt, simulation }, tick) => {
      const { weight } = stateAt(simulation, tick)
      if (simulation.danced.some(({ at }) => Math.abs(at - tick) <= 0.5)) return
      const next = simulation.danced.find(({ at }) => at > tick)
      const leaves = next?.fault || ['hop', 'jump', 'leap'].includes(next?.action.primitive ?? '')
      const [a, b] = [poseAt(tick), poseAt(tick + 0.5)]
      if (weight === 'both' || leaves || stateAt(simulation, tick + 0.5).weight !== weight) return
      if (a.facing !== b.facing) return
      const [p, q] = [jointOf(a, `ball${weight}`), jointOf(b, `ball${weight}`)]
      expect(Math.hypot(p[0] - q[0], p[2] - q[2])).toBeLessThan(0.005)
      expect(Math.min(p[1], jointOf(a, `heel${weight}`)[1])).toBeLessThan(0.03)
    })
  })

  it('bends knees and elbows only their way, and never through', () => {
    always(danceable, 514, ({ poseAt }, tick) => {
      const pose = poseAt(tick)
      for (const side of SIDES) {
        const [hip, knee, ankle, ball] = (['hip', 'knee', 'ankle', 'ball'] as const).map((name) =>
          jointOf(pose, `${name}${side}`),
        ) as [Point, Point, Point, Point]
        // The knee is on the side of the toes of the line from hip to ankle.
        const toes: Point = [ball[0] - ankle[0], 0, ball[2] - ankle[2]]
        const leg = sub(ankle, hip)
        const along = dot(sub(knee, hip), leg) / dot(leg, leg)
        const out = sub(knee, [
          hip[0] + leg[0] * along,
          hip[1] + leg[1] * along,
          hip[2] + leg[2] * along,
        ])
        expect(dot(out, toes)).toBeGreaterThan(0)
        expect(between(pose, `shoulder${side}`, `wrist${side}`)).toBeGreaterThan(0.13)
        expect(between(pose, `shoulder${side}`, `wrist${side}`)).toBeLessThan(
          BODY.upperArm + BODY.forearm,
        )
      }
    })
  })

  it('keeps its hands out of its trunk and its head', () => {
    always(danceable, 515, ({ poseAt }, tick) => {
      const pose = poseAt(tick)
      for (const side of SIDES) {
        const palm = jointOf(pose, `palm${side}`)
        expect(
          fromLine(palm, jointOf(pose, 'pelvis'), jointOf(pose, 'neck')),
          side,
        ).toBeGreaterThan(0.085)
        expect(Math.hypot(...sub(palm, jointOf(pose, 'head'))), side).toBeGreaterThan(0.095)
      }
    })
  })

  it('is the mirror image when the mirror is danced', () => {
    holds(
      fc.property(anyCombination({ kept: false }), moments, (one, ticks) => {
        const [here, there] = [dancer(one), dancer(mirror(one) as Combination)]
        for (const tick of ticks) {
          const [a, b] = [here.poseAt(tick), there.poseAt(tick)]
          for (const joint of JOINTS) {
            const [p, q] = [jointOf(a, joint), jointOf(b, across(joint))]
            expect(Math.hypot(p[0] + q[0], p[1] - q[1], p[2] - q[2]), joint).toBeLessThan(1e-9)
          }
          for (const part of ['pelvis', 'chest', 'head'] as const)
            for (let i = 0; i < 9; i++) {
              // Right of the one is left of the other: signs change across and in rows of right.
              const sign = (i % 3 === 0 ? -1 : 1) * (i < 3 ? -1 : 1)
              expect(Math.abs((a[part][i] ?? 0) - sign * (b[part][i] ?? 0)), part).toBeLessThan(
                1e-9,
              )
            }
        }
      }),
      { numRuns: RUNS / 2, seed: 516 },
    )
  })

  it('is the same at a tick however it is come to', () => {
    holds(
      fc.property(anyCombination(), moments, (one, ticks) => {
        const [played, scrubbed] = [dancer(one), dancer(one)]
        const pose = newPose()
        const forward = new Map(
          [...ticks].sort((a, b) => a - b).map((tick) => [tick, played.poseAt(tick)]),
        )
        for (const tick of ticks) expect(scrubbed.poseAt(tick, pose)).toEqual(forward.get(tick))
      }),
      { numRuns: RUNS / 5, seed: 517 },
    )
  })
})
