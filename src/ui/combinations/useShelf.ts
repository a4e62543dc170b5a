import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useServices } from '../stores/services'

const CALM_MS = 30

/** Everything stored, kept up with changes made here or in another window. */
export function useShelf() {
  const { combinations } = useServices()
  const queries = useQueryClient()
  useEffect(() => {
    // Many changes at once are read once.
    let waiting: ReturnType<typeof setTimeout> | undefined
    const stop = combinations.watch(() => {
      clearTimeout(waiting)
      waiting = setTimeout(() => void queries.invalidateQueries({ queryKey: ['shelf'] }), CALM_MS)
    })
    return () => {
      clearTimeout(waiting)
      stop()
    }
  }, [combinations, queries])
  return useQuery({ queryKey: ['shelf'], queryFn: combinations.list })
}
