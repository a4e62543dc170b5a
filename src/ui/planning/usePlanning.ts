import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useMemo } from 'react'
import { useStore } from 'zustand'
import type { Combination } from '../../core/combination/combination'
import type { ClassEntry, Group } from '../../core/diary/diary'
import { type Materials, materialsOf } from '../../core/plan/material'
import type { Plan } from '../../core/plan/plan'
import type { SentPage } from '../../core/practice/sentPage'
import { type LaidSongs, withSongs } from '../../core/routine/withSong'
import type { Series } from '../../core/series/series'
import type { Planning } from '../../storage/planning'
import type { Records } from '../../storage/records'
import { useSongs } from '../songs/useSongs'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { words } from '../stores/words'

/** Plans, classes and groups; undefined while they are loaded. */
export function usePlanning(): Planning | undefined {
  const { planning } = useServices()
  return useQuery({ queryKey: ['planning'], queryFn: planning }).data
}

interface Kinds {
  plans: Plan
  classes: ClassEntry
  groups: Group
  sent: SentPage
  series: Series
}

/** All records of a kind, in step with what other windows do. */
function useRecords<K extends keyof Kinds>(kind: K) {
  const planning = usePlanning()
  const queries = useQueryClient()
  const records = planning?.[kind] as Records<Kinds[K]> | undefined
  useEffect(
    () => records?.watch(() => void queries.invalidateQueries({ queryKey: ['records', kind] })),
    [records, kind, queries],
  )
  return useQuery<{ readonly all: readonly Kinds[K][]; readonly unreadable: number }>({
    queryKey: ['records', kind],
    queryFn: async () => (await records?.list()) ?? { all: [], unreadable: 0 },
    enabled: records !== undefined,
    staleTime: 0,
  })
}

/** The groups as they are stored; none while they are loaded. */
export const useGroups = (): readonly Group[] => useRecords('groups').data?.all ?? []

/** Every combination as it is stored. */
export function useCombinations() {
  const { combinations } = useServices()
  return useQuery({
    queryKey: ['all combinations'],
    queryFn: () => combinations.all(),
    gcTime: 0,
    staleTime: 0,
  })
}

/** The titles of the combinations that were deleted, so that what was made of them is known. */
function useDeletedTitles() {
  const { combinations } = useServices()
  return useQuery({
    queryKey: ['deleted titles'],
    queryFn: async (): Promise<ReadonlyMap<string, string>> =>
      new Map((await combinations.list()).removed.map(({ id, summary }) => [id, summary.title])),
    gcTime: 0,
    staleTime: 0,
  })
}

/** What a class is made of, with the songs it may dance to as they are stored. */
export interface ClassMaterials extends Materials {
  readonly laidSongs: LaidSongs
}

/** Some combinations and all songs as a planner looks at them, by this instructor's words and house. */
export function useMaterials(all: readonly Combination[] | undefined): ClassMaterials | undefined {
  const { vocabulary } = useStore(words, (s) => s)
  const { house } = useStore(houseNow, (s) => s)
  const { ready } = useSongs()
  const [songs, routines] = [ready?.all, ready?.routines]
  return useMemo(() => {
    if (!all || !songs || !routines) return undefined
    const byId = new Map(all.map((one) => [one.id, one]))
    const laidSongs = { songs, routines }
    const withSong = withSongs(laidSongs, (id) => byId.get(id), vocabulary, house)
    return { ...materialsOf(all, vocabulary, house, withSong), laidSongs }
  }, [all, vocabulary, house, songs, routines])
}

/** All that the screens of plans and classes work with. */
export interface PlanningRecords {
  readonly planning: Planning
  readonly combinations: readonly Combination[]
  /** Titles of the deleted ones. */
  readonly deleted: ReadonlyMap<string, string>
  readonly materials: ClassMaterials
  readonly plans: readonly Plan[]
  readonly classes: readonly ClassEntry[]
  readonly groups: readonly Group[]
  readonly sent: readonly SentPage[]
  readonly series: readonly Series[]
  /** How many of each can't be read by this version. */
  readonly unreadable: Readonly<Record<keyof Kinds, number>>
}

const NONE: ReadonlyMap<string, string> = new Map()

/** The same, or what went wrong; neither while it is loaded. */
export function usePlanningRecords(): {
  readonly error: Error | null
  readonly ready: PlanningRecords | undefined
} {
  const planning = usePlanning()
  const plans = useRecords('plans')
  const classes = useRecords('classes')
  const groups = useRecords('groups')
  const sent = useRecords('sent')
  const series = useRecords('series')
  const combinations = useCombinations()
  const materials = useMaterials(combinations.data)
  const deleted = useDeletedTitles()
  const error =
    plans.error ?? classes.error ?? groups.error ?? sent.error ?? series.error ?? combinations.error
  if (
    !planning ||
    !plans.data ||
    !classes.data ||
    !groups.data ||
    !sent.data ||
    !series.data ||
    !combinations.data ||
    !materials
  )
    return { error, ready: undefined }
  return {
    error,
    ready: {
      planning,
      combinations: combinations.data,
      deleted: deleted.data ?? NONE,
      materials,
      plans: plans.data.all,
      classes: classes.data.all,
      groups: groups.data.all,
      sent: sent.data.all,
      series: series.data.all,
      unreadable: {
        plans: plans.data.unreadable,
        classes: classes.data.unreadable,
        groups: groups.data.unreadable,
        sent: sent.data.unreadable,
        series: series.data.unreadable,
      },
    },
  }
}
