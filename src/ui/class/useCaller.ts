import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { type OwnWords, ownWordsIn } from '../../core/calling/ownWords'
import type { DrillDance } from '../../core/class/drillDance'
import type { SoundChoice } from '../../core/class/soundChoice'
import type { Planning } from '../../storage/planning'
import type { PlayDeck } from '../stores/deck'

/** The instructor's own words, and what she likes to hear. */
export function useSound(planning: Planning, deck: PlayDeck) {
  const [choice, setChoice] = useState(() => planning.sound.read())
  const [own, setOwn] = useState<OwnWords>(new Map())
  useEffect(() => {
    const read = async () => {
      setOwn(ownWordsIn(await planning.spoken.list()))
    }
    void read()
    return planning.spoken.watch(() => void read())
  }, [planning])
  useEffect(() => {
    deck.setMix(choice.mix)
    deck.setMusic(choice.mix.music)
    deck.hear(() => true)
  }, [deck, choice.mix])
  // Without the voice the words are tones, and the captions are there in any case.
  useEffect(() => {
    void deck.prepareVoice(own)
  }, [deck, own])
  const choose = useCallback(
    (change: Partial<SoundChoice>) =>
      setChoice((now) => {
        const next = { ...now, ...change }
        planning.sound.write(next)
        return next
      }),
    [planning],
  )
  return { choice, choose, own }
}

interface Playing {
  readonly danced: DrillDance
  reported: number
  /** Its last round is danced to its end. */
  readonly isWhole: boolean
}

interface CallerReports {
  readonly onRound: (side: 'R' | 'L') => void
  readonly onFinished: () => void
}

/**
 * Plays drills and reports each round that is over, from a clock that goes on while the page
 * is hidden or busy.
 */
export function useCaller(deck: PlayDeck, reports: CallerReports) {
  const playing = useRef<Playing>(undefined)
  const told = useRef(reports)
  told.current = reports

  const reportUpTo = useCallback((turn: number) => {
    const now = playing.current
    if (!now) return
    const { length } = now.danced.performance.segments
    const whole = now.isWhole ? length : length - 1
    for (; now.reported < Math.min(turn, whole); now.reported++) {
      const segment = now.danced.performance.segments[now.reported]
      if (segment && segment.round > 0) told.current.onRound(segment.dancing.side)
    }
  }, [])
  useEffect(() => deck.onTurn(reportUpTo), [deck, reportUpTo])
  useEffect(
    () =>
      deck.subscribe(() => {
        const now = playing.current
        if (deck.getState() || !now) return
        // It stopped by itself: all of it was danced.
        reportUpTo(now.danced.performance.segments.length)
        playing.current = undefined
        told.current.onFinished()
      }),
    [deck, reportUpTo],
  )
  const stop = useCallback(() => {
    const position = deck.position()
    if (position) reportUpTo(position.turn)
    playing.current = undefined
    deck.stop()
  }, [deck, reportUpTo])
  useEffect(() => stop, [stop])
  return useMemo(
    () => ({
      stop,
      play(danced: DrillDance, isWhole: boolean) {
        stop()
        playing.current = { danced, reported: 0, isWhole }
        void deck.play(danced.performance)
      },
      /** What sounds; absent while nothing does. */
      playing: () => playing.current?.danced,
      /** Goes on in the same at another tempo. */
      retune(danced: DrillDance) {
        if (!playing.current) return
        playing.current = { ...playing.current, danced }
        deck.swap(danced.performance)
      },
      /** The second of its song that is heard now. */
      second: () => (playing.current ? deck.position()?.music?.second : undefined),
      /** The tick that is heard now. */
      clock: () => (playing.current ? deck.position()?.tick : undefined),
    }),
    [deck, stop],
  )
}
