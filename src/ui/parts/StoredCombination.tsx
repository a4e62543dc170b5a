import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { useParams } from 'react-router'
import type { Combination } from '../../core/combination/combination'
import { useServices } from '../stores/services'
import { inWords, ProblemPage } from './Problem'

/** A screen of the combination the address names, as it is stored; a sentence where it is not here. */
export function StoredCombination({
  children,
}: {
  readonly children: (combination: Combination) => ReactNode
}) {
  const { id = '' } = useParams()
  const { combinations } = useServices()
  const stored = useQuery({
    queryKey: ['combination', id],
    queryFn: async () => (await combinations.get(id)) ?? null,
    gcTime: 0,
    staleTime: 0,
  })
  if (stored.error) return <ProblemPage {...inWords(stored.error)} />
  if (stored.isPending) return <p className="only-read">Opening…</p>
  if (!stored.data)
    return (
      <ProblemPage
        what="This combination is not here."
        toDo="Go back to all combinations; it may be under “Deleted” there."
      />
    )
  return children(stored.data.combination)
}
