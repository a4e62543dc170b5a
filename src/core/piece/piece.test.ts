import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyPiece } from '../../../tests/anyPiece'
import { holds } from '../../../tests/holds'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { partIds, partOf } from '../combination/partOf'
import { checkCombination } from '../findings/check'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { danced } from '../simulate/danced'
import { beforeStep } from '../simulate/simulate'
import { nearestIn } from './near'
import { dancedPiece } from './piece'
import { placeAt, type Way } from './way'

const pieceOf = (one: Combination) => dancedPiece(one, vocabulary, USUAL_HOUSE)
const read = (text: string) => readSheet(text, vocabulary).combination

const SWAP = `sway 2
tempo 92
part @1 "Amber" at L 0.5
part @2 "Blue" at R 0.5
phrase A 8
  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together
  feet @1 5 step R diag-forward; 6 step L cross-front; 7 step R side; 8 step L back
  feet @2 5 step R cross-behind; 6 step L side; 7 step R cross-behind; 8 step L side
  between 1-4 hold @1.R @2.L fingers low; 5-8 place @1 right @2 0.9`

describe('a piece in its room', () => {
  it('draws the steps of a place: no foot slides, and she is there', () => {
    let drawn = 0
    holds(
      fc.property(anyPiece(), (piece) => {
        const { placed, meetings } = pieceOf(piece).lead
        for (const { part, simulation } of placed) {
          const alone = danced(partOf(piece, part.id), vocabulary, USUAL_HOUSE).lead
          const hasPlace = meetings.some(
            ({ meeting: { what } }) =>
              (what.kind === 'place' || what.kind === 'orbit') && what.of === part.id,
          )
          if (!hasPlace)
            expect(simulation.danced.map(({ after }) => after)).toEqual(
              alone.danced.map(({ after }) => after),
            )
          if (
            simulation.danced.some(
              ({ after }, i) => after.feet.R.place !== alone.danced[i]?.after.feet.R.place,
            )
          )
            drawn++
          // The weight, and what is wrong with it, is what it was.
          expect(
            simulation.danced.map(({ fault, after }) => [fault, after.weight, after.facing]),
          ).toEqual(alone.danced.map(({ fault, after }) => [fault, after.weight, after.facing]))
          for (const [s, slice] of simulation.slices.entries())
            for (const [i, step] of slice.danced.entries()) {
              const [before, was] = [beforeStep(slice, i), beforeStep(alone.slices[s]!, i)]
              const alonestep = alone.slices[s]!.danced[i]!
              for (const side of ['R', 'L'] as const) {
                const stood = was.feet[side].place
                const stands = alonestep.after.feet[side].place
                const stayed =
                  Math.hypot(stood.right - stands.right, stood.forward - stands.forward) < 1e-9
                if (!stayed || step.action.foot === side) continue
                const [from, to] = [before.feet[side].place, step.after.feet[side].place]
                expect(Math.hypot(to.right - from.right, to.forward - from.forward)).toBeLessThan(
                  1e-6,
                )
              }
            }
        }
      }),
      { numRuns: 300, seed: 720 },
    )
    expect(drawn).toBeGreaterThan(0)
    const { lead } = pieceOf(read(SWAP))
    const [amber, blue] = lead.placed
    const [a, b] = [amber!.way, blue!.way].map((way) => placeAt(way, 95))
    expect(a!.right - b!.right).toBeCloseTo(0.9, 2)
    expect(a!.forward - b!.forward).toBeCloseTo(0, 2)
    expect(nearestIn(amber!.way, blue!.way, { from: 48, to: 96 }, USUAL_HOUSE).apart).toBeCloseTo(
      0.57,
      2,
    )
  })

  it('goes round another one where it is to, by the circle its steps are drawn onto', () => {
    const { lead } = pieceOf(
      read(`sway 2
tempo 92
part @1 "Amber" at F 1 start facing 180
part @2 "Blue" at R 0
phrase A 8
  feet @1 1 step R side turn -22.5; 2 close L; 3 step R side turn -22.5; 4 close L; 5 step R side turn -22.5; 6 close L; 7 step R side turn -22.5; 8 close L
  between 1-8 orbit @1 round @2 ccw 90 1`),
    )
    const amber = lead.placed[0]!
    const far = amber.way.slice(1).map(({ right, forward }) => Math.hypot(right, forward))
    for (const metres of far) expect(Math.abs(metres - 1)).toBeLessThan(0.12)
    const end = amber.way.at(-1)!
    expect(end.right).toBeCloseTo(-1, 1)
    expect(end.forward).toBeCloseTo(0, 1)
  })

  it('finds the nearest moment of two ways, and none is nearer', () => {
    const way = fc
      .array(
        fc.tuple(
          fc.integer({ min: 1, max: 20 }),
          fc.integer({ min: -20, max: 20 }),
          fc.integer({ min: -20, max: 20 }),
          fc.integer({ min: -4, max: 4 }),
        ),
        { minLength: 2, maxLength: 8 },
      )
      .map((points): Way => {
        let at = 0
        return points.map(([after, right, forward, quarter], i) => {
          at += i === 0 ? 0 : after
          return { at, right: right / 10, forward: forward / 10, facing: quarter * 90 }
        })
      })
    holds(
      fc.property(way, way, (a, b) => {
        const to = Math.max(a.at(-1)!.at, b.at(-1)!.at, 1)
        const found = nearestIn(a, b, { from: 0, to }, USUAL_HOUSE)
        const apart = (at: number) => {
          const [p, q] = [placeAt(a, at), placeAt(b, at)]
          return Math.hypot(p.right - q.right, p.forward - q.forward)
        }
        expect(found.apart).toBeCloseTo(apart(found.at), 6)
        // Bodies of any facing touch between twice their depth and twice their breadth.
        expect(found.touch).toBeGreaterThanOrEqual(0.38 - 1e-9)
        expect(found.touch).toBeLessThanOrEqual(0.5 + 1e-9)
        for (let at = 0; at <= to; at += 0.5)
          expect(found.apart / 0.5).toBeLessThanOrEqual(apart(at) / 0.38 + 1e-6)
      }),
      { numRuns: 400, seed: 721 },
    )
  })
})

describe('what is found of a piece', () => {
  it('is found mirrored on the mirrored piece', () => {
    const said = (one: Combination) =>
      checkCombination(one, vocabulary)
        .findings.map(
          ({ code, spot, whose, side }) =>
            `${code} ${side} ${spot.phrase} ${spot.at} ${[...whose].sort()}`,
        )
        .sort()
    holds(
      fc.property(anyPiece({ kept: false }), (piece) => {
        if (piece.keepTurns) return
        expect(said(mirror(piece))).toEqual(said(piece))
      }),
      { numRuns: 150, seed: 722 },
    )
  })

  it('is for each part what is found of her alone, but for what partners take and the room is theirs together', () => {
    holds(
      fc.property(anyPiece(), (piece) => {
        const isPlain = piece.phrases.every(({ between }) => !between)
        if (!isPlain) return
        const all = checkCombination(piece, vocabulary).findings
        for (const id of partIds(piece)) {
          const alone = checkCombination(partOf(piece, id), vocabulary).findings.filter(
            ({ code }) => code !== 'space.room',
          )
          // What is the same of two things of hers is one.
          const keys = alone.map(
            ({ code, spot, side, events }) =>
              `${code} ${side} ${spot.pass} ${spot.at} ${spot.layer} ${events.join()}`,
          )
          if (new Set(keys).size < keys.length) continue
          expect(
            all.filter(
              ({ whose, code }) =>
                whose.includes(id) && !code.startsWith('pair.') && code !== 'space.room',
            ).length,
          ).toBe(alone.length)
        }
      }),
      { numRuns: 100, seed: 723 },
    )
  })

  it('of ordinary unison is nothing between them', () => {
    const unison = read(`sway 2
tempo 96
part @1 "Amber" at L 0.6
part @2 "Blue" at R 0.6
phrase A 8
  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R forward; 6 step L forward; 7 step R back; 8 touch L together
  hips 1-4 hip-drop R every 1 alt
  arms 1-4 both second; 5-8 both low`)
    expect(
      checkCombination(unison, vocabulary).findings.filter(({ code }) => code.startsWith('pair.')),
    ).toEqual([])
  })
})
