import { useEffect } from 'react'
import { focusBraid } from '../parts/focusBraid'
import { pressOf } from '../parts/keys'
import { HAS_KEYS } from '../parts/useScreenKeys'
import type { KeyScope } from '../shortcuts/shortcut'
import { press } from '../shortcuts/shortcuts'
import type { Session } from '../stores/session'

/**
 * The keys of the studio work wherever no text is typed: after a click on a button the braid has
 * them again. What was reached by the keyboard keeps its own keys.
 */
export function useBraidKeys(session: Session, deck: KeyScope): void {
  useEffect(() => focusBraid(), [])
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      const { target } = event
      const pressed = pressOf(event)
      const { key, ctrl, alt } = pressed
      if (event.defaultPrevented || !(target instanceof Element)) return
      if (target.closest(`[role="application"], ${HAS_KEYS}`)) return
      if (document.querySelector('[role="dialog"], [role="menu"]')) return
      const isReached = target !== document.body && target.matches(':focus-visible')
      const isPlain = !ctrl && !alt
      // Enter and Space press the button that was reached; the arrows may belong to a group.
      if (isReached && isPlain && key !== '?') return
      if (key === 'Tab' || key === 'Escape') return
      if (!isReached) focusBraid()
      if (press(session, pressed, deck)) event.preventDefault()
    }
    window.addEventListener('keydown', hear)
    return () => window.removeEventListener('keydown', hear)
  }, [session, deck])
  // What had the focus may be gone: a menu that closed, a card whose move was taken out.
  useEffect(() => {
    const lost = () =>
      requestAnimationFrame(() => {
        const isNowhere = document.activeElement === document.body || !document.activeElement
        if (
          isNowhere &&
          document.hasFocus() &&
          !document.querySelector('[role="dialog"], [role="menu"]')
        )
          focusBraid()
      })
    document.addEventListener('focusout', lost)
    return () => document.removeEventListener('focusout', lost)
  }, [])
}
