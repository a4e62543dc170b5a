import { describe, expect, it } from 'vitest'
import { bothOf } from '../combination/dancing'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { danceOf } from '../piece/dance'
import { readSheet } from '../sheet/readSheet'
import { dancersOf } from './dancers'
import { type Joint, jointOf, newPose } from './joints'
import { BODY } from './proportions'

const read = (text: string) => {
  const { combination, messages } = readSheet(text, vocabulary)
  expect(messages).toEqual([])
  return combination
}

const piece = (lines: string, more = '') =>
  read(
    `sway 2\ntempo 120\npart @1 "Amber" at L 0.4\npart @2 "Blue" at R 0.4${more}\nphrase A 8\n${lines}`,
  )

const troupe = (combination: ReturnType<typeof read>, side: 'lead' | 'other' = 'lead') => {
  const dancers = dancersOf(danceOf(combination, vocabulary, USUAL_HOUSE).from, {}, combination)
  return dancers.together(bothOf(combination)[side === 'lead' ? 0 : 1]!)
}

const gap = (a: readonly number[], b: readonly number[]) =>
  Math.hypot(...a.map((x, i) => x - (b[i] ?? 0)))
const feet =
  '  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R forward; 6 touch L together; 7 step L back; 8 touch R together\n'

const HOLDS: readonly (readonly [string, Joint, Joint])[] = [
  ['hold @1.R @2.L fingers low', 'palmR', 'palmL'],
  ['hold @1.R @2.L palm waist', 'palmR', 'palmL'],
  ['hold @1.R @2.L palm shoulder', 'palmR', 'palmL'],
  ['hold @1.R @2.L palm overhead', 'palmR', 'palmL'],
  ['touch @1.R @2.L palm', 'palmR', 'palmL'],
]

describe('hands that meet', () => {
  it.each(HOLDS)(
    '%s: both palms are on one point for as long as they hold, on both sides',
    (what, a, b) => {
      const combination = piece(`${feet}  between 2-7 ${what}`)
      for (const side of ['lead', 'other'] as const) {
        const [amber, blue] = troupe(combination, side)
        const [one, other] = side === 'lead' ? [a, b] : [b, a]
        for (let tick = 20; tick < 84; tick += 0.5) {
          const palms = [
            jointOf(amber!.poseAt(tick), one as Joint),
            jointOf(blue!.poseAt(tick), other as Joint),
          ] as const
          expect(gap(...palms), `${side} ${tick}`).toBeLessThan(0.02)
        }
      }
    },
  )

  it('keep their bones, never jump, and are the same however a tick is reached', () => {
    const combination = piece(
      `${feet}  arms @1 1 both second; 5-6 R crown; 8 both low\n  between 2-4 hold @1.R @2.L palm waist; 5-7 hold @1.R @2.L fingers; 3-6 touch @1.L @2.waist; 7-8 look @1 @2`,
    )
    const dancers = troupe(combination)
    const bones: readonly (readonly [Joint, Joint, number])[] = (['R', 'L'] as const).flatMap(
      (side): readonly (readonly [Joint, Joint, number])[] => [
        [`shoulder${side}`, `elbow${side}`, BODY.upperArm],
        [`elbow${side}`, `wrist${side}`, BODY.forearm],
        [`wrist${side}`, `fingers${side}`, BODY.hand],
      ],
    )
    // A tick in one millisecond at this tempo.
    const step = (120 / 60) * 12 * 0.001
    for (const dancer of dancers) {
      let last = newPose()
      for (let tick = 0; tick < 96; tick += step) {
        const pose = dancer.poseAt(tick, newPose())
        for (const [a, b, long] of bones)
          expect(
            Math.abs(gap(jointOf(pose, a), jointOf(pose, b)) - long),
            `${a} ${tick}`,
          ).toBeLessThan(0.001)
        if (tick > 0)
          for (const joint of ['palmR', 'palmL', 'elbowR', 'elbowL', 'fingersR', 'head'] as const)
            expect(
              gap(jointOf(pose, joint), jointOf(last, joint)),
              `${joint} ${tick.toFixed(2)}`,
            ).toBeLessThan(0.008)
        last = pose
      }
    }
    const [amber] = dancers
    const played = [10, 30, 50, 70].map((tick) => [...amber!.poseAt(tick).joints])
    const scrubbed = [70, 10, 50, 30].map(
      (tick) => [tick, [...amber!.poseAt(tick).joints]] as const,
    )
    for (const [tick, joints] of scrubbed)
      expect(joints).toEqual(played[[10, 30, 50, 70].indexOf(tick)])
  })

  it('stretch and stop short where they do not reach, so that the gap is seen', () => {
    const [amber, blue] = troupe(
      read(
        `sway 2\ntempo 96\npart @1 "Amber" at L 1\npart @2 "Blue" at R 1\nphrase A 8\n${feet}  between 2-7 hold @1.R @2.L palm waist`,
      ),
    )
    const palms = [jointOf(amber!.poseAt(40), 'palmR'), jointOf(blue!.poseAt(40), 'palmL')] as const
    expect(gap(...palms)).toBeGreaterThan(0.3)
    expect(gap(jointOf(amber!.poseAt(40), 'shoulderR'), palms[0])).toBeGreaterThan(0.5)
  })

  it('lie on a place of the partner’s body, and go home when they let go', () => {
    const [amber, blue] = troupe(piece(`${feet}  between 2-5 hold @1.R @2.shoulder flat`))
    const shoulder = jointOf(blue!.poseAt(40), 'shoulderL')
    expect(gap(jointOf(amber!.poseAt(40), 'palmR'), shoulder)).toBeLessThan(0.12)
    const [alone] = troupe(piece(feet))
    expect(
      gap(jointOf(amber!.poseAt(90), 'palmR'), jointOf(alone!.poseAt(90), 'palmR')),
    ).toBeLessThan(0.001)
  })
})

describe('eyes that meet', () => {
  it('turn the heads to each other as far as a neck goes', () => {
    const [amber, blue] = troupe(piece(`${feet}  between 3-6 look @1 @2`))
    const forward = (pose: ReturnType<typeof newPose>) => [...pose.head.subarray(6, 9)]
    expect(forward(amber!.poseAt(40))[0]).toBeGreaterThan(0.9)
    expect(forward(blue!.poseAt(40))[0]).toBeLessThan(-0.9)
    expect(Math.abs(forward(amber!.poseAt(8))[0] ?? 1)).toBeLessThan(0.3)
  })

  it('tilt to who carries them, by the share of the weight, and keep their bones', () => {
    const lean = (share: number, side: 'lead' | 'other') => {
      const combination = piece(
        `${feet}  between 2-7 hold @1.R @2.L palm waist; 3-6 support @2 of @1 ${share}%`,
      )
      const [amber, blue] = troupe(combination, side)
      const toBlue = side === 'lead' ? 1 : -1
      const reach = (tick: number) => {
        const pose = amber!.poseAt(tick, newPose())
        const [pelvis, head, waist] = [
          jointOf(pose, 'pelvis'),
          jointOf(pose, 'head'),
          jointOf(pose, 'waist'),
        ]
        return { by: toBlue * (head[0]! - pelvis[0]!), trunk: gap(pelvis, waist) }
      }
      const palms = gap(
        jointOf(amber!.poseAt(54), side === 'lead' ? 'palmR' : 'palmL'),
        jointOf(blue!.poseAt(54), side === 'lead' ? 'palmL' : 'palmR'),
      )
      expect(palms).toBeLessThan(0.02)
      expect(reach(54).trunk).toBeCloseTo(reach(10).trunk, 6)
      return reach(54).by
    }
    for (const side of ['lead', 'other'] as const) {
      const without = lean(5, side)
      // 7.2 degrees more, over about 0.65 m from the pelvis to the head.
      expect(lean(50, side) - without).toBeGreaterThan(0.05)
      expect(lean(50, side) - without).toBeLessThan(0.13)
      expect(lean(25, side)).toBeGreaterThan(without)
    }
  })
})
