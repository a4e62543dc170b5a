import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { holds } from '../../../tests/holds'
import { PIECES } from '../../../tests/ordinary'
import { moveEvents, removeEvents } from '../edits/edits'
import { forPart } from '../edits/forPart'
import { retime } from '../edits/phrases'
import { removeVoice, writeVoice } from '../edits/voices'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { dancedPiece } from '../piece/piece'
import { placeAt } from '../piece/way'
import { dancersOf } from '../pose/dancers'
import { newPose } from '../pose/joints'
import { readSheet } from '../sheet/readSheet'
import { danced } from '../simulate/danced'
import { tick } from '../time/time'
import { Combination } from './combination'
import { dancingTogether, leadOf } from './dancing'
import { mirrorEvent } from './mirror'
import { partIds, partOf } from './partOf'

const read = (text: string) => readSheet(text, vocabulary).combination
const sheetOf = (title: string) =>
  read(PIECES.find((sheet) => sheet.includes(title)) ?? `no ${title}`)

const plain = ({
  id: _,
  who: __,
  length: ___,
  ...event
}: {
  id: string
  who?: unknown
  length?: unknown
}) => JSON.stringify(event)

describe('a voice', () => {
  it('dances what the other one dances, later or from the other side, and what it has of its own', () => {
    let followed = 0
    holds(
      fc.property(anyPiece(), (piece) => {
        for (const [i, { voices = [], counts, between = [], events }] of piece.phrases.entries())
          for (const { part, of, by, mirrored } of voices) {
            const waits = between.some(({ what }) => what.kind === 'wait' && what.of.includes(part))
            if (waits) continue
            const theirs = partOf(piece, of).phrases[i]?.events ?? []
            const ids = new Set(theirs.map(({ id }) => id))
            const copied = theirs
              .map((event) => (mirrored ? mirrorEvent(event) : event))
              .map((event) => ({ ...event, at: tick(event.at + by) }))
              .filter(({ at }) => at < counts * 12)
            const own = events.filter(
              ({ id, who }) => who?.includes(part) && !who.includes('solo') && !ids.has(id),
            )
            const hers = partOf(piece, part).phrases[i]?.events ?? []
            expect(hers.map(plain).sort()).toEqual([...copied, ...own].map(plain).sort())
            if (copied.length > 0) followed++
          }
      }),
      { numRuns: 400, seed: 706 },
    )
    expect(followed).toBeGreaterThan(0)
  })

  it('is changed where it is led: an edit of what she has from another one is an edit of that', () => {
    const canon = sheetOf('Three Ripples')
    const lift = partOf(canon, '3').phrases[1]?.events.find(({ layer }) => layer === 'torso')
    expect(lift?.at).toBe(60)
    const moved = forPart('3', moveEvents([lift?.id ?? ''], 12))(canon)
    for (const [part, at] of [
      ['1', 24],
      ['2', 48],
      ['3', 72],
    ] as const)
      expect(
        partOf(moved, part).phrases[1]?.events.find(({ layer }) => layer === 'torso')?.at,
      ).toBe(at)
    const without = forPart('2', removeEvents([lift?.id ?? '']))(canon)
    expect(JSON.stringify(without.phrases[1]?.events)).not.toContain('chest-lift')
    expect(Combination.safeParse(without).error).toBeUndefined()
  })

  it('is written and taken out again by an edit', () => {
    const canon = sheetOf('Three Ripples')
    const phrase = canon.phrases[1]?.id ?? ''
    const image = writeVoice(phrase, { part: '2', of: '1', by: tick(0), mirrored: true })(canon)
    const feet = (one: Combination, part: string) =>
      partOf(one, part).phrases[1]?.events.flatMap(({ what }) =>
        what.kind === 'foot' ? [what.action.foot] : [],
      )
    expect(feet(image, '2')).toEqual(['L', 'R', 'R', 'L'])
    // In double time she follows in half the counts.
    const quick = retime(phrase, 0.5, vocabulary)(canon)
    expect(quick.phrases[1]?.voices?.map(({ by }) => by)).toEqual([12, 24])
    expect(quick.phrases[1]?.counts).toBe(4)
    const alone = removeVoice(phrase, '3')(removeVoice(phrase, '2')(image))
    expect(alone.phrases[1]).not.toHaveProperty('voices')
    expect(feet(alone, '2')).toEqual([])
  })
})

describe('a part that comes in later', () => {
  const echo = sheetOf('Echo for Two')

  it('stands until then, and goes the same way so much later', () => {
    const piece = dancedPiece(echo, vocabulary, USUAL_HOUSE)
    const [reed, tide] = piece.lead.placed
    for (const at of [0, 12, 40, 47]) expect(placeAt(tide!.way, at).right).toBeCloseTo(0.7, 2)
    for (const at of [13, 30, 47, 60])
      expect(placeAt(tide!.way, at + 48).right - 1.4).toBeCloseTo(
        placeAt(reed!.way, Math.max(at, 0)).right,
        6,
      )
    // She is judged as she dances, not as late.
    expect(piece.of('2').lead.danced).toEqual(
      danced(partOf(echo, '2'), vocabulary, USUAL_HOUSE).lead.danced,
    )
  })

  it('is posed as the other one was so long before', () => {
    const dance = danced(echo, vocabulary, USUAL_HOUSE)
    const dancers = dancersOf(dance.from, {}, echo)
    const [first, second] = dancingTogether(echo, leadOf(echo, '1'))
    const [reed, tide] = [dancers(first!), dancers(second!)]
    for (const at of [0, 7, 33.5, 47]) {
      const [a, b] = [reed.poseAt(at, newPose()), tide.poseAt(at + 48, newPose())]
      const off = a.joints.map((joint, i) => (i % 3 === 0 ? joint + 1.4 : joint) - b.joints[i]!)
      expect(Math.max(...off.map(Math.abs))).toBeLessThan(1e-6)
    }
    expect(partIds(echo)).toEqual(['1', '2'])
  })
})
