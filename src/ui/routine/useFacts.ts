import { useEffect, useState } from 'react'
import type { Combination } from '../../core/combination/combination'
import type { SongFact } from '../../core/routine/fit'
import type { Offer } from '../../core/routine/offers'
import type { Routine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import { useServices } from '../stores/services'

const NOTHING: readonly never[] = []

/** What is worth a look in a routine, and ways to put one of it right: thought about beside the page. */
export function useFacts(
  routine: Routine,
  song: Song,
  all: readonly Combination[],
  at: number,
): {
  readonly facts: readonly SongFact[]
  readonly asked: SongFact | undefined
  readonly offers: readonly Offer[]
} {
  const { judge } = useServices()
  const [found, setFound] = useState<{
    readonly of: Routine
    readonly facts: readonly SongFact[]
  }>()
  const [ways, setWays] = useState<{
    readonly for: SongFact
    readonly offers: readonly Offer[]
  }>()
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
  const facts = found?.facts ?? NOTHING
  const asked = facts.find((fact) => fact.at === at)
  const isNow = found?.of === routine
  useEffect(() => {
    if (!asked || !isNow) return
    let isWanted = true
    const combinations = used(routine, all)
    judge.ask('offers', { routine, song, combinations, fact: asked }).then(
      (offers) => isWanted && setWays({ for: asked, offers }),
      () => {},
    )
    return () => {
      isWanted = false
    }
  }, [judge, asked, isNow, routine, song, all])
  return { facts, asked, offers: asked && ways?.for === asked ? ways.offers : NOTHING }
}

const used = ({ pieces }: Routine, all: readonly Combination[]): readonly Combination[] => {
  const ids = new Set(pieces.flatMap(({ what }) => (what.kind === 'dance' ? what.combination : [])))
  return all.filter(({ id }) => ids.has(id))
}
