import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import type { Take } from '../../core/take/take'
import type { Takes } from '../../storage/takes'

/** The takes of something that is danced, the last one first. */
export function useTakes(store: Takes | undefined, { kind, id }: Take['of']): readonly Take[] {
  const queries = useQueryClient()
  useEffect(
    () => store?.takes.watch(() => void queries.invalidateQueries({ queryKey: ['takes'] })),
    [store, queries],
  )
  const { data } = useQuery({
    queryKey: ['takes'],
    queryFn: async () => (await store?.takes.list())?.all ?? [],
    enabled: store !== undefined,
    staleTime: 0,
  })
  return useMemo(
    () =>
      (data ?? [])
        .filter(({ of }) => of.kind === kind && of.id === id)
        .sort((a, b) => (a.at < b.at ? 1 : -1)),
    [data, kind, id],
  )
}
