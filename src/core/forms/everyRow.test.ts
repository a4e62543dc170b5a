import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { ORDINARY, SLIPS } from '../../../tests/ordinary'
import { combination, move } from '../../../tests/write'
import { type Combination, DancerLevel } from '../combination/combination'
import { whatOf } from '../combination/whatOf'
import { checkCombination } from '../findings/check'
import { type Finding, severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { repairsFor } from '../repair/offers'
import { readSheet } from '../sheet/readSheet'
import { levelForm } from './levels'

/** What is danced to: slow and quick of what a family usually has. */
const TEMPI: Readonly<Record<string, readonly [number, number]>> = {
  belly: [76, 116],
  bollywood: [100, 132],
  polynesian: [72, 108],
  latin: [96, 128],
  general: [88, 120],
}

const rows: readonly (readonly [string, Combination])[] = vocabulary.moves.flatMap((row) =>
  (TEMPI[row.families[0] ?? 'general'] ?? [96]).map((tempo) => {
    const alone = { ...move(row.id, '1'), what: whatOf(row) }
    return [`${row.id} at ${tempo}`, combination([[alone]], { tempo, level: 'advanced' })] as const
  }),
)
const sheets: readonly (readonly [string, Combination])[] = [
  ...ORDINARY,
  ...SLIPS.map(({ sheet }) => sheet),
].map((sheet) => {
  const read = readSheet(sheet, vocabulary).combination
  return [read.title, read] as const
})
const all = [...rows, ...sheets, ...demo.map((one) => [one.title, one] as const)]

const findings = (one: Combination): readonly Finding[] =>
  checkCombination(one, vocabulary).findings
const bad = (list: readonly Finding[]) =>
  list.filter((one) => ['fault', 'snag'].includes(severityOf(one))).length

describe('whatever is danced', () => {
  it('is one of all rows and of ordinary combinations', () =>
    expect(all.length).toBeGreaterThan(400 + 80))

  it.each(DancerLevel.options)('has a version for %s that no word is said of more', (level) => {
    for (const [name, one] of all) {
      const form = levelForm(one, level, vocabulary, USUAL_HOUSE)
      const before = new Set(findings({ ...one, level }).map(({ code }) => code))
      const after = findings(form.combination)
      expect(
        after.filter(({ code }) => !before.has(code)).map(({ code }) => code),
        name,
      ).toEqual([])
      expect(form.load.after, name).toBeLessThanOrEqual(Math.max(form.load.before, form.load.limit))
    }
  })

  it('has repairs after which less is wrong', () => {
    let offered = 0
    for (const [name, one] of [
      ...all,
      ...rows.map(([n, c]) => [n, { ...c, level: 'new' }] as const),
    ]) {
      const before = findings(one)
      for (const finding of before.filter((found) => severityOf(found) !== 'note')) {
        let id = 0
        for (const { changed, label } of repairsFor(
          one,
          finding,
          vocabulary,
          USUAL_HOUSE,
          () => `n${id++}`,
        )) {
          offered++
          expect(bad(findings(changed)), `${name}: ${label}`).toBeLessThanOrEqual(bad(before))
        }
      }
    }
    expect(offered).toBeGreaterThan(20)
  })
})
