import { UserError } from '../core/errors'
import type { Database } from './database'

/** Told after every write: what went wrong, or that all is well. */
export type OnKept = (trouble: UserError | undefined) => void

const NOT_SAVED = 'This could not be saved in the browser.'
const MAKE_ROOM =
  'Make room on the disk and go on: what you changed is noted, and saved with the next change or start.'

/**
 * Tells how a write went, and hands on what came of it.
 * @throws UserError where it failed; it has been told then.
 */
export async function kept<R>(
  work: PromiseLike<R>,
  onKept: OnKept,
  whatToDo = MAKE_ROOM,
): Promise<R> {
  try {
    const done = await work
    onKept(undefined)
    return done
  } catch (cause) {
    const error = cause instanceof UserError ? cause : new UserError(NOT_SAVED, whatToDo, { cause })
    onKept(error)
    throw error
  }
}

/** Runs writes to any tables as one: all of them are stored, or none. */
export type Together = <T>(work: () => Promise<T>) => Promise<T>

export const togetherIn =
  (database: Database): Together =>
  (work) =>
    database.transaction('rw', database.tables, work)
