import { useEffect, useRef } from 'react'
import { useStore } from 'zustand'
import { speechSeconds } from '../../audio/speech'
import { isClick } from '../../core/performance/sounds'
import { type RoutinePlay, routinePlayed } from '../../core/routine/danced'
import type { Laid } from '../../core/routine/laid'
import type { Danced } from '../../core/simulate/danced'
import type { Song } from '../../core/song/song'
import { TICKS_PER_COUNT } from '../../core/time/time'
import { useEnded } from '../song/useEnded'
import { COUNT_IN, type Counts, playedCounts, type SongChoice } from '../song/useSongPlay'
import { useServices } from '../stores/services'

/** What is called is called, or not, as it is heard. */
const SPEECH = speechSeconds()

/** Plays a routine with its song, from a count on; what is changed meanwhile is heard at once. */
export function useRoutinePlay(
  dance: Danced,
  laid: Laid,
  song: Song,
  selection: Counts,
  choice: SongChoice,
  /** Told the stop of the song it has come to. */
  onStop: (at: number) => void,
) {
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const wish = useRef<Omit<RoutinePlay, 'rate'>>(undefined)
  const ended = useEnded(playing, () => {
    const to = wish.current?.to
    if (to !== undefined && song.stops.some((stop) => stop.at === to)) onStop(to)
  })
  const rate = choice.speed / 100
  const { isClicked, isNumbered, isCountedIn, loud } = choice
  useEffect(() => {
    deck.hear((kind) =>
      isClick(kind) ? isClicked && kind !== 'and' : kind === 'say' && isNumbered,
    )
  }, [deck, isClicked, isNumbered])
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
  const play = async () => {
    const last = song.counts.ms.length
    const { from, to = last } = playedCounts(song, selection, choice.loop)
    const begin = Math.max(laid.from, Math.min(from, last - 1))
    wish.current = {
      from: begin,
      to: Math.max(begin + 1, to),
      isLooped: choice.loop !== 'once',
      ...(isCountedIn && { countIn: COUNT_IN }),
      mode: 'all',
      speech: SPEECH,
    }
    if (isNumbered) await deck.prepareVoice(new Map())
    await deck.play(routinePlayed(dance, laid, song, { ...wish.current, rate }))
  }
  return {
    playing,
    play,
    stop() {
      ended.stopped()
      deck.stop()
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
