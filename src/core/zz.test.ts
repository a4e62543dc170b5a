import fc from 'fast-check'
import { it } from 'vitest'
import { anyCombination } from '../../tests/arbitraries'
import { vocabulary } from './moves/vocabulary'
import { readSheet } from './sheet/readSheet'
import { writeSheet } from './sheet/writeSheet'

it('w', () => {
  let n = 0
  fc.assert(
    fc.property(anyCombination(), (c) => {
      const t = writeSheet(c, vocabulary)
      const r = readSheet(t, vocabulary)
      const un = c.phrases.reduce((s, p) => s + (p.unread?.length ?? 0), 0)
      if (r.messages.length > un && n < 4) {
        n++
        console.log(t, JSON.stringify(r.messages))
      }
    }),
    { numRuns: 2000, seed: 3 },
  )
})
