import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { empty } from '../../../tests/routines'
import { UserError } from '../errors'
import { type Routine, readRoutine } from './routine'
import { followedBy, runThrough } from './runThrough'

describe('what is danced after a routine', () => {
  it('makes one run through that ends, whatever was chosen in which order', () => {
    const steps = fc.array(fc.tuple(fc.nat(4), fc.option(fc.nat(5)), fc.nat(20)), { maxLength: 20 })
    holds(
      fc.property(steps, (all) => {
        const routines = new Map<string, Routine>(
          Array.from({ length: 5 }, (_, i) => [`r${i}`, { ...empty, id: `r${i}` }]),
        )
        const find = (id: string) => routines.get(id)
        for (const [which, after, pause] of all) {
          const routine = routines.get(`r${which}`) as Routine
          // The sixth is gone.
          const next = after === null ? undefined : { routine: `r${after}`, pause }
          try {
            const made = followedBy(routine, next, find)
            expect(readRoutine(JSON.parse(JSON.stringify(made)))).toEqual(made)
            expect(made.next).toEqual(next)
            routines.set(made.id, made)
          } catch (error) {
            expect(error).toBeInstanceOf(UserError)
            // It would have come back here.
            const led = runThrough(find(`r${after}`) as Routine, find)
            expect(led.map((one) => one.routine.id)).toContain(`r${which}`)
          }
          for (const one of routines.values()) {
            const run = runThrough(one, find)
            expect(run[0]).toEqual({ routine: one, pause: 0 })
            for (const [i, after] of run.slice(1).entries())
              expect(run[i]?.routine.next).toEqual({
                routine: after.routine.id,
                pause: after.pause,
              })
            const last = run.at(-1)?.routine.next
            expect(last === undefined || last.routine === 'r5').toBe(true)
          }
        }
      }),
      { numRuns: 200 },
    )
  })

  it('ends where two windows have led it back', () => {
    const one = { ...empty, id: 'a', next: { routine: 'b', pause: 1 } }
    const other = { ...empty, id: 'b', next: { routine: 'a', pause: 1 } }
    const find = (id: string) => [one, other].find((each) => each.id === id)
    expect(runThrough(one, find).map(({ routine }) => routine.id)).toEqual(['a', 'b'])
  })
})
