import { dequal } from 'dequal'

/**
 * A change of something, in a window of its own or where others change it too: it is taken back
 * by itself, not by bringing back all that was before.
 */
export interface Change<T> {
  /** What it did, in words. */
  readonly label: string
  /** Changes with the same mark in a row are one: a whole drag, a whole word typed. */
  readonly mark?: string | undefined
  /** Undefined where it was not there. */
  readonly before: T | undefined
  /** Undefined where it is gone. */
  readonly after: T | undefined
}

/** What was changed, and what of it was taken back. Unchanged parts are shared between the states. */
export interface Changes<T> {
  readonly past: readonly Change<T>[]
  readonly future: readonly Change<T>[]
}

/** A document with the changes it came by. */
export interface History<T> extends Changes<T> {
  readonly present: T
}

/** So many steps can be taken back; what is older is forgotten, and its memory with it. */
const MOST_STEPS = 300

export const NO_CHANGES: Changes<never> = { past: [], future: [] }

export const beginHistory = <T>(present: T): History<T> => ({ present, ...NO_CHANGES })

/** Takes on a change that was made; what was taken back before it can no longer be made again. */
export function noted<T>({ past }: Changes<T>, change: Change<T>): Changes<T> {
  const last = past.at(-1)
  const isSame = change.mark !== undefined && last?.mark === change.mark
  return {
    past: isSame
      ? [...past.slice(0, -1), { ...change, before: last.before }]
      : [...past, change].slice(-MOST_STEPS),
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

/** Takes a new state on; the one before can be had back by `undo`. */
export function edit<T>(history: History<T>, label: string, after: T, mark?: string): History<T> {
  const { present: before } = history
  return after === before
    ? history
    : { present: after, ...noted(history, { label, mark, before, after }) }
}

/** Takes on what others have made of it, which no undo here takes back. */
export const takenOn = <T>(history: History<T>, present: T): History<T> => ({ ...history, present })

/** @param settled what is made of a state in which others' work and the undone change meet. */
export function undo<T>(history: History<T>, settled?: (met: T) => T): History<T> {
  const step = stepBack(history)
  return step
    ? { ...step.changes, present: made(history.present, reversed(step.change), settled) }
    : history
}

export function redo<T>(history: History<T>, settled?: (met: T) => T): History<T> {
  const step = stepForward(history)
  return step ? { ...step.changes, present: made(history.present, step.change, settled) } : history
}

/** The same history of a document that is called otherwise from now on, in every state it had. */
export function everyState<T>(
  { present, past, future }: History<T>,
  make: (document: T) => T,
): History<T> {
  const known = new Map<T, T>()
  const once = (document: T) => {
    const done = known.get(document) ?? make(document)
    known.set(document, done)
    return done
  }
  const each = (changes: readonly Change<T>[]) =>
    changes.map((change) => ({
      ...change,
      before: change.before && once(change.before),
      after: change.after && once(change.after),
    }))
  return { present: once(present), past: each(past), future: each(future) }
}

function made<T>(present: T, { before, after }: Change<T>, settled = (met: T): T => met): T {
  if (before === undefined || after === undefined) return present
  return present === before ? after : settled(changedLike(present, before, after))
}

type Fields = Readonly<Record<string, unknown>>
type Row = { readonly id: string }

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

const isRows = (value: unknown): value is readonly Row[] =>
  Array.isArray(value) && value.every((one) => isFields(one) && typeof one.id === 'string')

/**
 * Makes the same change in a state that may have moved on: field by field, and in lists of
 * rows with an id row by row, also their order; all else stays as it is now. Where nothing has
 * moved on it is the state that was changed to.
 */
export function changedLike<T>(now: T, before: T, after: T): T {
  if (now === before) return after
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
  const still = now.flatMap((row) => {
    const [a, b] = [had.get(row.id), has.get(row.id)]
    if (a && !b) return []
    return a && b ? changedLike(row, a, b) : row
  })
  const kept = [...inOrderOf(still, before, after)]
  // A row that comes back stands behind the one it stood behind.
  for (const [i, row] of after.entries()) {
    if (had.has(row.id) || kept.some(({ id }) => id === row.id)) continue
    const behind = after.slice(0, i).findLast(({ id }) => kept.some((one) => one.id === id))
    kept.splice(kept.findIndex(({ id }) => id === behind?.id) + 1, 0, row)
  }
  return kept
}

/** Rows that were put in another order stand in that, in the places they have among the others. */
function inOrderOf(
  kept: readonly Row[],
  before: readonly Row[],
  after: readonly Row[],
): readonly Row[] {
  const common = (rows: readonly Row[], others: readonly Row[]) =>
    rows.flatMap(({ id }) => (others.some((one) => one.id === id) ? id : []))
  const order = common(after, before)
  if (dequal(order, common(before, after))) return kept
  const byId = new Map(kept.map((row) => [row.id, row]))
  const moved = order.flatMap((id) => byId.get(id) ?? [])
  const ids = new Set(order)
  return kept.map((row) => (ids.has(row.id) ? (moved.shift() ?? row) : row))
}
