import { type Anatomy, TOES } from './anatomy'
import { SIDE_BONES } from './bones'
import { carriedAt } from './carried'
import { castOut, cross, dot, type Field, joined, mix, plus, smooth, unit, type Vec } from './field'
import type { SkinMesh } from './mesh'
import { type Loft, meshOf } from './rays'
import {
  ANKLE,
  ARM_ACROSS,
  ARM_WAY,
  FINGER_BEND,
  FINGERS,
  fromHand,
  LEG_ACROSS,
  LEG_WAY,
  ofHand,
  REST,
  wayOfHand,
} from './rest'

/** Makes the skin of a body. @param detail 1 for all of it; less for fewer, larger triangles. */
export const skinOf = (anatomy: Anatomy, detail: number): SkinMesh =>
  meshOf(loftsOf(anatomy, detail), anatomy.skin)

/** Every part of the body as a grid of rays from its own axis onto the common skin. */
function loftsOf(anatomy: Anatomy, detail: number): readonly Loft[] {
  const { skin, trunk, neck, arm, hand, palm, leg, foot, wholeLeg } = anatomy
  const some = (count: number, least: number) => Math.max(least, Math.round(count * detail))
  const even = (count: number, least: number) => 2 * Math.round(some(count, least) / 2)
  const by = (point: Vec) => carriedAt(anatomy, point)
  /** A ray that would run into a neighbour ends a little outside its own part. */
  const until = (own: Field, from: Vec, way: Vec, more: number): number =>
    castOut(own, from, way, 0.4) + more

  /** Level rays up to the armpits, then a fan over the shoulders; closer together at the sides. */
  const level = 0.78
  const lofts: Loft[] = [
    {
      patch: 'trunk',
      rows: some(37, 22),
      around: even(32, 20),
      isEven: true,
      field: skin,
      by,
      ray(row, turn) {
        const isLevel = row <= level
        const t = turn - 0.12 * Math.sin(2 * turn) * (isLevel ? 0.4 : 1)
        const up = isLevel ? mix(0.768, 1.362, row / level) : 1.362
        const lift = isLevel ? 0 : ((row - level) / (1 - level)) * 1.18
        const from: Vec = [0, up, 0.006]
        const way: Vec = [
          Math.sin(t) * Math.cos(lift),
          Math.sin(lift),
          Math.cos(t) * Math.cos(lift),
        ]
        return { from, way, most: until(trunk, from, way, 0.03) + (up < 0.81 ? 0.05 : 0) }
      },
    },
    {
      patch: 'neck',
      rows: some(7, 5),
      around: even(16, 10),
      isEven: true,
      field: skin,
      by,
      ray(row, turn) {
        const from: Vec = [0, mix(1.43, 1.545, row), mix(0.014, 0, row)]
        const way: Vec = [Math.sin(turn), 0, Math.cos(turn)]
        return { from, way, most: until(neck, from, way, 0.022) }
      },
    },
    {
      // Finer in front, where the face is.
      patch: 'head',
      rows: some(22, 15),
      around: even(30, 20),
      isEven: true,
      field: skin,
      by,
      ray(row, turn) {
        const lift = mix(-1.22, 1.4, row)
        const t = turn + 0.5 * Math.sin(turn)
        const way: Vec = [
          Math.sin(t) * Math.cos(lift),
          Math.sin(lift),
          Math.cos(t) * Math.cos(lift),
        ]
        return { from: HEAD_MIDDLE, way, most: row === 0 ? 0.09 : 0.16 }
      },
      tip: { from: HEAD_MIDDLE, way: [0, 1, 0], most: 0.2 },
    },
    {
      patch: 'arm',
      rows: some(27, 17),
      around: some(13, 8),
      field: skin,
      by,
      ray(row, turn) {
        const from = plus(REST.shoulder, ARM_WAY, mix(-0.045, 0.5, row))
        const [x, y, z] = ARM_ACROSS
        const cos = Math.cos(turn)
        const way: Vec = [x * cos, y * cos, z * cos + Math.sin(turn)]
        return { from, way, most: until(arm, from, way, 0.022) }
      },
    },
  ]
  const wrist: Field = (x, y, z) => joined(arm(x, y, z), hand(x, y, z), 0.014)
  lofts.push({
    patch: 'plain',
    rows: some(8, 6),
    around: some(14, 10),
    field: wrist,
    by,
    ray(row, turn) {
      const from = fromHand([0, mix(-0.018, 0.088, row), 0])
      const way = wayOfHand([Math.cos(turn), 0, Math.sin(turn)])
      return { from, way, most: until(palm, from, way, 0.01) }
    },
    tip: { from: fromHand([0, 0.088, 0]), way: wayOfHand([0, 1, 0]), most: 0.012 },
  })
  for (const one of FINGERS) {
    const isThumb = one.name === 'thumb'
    const up = unit(cross(one.way, isThumb ? [1, 0, 0] : [0, 0, 1]))
    const across = cross(one.way, up)
    const rows = [0.04, 0.3, 0.52, 0.74, 0.93]
    const bones = SIDE_BONES.R
    const [base, tip] = [bones[`${one.name}1`], bones[`${one.name}2`]]
    lofts.push({
      patch: 'plain',
      rows: rows.length,
      around: detail < 1 ? 5 : 6,
      field: wrist,
      casts: false,
      by(point) {
        const along = dot(plus(ofHand(...point), one.base, -1), one.way)
        const begin = isThumb ? 0.004 : 0.012
        const bend = one.long * FINGER_BEND
        const far = smooth(bend - 0.008, bend + 0.008, along)
        const near = smooth(begin - 0.01, begin + 0.01, along)
        return far > 0
          ? { first: base, second: tip, share: 1 - far }
          : { first: bones.hand, second: base, share: 1 - near }
      },
      ray(row, turn) {
        const at = rows[Math.round(row * (rows.length - 1))] as number
        const from = fromHand(plus(one.base, one.way, one.long * at))
        const way = wayOfHand(
          plus(
            [up[0] * Math.cos(turn), up[1] * Math.cos(turn), up[2] * Math.cos(turn)],
            across,
            Math.sin(turn),
          ),
        )
        return { from, way, most: one.thick * 1.5 }
      },
      tip: {
        from: fromHand(plus(one.base, one.way, one.long * 0.85)),
        way: wayOfHand(one.way),
        most: 0.03,
      },
    })
  }
  lofts.push({
    patch: 'leg',
    rows: some(32, 20),
    around: some(16, 10),
    field: skin,
    by,
    ray(row, turn) {
      const from = plus(REST.hip, LEG_WAY, mix(-0.05, 0.8, row))
      const [x, y, z] = LEG_ACROSS
      const cos = Math.cos(turn)
      const way: Vec = [x * cos, y * cos, z * cos - Math.sin(turn)]
      return { from, way, most: until(leg, from, way, 0.03) }
    },
  })
  const onFoot = (ahead: number, up = 0): Vec => [ANKLE[0], 0.008 + up, -ahead]
  lofts.push({
    patch: 'plain',
    rows: some(12, 8),
    around: some(14, 10),
    field: wholeLeg,
    by,
    ray(row, turn) {
      const ahead = mix(-0.052, 0.146, row)
      const from = onFoot(ahead, ahead > 0.12 ? -0.012 : 0)
      const way: Vec = [Math.cos(turn), Math.sin(turn), 0]
      return { from, way, most: until(foot, from, way, 0.012) }
    },
    heel: { from: onFoot(-0.045), way: [0, 0, 1], most: 0.04 },
    tip: { from: onFoot(0.14, -0.012), way: [0, 0, -1], most: 0.02 },
  })
  for (const [aside, near, far, thick] of TOES)
    lofts.push({
      patch: 'plain',
      rows: detail < 1 ? 3 : 4,
      around: detail < 1 ? 5 : 6,
      field: wholeLeg,
      casts: false,
      by,
      ray(row, turn) {
        const ahead = mix(near + 0.006, far - 0.003, row)
        const share = (ahead - near) / (far - near)
        const from: Vec = [
          ANKLE[0] + mix(aside * 0.92, aside, share),
          -0.007 - 0.003 * smooth(near, far, ahead),
          -ahead,
        ]
        return { from, way: [Math.cos(turn), Math.sin(turn), 0], most: thick * 1.6 }
      },
      tip: { from: [ANKLE[0] + aside, -0.008, -far + 0.01], way: [0, 0, -1], most: 0.03 },
    })
  return lofts
}

const HEAD_MIDDLE: Vec = [0, 1.592, -0.012]
