import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { empty, songOf } from '../../../tests/routines'
import { evenMs } from '../../../tests/songs'
import { otherSide } from '../body/side'
import type { Combination } from '../combination/combination'
import { canPace } from '../combination/paced'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { danced } from '../simulate/danced'
import { cueSheet } from './cueSheet'
import { dancedTo } from './danced'
import {
  laidOn,
  lengthened,
  lockToggled,
  moved,
  onlyLocked,
  pacedTo,
  removed,
  turned,
} from './edits'
import { laidOut } from './laid'
import { countsFrom } from './room'
import type { Routine } from './routine'

describe('a piece', () => {
  it('is danced at twice or half its pace on just those counts, and as it was again', () => {
    let paced = 0
    for (const combination of demo)
      for (const pace of [2, 0.5] as const) {
        const counts = countsFrom(combination)
        const song = songOf(evenMs(counts * 2 + 8, 60), [0])
        const laid = laidOn(empty, song, combination, { at: 0, side: combination.lead, id: 'p' })
        const landings = (routine: Routine) => {
          const whole = laidOut(routine, song, () => combination)
          const { danced: all } = dancedTo(whole, song, vocabulary, USUAL_HOUSE).lead
          return all.map(({ at }) => Number(at)).filter((at) => at >= 0)
        }
        if (!canPace(combination, pace)) {
          expect(() => pacedTo(laid, song, combination, 'p', pace)).toThrow(/nobody could count/)
          continue
        }
        paced++
        const other = pacedTo(laid, song, combination, 'p', pace)
        expect(other.pieces[0]?.counts).toBe(counts / pace)
        expect(landings(other)).toEqual(landings(laid).map((at) => at / pace))
        expect(pacedTo(other, song, combination, 'p', 1)).toEqual(laid)
        const [row] = cueSheet(
          other,
          song,
          laidOut(other, song, () => combination),
          dancedTo(
            laidOut(other, song, () => combination),
            song,
            vocabulary,
            USUAL_HOUSE,
          ),
        )
        expect(row?.pace).toBe(pace === 2 ? 'double' : 'half')
      }
    expect(paced).toBeGreaterThan(3)
  })

  it('that is locked stays as it is, and alone when all is proposed anew', () => {
    const [one, other] = demo as readonly [Combination, Combination]
    const song = songOf(evenMs(80, 90), [0])
    const two = [one, other].reduce(
      (now, each, i) => laidOn(now, song, each, { at: 40 * i, side: 'R', id: `p${i}` }),
      empty,
    )
    const kept = lockToggled(two, 'p0')
    for (const edit of [
      () => moved(kept, song, 'p0', 1),
      () => lengthened(kept, song, 'p0', -1),
      () => turned(kept, 'p0'),
      () => removed(kept, 'p0'),
      () => pacedTo(kept, song, one, 'p0', 2),
    ])
      expect(edit).toThrow(/locked/)
    expect(onlyLocked(kept).pieces.map(({ id }) => id)).toEqual(['p0'])
    expect(lockToggled(kept, 'p0')).toEqual(two)
  })
})

describe('a combination that keeps its turns', () => {
  it('turns the same way from its other side on a song as by itself', () => {
    let turned = 0
    for (const written of demo) {
      const combination = { ...written, keepTurns: true as const }
      const counts = countsFrom(combination)
      const song = songOf(evenMs(counts + 2, combination.tempo), [0])
      const side = otherSide[combination.lead]
      const routine = laidOn(empty, song, combination, { at: 0, side, id: 'p' })
      const { lead } = dancedTo(
        laidOut(routine, song, () => combination),
        song,
        vocabulary,
        USUAL_HOUSE,
      )
      const { other } = danced(combination, vocabulary, USUAL_HOUSE)
      const facings = (all: typeof other) =>
        all.slices.slice(0, combination.order.length).map(({ exit }) => exit.facing)
      expect(facings(lead), combination.title).toEqual(facings(other))
      if (new Set(facings(other)).size > 1) turned++
    }
    expect(turned).toBeGreaterThan(0)
  })
})
