import { describe, expect, it } from 'vitest'
import { IN_WORDS, ORDINARY, PIECES, SLIPS, WITH_PROPS } from '../../../tests/ordinary'
import type { Combination } from '../combination/combination'
import { mirror } from '../combination/mirror'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { checkCombination } from './check'
import { severityOf } from './finding'
import { placeText } from './findingText'

/** What is said of how a round goes on: true of most, and asked of none. */
const GOES_ON = /^note join[.](foot|place|facing) /

const said = (sheet: string) => {
  const { combination, messages } = readSheet(sheet, vocabulary)
  expect(messages).toEqual([])
  const of = (one: Combination) =>
    checkCombination(one, vocabulary).findings.map(
      (finding) => `${severityOf(finding)} ${finding.code} ${placeText(finding.spot)}`,
    )
  const here = of(combination)
  expect(of(mirror(combination))).toEqual(here)
  return here
}

const titleOf = (sheet: string): string => /^title +(.*)$/m.exec(sheet)?.[1] ?? ''

/** What is deserved in combinations as they are taught, and why. */
const DESERVED: Readonly<Record<string, readonly string[]>> = {
  // The ribs end to the left and the round begins with them in the middle: only round one does.
  'Snakes over circles': ['note join.ribs B8'],
  // Who leans on somebody is told to be warm and to agree on a word, once a piece.
  'Lean and rise': ['care pair.support A3'],
}

const ALL = [...ORDINARY, ...IN_WORDS, ...PIECES, ...WITH_PROPS]

describe('an ordinary combination', () => {
  it('is one of a hundred and ten', () => expect(new Set(ALL.map(titleOf)).size).toBe(110))

  it.each(ALL.map((sheet) => ({ title: titleOf(sheet), sheet })))(
    '$title raises nothing an instructor would frown at',
    ({ title, sheet }) => {
      const left = said(sheet).filter((one) => !GOES_ON.test(one))
      expect(left).toEqual(DESERVED[title] ?? [])
    },
  )

  it.each(SLIPS.map(({ sheet, slip }) => ({ title: titleOf(sheet), sheet, slip })))(
    '$title: just that slip',
    ({ sheet, slip }) => {
      expect(slip).not.toBe('')
      expect(said(sheet).filter((one) => one === slip || !GOES_ON.test(one))).toEqual([slip])
    },
  )
})
