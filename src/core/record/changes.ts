import { dequal } from 'dequal'

/**
 * A change of something that others change too, another window or the floor: it is taken back
 * by itself, not by bringing back all that was before.
 */
export interface Change<T> {
  /** What it did, in words. */
  readonly label: string
  /** Changes with the same mark in a row are one: a whole word typed. */
  readonly mark?: string | undefined
  /** Undefined where it was not there. */
  readonly before: T | undefined
  /** Undefined where it is gone. */
  readonly after: T | undefined
}

/** What was changed, and what of it was taken back. */
export interface Changes<T> {
  readonly past: readonly Change<T>[]
  readonly future: readonly Change<T>[]
}

export const NO_CHANGES: Changes<never> = { past: [], future: [] }

/** Takes on a change that was made; what was taken back before it can no longer be made again. */
export function noted<T>({ past }: Changes<T>, change: Change<T>): Changes<T> {
  const last = past.at(-1)
  const isSame = change.mark !== undefined && last?.mark === change.mark
  return {
    past: isSame ? [...past.slice(0, -1), { ...change, before: last.before }] : [...past, change],
    future: [],
  }
}

/** The change that takes another one back. */
export const reversed = <T>(change: Change<T>): Change<T> => ({
  ...change,
  before: change.after,
  after: change.before,
})

/** The last change, and what there is when it is taken back. */
export function stepBack<T>({ past, future }: Changes<T>) {
  const change = past.at(-1)
  return change && { change, changes: { past: past.slice(0, -1), future: [...future, change] } }
}

/** The change that was taken back last, and what there is when it is made again. */
export function stepForward<T>({ past, future }: Changes<T>) {
  const change = future.at(-1)
  return change && { change, changes: { past: [...past, change], future: future.slice(0, -1) } }
}

type Fields = Readonly<Record<string, unknown>>
type Row = { readonly id: string }

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

const isRows = (value: unknown): value is readonly Row[] =>
  Array.isArray(value) && value.every((one) => isFields(one) && typeof one.id === 'string')

/**
 * Makes the same change in a state that may have moved on: field by field, and in lists of
 * rows with an id row by row; all else stays as it is now.
 */
export function changedLike<T>(now: T, before: T, after: T): T {
  if (dequal(before, after)) return now
  if (isRows(now) && isRows(before) && isRows(after)) return rowsLike(now, before, after) as T
  if (!isFields(now) || !isFields(before) || !isFields(after)) return after
  const made: Record<string, unknown> = { ...now }
  for (const key of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const value = changedLike(now[key], before[key], after[key])
    if (value === undefined) delete made[key]
    else made[key] = value
  }
  return made as T
}

function rowsLike(
  now: readonly Row[],
  before: readonly Row[],
  after: readonly Row[],
): readonly Row[] {
  const had = new Map(before.map((row) => [row.id, row]))
  const has = new Map(after.map((row) => [row.id, row]))
  const kept = now.flatMap((row) => {
    const [a, b] = [had.get(row.id), has.get(row.id)]
    if (a && !b) return []
    return a && b ? changedLike(row, a, b) : row
  })
  // A row that comes back stands behind the one it stood behind.
  for (const [i, row] of after.entries()) {
    if (had.has(row.id) || kept.some(({ id }) => id === row.id)) continue
    const behind = after.slice(0, i).findLast(({ id }) => kept.some((one) => one.id === id))
    kept.splice(kept.findIndex(({ id }) => id === behind?.id) + 1, 0, row)
  }
  return kept
}
