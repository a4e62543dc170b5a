import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { Song } from '../../core/song/song'
import type { Songs } from '../../storage/songs'
import { useServices } from '../stores/services'

/** Songs and their sound; undefined while they are loaded. */
export function useSongStore() {
  const { songs } = useServices()
  return useQuery({ queryKey: ['song store'], queryFn: songs })
}

/** All songs, in step with what other windows do. */
export function useSongs(): {
  readonly error: Error | null
  readonly ready:
    | { readonly store: Songs; readonly all: readonly Song[]; readonly unreadable: number }
    | undefined
} {
  const store = useSongStore()
  const queries = useQueryClient()
  const records = store.data?.songs
  useEffect(
    () => records?.watch(() => void queries.invalidateQueries({ queryKey: ['songs'] })),
    [records, queries],
  )
  const list = useQuery({
    queryKey: ['songs'],
    queryFn: async () => (await records?.list()) ?? { all: [], unreadable: 0 },
    enabled: records !== undefined,
    staleTime: 0,
  })
  const error = store.error ?? list.error
  return {
    error,
    ready: store.data && list.data ? { store: store.data, ...list.data } : undefined,
  }
}
