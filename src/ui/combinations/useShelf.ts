import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useServices } from '../app/services'

/** Everything stored, kept up with changes made here or in another window. */
export function useShelf() {
  const { combinations } = useServices()
  const queries = useQueryClient()
  useEffect(
    () => combinations.watch(() => void queries.invalidateQueries({ queryKey: ['shelf'] })),
    [combinations, queries],
  )
  return useQuery({ queryKey: ['shelf'], queryFn: combinations.list })
}
