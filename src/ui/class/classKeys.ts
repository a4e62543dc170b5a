import { useEffect, useRef } from 'react'
import type { ClassKey } from '../../core/class/keys'

/** What a key or a zone asks: of the class, or of the screen. */
export type ScreenKey = ClassKey | 'full'

/** A presenter has page keys, a full stop to darken, and some an arrow each way. */
const KEYS: Readonly<Record<string, ScreenKey>> = {
  ' ': 'go',
  Enter: 'go',
  '.': 'go',
  b: 'go',
  PageDown: 'next',
  ArrowRight: 'next',
  n: 'next',
  PageUp: 'again',
  ArrowLeft: 'again',
  a: 'again',
  ArrowUp: 'faster',
  '+': 'faster',
  ArrowDown: 'slower',
  '-': 'slower',
  s: 'other-side',
  c: 'clean',
  x: 'not-yet',
  End: 'skip',
  Home: 'back',
  f: 'full',
}

/** Takes keys wherever the focus is, but leaves a button its Enter and Space. */
export function useClassKeys(press: (key: ScreenKey) => void, isOn: boolean): void {
  const latest = useRef(press)
  latest.current = press
  useEffect(() => {
    if (!isOn) return
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return
      const key = KEYS[event.key] ?? KEYS[event.key.toLowerCase()]
      if (!key) return
      const target = event.target instanceof Element ? event.target : undefined
      const isPressing = event.key === 'Enter' || event.key === ' '
      if (isPressing && target?.closest('button')) return
      if (event.key === 'Enter' && target?.closest('a')) return
      event.preventDefault()
      // A key that is held down asks once.
      if (!event.repeat) latest.current(key)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [isOn])
}
