import type { PointerEvent as PointerDown } from 'react'
import { eachFrame } from './eachFrame'
import { scrollerOf } from './scroller'

/** A place of the window, in pixels. */
export interface Pointed {
  readonly clientX: number
  readonly clientY: number
  /** Finer steps are wanted. */
  readonly altKey: boolean
}

/** What follows a pointer from where a drag began. */
export interface Dragged {
  readonly move: (at: Pointed) => void
  readonly drop: () => void
  /** Taken back, by Escape or by the browser: nothing has happened. */
  readonly cancel: () => void
}

interface DragOptions {
  /** So many pixels the pointer has to go before it is a drag. A press that is none is left alone. */
  readonly least?: number
  /** A finger drags at once: there is nothing to scroll where it went down. */
  readonly atOnce?: boolean
}

/** A finger that goes on at once scrolls; one that rests so long, in milliseconds, drags. */
const REST_MS = 260
/** A resting finger moves no more than this, in pixels. */
const REST_PX = 8
/** So near an edge of what scrolls it scrolls, in pixels, and so far with each frame at the most. */
const EDGE_PX = 36
const SCROLL_PX = 14

/**
 * The one way to drag, by mouse, pen and finger: follows a pointer from where it went down until
 * it is let go. Where it is held near an edge, what is under it scrolls.
 * @param begin called when it is a drag; gives what follows it, or nothing where nothing can be dragged.
 */
export function drag(
  { nativeEvent: down, currentTarget: holder }: PointerDown<Element>,
  begin: () => Dragged | undefined,
  { least = 0, atOnce = false }: DragOptions = {},
): void {
  const isTouch = down.pointerType === 'touch'
  let dragged = undefined as Dragged | undefined
  let last: Pointed = down
  let stopScrolling = () => {}

  const start = () => {
    dragged = begin()
    if (!dragged) return end()
    // Also outside the window the pointer is followed.
    if (!isTouch) holder.setPointerCapture(down.pointerId)
    stopScrolling = eachFrame(() => {
      if (scrollAt(last)) dragged?.move(last)
    })
  }
  const resting = isTouch && !atOnce ? setTimeout(start, REST_MS) : undefined
  const gone = (at: Pointed) => Math.hypot(at.clientX - down.clientX, at.clientY - down.clientY)

  const move = (event: PointerEvent) => {
    if (event.pointerId !== down.pointerId) return
    last = event
    if (!dragged && isTouch && !atOnce) {
      if (gone(event) <= REST_PX) return
      // It rested by its own time, though a busy page comes to know of it late.
      if (event.timeStamp - down.timeStamp < REST_MS) return end()
      clearTimeout(resting)
      start()
    } else if (!dragged && gone(event) >= least) start()
    dragged?.move(event)
  }
  const up = (event: PointerEvent) => {
    if (event.pointerId !== down.pointerId) return
    // A tap does what a press and a release do.
    if (!dragged && least === 0) dragged = begin()
    const done = dragged
    end()
    done?.drop()
  }
  const cancel = () => {
    const taken = dragged
    end()
    taken?.cancel()
  }
  const takeBack = (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || !dragged) return
    event.preventDefault()
    event.stopPropagation()
    cancel()
  }
  /** A finger that drags does not scroll, and opens no menu by resting. */
  const keep = (event: Event) => {
    if (dragged) event.preventDefault()
  }
  const listeners = [
    ['pointermove', move],
    ['pointerup', up],
    ['pointercancel', cancel],
    ['keydown', takeBack],
    ['touchmove', keep],
    ['contextmenu', keep],
  ] as const
  function end() {
    clearTimeout(resting)
    stopScrolling()
    dragged = undefined
    for (const [name, listener] of listeners)
      window.removeEventListener(name, listener as EventListener, true)
  }

  for (const [name, listener] of listeners)
    window.addEventListener(name, listener as EventListener, { capture: true, passive: false })
  if (least === 0 && (!isTouch || atOnce)) start()
}

/** Scrolls what is under a place near its upper or lower edge; says whether it did. */
function scrollAt({ clientX, clientY }: Pointed): boolean {
  const box = scrollerOf(document.elementFromPoint(clientX, clientY))
  if (!box) return false
  const { top, bottom } =
    box === document.documentElement ? { top: 0, bottom: innerHeight } : box.getBoundingClientRect()
  const share = (far: number) => Math.max(0, Math.min(1, 1 - far / EDGE_PX))
  const by = SCROLL_PX * (share(bottom - clientY) - share(clientY - top))
  const before = box.scrollTop
  box.scrollTop += by
  return box.scrollTop !== before
}
