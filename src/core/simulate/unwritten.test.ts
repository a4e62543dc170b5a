import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { checkCombination } from '../findings/check'
import { vocabulary } from '../moves/vocabulary'
import { readSheet } from '../sheet/readSheet'
import { simulate } from './simulate'
import { unwrittenWays } from './unwritten'

const ways = (lines: string, tempo = 96) => {
  const sheet = `sway 1\ntempo ${tempo}\nphrase A 8\n${lines}`
  const simulation = simulate(readSheet(sheet, vocabulary).combination, vocabulary)
  const [pass] = simulation.passes
  return pass ? unwrittenWays(simulation, pass) : []
}

it('a way nobody wrote runs from what came before to what needs it, and says where it leads', () => {
  // The half circle starts from the left; the hips have been sent to the right.
  const [way, ...more] = ways('hips 1 at R\n hips 5-8 half-circle-front')
  expect(more).toEqual([])
  expect(way).toMatchObject({ layer: 'hips', from: 12, to: 48, late: false })
  expect(way?.words).toBe('on the way to hips left')
  expect(ways('hips 1 at L\n hips 5-8 half-circle-front')).toEqual([])
  // With no time in between it is late, the later the faster it goes.
  const fast = ways('hips 4 at R\n hips 5-6 half-circle-front', 132)
  expect(fast.map(({ late }) => late)).toEqual([true])
  // A held place melts into what follows.
  const held = ways('hips 1-4 at R\n hips 5-8 half-circle-front')
  expect(held.map(({ late }) => late)).toEqual([false])
})

it('what is late is found by the check, and what is found is late', () => {
  holds(
    fc.property(anyCombination({ kept: false }), (combination) => {
      const { findings, left, lead } = checkCombination(combination, vocabulary)
      // A repeat that does not begin where the one before ended has no way of its own.
      const repeated = new Set(
        combination.phrases.flatMap(({ events }) =>
          events.flatMap(({ id, what }) => (what.kind === 'move' && what.every ? [id] : [])),
        ),
      )
      const said = [...findings, ...left].filter(
        ({ code, side, events: [event = ''] }) =>
          code === 'layer.no-time' && side === 'lead' && !repeated.has(event),
      )
      const late = lead.passes.flatMap((pass) =>
        unwrittenWays(lead, pass).filter((one) => one.late),
      )
      // One cause is said once, so there may be fewer sentences than ways.
      expect(said.length).toBeLessThanOrEqual(late.length)
      if (late.length === 0) expect(said).toEqual([])
    }),
    { numRuns: 150, seed: 542 },
  )
})
