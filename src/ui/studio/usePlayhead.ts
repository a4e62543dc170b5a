import { type RefObject, useCallback, useRef } from 'react'
import type { Position } from '../../audio/player'
import type { Combination } from '../../core/combination/combination'
import { passAt, pickupTicks } from '../../core/combination/passes'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { SIZE } from '../braid/geometry'
import { useFrames } from '../play/useFrames'
import { simulationFrom } from '../stores/checked'
import type { PlayDeck } from '../stores/deck'

/** What a position is called on the play bar. */
export function nowText(position: Position | undefined, combination: Combination): string {
  if (!position) return ''
  const { part, at } = position
  if (part.countIn) return String(part.countIn[Math.floor(at / TICKS_PER_COUNT)] ?? '')
  if (!part.dance) return ''
  const danced = part.dance.from + at
  const pass = passAt(simulationFrom(combination, part.dance.side).passes, danced)
  return pass ? `${pass.phrase.name} ${Math.floor((danced - pass.at) / TICKS_PER_COUNT) + 1}` : ''
}

/** Lights the running count in the braid, in step with the sound; writes to the drawing only. */
export function usePlayhead(
  deck: PlayDeck,
  current: () => Combination,
  root: RefObject<HTMLElement | null>,
  now: RefObject<HTMLSpanElement | null>,
): void {
  const lit = useRef<{ line?: Element | null; count?: Element | null }>({})
  const draw = useCallback(
    (position: Position | undefined) => {
      const combination = current()
      if (now.current) now.current.textContent = nowText(position, combination)
      const dance = position?.part.dance
      const at = (dance?.from ?? 0) + (position?.at ?? 0)
      // In a count-in nothing is danced before the pickup.
      const isDanced = at >= 0 - pickupTicks(combination)
      const pass =
        dance && isDanced ? passAt(simulationFrom(combination, dance.side).passes, at) : undefined
      const line =
        pass && dance && root.current?.querySelector(`[data-line="${dance.side}:${pass.index}"]`)
      // A side that is not shown has no line of its own: light the one that is.
      const shown = line ?? (pass && root.current?.querySelector(`[data-line$=":${pass.index}"]`))
      if (lit.current.line !== shown) {
        lit.current.line?.querySelector('[data-playhead]')?.setAttribute('visibility', 'hidden')
        shown?.querySelector('[data-playhead]')?.setAttribute('visibility', 'visible')
        shown?.scrollIntoView({ block: 'nearest' })
        lit.current.line = shown ?? null
      }
      const inPass = pass ? at - pass.at : 0
      const count =
        shown?.querySelector(`[data-count="${Math.floor(inPass / TICKS_PER_COUNT)}"]`) ?? null
      if (lit.current.count !== count) {
        lit.current.count?.removeAttribute('data-lit')
        count?.setAttribute('data-lit', 'true')
        lit.current.count = count
      }
      if (!shown || !pass) return
      const width = Number(shown.getAttribute('width'))
      const pickup = pickupTicks(combination)
      const share = (inPass + pickup) / (pass.length + pickup)
      const x = SIZE.gutter + share * (width - SIZE.gutter - SIZE.end)
      shown.querySelector('[data-playhead]')?.setAttribute('transform', `translate(${x} 0)`)
    },
    [current, root, now],
  )
  useFrames(deck, draw)
}
