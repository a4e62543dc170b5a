import { useEffect, useRef } from 'react'
import { useStore } from 'zustand'
import { isClick } from '../../core/performance/sounds'
import { routinePlayed } from '../../core/routine/danced'
import type { Laid } from '../../core/routine/laid'
import type { Danced } from '../../core/simulate/danced'
import type { Song } from '../../core/song/song'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { type Counts, playedCounts, type SongChoice } from '../song/useSongPlay'
import { useServices } from '../stores/services'

/** Plays a routine with its song, from a count on; what is changed meanwhile is heard at once. */
export function useRoutinePlay(
  dance: Danced,
  laid: Laid,
  song: Song,
  selection: Counts,
  choice: SongChoice,
) {
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const wish = useRef<{ readonly from: number; readonly to: number; readonly isLooped: boolean }>(
    undefined,
  )
  const rate = choice.speed / 100
  const { isClicked, loud } = choice
  useEffect(() => {
    deck.hear((kind) => (isClick(kind) ? isClicked && kind !== 'and' : kind === 'say'))
  }, [deck, isClicked])
  useEffect(() => deck.setMusic(loud), [deck, loud])
  useEffect(
    () => () => {
      deck.stop()
      deck.hear(() => true)
      deck.setMusic(1)
    },
    [deck],
  )
  useEffect(() => {
    if (wish.current && deck.getState())
      deck.swap(routinePlayed(dance, laid, song, { ...wish.current, rate }))
  }, [deck, dance, laid, song, rate])
  const play = () => {
    const last = song.counts.ms.length
    const { from, to = last } = playedCounts(song, selection, choice.loop)
    const begin = Math.max(laid.from, Math.min(from, last - 1))
    wish.current = {
      from: begin,
      to: Math.max(begin + 1, to),
      isLooped: choice.loop !== 'once',
    }
    void deck.play(routinePlayed(dance, laid, song, { ...wish.current, rate }))
  }
  return {
    playing,
    play,
    stop: deck.stop,
    /** The count that sounds now, not rounded. */
    at: (): number | undefined => {
      const moment = deck.moment()
      return moment && laid.from + moment.tick / TICKS_PER_COUNT
    },
  }
}
