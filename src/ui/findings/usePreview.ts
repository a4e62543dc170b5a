import type { FocusEvent, PointerEvent } from 'react'
import { useCallback } from 'react'
import type { Combination } from '../../core/combination/combination'
import { type Session, showPreview } from '../stores/session'

/** What a button does so that the braid shows what it would make, while it is pointed at or focused by the keyboard. */
export function usePreview(session: Session) {
  return useCallback(
    (changed: Combination) => ({
      onPointerEnter: ({ pointerType }: PointerEvent) => {
        if (pointerType === 'mouse') showPreview(session, changed)
      },
      onPointerLeave: () => showPreview(session, undefined),
      onFocus: ({ currentTarget }: FocusEvent<HTMLElement>) => {
        if (currentTarget.matches(':focus-visible')) showPreview(session, changed)
      },
      onBlur: () => showPreview(session, undefined),
    }),
    [session],
  )
}
