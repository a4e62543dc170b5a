import { useEffect, useRef } from 'react'
import { useStore } from 'zustand'
import type { Played } from '../../core/performance/played'
import { isClick, type SoundKind } from '../../core/performance/sounds'
import type { Song } from '../../core/song/song'
import { useServices } from '../stores/services'
import type { SongChoice } from './songChoice'

/** Something that is played with a song. */
interface Wish {
  /** The count it is played to; to the end of the sound where it is absent. */
  readonly to?: number | undefined
  /** Counts before it that are clicked. */
  readonly countIn?: number | undefined
}

/**
 * Plays what is made of a wish on the page's deck, and goes on in it as it is changed.
 * @param make the same function for as long as the same would be played
 * @param onStop told the stop it has come to, where nobody stopped it before
 * @param onRound told how often it was played, as it begins again
 * @param onEnd told that it has come to its end, where nobody stopped it before
 */
export function useSongDeck<W extends Wish>(
  song: Song,
  { isClicked, isNumbered, loud }: SongChoice,
  make: (wish: W) => Played,
  isHeard: (kind: SoundKind) => boolean,
  onStop: (at: number) => void,
  onRound: (rounds: number) => void,
  onEnd: () => void = () => {},
) {
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const wish = useRef<W>(undefined)
  const latest = useRef({ song, isHeard, onStop, onRound, onEnd })
  latest.current = { song, isHeard, onStop, onRound, onEnd }
  const was = useRef({ playing: false, isStopped: false })
  useEffect(() => {
    deck.hear((kind) => {
      if (isClick(kind)) return isClicked && latest.current.isHeard(kind)
      return kind === 'say' ? isNumbered : latest.current.isHeard(kind)
    })
  }, [deck, isClicked, isNumbered])
  useEffect(
    () =>
      deck.onTurn((turn) => {
        const lead = wish.current?.countIn ? 1 : 0
        if (wish.current) latest.current.onRound(turn - lead)
      }),
    [deck],
  )
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
    if (wish.current && deck.getState()) deck.swap(make(wish.current))
  }, [deck, make])
  useEffect(() => {
    const { playing: before, isStopped } = was.current
    was.current = { playing, isStopped: false }
    const to = wish.current?.to
    const isAtStop = latest.current.song.stops.some((stop) => stop.at === to)
    if (!before || playing || isStopped) return
    if (to !== undefined && isAtStop) latest.current.onStop(to)
    else latest.current.onEnd()
  }, [playing])
  return {
    deck,
    playing,
    /** What is played, or was played last. */
    wished: () => wish.current,
    async play(wanted: W) {
      wish.current = wanted
      if (isNumbered) await deck.prepareVoice(new Map())
      await deck.play(make(wanted))
    },
    stop() {
      was.current.isStopped = true
      deck.stop()
    },
  }
}
