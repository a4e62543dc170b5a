import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { type Lanes, lanesOf } from '../../core/plan/lanes'
import type { Materials } from '../../core/plan/material'
import type { PlanWishes } from '../../core/plan/plan'
import { useServices } from '../stores/services'

const NONE: ReadonlyMap<string, Lanes> = new Map()

/** What each phrase may be danced by in a class of mixed levels, by `combination|phrase`; thought through beside the page. */
export function useLanes(
  { combinations, level, levelTo }: PlanWishes,
  materials: Materials,
): ReadonlyMap<string, Lanes> {
  const { judge } = useServices()
  const all = useMemo(
    () => combinations.flatMap((id) => materials.find(id)?.combination ?? []),
    [combinations, materials],
  )
  const { data } = useQuery({
    queryKey: ['lanes', all, level, levelTo],
    queryFn: async ({ signal }) => {
      if (levelTo === undefined) return NONE
      const lanes = new Map<string, Lanes>()
      for (const combination of all) {
        const form = (to: typeof level) => judge.ask('level', { combination, level: to }, signal)
        const [plain, more] = [await form(level), await form(levelTo)]
        const { vocabulary, house } = materials
        for (const [phrase, own] of lanesOf(combination, plain, more, vocabulary, house))
          lanes.set(`${combination.id}|${phrase}`, own)
      }
      return lanes
    },
    enabled: levelTo !== undefined,
    gcTime: 0,
    staleTime: 0,
  })
  return levelTo === undefined ? NONE : (data ?? NONE)
}
