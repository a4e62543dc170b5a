/**
 * A document with every state it came from. Unchanged parts are shared between the
 * states, so a step costs what it changed.
 */
export interface History<T> {
  readonly present: T
  readonly past: readonly Step<T>[]
  readonly future: readonly Step<T>[]
}

/** What a step did, in words, and the state on its other side. */
interface Step<T> {
  readonly label: string
  readonly document: T
  /** Steps with the same mark in a row are one: a whole drag, a whole word typed. */
  readonly mark?: string | undefined
}

/** So many steps can be taken back; what is older is forgotten, and its memory with it. */
const MOST_STEPS = 300

export const beginHistory = <T>(present: T): History<T> => ({ present, past: [], future: [] })

/** Takes a new state on; the one before can be had back by `undo`. */
export function edit<T>(
  history: History<T>,
  label: string,
  document: T,
  mark?: string,
): History<T> {
  if (document === history.present) return history
  const merges = mark !== undefined && history.past.at(-1)?.mark === mark
  return {
    present: document,
    past: merges
      ? history.past
      : [...history.past, { label, mark, document: history.present }].slice(-MOST_STEPS),
    future: [],
  }
}

export function undo<T>(history: History<T>): History<T> {
  const step = history.past.at(-1)
  if (!step) return history
  return {
    present: step.document,
    past: history.past.slice(0, -1),
    future: [...history.future, { label: step.label, document: history.present }],
  }
}

export function redo<T>(history: History<T>): History<T> {
  const step = history.future.at(-1)
  if (!step) return history
  return {
    present: step.document,
    past: [...history.past, { label: step.label, document: history.present }],
    future: history.future.slice(0, -1),
  }
}

/** The same history of a document that is called otherwise from now on, in every state it had. */
export function everyState<T>(
  { present, past, future }: History<T>,
  make: (document: T) => T,
): History<T> {
  const made = (steps: readonly Step<T>[]) =>
    steps.map((step) => ({ ...step, document: make(step.document) }))
  return { present: make(present), past: made(past), future: made(future) }
}
