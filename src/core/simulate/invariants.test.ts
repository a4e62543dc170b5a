import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyCombination } from '../../../tests/arbitraries'
import { holds } from '../../../tests/holds'
import { factsOf } from '../body/feet'
import { otherSide, SIDES } from '../body/side'
import type { Combination } from '../combination/combination'
import { loopIndex } from '../combination/loop'
import { mirror } from '../combination/mirror'
import { passesOf } from '../combination/passes'
import { checkCombination } from '../findings/check'
import { severityOf } from '../findings/finding'
import { keysIn } from '../findings/once'
import { footJoins } from '../joins/joins'
import { vocabulary } from '../moves/vocabulary'
import { canonical } from '../sheet/canonical'
import { USUAL_LANDING } from './landing'
import { dance, settledFor } from './primitives'
import { planOf, simulate, stateAt, stateBefore } from './simulate'

/** Both the state before each thing the feet do, and the one after. */
const steps = (combination: Combination) => {
  const { slices } = simulate(combination, vocabulary)
  return slices.flatMap(({ entry, danced }) =>
    danced.map((one, i) => {
      const before = danced[i - 1]?.after ?? entry
      return { ...one, before: settledFor(before, one.action, one.settles) }
    }),
  )
}

describe('whatever the feet are asked for', () => {
  it('the weight is where the last step put it, and only what takes weight moves it', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        for (const { action, before, after, fault } of steps(combination)) {
          const { primitive, foot } = action
          const facts = factsOf(primitive)
          if (action.shared) expect(after.weight).toBe('both')
          else if (['step', 'close', 'leap', 'hop', 'sway', 'recover'].includes(primitive))
            expect(after.weight).toBe(foot)
          else if (['centre', 'jump', 'free'].includes(primitive)) expect(after.weight).toBe('both')
          else if (facts.needs === 'free-touch') {
            expect(after.weight).toBe(otherSide[foot!])
            if (!fault && before.weight !== 'both') expect(after.weight).toBe(before.weight)
          } else expect(after.weight).toBe(before.weight)
        }
      }),
      { numRuns: 400, seed: 121 },
    )
  })

  it('the facing is the sum of the turns, and nothing else turns', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const { danced, end } = simulate(combination, vocabulary)
        const turned = danced.reduce((sum, { action }) => sum + (action.turn ?? 0), 0)
        expect(end.facing).toBe(combination.start.facing + turned)
      }),
      { numRuns: 300, seed: 122 },
    )
  })

  it('the standing foot never leaves its place, except by a jump, a hop or a saved slip', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        for (const { action, before, after, fault } of steps(combination)) {
          if (fault || before.weight === 'both' || action.primitive === 'jump') continue
          if (action.primitive === 'hop' && action.direction) continue
          // A sway takes the weight first, and then it may turn on the new foot.
          const turnsOnOther = after.weight !== before.weight && (action.turn ?? 0) !== 0
          if (turnsOnOther) continue
          expect(after.feet[before.weight].place).toEqual(before.feet[before.weight].place)
        }
      }),
      { numRuns: 300, seed: 123 },
    )
  })

  it('a foot that carries is never in the air, and what lands is no further than a large step', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        for (const { action, before, after } of steps(combination)) {
          if (after.weight === 'both')
            for (const side of SIDES) expect(after.feet[side].contact).not.toBe('air')
          else expect(after.feet[after.weight].contact).not.toBe('air')
          const { foot, direction } = action
          if (
            !foot ||
            !factsOf(action.primitive).lands ||
            direction === 'in-place' ||
            action.primitive === 'hop'
          )
            continue
          const from = before.feet[otherSide[foot]].place
          const to = after.feet[foot].place
          const far = Math.hypot(to.right - from.right, to.forward - from.forward)
          // Out of a cross a foot comes back to its old line, which may be further off.
          if (!before.crossed) expect(far).toBeLessThan(USUAL_LANDING.side * 1.5 + 0.25)
        }
      }),
      { numRuns: 300, seed: 124 },
    )
  })

  it('the state at a tick is the same however it is asked for', () => {
    holds(
      fc.property(anyCombination(), fc.integer({ min: -30, max: 400 }), (combination, at) => {
        const simulation = simulate(combination, vocabulary)
        const last = simulation.danced.findLast((danced) => danced.at <= at)
        const before = simulation.danced.findLast((danced) => danced.at < at)
        // A pass that is over leaves what it ends with.
        const over = simulation.slices.findLast(({ pass }) => pass.at + pass.length <= at)
        const expected = (step: typeof last) =>
          over && (step?.pass.index ?? -1) <= over.pass.index
            ? over.exit
            : (step?.after ?? simulation.start)
        expect(stateAt(simulation, at)).toBe(expected(last))
        expect(stateBefore(simulation, at)).toBe(expected(before))
      }),
      { numRuns: 300, seed: 125 },
    )
  })

  it('things happen in order, each until the next, and all of it inside the dance', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const { danced, length } = simulate(combination, vocabulary)
        const pickup = (combination.pickup?.counts ?? 0) * 12
        for (const [i, { at, length: long }] of danced.entries()) {
          expect(at).toBeGreaterThanOrEqual(danced[i - 1]?.at ?? 0 - pickup)
          expect(long).toBeGreaterThanOrEqual(0)
          expect(at).toBeLessThan(length)
        }
      }),
      { numRuns: 200, seed: 126 },
    )
  })

  it('the order its events are stored in does not matter', () => {
    holds(
      fc.property(anyCombination({ kept: true }), (combination) => {
        const plain = canonical(combination)
        const turned = {
          ...plain,
          phrases: plain.phrases.map((phrase) => ({
            ...phrase,
            events: [...phrase.events].reverse(),
          })),
        }
        // Two things on one tick clash; which of them is danced first is anybody's guess.
        const ticks = simulate(plain, vocabulary).danced.map(({ at }) => at)
        if (new Set(ticks).size === ticks.length)
          expect(simulate(turned, vocabulary).end).toEqual(simulate(plain, vocabulary).end)
      }),
      { numRuns: 200, seed: 127 },
    )
  })
})

describe('what is said about the end', () => {
  it('is what happens when the same side, or the other one, is danced on from there', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const { pickup: _, ...plain } = combination
        const bare = {
          ...plain,
          phrases: plain.phrases.map((phrase) => ({
            ...phrase,
            events: phrase.events.filter(({ at }) => at >= 0),
          })),
        }
        const simulation = simulate(bare, vocabulary)
        const { repeats, switches } = footJoins(simulation, vocabulary)
        const firstFault = (next: Combination) => {
          const plan = planOf(passesOf(next, vocabulary), vocabulary)
          let state = simulation.end
          let faults = 0
          for (const { at, action } of plan.filter((one) => one.at === plan[0]?.at)) {
            const outcome = dance(state, action, at)
            if (outcome.fault) faults++
            state = outcome.state
          }
          return plan.length === 0 ? undefined : faults > 0
        }
        // What stands before the loop is danced once.
        const loop = { ...bare, order: bare.order.slice(loopIndex(bare)) }
        const again = firstFault(loop)
        const other = firstFault(mirror(loop))
        if (again !== undefined) expect(repeats).toBe(!again)
        if (other !== undefined) expect(switches).toBe(!other)
      }),
      { numRuns: 400, seed: 128 },
    )
  })

  it('and all that is found is the mirror of what is found on the other side, when nothing is kept', () => {
    holds(
      fc.property(anyCombination({ kept: false }), (combination) => {
        const found = (c: Combination) =>
          checkCombination(c, vocabulary)
            .findings.map((one) =>
              [
                one.code,
                severityOf(one),
                one.side,
                one.spot.pass,
                one.spot.at,
                [...one.events].sort().join(),
              ].join(' '),
            )
            .sort()
        expect(found(mirror(combination))).toEqual(found(combination))
      }),
      { numRuns: 250, seed: 129 },
    )
  })

  it('with something kept is found on the lead side from either side', () => {
    holds(
      fc.property(anyCombination(), (combination) => {
        const faults = (c: Combination, side: 'lead' | 'other') =>
          checkCombination(c, vocabulary)
            .findings.filter(
              (one) =>
                one.code.startsWith('feet.') && (side === 'lead' ? one.side === 'lead' : true),
            )
            .flatMap(keysIn)
        // What stands on the other side's lead is among what is said of this one's two sides.
        const both = new Set(faults(combination, 'other'))
        for (const fault of faults(mirror(combination), 'lead')) expect(both).toContain(fault)
      }),
      { numRuns: 250, seed: 130 },
    )
  })
})
