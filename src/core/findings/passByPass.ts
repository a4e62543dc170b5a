import { dequal } from 'dequal'
import { type CourseSlice, courseSlices } from '../simulate/course'
import type { Slice } from '../simulate/simulate'
import type { Danceable } from './rule'

/** One pass as a rule looks at it: what the feet do, what the layers above do, and for whom. */
export interface Looked extends Pick<Danceable, 'house' | 'level' | 'vocabulary'> {
  readonly slice: Slice
  readonly course: CourseSlice
}

interface Result<Carry, T> {
  readonly found: readonly T[]
  /** What the next pass must know of this one. */
  readonly carry: Carry
}

interface Known<Carry, T> extends Looked {
  readonly before: Carry
  readonly result: Result<Carry, T>
}

/** A look at all passes in turn, and what is carried out of the last one. */
interface Seen<Carry, T> {
  readonly found: readonly T[]
  readonly carry: Carry
}

/**
 * Goes through a dance pass by pass. What was found in one holds for as long as it is danced the
 * same, from the same that is carried into it: an edit is looked at where it was made, and as far
 * as what it leads to differs.
 */
export function passByPass<Carry, T>(
  start: Carry,
  look: (looked: Looked, carry: Carry) => Result<Carry, T>,
  isSame: (a: Carry, b: Carry) => boolean = dequal,
): (danceable: Danceable) => Seen<Carry, T> {
  const known = new WeakMap<Slice, Known<Carry, T>>()
  return ({ simulation, house, level, vocabulary }) => {
    const courses = courseSlices(simulation)
    let carry = start
    const found = simulation.slices.map((slice, i): readonly T[] => {
      const course = courses[i]
      if (!course) return []
      const before = known.get(slice)
      if (
        before?.course === course &&
        before.house === house &&
        before.level === level &&
        before.vocabulary === vocabulary &&
        isSame(before.before, carry)
      ) {
        carry = before.result.carry
        return before.result.found
      }
      const looked = { slice, course, house, level, vocabulary }
      const result = look(looked, carry)
      known.set(slice, { ...looked, before: carry, result })
      carry = result.carry
      return result.found
    })
    return { found: found.flat(), carry }
  }
}
