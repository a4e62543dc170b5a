import { useEffect } from 'react'

/** Keeps the screen from going dark during a class, where the browser can. */
export function useAwake(isOn: boolean): void {
  useEffect(() => {
    if (!isOn || !('wakeLock' in navigator)) return
    let lock: WakeLockSentinel | undefined
    let isOver = false
    const ask = () => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock
        .request('screen')
        .then((given) => {
          if (isOver) void given.release()
          else lock = given
        })
        // Low battery, or it is not allowed: the class goes on all the same.
        .catch(() => {})
    }
    ask()
    document.addEventListener('visibilitychange', ask)
    return () => {
      isOver = true
      document.removeEventListener('visibilitychange', ask)
      void lock?.release()
    }
  }, [isOn])
}
