import { describe, expect, it } from 'vitest'
import { compassOffset } from '../body/places'
import { SIDES, type Side, signOf } from '../body/side'
import { compassPath } from '../moves/motion'
import type { Move } from '../moves/move'
import { vocabulary } from '../moves/vocabulary'
import { JOINTS, jointOf, newPose } from './joints'
import { moveLoop, type WayPoint, wayOf } from './moveLoop'

const found = (id: string): Move => {
  const move = vocabulary.find(id)
  if (!move) throw new Error(`no ${id}`)
  return move
}
const way = (id: string, joint: Parameters<typeof wayOf>[1], side: Side = 'R', samples = 192) => {
  const move = found(id)
  return wayOf(moveLoop(move, side, vocabulary), joint, move.length, samples)
}
type Flat = readonly [number, number]
const fromAbove = ([right, , forward]: WayPoint): Flat => [right, forward]
const fromBehind = ([right, up]: WayPoint): Flat => [right, up]

/** Twice the area a way goes round: above 0 where it goes round against the clock. */
const area = (points: readonly Flat[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [nx, ny] = points[(i + 1) % points.length] ?? [0, 0]
    return sum + x * ny - nx * y
  }, 0)

/** How often a way crosses itself, its ends left out. */
function crossings(points: readonly Flat[]): number {
  const side = (a: Flat, b: Flat, c: Flat) =>
    Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]))
  let count = 0
  for (let i = 0; i + 1 < points.length; i++)
    for (let j = i + 2; j + 1 < points.length; j++) {
      const [a, b, c, d] = [points[i], points[i + 1], points[j], points[j + 1]] as [
        Flat,
        Flat,
        Flat,
        Flat,
      ]
      if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) count++
    }
  return count
}
/** The eighths of the way in and out left off, where it comes from the middle and goes back. */
const inner = <T>(points: readonly T[]): readonly T[] => {
  const eighth = Math.floor(points.length / 8)
  return points.slice(eighth, points.length - eighth)
}

const moving = vocabulary.moves.filter(({ layer }) => layer !== 'feet')
const withVerb = (verb: string) =>
  moving.filter(({ motion }) => motion.some((item) => item.verb === verb))
const PART = {
  hips: 'pelvis',
  torso: 'chest',
  head: 'head',
  arms: 'palmR',
  legs: 'kneeR',
  feet: 'pelvis',
} as const

describe('a move moves as its motion says:', () => {
  it.each(withVerb('circle').filter(({ layer }) => layer === 'hips' || layer === 'torso'))(
    '$id goes round with the clock for the right and against it for the left',
    (move) => {
      for (const side of SIDES) {
        const round = area(inner(way(move.id, PART[move.layer], side).map(fromAbove)))
        expect(round * signOf(side)).toBeLessThan(-0.002)
      }
    },
  )

  it.each(withVerb('eight'))('$id crosses itself once, and both loops turn as written', (move) => {
    const item = move.motion.find(({ verb }) => verb === 'eight')
    if (item?.verb !== 'eight') throw new Error('no eight')
    const flat = item.plane === 'horizontal' ? fromAbove : fromBehind
    for (const side of SIDES) {
      // It begins and ends where it crosses itself: looked at from a quarter on, as a closed way.
      const points = way(move.id, PART[move.layer], side, 191).map(flat).slice(1, -1)
      const quarter = Math.floor(points.length / 4)
      const closed = [...points.slice(quarter), ...points.slice(0, quarter + 1)]
      expect(crossings(closed), side).toBe(1)
      const half = Math.floor(points.length / 2)
      const [first, second] = [points.slice(2, half - 2), points.slice(half + 2, -2)]
      const middle = (loop: readonly Flat[]) => loop.reduce((sum, [x]) => sum + x, 0) / loop.length
      // The loop of its own side comes first.
      expect(middle(first) * signOf(side)).toBeGreaterThan(0.02)
      expect(middle(second) * signOf(side)).toBeLessThan(-0.02)
      // Outward and down: the right loop goes with the clock from above, and so from behind.
      const clockwise = item.loops === 'outward' || item.loops === 'down' ? -1 : 1
      expect(Math.sign(area(first)) * signOf(side)).toBe(clockwise)
      expect(Math.sign(area(second)) * signOf(side)).toBe(-clockwise)
    }
  })

  it.each(
    moving.filter(
      ({ layer, motion }) =>
        (layer === 'hips' || layer === 'torso') &&
        motion.some(({ verb }) => verb === 'arc' || verb === 'to'),
    ),
  )('$id runs through its places in their order', (move) => {
    const part = move.layer === 'hips' ? 'hips' : 'ribs'
    const places = compassPath(move.motion)
    const points = way(move.id, PART[move.layer]).map(fromAbove)
    let from = 0
    for (const place of places) {
      const { right, forward } = compassOffset(part, place)
      const near = points.findIndex(
        ([x, z], i) => i >= from && Math.hypot(x - right, z - forward) < 0.012,
      )
      expect(near, place).toBeGreaterThanOrEqual(0)
      from = near
    }
  })

  it.each(withVerb('peak').filter(({ motion }) => motion[0]?.verb === 'peak'))(
    '$id is farthest from its rest exactly on its count',
    (move) => {
      const first = move.motion[0]
      if (first?.verb !== 'peak') throw new Error('no peak')
      const { dancer } = moveLoop(move, 'R', vocabulary)
      const rest = dancer.poseAt(-30)
      const away = (tick: number) => {
        const pose = dancer.poseAt(tick)
        return JOINTS.reduce(
          (sum, joint) => {
            const [p, q] = [jointOf(pose, joint), jointOf(rest, joint)]
            return sum + Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])
          },
          ['pelvis', 'chest', 'head'].reduce(
            (all, part) => all + turned(pose[part as 'head'], rest[part as 'head']),
            0,
          ),
        )
      }
      for (const off of [-2.5, -1, 1, 2.5]) expect(away(off)).toBeLessThan(away(0))
      expect(away(0)).toBeGreaterThan(0.02)
    },
  )

  it('a lift raises its own hip and a drop lowers it', () => {
    const high = (id: string, side: Side) => {
      const { dancer } = moveLoop(found(id), side, vocabulary)
      const pose = dancer.poseAt(0)
      return jointOf(pose, `crest${side}`)[1] - jointOf(pose, `crest${side === 'R' ? 'L' : 'R'}`)[1]
    }
    for (const side of SIDES) {
      expect(high('hip-lift', side)).toBeGreaterThan(0.03)
      expect(high('hip-drop', side)).toBeLessThan(-0.03)
    }
  })

  it('a wave travels the way it is written', () => {
    const peakOf = (id: string, joint: 'chest' | 'waist' | 'pelvis') => {
      const points = way(id, joint).map(([, , forward]) => forward)
      return points.indexOf(Math.max(...points))
    }
    for (const id of ['camel', 'body-wave-down'])
      expect(peakOf(id, 'chest')).toBeLessThan(peakOf(id, 'pelvis'))
    for (const id of ['reverse-camel', 'body-wave-up'])
      expect(peakOf(id, 'pelvis')).toBeLessThan(peakOf(id, 'chest'))
  })

  it.each(withVerb('osc').filter(({ kind }) => kind === 'texture'))(
    '$id trembles at its rate',
    (move) => {
      const item = move.motion.find(({ verb }) => verb === 'osc')
      if (item?.verb !== 'osc') throw new Error('no oscillation')
      const { dancer, length } = moveLoop(move, 'R', vocabulary)
      const pose = newPose()
      // What moves most tells how often it goes to and fro.
      const tracks = [
        ...JOINTS.map((joint) => (t: number) => [...jointOf(dancer.poseAt(t, pose), joint)]),
        (t: number) => [...dancer.poseAt(t, pose).pelvis, ...pose.chest, ...pose.head],
      ]
        .map((at) => Array.from({ length: length * 20 }, (_, i) => at(i / 20)))
        .flatMap((rows) => (rows[0] ?? []).map((_, k) => rows.map((row) => row[k] ?? 0)))
      const spread = (track: readonly number[]) => Math.max(...track) - Math.min(...track)
      const best = tracks.reduce((a, b) => (spread(b) > spread(a) ? b : a))
      const middle = best[0] ?? 0
      const ups = best.filter(
        (value, i) => i > 0 && (best[i - 1] ?? 0) <= middle && value > middle,
      ).length
      expect(Math.abs(ups - (item.rate.cycles * length) / 12)).toBeLessThanOrEqual(1)
    },
  )

  it.each(moving)('$id is seen to move, on both sides alike', (move) => {
    const both = SIDES.map((side) => moveLoop(move, side, vocabulary))
    const [right, left] = both.map(({ dancer, length }) => {
      const rest = dancer.poseAt(-40)
      return Math.max(
        ...Array.from({ length: 64 }, (_, i) => {
          const pose = dancer.poseAt((i * length) / 64)
          return JOINTS.reduce((sum, joint) => {
            const [p, q] = [jointOf(pose, joint), jointOf(rest, joint)]
            return sum + Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2])
          }, turned(pose.head, rest.head) + turned(pose.chest, rest.chest))
        }),
      )
    })
    const isHome = ['hips-centre', 'ribs-centre', 'arms-low', 'look-front'].includes(move.id)
    if (!isHome) expect(right).toBeGreaterThan(0.01)
    expect(left).toBeCloseTo(right ?? 0, 9)
  })
})

const turned = (a: Float64Array, b: Float64Array): number =>
  a.reduce((sum, value, i) => sum + Math.abs(value - (b[i] ?? 0)), 0)
