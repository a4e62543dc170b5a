import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Routine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import type { Records } from '../../storage/records'
import type { Songs } from '../../storage/songs'
import { useServices } from '../stores/services'

/** Songs and their sound; undefined while they are loaded. */
function useSongStore() {
  const { songs } = useServices()
  return useQuery({ queryKey: ['song store'], queryFn: songs })
}

/** All songs, in step with what other windows do. */
export function useSongs(): {
  readonly error: Error | null
  readonly ready: SongRecords | undefined
} {
  const store = useSongStore()
  const songs = useList('songs', store.data?.songs)
  const routines = useList('routines', store.data?.routines)
  const error = store.error ?? songs.error ?? routines.error
  return {
    error,
    ready:
      store.data && songs.data && routines.data
        ? { store: store.data, ...songs.data, routines: routines.data.all }
        : undefined,
  }
}

/** All that the screens of songs work with. */
export interface SongRecords {
  readonly store: Songs
  readonly all: readonly Song[]
  /** How many songs can't be read by this version. */
  readonly unreadable: number
  readonly routines: readonly Routine[]
}

function useList<T extends { readonly id: string }>(kind: string, records: Records<T> | undefined) {
  const queries = useQueryClient()
  useEffect(
    () => records?.watch(() => void queries.invalidateQueries({ queryKey: [kind] })),
    [records, kind, queries],
  )
  return useQuery({
    queryKey: [kind],
    queryFn: async () => (await records?.list()) ?? { all: [], unreadable: 0 },
    enabled: records !== undefined,
    staleTime: 0,
  })
}
