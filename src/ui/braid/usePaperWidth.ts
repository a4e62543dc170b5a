import { type RefObject, useEffect } from 'react'

/** A sheet of A4 lying down, less its margins. */
const PAPER_PX = 1040

/** On paper the lines are as wide as the sheet, whatever the window was. */
export function usePaperWidth(box: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const fit = () => {
      const drawn = box.current?.scrollWidth ?? 0
      if (box.current && drawn > PAPER_PX)
        box.current.style.setProperty('zoom', String(PAPER_PX / drawn))
    }
    const back = () => box.current?.style.removeProperty('zoom')
    window.addEventListener('beforeprint', fit)
    window.addEventListener('afterprint', back)
    return () => {
      window.removeEventListener('beforeprint', fit)
      window.removeEventListener('afterprint', back)
    }
  }, [box])
}
