import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { combination } from '../../../tests/write'
import { LAYERS } from '../body/layers'
import { nameOf } from '../combination/names'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { vocabulary } from '../moves/vocabulary'
import { wholePhrases } from './whole'

describe.each(['belly', 'bollywood', 'polynesian', 'latin'] as const)(
  'a phrase from nothing, %s',
  (family) => {
    const empty = combination([[]], { families: [family] })

    it('has feet and what the family is known by, comes without a fault or a snag, and is another one each time', () => {
      const ways = [1, 2, 3].flatMap((seed) =>
        wholePhrases(empty, { pass: 0, seed }, vocabulary, USUAL_HOUSE),
      )
      expect(ways.length).toBeGreaterThan(9)
      for (const { combination: made, reason } of ways) {
        const { findings } = checkCombination(made, vocabulary)
        const said = findings.filter((one) => severityOf(one) !== 'note')
        // Whether it repeats on the same side is for who builds on it.
        expect(said.filter(({ code }) => !code.startsWith('join.'))).toEqual([])
        const layers = new Set(made.phrases[0]?.events.map(({ layer }) => layer))
        expect(layers.has('feet') && layers.size > 1, reason).toBe(true)
      }
      const feet = ways.map(({ combination: made }) =>
        JSON.stringify(made.phrases[0]?.events.map(({ what }) => what)),
      )
      expect(new Set(feet).size).toBeGreaterThan(ways.length * 0.9)
      console.log(`${family}: ${ways[0]?.reason}`)
    })
  },
)

it('phrases that were read over are proposed as they were, until somebody means to change that', async () => {
  const lines = (['belly', 'bollywood', 'polynesian', 'latin'] as const).flatMap((family) =>
    wholePhrases(
      combination([[]], { families: [family] }),
      { pass: 0, seed: 2 },
      vocabulary,
      USUAL_HOUSE,
    ).map(({ combination: { phrases } }) =>
      [
        family,
        ...LAYERS.flatMap((layer) => {
          const names = (phrases[0]?.events ?? [])
            .filter((event) => event.layer === layer)
            .map((event) => nameOf(event, vocabulary))
          return names.length > 0 ? [`${layer}: ${names.join(', ')}`] : []
        }),
      ].join(' | '),
    ),
  )
  const golden = join(import.meta.dirname, '..', '..', '..', 'tests', 'golden', 'ideas.txt')
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot(golden)
})
