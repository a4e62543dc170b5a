import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { countPlayed, type SongPlay, songPlayed, soundAt } from '../../core/performance/songPlayed'
import { isClick, type SoundKind } from '../../core/performance/sounds'
import { oneAt, type Song } from '../../core/song/song'
import { useServices } from '../stores/services'
import { useEnded } from './useEnded'

const LOOPS = ['once', 'phrase', 'section', 'selection'] as const
export type Loop = (typeof LOOPS)[number]

/** How a song is played here. */
export interface SongChoice {
  /** In hundredths of its own speed. */
  readonly speed: number
  readonly loop: Loop
  readonly isCountedIn: boolean
  readonly isNumbered: boolean
  readonly isClicked: boolean
  /** 0 to 1. */
  readonly loud: number
}

export const USUAL_CHOICE: SongChoice = {
  speed: 100,
  loop: 'once',
  isCountedIn: false,
  isNumbered: false,
  isClicked: true,
  loud: 0.8,
}

/** Counts that are clicked before it begins. */
export const COUNT_IN = 8

/** Some counts, half-open. */
export interface Counts {
  readonly from: number
  readonly to: number
}

/** Which counts are played from a selection on, and whether again and again. */
export function playedCounts(
  song: Song,
  { from, to }: Counts,
  loop: Loop,
): { readonly from: number; readonly to: number | undefined } {
  const total = song.counts.ms.length
  if (loop === 'selection') return { from, to: Math.max(from + 1, to) }
  if (loop === 'phrase') {
    const one = oneAt(song.counts, from)
    const into = (((from - one.at) % one.counts) + one.counts) % one.counts
    const begin = Math.max(0, from - into)
    return { from: begin, to: Math.min(total, from - into + one.counts) }
  }
  if (loop === 'section') {
    const index = song.sections.findLastIndex(({ at }) => at <= from)
    return {
      from: song.sections[index]?.at ?? 0,
      to: song.sections[index + 1]?.at ?? total,
    }
  }
  const stop = song.stops.find(({ at }) => at > from)
  return { from, to: stop?.at }
}

/** Plays an open song from its selection on; what is changed meanwhile is heard at once. */
export function useSongPlay(
  song: Song,
  selection: Counts,
  choice: SongChoice,
  /** Told the stop it has come to. */
  onStop: (at: number) => void,
) {
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const [now, setNow] = useState<SongPlay>()
  const ref = useRef({ song, now })
  ref.current = { song, now }
  const ended = useEnded(playing, () => {
    const to = ref.current.now?.to
    if (to !== undefined && song.stops.some((stop) => stop.at === to)) onStop(to)
  })
  const rate = choice.speed / 100
  const { isClicked, isNumbered, loud } = choice

  useEffect(() => {
    deck.hear((kind: SoundKind) => (isClick(kind) ? isClicked : kind === 'say' ? isNumbered : true))
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
  // Another speed, or counts that were moved, go on from where it is.
  useEffect(() => {
    const { now: play } = ref.current
    if (!play || !deck.getState()) return
    const next = { ...play, rate, isNumbered: true }
    setNow(next)
    deck.swap(songPlayed(song, next))
  }, [deck, song, rate])

  const play = async (at = selection) => {
    const isLooped = choice.loop !== 'once'
    const wish: SongPlay = {
      ...playedCounts(song, at, choice.loop),
      rate,
      isLooped,
      countIn: choice.isCountedIn ? COUNT_IN : 0,
      // Said or not is heard, or not, at once.
      isNumbered: true,
    }
    if (isNumbered) await deck.prepareVoice(new Map())
    setNow(wish)
    await deck.play(songPlayed(song, wish))
  }
  /** The count that sounds now, not rounded; absent while nothing does, or it is counted in. */
  const at = (): number | undefined => {
    const position = deck.position()
    const { song: open, now: wish } = ref.current
    if (!position || !wish) return undefined
    const isLed = wish.countIn > 0
    if (isLed && position.turn === 0) return undefined
    return countPlayed(open, wish, position.at)
  }
  return {
    playing,
    play,
    stop() {
      ended.stopped()
      deck.stop()
    },
    at,
    /** The second of the sound that is heard now. */
    second: (): number | undefined => {
      const place = at()
      return place === undefined ? undefined : soundAt(ref.current.song, place)
    },
  }
}
