import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/demo'
import { combination } from '../../../tests/write'
import { LAYERS } from '../body/layers'
import { dancedIn } from '../combination/lengths'
import { nameOf } from '../combination/names'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { USUAL_HOUSE } from '../house/house'
import { keyOf, thingsIn } from '../load/things'
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

it.each([0, 1] as const)('for a group, with %i new things in each', (news) => {
  const danced = demo.filter(({ parts }) => !parts).slice(0, 4)
  const known = danced.flatMap((one) =>
    one.phrases.flatMap((phrase) =>
      thingsIn(dancedIn(phrase, vocabulary), vocabulary).map(({ key }) => key),
    ),
  )
  const more = ['feet step-touch', 'feet chasse', 'feet grapevine', 'hips hip-bump', 'arms clap']
  const group = { known: [...known, ...more], news }
  const empty = combination([[]], { families: ['belly'] })
  const ways = [1, 2, 3, 4].flatMap((seed) =>
    wholePhrases(empty, { pass: 0, seed, group }, vocabulary, USUAL_HOUSE),
  )
  expect(ways.length).toBeGreaterThan(3)
  const layers = new Set<string>()
  for (const { combination: made } of ways) {
    const keys = (made.phrases[0]?.events ?? []).map((event) => keyOf(event, vocabulary))
    const fresh = new Set(keys.filter((key) => !group.known.includes(key)))
    expect(fresh.size).toBe(news)
    for (const key of fresh) layers.add(key.split(' ')[0] ?? '')
  }
  // Not always of the same layer.
  expect(layers.size).toBeGreaterThanOrEqual(2 * news)
})

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
