import { UserError } from '../errors'
import type { Next, Routine } from './routine'

/**
 * A routine with what is danced after it, one run through; with nothing where `next` is absent.
 * @throws UserError where it would never end
 */
export function followedBy(
  routine: Routine,
  next: Next | undefined,
  find: (id: string) => Routine | undefined,
): Routine {
  const { next: _, ...alone } = routine
  if (!next) return alone
  const met = new Set([routine.id])
  for (let id: string | undefined = next.routine; id !== undefined; id = find(id)?.next?.routine) {
    if (met.has(id))
      throw new UserError(
        'It would begin again and never end.',
        'Choose a routine that does not lead back to this one.',
      )
    met.add(id)
  }
  return { ...alone, next }
}

/** What is danced in one run through, from a routine on: each with the seconds waited before it. */
export function runThrough(
  routine: Routine,
  find: (id: string) => Routine | undefined,
): readonly { readonly routine: Routine; readonly pause: number }[] {
  const run: { routine: Routine; pause: number }[] = []
  let one: { routine: Routine; pause: number } | undefined = { routine, pause: 0 }
  // One that was changed elsewhere may lead back by now: it ends there.
  while (one && run.every((before) => before.routine.id !== one?.routine.id)) {
    run.push(one)
    const { next }: Routine = one.routine
    const after: Routine | undefined = next && find(next.routine)
    one = next && after ? { routine: after, pause: next.pause } : undefined
  }
  return run
}
