import { useState } from 'react'
import { UserError } from '../../core/errors'
import type { OpenDocument } from './useDocument'

/** Changes of an open document; one that can't be is said in a sentence, and changes nothing. */
export function useSaidChange<T>({ change }: Pick<OpenDocument<T>, 'change'>) {
  const [message, say] = useState('')
  return {
    message,
    say,
    /** @throws what is no sentence of its own: a bug */
    change(label: string, make: (now: T) => T, mark?: string) {
      say('')
      try {
        change(label, make, mark)
      } catch (error) {
        if (!(error instanceof UserError)) throw error
        say(`${error.message} ${error.whatToDo}`)
      }
    },
  }
}
