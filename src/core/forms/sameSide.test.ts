import { describe, expect, it } from 'vitest'
import type { Layer } from '../body/layers'
import { turningOf } from '../moves/motion'
import type { Move } from '../moves/move'
import { vocabulary } from '../moves/vocabulary'
import { dancerOf } from '../pose/dancer'
import { jointOf } from '../pose/joints'
import { dancedText } from '../sheet/entryText'
import { readSheet } from '../sheet/readSheet'
import { simulate } from '../simulate/simulate'
import type { What } from '../what/kinds'
import { sameSide } from './sameSide'

const textOf = (layer: Layer, what: What): string =>
  dancedText(
    { id: 'e', layer, at: 0, length: 12, what } as unknown as Parameters<typeof dancedText>[0],
    vocabulary,
    { counts: 8 },
  )

/** The area a part of the dancing figure draws on the floor, above 0 for clockwise: what is seen, not what is written. */
function drawn(layer: Layer, text: string): number {
  const sheet = `sway 1\nphrase A 8\n ${layer} 1-4 ${text}`
  const { combination, messages } = readSheet(sheet, vocabulary)
  expect(messages, text).toEqual([])
  const { poseAt } = dancerOf(simulate(combination, vocabulary))
  const part = layer === 'hips' ? 'pelvis' : 'chest'
  let area = 0
  let before: readonly [number, number] | undefined
  for (let at = 0; at <= 48; at += 0.5) {
    const [x, , z] = jointOf(poseAt(at), part)
    if (before) area += x * before[1] - before[0] * z
    before = [x, z]
  }
  return area
}

const pairs = vocabulary.moves.flatMap((move) =>
  (['easier', 'harder'] as const).flatMap((which) => {
    const form = vocabulary.find(move[which])
    return form && turningOf(move.motion) && turningOf(form.motion) ? [{ move, form, which }] : []
  }),
)

/** The ways a motion goes: to the side, forward and back, round, up and down. */
function axesOf({ layer, motion }: Move): ReadonlySet<string> {
  const axes = motion.flatMap((item): string[] => {
    if ('channel' in item) {
      const channel = item.channel.split('.')[1] ?? ''
      if (/side|tilt|out/.test(channel)) return ['side']
      if (/forward|tuck|arch|lean|nod|bend/.test(channel)) return ['forward']
      return [/twist|turn/.test(channel) ? 'round' : 'up']
    }
    if (item.verb === 'wave') return [item.plane === 'side' ? 'side' : 'forward']
    if (item.verb === 'circle' || item.verb === 'arc') return ['side', 'forward']
    if (item.verb === 'eight') return ['side', 'forward', 'round', 'up']
    if (item.verb !== 'to') return []
    if (layer === 'head')
      return [/tilt/.test(item.place) ? 'side' : /up|down/.test(item.place) ? 'forward' : 'round']
    return [
      ...(/[RL]/.test(item.place) ? ['side'] : []),
      ...(/[FB]/.test(item.place) ? ['forward'] : []),
    ]
  })
  return new Set(axes)
}

describe('a form of a move', () => {
  it.each(
    vocabulary.moves.flatMap((move) => {
      const form = vocabulary.find(move.easier)
      return form && move.layer !== 'feet' && move.layer !== 'arms'
        ? [[move.id, form.id] as const]
        : []
    }),
  )('of %s, the easier %s, goes no other way', (id, formId) => {
    const [move, form] = [vocabulary.find(id)!, vocabulary.find(formId)!]
    expect(form.layer).toBe(move.layer)
    expect(form.demand).toBeLessThanOrEqual(move.demand)
    const [axes, own] = [axesOf(move), axesOf(form)]
    // To stand still is no other way.
    if (own.size > 0) expect([...own].some((axis) => axes.has(axis))).toBe(true)
  })

  it.each(pairs.map(({ move, form, which }) => [move.id, which, form.id] as const))(
    'of %s, the %s %s, goes the same way round on both sides, as the figure dances it',
    (id, _, formId) => {
      const move = vocabulary.find(id)!
      const form = vocabulary.find(formId)!
      for (const side of ['R', 'L'] as const) {
        const own: What =
          move.sided === 'direction'
            ? { kind: 'move', move: id, way: side === 'R' ? 'cw' : 'ccw' }
            : { kind: 'move', move: id, side }
        const eased = sameSide(form, own, vocabulary)
        if (move.layer === 'head') continue
        const [a, b] = [
          drawn(move.layer, textOf(move.layer, own)),
          drawn(form.layer, textOf(form.layer, eased)),
        ]
        expect(Math.abs(a)).toBeGreaterThan(1e-4)
        expect(Math.abs(b)).toBeGreaterThan(1e-4)
        expect(Math.sign(b)).toBe(Math.sign(a))
      }
    },
  )

  it.each([
    ['head-roll', { way: 'cw' }, 'head-half-roll', { side: 'L' }],
    ['head-roll', { way: 'ccw' }, 'head-half-roll', { side: 'R' }],
    ['horseshoe-roll-back', { side: 'R' }, 'half-circle-back', { side: 'L' }],
    ['hip-circle-large', { way: 'cw' }, 'hip-circle-small', { way: 'cw' }],
    // What goes no way round keeps its side.
    ['maya', { side: 'L' }, 'eight-outward', { side: 'L' }],
    ['ami', { way: 'ccw' }, 'hip-sway', { side: 'L' }],
  ] as const)('%s %o is %s %o', (id, own, formId, wanted) => {
    const form = vocabulary.find(formId)!
    expect(sameSide(form, { kind: 'move', move: id, ...own }, vocabulary)).toEqual({
      kind: 'move',
      move: formId,
      ...wanted,
    })
  })
})
