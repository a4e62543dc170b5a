import { useEffect, useRef, useState } from 'react'
import { type KeyLine, keyFor, lineOf, pressOf, type ScreenKey } from './keys'

/** Where letters are typed, or a list or a slider has keys of its own. */
export const HAS_KEYS =
  'input, textarea, select, [contenteditable="true"], [role="dialog"], [role="menu"], [role="listbox"], [role="slider"]'

/** The help of a screen's keys. */
export interface Help {
  readonly lines: readonly KeyLine[]
  readonly opened: boolean
  readonly onOpen: () => void
  readonly onClose: () => void
}

/**
 * The keys of a screen, wherever the focus is but in what has keys of its own; `?` shows them
 * all. A button keeps its Enter and Space, a link its Enter.
 */
export function useScreenKeys(table: readonly ScreenKey[], isOn = true): Help {
  const [opened, setOpened] = useState(false)
  const onOpen = () => setOpened(true)
  const all = [...table, { on: ['?'], does: 'show these keys', run: onOpen }]
  const latest = useRef<readonly ScreenKey[]>(all)
  latest.current = all
  useEffect(() => {
    if (!isOn) return
    const hear = (event: KeyboardEvent) => {
      const found = keyFor(latest.current, pressOf(event))
      const { target, key } = event
      if (!found || event.defaultPrevented || !(target instanceof Element)) return
      if (target.closest(HAS_KEYS)) return
      if (document.querySelector('[role="dialog"], [role="menu"]')) return
      if ((key === 'Enter' || key === ' ') && target.closest('button')) return
      if (key === 'Enter' && target.closest('a')) return
      event.preventDefault()
      if (found.repeats || !event.repeat) found.run?.()
    }
    window.addEventListener('keydown', hear)
    return () => window.removeEventListener('keydown', hear)
  }, [isOn])
  return { lines: all.map(lineOf), opened, onOpen, onClose: () => setOpened(false) }
}
