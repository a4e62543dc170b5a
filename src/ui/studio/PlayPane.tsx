import {
  type RefObject,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react'
import { useStore } from 'zustand'
import { teachTempoOf } from '../../core/combination/combination'
import { tempoRoom } from '../../core/findings/tempoLimits'
import { songFrom } from '../../core/performance/songFrom'
import { isClick, isOfLayers, type SoundKind } from '../../core/performance/sounds'
import { tempoInAll } from '../../core/time/timeMap'
import { PlayBar } from '../play/PlayBar'
import { type PlayChoice, type PlaySong, studioPerformance } from '../play/performances'
import { checkedOf } from '../stores/checked'
import { dancedTo } from '../stores/dancedTo'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import { danceOf, documentOf, layersOf, type Selection } from '../stores/state'
import { usePlayhead } from './usePlayhead'

interface PlayPaneProps {
  readonly session: Session
  readonly root: RefObject<HTMLDivElement | null>
  /** What was selected when it began to play. */
  readonly played: RefObject<Selection>
  readonly choice: PlayChoice
  readonly onChoice: (choice: PlayChoice) => void
  readonly onPlayOrStop: () => void
  /** What it is danced to; the count alone where there is none. */
  readonly song: PlaySong | undefined
}

/** The play bar, and what keeps the sound in step with the braid. */
export function PlayPane(props: PlayPaneProps) {
  const { session, root, played, choice, onChoice, onPlayOrStop, song } = props
  const { deck } = useServices()
  const only = useStore(session, (s) => s.only)
  const lead = useStore(session, (s) => danceOf(s).lead)
  const tempo = useStore(session, (s) => documentOf(s).tempo)
  const teachTempo = useStore(session, (s) => teachTempoOf(documentOf(s)))
  const [hearsMoves, setHearsMoves] = useState(false)
  const document = useDeferredValue(useStore(session, documentOf))
  const most = useMemo(() => tempoRoom(checkedOf(document)).most, [document])
  const length = useStore(session, (s) => checkedOf(documentOf(s)).lead.length)
  const id = useStore(session, (s) => documentOf(s).id)
  const onRate = (rate: number) =>
    dancedTo.setState((all) => {
      const place = all[id]
      return place ? { [id]: { ...place, rate } } : all
    })
  // The slider has the two tempi as its ends; when they change, what is chosen stays between them.
  const bounded = Math.min(
    Math.max(tempo, teachTempo),
    Math.max(Math.min(tempo, teachTempo), choice.tempo),
  )
  useEffect(() => {
    if (bounded !== choice.tempo) onChoice({ ...choice, tempo: bounded })
  }, [bounded, choice, onChoice])
  const now = useRef<HTMLSpanElement>(null)
  const latest = useRef(choice)
  latest.current = choice
  const current = useCallback(() => documentOf(session.getState()), [session])
  usePlayhead(deck, current, root, now)

  const choose = (next: PlayChoice) => {
    onChoice(next)
    if (!deck.getState()) return
    const restarts = next.sides !== choice.sides || next.loop !== choice.loop
    if (restarts) {
      played.current = session.getState().selection
      void deck.play(studioPerformance(current(), next, played.current, song))
    } else deck.swap(studioPerformance(current(), next, played.current, song))
  }
  // What is played follows every edit, from the next sound on.
  useEffect(() => {
    let known = current()
    return session.subscribe(() => {
      if (!deck.getState() || current() === known) return
      known = current()
      deck.swap(studioPerformance(known, choice, played.current, song))
    })
  }, [session, deck, choice, current, played, song])
  // Another speed of a song is heard at once.
  useEffect(() => {
    if (deck.getState() && song)
      deck.swap(studioPerformance(current(), latest.current, played.current, song))
  }, [deck, current, played, song])
  useEffect(() => {
    const layers = layersOf(only)
    deck.hear((kind: SoundKind) => {
      if (isClick(kind)) return true
      return only ? isOfLayers(kind, layers) : hearsMoves
    })
  }, [deck, only, hearsMoves])
  useEffect(() => {
    deck.warm()
    return () => deck.stop()
  }, [deck])

  return (
    <PlayBar
      deck={deck}
      lead={lead}
      tempo={tempo}
      teachTempo={teachTempo}
      most={most}
      choice={choice}
      onChoice={choose}
      onPlayOrStop={onPlayOrStop}
      countRef={now}
      song={
        song && {
          rate: song.rate,
          here: tempoInAll(songFrom(song.song, song.at, song.rate).time, length),
          onRate,
        }
      }
      hearsMoves={hearsMoves}
      onHearsMoves={setHearsMoves}
    />
  )
}
