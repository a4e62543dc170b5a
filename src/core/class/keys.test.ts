import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds } from '../../../tests/holds'
import { materials, newPlan, wishesOf } from '../../../tests/teaching'
import { isCounted } from '../plan/drill'
import { type ClassKey, stepsFor } from './keys'
import { afterAction, beginClass, drillOf, restOf, type UnderWay } from './underWay'

const plan = newPlan('plan', 'Tuesday', wishesOf('Quick Ember'), materials)
const begun = beginClass(plan, { id: 'class', title: 'Tuesday', danced: [] })
const dancedAt = plan.drills.findIndex(({ kind }) => kind === 'all')

/** A class and its music, as the floor has them. */
interface Room {
  readonly session: UnderWay
  readonly isSounding: boolean
}

function press({ session, isSounding }: Room, key: ClassKey): Room {
  let now = session
  let sounds = isSounding
  for (const step of stepsFor(session, key)) {
    if (step.kind === 'halt') sounds = false
    else if (step.kind === 'play') {
      now = afterAction(now, { kind: 'start', now: 1 }, materials)
      // What is said or walked has no sound.
      sounds = isCounted(drillOf(now) ?? begun.drills[0]!)
    } else if (step.kind !== 'retune') now = afterAction(now, step, materials)
  }
  return { session: now, isSounding: sounds }
}

/** The music plays the drill to its end. */
function listen({ session }: Room): Room {
  let now = session
  for (let rest = restOf(now); rest; rest = restOf(now))
    for (const side of rest.sides)
      for (let i = 0; i < rest.repeats; i++)
        now = afterAction(now, { kind: 'round', side }, materials)
  return { session: afterAction(now, { kind: 'finished' }, materials), isSounding: false }
}

const KEYS = [
  'go',
  'next',
  'again',
  'slower',
  'faster',
  'other-side',
  'clean',
  'not-yet',
  'skip',
  'back',
  'water',
  'to-runs',
] as const

describe('the keys of a class', () => {
  it('have the music sound just while the class dances, whatever is pressed when', () => {
    holds(
      fc.property(
        fc.array(fc.constantFrom(...KEYS, 'listen' as const), { maxLength: 40 }),
        (keys) => {
          let room: Room = { session: begun, isSounding: false }
          for (const key of keys) {
            if (key === 'listen') {
              if (room.isSounding) room = listen(room)
            } else room = press(room, key)
            const drill = drillOf(room.session)
            expect(room.isSounding).toBe(
              room.session.phase === 'dancing' && drill !== undefined && isCounted(drill),
            )
            expect(room.session.phase === 'over').toBe(drillOf(room.session) === undefined)
          }
        },
      ),
      { numRuns: 300, seed: 97 },
    )
  })

  it('get through a whole class by the one key that goes on', () => {
    let room: Room = { session: begun, isSounding: false }
    for (let i = 0; i < 12 * plan.drills.length && room.session.phase !== 'over'; i++)
      room = room.isSounding ? listen(room) : press(room, 'next')
    expect(room.session.phase).toBe('over')
    const counted = plan.drills.filter((drill) => isCounted(drill) && drill.kind !== 'show')
    const asked = counted.filter(({ moves }) => !moves)
    const { danced } = room.session
    expect(danced).toHaveLength(counted.length)
    expect(danced.filter(({ verdict }) => verdict === 'clean')).toHaveLength(asked.length)
  })

  it('say clean and not yet only when that is asked', () => {
    for (const phase of ['ready', 'dancing', 'paused', 'over'] as const)
      for (const key of ['clean', 'not-yet'] as const)
        expect(stepsFor({ ...begun, phase, index: dancedAt }, key)).toEqual([])
    expect(stepsFor({ ...begun, phase: 'asking', index: dancedAt }, 'again')).toEqual([
      { kind: 'verdict', verdict: 'not-yet' },
    ])
    expect(stepsFor({ ...begun, phase: 'over', index: 3 }, 'back')).toEqual([
      { kind: 'go', index: 2 },
    ])
    expect(stepsFor({ ...begun, phase: 'over', index: 3 }, 'next')).toEqual([])
  })
})
