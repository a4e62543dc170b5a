import { describe, expect, it } from 'vitest'
import { WITH_PROPS } from '../../../tests/ordinary'
import { partIds, partOf } from '../combination/partOf'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { followProps } from '../props/follow'
import { readSheet } from '../sheet/readSheet'
import { danced } from '../simulate/danced'
import type { Simulation } from '../simulate/simulate'
import { carryingOf } from './carrying'
import { dancerOf } from './dancer'
import { newPose, placeOfJoint as PLACE } from './joints'
import { arcOf, sagOf } from './rope'

const read = (text: string) => readSheet(text, vocabulary).combination
const all = WITH_PROPS.map(read).flatMap((one) => partIds(one).map((id) => partOf(one, id)))
const dancedBy = (title: string) => {
  const sheet = WITH_PROPS.find((one) => one.includes(title)) ?? `no ${title}`
  return danced(read(sheet), vocabulary, USUAL_HOUSE)
}

/** The net of the first thing at a tick, as a copy. */
function netAt(simulation: Simulation, tick: number): Float64Array {
  const dancer = dancerOf(simulation)
  const carrying = carryingOf(simulation)
  if (!carrying) throw new Error('nothing is carried')
  const pose = dancer.poseAt(tick, newPose())
  carrying.at(tick, pose, (ago, into) => dancer.poseAt(tick - ago, into))
  return carrying.shapes[0]!.points.slice()
}

describe('what is carried, as it is seen', () => {
  it('is the same for a tick however it is reached, and over the floor', () => {
    for (const one of all) {
      const { lead } = danced(one, vocabulary, USUAL_HOUSE)
      const dancer = dancerOf(lead)
      const playing = carryingOf(lead)
      if (!playing) continue
      const pose = newPose()
      for (let tick = -12; tick < lead.length + 12; tick += 3.5) {
        dancer.poseAt(tick, pose)
        playing.at(tick, pose, (ago, into) => dancer.poseAt(tick - ago, into))
        if (playing.shapes[0]!.isHere) expect(playing.shapes[0]!.points).toEqual(netAt(lead, tick))
        for (const { points, isHere, prop } of playing.shapes)
          for (let i = 0; i < points.length; i += 3) {
            expect(Number.isFinite(points[i]! + points[i + 1]! + points[i + 2]!)).toBe(true)
            if (isHere && prop.kind !== 'stick' && prop.kind !== 'fan')
              expect(points[i + 1]).toBeGreaterThan(-1e-9)
          }
      }
    }
  })

  it('is where the hands are: each held corner within a hand of its palm or hanging from it', () => {
    const { lead } = dancedBy('Scarf circles')
    const dancer = dancerOf(lead)
    for (let tick = 0; tick < 96; tick += 5) {
      const net = netAt(lead, tick)
      const pose = dancer.poseAt(tick, newPose())
      const palm = (name: 'palmR' | 'palmL') => pointOf(pose, name)
      const [R, L] = [palm('palmR'), palm('palmL')]
      expect(far(net, 0, R)).toBeLessThan(0.06)
      expect(far(net, 10, L)).toBeLessThan(0.06)
    }
    function pointOf(pose: ReturnType<typeof newPose>, name: 'palmR' | 'palmL') {
      const { joints } = pose
      const at = PLACE[name]
      return [joints[at]!, joints[at + 1]!, joints[at + 2]!] as const
    }
  })

  it('keeps the length of its edge between two hands that hold it, within 8 per cent', () => {
    for (const [title, ticks] of [
      ['Scarf circles', [0, 24, 47, 72]],
      ['Veil comes in', [0, 60]],
    ] as const) {
      const { lead } = dancedBy(title)
      const [prop] = lead.combination.carried ?? []
      for (const tick of ticks) {
        const net = netAt(lead, tick)
        const columns = prop!.kind === 'veil' ? 15 : 11
        let long = 0
        for (let i = 1; i < columns; i++) long += far(net, i, at(net, i - 1))
        expect(Math.abs(long / prop!.size.long - 1)).toBeLessThan(0.08)
      }
    }
  })

  it('from the other side is the mirror image of it', () => {
    for (const title of ['Veil comes in', 'Frame and turn', 'Wrapped once']) {
      const { lead, other } = dancedBy(title)
      for (const tick of [0, 20, 31.5, 50, 77]) {
        const [here, there] = [netAt(lead, tick), netAt(other, tick)]
        for (let j = 0; j < 5; j++)
          for (let i = 0; i < 15; i++) {
            const [x, y, z] = at(here, j * 15 + i)
            const [mx, my, mz] = at(there, j * 15 + (14 - i))
            expect(Math.hypot(x + mx, y - my, z - mz)).toBeLessThan(1e-6)
          }
      }
    }
  })

  it('goes into the air and is caught, and is not there for who has passed it on', () => {
    const thrown = danced(
      read(
        'sway 2\ntempo 80\nstart arms second\ncarry stick "Reed" 0.9 x 0.03 none, R end fist\nphrase A 8\n  feet 1 step R side; 2 close L\n  prop 3 throw R; 4 catch R',
      ),
      vocabulary,
      USUAL_HOUSE,
    ).lead
    const up = (tick: number) => netAt(thrown, tick)[1]!
    expect(Math.max(up(28), up(30), up(32))).toBeGreaterThan(up(23) + 0.3)
    expect(Math.abs(up(40) - up(23))).toBeLessThan(0.1)
    const pair = read(WITH_PROPS.find((sheet) => sheet.includes('Stick for two')) ?? '')
    const isHere = (part: string, tick: number) => {
      const { lead } = danced(partOf(pair, part), vocabulary, USUAL_HOUSE)
      const carrying = carryingOf(lead)!
      const dancer = dancerOf(lead)
      carrying.at(tick, dancer.poseAt(tick, newPose()), undefined)
      return carrying.shapes[0]!.isHere
    }
    expect([isHere('1', 20), isHere('2', 20)]).toEqual([true, false])
    expect([isHere('1', 60), isHere('2', 60)]).toEqual([false, true])
    expect(followProps(danced(partOf(pair, '2'), vocabulary, USUAL_HOUSE).lead).acts).toHaveLength(
      2,
    )
  })

  it('sags as far as a rope of its length does', () => {
    for (const long of [0.5, 1.1, 2.5])
      for (const far of [0.05, 0.4, 1.05])
        if (long > far) expect(arcOf(far, sagOf(long, far))).toBeCloseTo(long, 3)
    expect(sagOf(1, 1.2)).toBe(0)
  })
})

const at = (net: Float64Array, i: number) =>
  [net[3 * i]!, net[3 * i + 1]!, net[3 * i + 2]!] as const

const far = (net: Float64Array, i: number, to: readonly [number, number, number]): number => {
  const [x, y, z] = at(net, i)
  return Math.hypot(x - to[0], y - to[1], z - to[2])
}
