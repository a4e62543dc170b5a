import { Alert } from '@mantine/core'
import type { ReactNode } from 'react'
import { UserError } from '../../core/errors'
import { counted } from './locale'

/** What is wrong and what to do about it. */
export function Problem({
  what,
  toDo,
  onClose,
}: {
  what: string
  toDo: string
  onClose?: () => void
}) {
  return (
    <Alert
      color="red"
      variant="light"
      title={what}
      role="alert"
      m="md"
      {...(onClose && { withCloseButton: true, onClose, closeButtonLabel: 'Close' })}
      styles={{ title: { color: 'var(--fault)' }, message: { color: 'var(--ink)' } }}
    >
      {toDo}
    </Alert>
  )
}

/** Records that a newer version of the app has written; nothing where there are none. */
export const Unreadable = ({ count, of }: { readonly count: number; readonly of: string }) =>
  count > 0 && (
    <Problem
      what={`${counted(count, of)} can’t be read by this version.`}
      toDo="They stay where they are: update the app to open them."
    />
  )

/** A screen that can't be shown: what is wrong with it, and the way on. */
export function ProblemPage({
  what,
  toDo,
  children,
}: {
  readonly what: string
  readonly toDo: string
  readonly children?: ReactNode
}) {
  return (
    <main>
      <h1 className="only-read">{what}</h1>
      <Problem what={what} toDo={toDo} />
      {children}
    </main>
  )
}

/** An error in words: an instructor's own as they are, a bug as one. */
export const inWords = (error: unknown): { what: string; toDo: string } =>
  error instanceof UserError
    ? { what: error.message, toDo: error.whatToDo }
    : {
        what: 'Something went wrong here.',
        toDo: `What is said to be saved is safe. Load the page again. (${String(error)})`,
      }
