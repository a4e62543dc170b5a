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
import { isClick, isOfLayers, type SoundKind } from '../../core/performance/sounds'
import { PlayBar } from '../play/PlayBar'
import { type PlayChoice, studioPerformance } from '../play/performances'
import { checkedOf } from '../stores/checked'
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
}

/** The play bar, and what keeps the sound in step with the braid. */
export function PlayPane({ session, root, played, choice, onChoice, onPlayOrStop }: PlayPaneProps) {
  const { deck } = useServices()
  const only = useStore(session, (s) => s.only)
  const lead = useStore(session, (s) => danceOf(s).lead)
  const tempo = useStore(session, (s) => documentOf(s).tempo)
  const teachTempo = useStore(session, (s) => teachTempoOf(documentOf(s)))
  const [hearsMoves, setHearsMoves] = useState(false)
  const document = useDeferredValue(useStore(session, documentOf))
  const most = useMemo(() => tempoRoom(checkedOf(document)).most, [document])
  // The slider has the two tempi as its ends; when they change, what is chosen stays between them.
  const bounded = Math.min(
    Math.max(tempo, teachTempo),
    Math.max(Math.min(tempo, teachTempo), choice.tempo),
  )
  useEffect(() => {
    if (bounded !== choice.tempo) onChoice({ ...choice, tempo: bounded })
  }, [bounded, choice, onChoice])
  const now = useRef<HTMLSpanElement>(null)
  const current = useCallback(() => documentOf(session.getState()), [session])
  usePlayhead(deck, current, root, now)

  const choose = (next: PlayChoice) => {
    onChoice(next)
    if (!deck.getState()) return
    const restarts = next.sides !== choice.sides || next.loop !== choice.loop
    if (restarts) {
      played.current = session.getState().selection
      void deck.play(studioPerformance(current(), next, played.current))
    } else deck.swap(studioPerformance(current(), next, played.current))
  }
  // What is played follows every edit, from the next sound on.
  useEffect(() => {
    let known = current()
    return session.subscribe(() => {
      if (!deck.getState() || current() === known) return
      known = current()
      deck.swap(studioPerformance(known, choice, played.current))
    })
  }, [session, deck, choice, current, played])
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
      hearsMoves={hearsMoves}
      onHearsMoves={setHearsMoves}
    />
  )
}
