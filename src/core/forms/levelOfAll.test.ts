import { describe, expect, it } from 'vitest'
import { PIECES } from '../../../tests/ordinary'
import { Combination } from '../combination/combination'
import { partIds, partOf } from '../combination/partOf'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { hardestLoad } from '../load/load'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { levelFormOfAll } from './levelOfAll'
import { levelForm } from './levels'

const read = (text: string) => readSheet(text, vocabulary).combination
const HARD = `sway 2
tempo 112
level advanced
part @1 "Amber" at L 0.6
part @2 "Blue" at R 0.6
phrase A 8
  feet 1 step R side; 2 touch L together; 3 step L side; 4 touch R together; 5 step R side; 6 touch L together; 7 step L side; 8 touch R together
  hips @1 1-4 hip-circle-large easier hip-circle-small
  hips 5-8 hip-circle-large easier hip-circle-small @2
  torso ~2 chest-lift; 3-4 rib-circle cw`

describe('the version of a piece for a level', () => {
  it('is each part’s, and what all dance is eased once for all of them', () => {
    const form = levelFormOfAll(read(HARD), 'new', vocabulary, USUAL_HOUSE)
    expect(Combination.safeParse(form.combination).error).toBeUndefined()
    expect(form.combination.level).toBe('new')
    const shared = form.swaps.filter(({ whose }) => whose === undefined)
    expect(shared.some(({ kind }) => kind === 'dropped')).toBe(true)
    // Said once of both.
    expect(new Set(shared.map(({ events }) => events[0])).size).toBe(shared.length)
    expect(new Set(form.swaps.map(({ whose }) => whose))).toContain('Blue')
    for (const id of partIds(form.combination)) {
      const hers = checkCombination(partOf(form.combination, id), vocabulary)
      expect(hardestLoad(hers.loads)).toBeLessThanOrEqual(form.load.after + 1e-9)
    }
  })

  it('brings no fault to any ordinary piece, and of one dancer it is hers', () => {
    for (const one of PIECES.map(read)) {
      const faults = (combination: Combination) =>
        checkCombination(combination, vocabulary).findings.filter(
          (finding) => severityOf(finding) === 'fault',
        ).length
      const { combination } = levelFormOfAll(one, 'new', vocabulary, USUAL_HOUSE)
      expect(Combination.safeParse(combination).error).toBeUndefined()
      expect(faults(combination)).toBe(faults(one))
    }
    const alone = partOf(read(HARD), '1')
    expect(levelFormOfAll(alone, 'new', vocabulary, USUAL_HOUSE)).toEqual(
      levelForm(alone, 'new', vocabulary, USUAL_HOUSE),
    )
  })
})
