import { type RefObject, useCallback, useRef } from 'react'
import type { Combination } from '../../core/combination/combination'
import { pickupTicks } from '../../core/combination/passes'
import type { Moment } from '../../core/performance/performance'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { nowText, useFrames } from '../play/useFrames'
import type { PlayDeck } from '../stores/deck'

/** Lights the running count in the braid, in step with the sound; writes to the drawing only. */
export function usePlayhead(
  deck: PlayDeck,
  current: () => Combination,
  root: RefObject<HTMLElement | null>,
  now: RefObject<HTMLSpanElement | null>,
): void {
  const lit = useRef<{ line?: Element | null; count?: Element | null }>({})
  const draw = useCallback(
    (moment: Moment | undefined) => {
      if (now.current) now.current.textContent = nowText(moment)
      const pass = moment?.pass
      const line =
        pass && root.current?.querySelector(`[data-line="${moment.dancing.side}:${pass.index}"]`)
      // A side that is not shown has no line of its own: light the one that is.
      const shown = line ?? (pass && root.current?.querySelector(`[data-line$=":${pass.index}"]`))
      if (lit.current.line !== shown) {
        lit.current.line?.querySelector('[data-playhead]')?.setAttribute('visibility', 'hidden')
        shown?.querySelector('[data-playhead]')?.setAttribute('visibility', 'visible')
        shown?.scrollIntoView({ block: 'nearest' })
        lit.current.line = shown ?? null
      }
      const inPass = pass ? moment.tick - pass.at : 0
      const count =
        shown?.querySelector(`[data-count="${Math.floor(inPass / TICKS_PER_COUNT)}"]`) ?? null
      if (lit.current.count !== count) {
        lit.current.count?.removeAttribute('data-lit')
        count?.setAttribute('data-lit', 'true')
        lit.current.count = count
      }
      if (!shown || !pass) return
      const from = Number(shown.getAttribute('data-from'))
      const to = Number(shown.getAttribute('data-to'))
      const pickup = pickupTicks(current())
      const share = (inPass + pickup) / (pass.length + pickup)
      const x = from + share * (to - from)
      shown.querySelector('[data-playhead]')?.setAttribute('transform', `translate(${x} 0)`)
    },
    [current, root, now],
  )
  useFrames(deck, draw)
}
