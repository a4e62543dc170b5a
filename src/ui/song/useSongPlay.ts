import { useCallback } from 'react'
import { countPlayed, type SongPlay, songPlayed } from '../../core/performance/songPlayed'
import type { Selection } from '../../core/song/correct'
import { type Song, secondsOfCount } from '../../core/song/song'
import { stretchOf } from '../../core/song/stretch'
import { COUNT_IN, type SongChoice } from './songChoice'
import { useSongDeck } from './useSongDeck'

/** What is played: its speed is chosen, and its numbers are there to be heard or not. */
type Wish = Omit<SongPlay, 'rate' | 'isNumbered'>

/** Plays an open song from its selection on; what is changed meanwhile is heard at once. */
export function useSongPlay(
  song: Song,
  selection: Selection,
  choice: SongChoice,
  onStop: (at: number) => void,
  onRound: (rounds: number) => void,
) {
  const rate = choice.speed / 100
  const playOf = useCallback(
    (wish: Wish): SongPlay => ({ ...wish, rate, isNumbered: true }),
    [rate],
  )
  const make = useCallback((wish: Wish) => songPlayed(song, playOf(wish)), [song, playOf])
  const { deck, playing, wished, play, stop } = useSongDeck(
    song,
    choice,
    make,
    () => true,
    onStop,
    onRound,
  )
  /** The count that sounds now, not rounded; absent while nothing does, or it is counted in. */
  const at = (): number | undefined => {
    const position = deck.position()
    const wish = wished()
    if (!position || !wish || (wish.countIn > 0 && position.turn === 0)) return undefined
    return countPlayed(song, playOf(wish), position.at)
  }
  return {
    playing,
    stop,
    play: () =>
      play({
        ...stretchOf(song, selection, choice.stretch),
        isLooped: choice.stretch !== 'once',
        countIn: choice.isCountedIn ? COUNT_IN : 0,
      }),
    at,
    /** The second of the sound that is heard now. */
    second: (): number | undefined => {
      const place = at()
      return place === undefined ? undefined : secondsOfCount(song, place)
    },
  }
}
