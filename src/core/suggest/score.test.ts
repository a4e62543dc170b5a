import { describe, expect, it } from 'vitest'
import { combination, move } from '../../../tests/write'
import { checkCombination } from '../findings/check'
import { houseOf, USUAL_HOUSE, USUAL_RULES } from '../house/house'
import { withLayerings } from '../house/layerings'
import { vocabulary } from '../moves/vocabulary'
import { fillPhrase } from './fill'
import { wholePhrases } from './whole'

const SEEDS = [1, 2, 3, 4, 5, 6, 7, 8]

describe('what she says goes together', () => {
  const over = combination([[move('grapevine', '1-4', 'R'), move('grapevine', '5-8', 'L')]], {
    families: ['belly'],
  })
  const ofHers = withLayerings(undefined, [
    { family: 'belly', on: 'feet grapevine', with: 'hips pelvic-undulation' },
  ])
  const shareWith = (layerings: typeof ofHers | undefined): number => {
    const house = houseOf({ ...USUAL_RULES, ...(layerings && { layerings }) })
    const answers = SEEDS.map((seed) =>
      fillPhrase(over, { pass: 0, layer: 'hips', seed }, vocabulary, house),
    )
    expect(answers.every((ways) => ways.length > 2)).toBe(true)
    const has = answers.filter((ways) =>
      ways.some(({ things }) => things.includes('hips pelvic-undulation')),
    )
    return has.length / answers.length
  }

  it('is among the five far more often than before', () => {
    const [before, after] = [shareWith(undefined), shareWith(ofHers)]
    expect(after).toBeGreaterThanOrEqual(0.75)
    expect(after).toBeGreaterThan(2 * before)
  })

  it('is proposed no more often in another family', () => {
    const elsewhere = {
      ...ofHers,
      added: ofHers.added.map((one) => ({ ...one, family: 'latin' })),
    }
    expect(shareWith(elsewhere)).toBe(shareWith(undefined))
  })
})

describe('what is asked for besides', () => {
  const empty = combination([[]], { families: ['latin'], level: 'advanced' })
  const made = (asked: { level?: 'new'; tempo?: number }) =>
    SEEDS.slice(0, 4).flatMap((seed) =>
      wholePhrases(empty, { pass: 0, seed, ...asked }, vocabulary, USUAL_HOUSE).map(
        (way) => way.combination,
      ),
    )
  const loadsOf = (level: 'new' | 'advanced', of: ReturnType<typeof made>) =>
    of.flatMap((one) => checkCombination({ ...one, level }, vocabulary).loads)
  const mean = (loads: ReturnType<typeof loadsOf>) =>
    loads.reduce((sum, { total }) => sum + total, 0) / loads.length

  it('a lower level gets less to do, and the combination stays at its own', () => {
    const forNew = made({ level: 'new' })
    expect(mean(loadsOf('new', forNew))).toBeLessThan(mean(loadsOf('advanced', made({}))))
    expect(new Set(forNew.map(({ level }) => level))).toEqual(new Set(['advanced']))
  })

  it('a faster tempo gets what can be danced at it', () => {
    const fast = made({ tempo: 150 })
    expect(fast.length).toBeGreaterThan(10)
    expect(new Set(fast.map(({ tempo }) => tempo))).toEqual(new Set([empty.tempo]))
    for (const one of fast) {
      const { findings } = checkCombination({ ...one, tempo: 150 }, vocabulary)
      expect(findings.filter(({ code }) => /too-fast|arms[.]far|no-time/.test(code))).toEqual([])
    }
  })
})
