import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { PlaySong } from '../play/performances'
import { type SoundState, useHeldSound } from '../songs/useHeldSound'
import { type SongRecords, useSongs } from '../songs/useSongs'
import { type DancedTo, dancedTo } from '../stores/dancedTo'
import type { Session } from '../stores/session'
import { documentOf } from '../stores/state'

/** What an open combination is danced to. */
export interface StudioSong {
  readonly records: SongRecords | undefined
  /** Absent where it is danced to the count alone. */
  readonly played: PlaySong | undefined
  /** Whether the song can be heard. */
  readonly sound: SoundState
  readonly choose: (place: DancedTo | undefined) => void
}

/** The song and the place in it that a combination is danced to, with its sound held. */
export function useStudioSong(session: Session): StudioSong {
  const id = useStore(session, (s) => documentOf(s).id)
  const place = useStore(dancedTo, (all) => all[id])
  const { ready } = useSongs()
  const song = ready?.all.find((one) => one.id === place?.song)
  const { state } = useHeldSound(song?.media, ready?.store)
  const played = useMemo(
    () => (song && place ? { song, at: place.at, rate: place.rate } : undefined),
    [song, place],
  )
  return {
    records: ready,
    played,
    sound: state,
    choose: (next) => dancedTo.setState({ [id]: next }),
  }
}
