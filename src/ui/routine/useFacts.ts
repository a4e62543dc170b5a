import { useEffect, useState } from 'react'
import type { Combination } from '../../core/combination/combination'
import type { SongFact } from '../../core/routine/fit'
import type { Offer } from '../../core/routine/offers'
import type { Routine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import { useServices } from '../stores/services'

const NOTHING: readonly never[] = []

/** What is worth a look in a routine, and ways to put that right which is at one count: thought about beside the page. */
export function useFacts(
  routine: Routine,
  song: Song,
  all: readonly Combination[],
  at: number,
): {
  readonly facts: readonly SongFact[]
  readonly offersFor: (fact: SongFact) => readonly Offer[]
} {
  const { judge } = useServices()
  const [found, setFound] = useState<{
    readonly of: Routine
    readonly facts: readonly SongFact[]
  }>()
  const [ways, setWays] = useState<ReadonlyMap<SongFact, readonly Offer[]>>(new Map())
  useEffect(() => {
    let isWanted = true
    const combinations = used(routine, all)
    judge.ask('routine', { routine, song, combinations }).then(
      (facts) => isWanted && setFound({ of: routine, facts }),
      // Where the worker breaks, the map goes on without being judged.
      () => {},
    )
    return () => {
      isWanted = false
    }
  }, [judge, routine, song, all])
  useEffect(() => {
    if (found?.of !== routine) return
    let isWanted = true
    const combinations = used(routine, all)
    for (const fact of found.facts.filter((one) => one.at === at))
      judge.ask('offers', { routine, song, combinations, fact }).then(
        (offers) => isWanted && setWays((known) => new Map(known).set(fact, offers)),
        () => {},
      )
    return () => {
      isWanted = false
      setWays(new Map())
    }
  }, [judge, found, routine, song, all, at])
  return { facts: found?.facts ?? NOTHING, offersFor: (fact) => ways.get(fact) ?? NOTHING }
}

const used = ({ pieces }: Routine, all: readonly Combination[]): readonly Combination[] => {
  const ids = new Set(pieces.flatMap(({ what }) => (what.kind === 'dance' ? what.combination : [])))
  return all.filter(({ id }) => ids.has(id))
}
