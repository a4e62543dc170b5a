import { createStore } from 'zustand/vanilla'
import { UserError } from '../../core/errors'

/** What is wrong at the moment, by what it is about: each goes when that is well again. */
export const troubles = createStore<ReadonlyMap<string, UserError>>(() => new Map())

/** What was shown already, so that a promise nobody waited for does not show it again. */
const told = new WeakSet<Error>()

/** Says what is wrong with something, or that it is well again. */
export function tell(about: string, error: UserError | undefined): void {
  if (error) told.add(error)
  const now = troubles.getState()
  if (now.get(about) === error) return
  const next = new Map(now)
  if (error) next.set(about, error)
  else next.delete(about)
  troubles.setState(next, true)
}

/** What this page says of an error nobody has caught; a bug is no fault of what was done. */
const inWords = (error: unknown): UserError =>
  error instanceof UserError
    ? error
    : new UserError(
        'Something went wrong here.',
        `What is said to be saved is safe. Load the page again before you go on. (${String(error)})`,
        { cause: error },
      )

/** Shows what nobody has caught, instead of losing it without a word. */
export function watchForErrors(page: Window): void {
  page.addEventListener('unhandledrejection', ({ reason }) => {
    if (!(reason instanceof Error && told.has(reason))) tell('page', inWords(reason))
  })
  page.addEventListener('error', ({ error }) => {
    // Without an error it is the browser's own remark, such as one about sizes.
    if (error) tell('page', inWords(error))
  })
}
