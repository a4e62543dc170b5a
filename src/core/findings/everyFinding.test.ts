import { describe, expect, it } from 'vitest'
import { CASES } from '../../../tests/findingCases'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { repairsFor } from '../repair/offers'
import { checkCombination } from './check'
import { severityOf } from './finding'
import { findingText, spotText } from './findingText'

describe.each(CASES)('$code', ({ code, said, has, not, house = USUAL_HOUSE, noRepair }) => {
  const found = (written: Combination) =>
    checkCombination(written, vocabulary, house).findings.filter((one) => one.code === code)

  it('is found where it is, with its figures in a sentence, and not in its twin', () => {
    const here = found(has)
    expect(here.map((one) => `${severityOf(one)} ${spotText(one.spot)}`)).toContain(said)
    for (const one of here) {
      expect(findingText(one)).toMatch(/^[“A-Z0-9].{20,}[.]$/)
      expect(findingText(one)).not.toMatch(/undefined|NaN|null|\[object/)
    }
    const severity = (one: (typeof here)[number]) => (code === 'join.foot' ? severityOf(one) : '')
    const twin = found(not).map((one) => `${severity(one)} ${spotText(one.spot)}`)
    expect(twin.filter((one) => code !== 'join.foot' || one.startsWith('snag'))).toEqual([])
  })

  it('is found on the other side at the same place, and not in the twin of that side', () => {
    const places = (written: Combination) =>
      found(written).map((one) => `${severityOf(one)} ${spotText(one.spot)} ${one.events.join()}`)
    expect(places(mirror(has))).toEqual(places(has))
    expect(places(mirror(not))).toEqual(places(not))
  })

  it('is gone after any repair that is offered, and nothing has become impossible', () => {
    const faults = (written: Combination) =>
      checkCombination(written, vocabulary, house).findings.filter(
        (one) => severityOf(one) === 'fault',
      ).length
    let id = 0
    const [finding] = found(has)
    if (!finding) throw new Error('it is not there')
    const repairs = repairsFor(has, finding, vocabulary, house, () => `new-${id++}`)
    if (!noRepair) expect(repairs.length).toBeGreaterThan(0)
    for (const { changed, label } of repairs) {
      const left = found(changed).filter(
        (one) =>
          one.events[0] === finding.events[0] &&
          one.spot.at === finding.spot.at &&
          (code !== 'join.foot' || severityOf(one) === 'snag'),
      )
      expect(left, label).toEqual([])
      expect(faults(changed), label).toBeLessThanOrEqual(faults(has))
    }
  })
})

it('every finding has its case here', () => {
  const cases = new Set(CASES.map(({ code }) => code))
  expect(cases.size).toBe(CASES.length)
  expect(CASES.length).toBe(84)
})
