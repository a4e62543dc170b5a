import { type RefObject, useEffect, useRef } from 'react'
import { placeWords } from '../../core/song/lines'
import type { Song } from '../../core/song/song'
import { eachFrame } from '../parts/eachFrame'

/** What is playing, as it is shown over the counts of a song. */
interface Playing {
  readonly playing: boolean
  /** The count that sounds now, not rounded. */
  readonly at: () => number | undefined
  /** The number that is counted in. */
  readonly countedIn?: () => string | undefined
}

/** Shows frame by frame where a song is: a line over its counts, and its place as it is said. */
export function usePlayhead(
  player: Playing,
  song: Song,
  grid: RefObject<HTMLElement | null>,
  words: RefObject<HTMLElement | null>,
): void {
  const latest = useRef({ player, song })
  latest.current = { player, song }
  const { playing } = player
  useEffect(() => {
    if (!playing) return
    let shown: HTMLElement | undefined
    let said = ''
    const show = (head: HTMLElement | undefined) => {
      if (shown && shown !== head) shown.style.visibility = 'hidden'
      shown = head
    }
    const say = (text: string) => {
      if (text !== said && words.current) words.current.textContent = text
      said = text
    }
    const stop = eachFrame(() => {
      const { player: now, song: open } = latest.current
      const at = now.at()
      // What sounds before the first count is shown there.
      const count = Math.max(0, Math.min(open.counts.ms.length - 1, Math.floor((at ?? 0) + 1e-6)))
      say(now.countedIn?.() ?? (at === undefined ? '' : placeWords(open, count)))
      const cell =
        at === undefined
          ? undefined
          : grid.current?.querySelector<HTMLElement>(`[data-at="${count}"]`)
      const head = cell?.parentElement?.querySelector<HTMLElement>('[data-head]') ?? undefined
      show(head)
      if (!head || !cell || at === undefined) return
      const along = Math.max(-0.5, Math.min(1, at - count))
      head.style.visibility = 'visible'
      head.style.transform = `translateX(${cell.offsetLeft + along * cell.offsetWidth}px)`
    })
    return () => {
      stop()
      show(undefined)
      say('')
    }
  }, [playing, grid, words])
}
