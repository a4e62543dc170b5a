import { useDeferredValue, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import type { Move } from '../../core/moves/move'
import type { Vocabulary } from '../../core/moves/vocabulary'
import { browseMoves, type MoveWish } from '../../core/writing/browse'
import type { Wanted } from '../../core/writing/wanted'
import { words } from '../stores/words'
import type { Kept } from './MoveFilters'

/** The wishes of a list of moves, and what is found by them. */
export function useMoves(vocabulary: Vocabulary, place: Wanted | undefined, suitsFirst: boolean) {
  const [wish, setWish] = useState<MoveWish>({ text: '' })
  const [kept, setKept] = useState<Kept>('all')
  const [suits, setSuits] = useState(suitsFirst)
  const favourites = useStore(words, (w) => w.favourites)
  const entries = useStore(words, (w) => w.entries)
  const wanted = useDeferredValue(wish)
  const moves = useMemo((): readonly Move[] => {
    const own = new Set(entries.filter(({ name, move }) => name || move).map(({ id }) => id))
    const only =
      kept === 'all'
        ? undefined
        : ({ id }: Move) => (kept === 'own' ? own.has(id) : favourites.has(id))
    return browseMoves(
      { ...wanted, only, ...(suits && place && { suits: place, layer: place.layer }) },
      vocabulary,
    )
  }, [wanted, kept, suits, place, vocabulary, favourites, entries])
  return {
    moves,
    favourites,
    filters: { wish, onWish: setWish, kept, onKept: setKept, suits, onSuits: setSuits },
  }
}
