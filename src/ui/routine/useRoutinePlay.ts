import { useCallback, useRef } from 'react'
import { speechSeconds } from '../../audio/speech'
import type { Performance } from '../../core/performance/performance'
import { type RoutinePlay, routinePlayed } from '../../core/routine/danced'
import type { Laid } from '../../core/routine/laid'
import type { Danced } from '../../core/simulate/danced'
import type { Song } from '../../core/song/song'
import { stretchOf } from '../../core/song/stretch'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { COUNT_IN, type SongChoice } from '../song/songChoice'
import { useSongDeck } from '../song/useSongDeck'

const SPEECH = speechSeconds()

/** What is danced: its speed is chosen, and its calls are there to be heard or not. */
type Wish = Omit<RoutinePlay, 'rate' | 'mode' | 'speech'>

/** Plays a routine with its song, from a count on; what is changed meanwhile is heard at once. */
export function useRoutinePlay(
  dance: Danced,
  laid: Laid,
  song: Song,
  from: number,
  choice: SongChoice,
  onStop: (at: number) => void,
  onRound: (rounds: number) => void,
  onEnd: () => void,
) {
  const rate = choice.speed / 100
  const make = useCallback(
    (wish: Wish) =>
      routinePlayed(dance, laid, song, { ...wish, rate, mode: 'all', speech: SPEECH }),
    [dance, laid, song, rate],
  )
  // Of the dance only its counts are heard, the music is the rest.
  const isHeard = (kind: string) => kind === 'phrase' || kind === 'count'
  /** Whether it is danced for itself: a take of it ends where it ends. */
  const isForItself = useRef(false)
  const ended = () => {
    if (isForItself.current) onEnd()
  }
  const { deck, playing, play, stop } = useSongDeck(
    song,
    choice,
    make,
    isHeard,
    onStop,
    onRound,
    ended,
  )
  const wholeWish: Wish = {
    from: laid.from,
    to: song.counts.ms.length,
    isLooped: false,
    ...(choice.isCountedIn && { countIn: COUNT_IN }),
  }
  return {
    playing,
    stop,
    play() {
      isForItself.current = true
      const last = song.counts.ms.length
      const stretch = stretchOf(song, { from, to: from + 1 }, choice.stretch)
      const begin = Math.max(laid.from, Math.min(stretch.from, last - 1))
      return play({
        from: begin,
        to: Math.max(begin + 1, stretch.to ?? last),
        isLooped: choice.stretch !== 'once',
        ...(choice.isCountedIn && { countIn: COUNT_IN }),
      })
    },
    /** All of it, from its first count to its last. */
    whole: (): Performance => make(wholeWish),
    /** Plays all of it, and says what that is. */
    async playWhole() {
      isForItself.current = false
      await play(wholeWish)
      return make(wholeWish)
    },
    /** The number that is counted in; absent where it is danced. */
    countedIn: (): string | undefined => {
      const moment = deck.moment()
      return moment?.isCountIn ? moment.count : undefined
    },
    /** The count that sounds now, not rounded. */
    at: (): number | undefined => {
      const moment = deck.moment()
      return moment && laid.from + moment.tick / TICKS_PER_COUNT
    },
  }
}
