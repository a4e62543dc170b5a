import { useEffect, useRef } from 'react'

/** Whether a pointer is held down somewhere: then something is dragged. */
export function usePressed() {
  const pressed = useRef(false)
  useEffect(() => {
    const press = () => {
      pressed.current = true
    }
    const release = () => {
      pressed.current = false
    }
    window.addEventListener('pointerdown', press, true)
    window.addEventListener('pointerup', release, true)
    window.addEventListener('pointercancel', release, true)
    return () => {
      window.removeEventListener('pointerdown', press, true)
      window.removeEventListener('pointerup', release, true)
      window.removeEventListener('pointercancel', release, true)
    }
  }, [])
  return pressed
}
