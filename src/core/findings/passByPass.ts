import { dequal } from 'dequal'
import { remembered } from '../record/remembered'
import { type CourseSlice, courseSlices } from '../simulate/course'
import type { Slice } from '../simulate/simulate'
import type { Danceable } from './rule'

/** One pass as a rule of the feet looks at it, and for whom. */
export interface FeetLooked extends Pick<Danceable, 'house' | 'level' | 'vocabulary'> {
  readonly slice: Slice
}

/** The same with what the layers above the feet do. */
export interface Looked extends FeetLooked {
  readonly course: CourseSlice
}

interface Result<Carry, T> {
  readonly found: readonly T[]
  /** What the next pass must know of this one. */
  readonly carry: Carry
}

/** A look at all passes in turn, and what is carried out of the last one. */
type Look<Carry, T> = (danceable: Danceable) => Result<Carry, T>

/**
 * Goes through a dance pass by pass. What was found in one holds for as long as it is danced the
 * same, from the same that is carried into it: an edit is looked at where it was made, and as far
 * as what it leads to differs.
 */
export const passByPass = <Carry, T>(
  start: Carry,
  look: (looked: Looked, carry: Carry) => Result<Carry, T>,
  isSame: (a: Carry, b: Carry) => boolean = dequal,
): Look<Carry, T> =>
  lookingOver(
    ({ simulation, house, level, vocabulary }) => {
      const courses = courseSlices(simulation)
      return simulation.slices.flatMap((slice, i): readonly Looked[] => {
        const course = courses[i]
        return course ? [{ slice, course, house, level, vocabulary }] : []
      })
    },
    (a, b) => a.course === b.course,
    start,
    look,
    isSame,
  )

/** The same for what only hangs on the feet: nobody follows the other layers for it. */
export const feetByPass = <Carry, T>(
  start: Carry,
  look: (looked: FeetLooked, carry: Carry) => Result<Carry, T>,
  isSame: (a: Carry, b: Carry) => boolean = dequal,
): Look<Carry, T> =>
  lookingOver(
    ({ simulation, house, level, vocabulary }) =>
      simulation.slices.map((slice): FeetLooked => ({ slice, house, level, vocabulary })),
    () => true,
    start,
    look,
    isSame,
  )

function lookingOver<L extends FeetLooked, Carry, T>(
  passesOf: (danceable: Danceable) => readonly L[],
  isSameBeside: (a: L, b: L) => boolean,
  start: Carry,
  look: (looked: L, carry: Carry) => Result<Carry, T>,
  isSame: (a: Carry, b: Carry) => boolean,
): Look<Carry, T> {
  interface Begun {
    readonly looked: L
    readonly carry: Carry
  }
  const lookAt = remembered(
    (_: Slice, { looked, carry }: Begun) => look(looked, carry),
    (a, b) =>
      a.looked.house === b.looked.house &&
      a.looked.level === b.looked.level &&
      a.looked.vocabulary === b.looked.vocabulary &&
      isSameBeside(a.looked, b.looked) &&
      isSame(a.carry, b.carry),
  )
  return (danceable) => {
    let carry = start
    const found: T[] = []
    for (const looked of passesOf(danceable)) {
      const result = lookAt(looked.slice, { looked, carry })
      found.push(...result.found)
      carry = result.carry
    }
    return { found, carry }
  }
}
