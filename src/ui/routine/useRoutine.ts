import { useMemo } from 'react'
import { useStore } from 'zustand'
import type { Combination } from '../../core/combination/combination'
import { dancedTo } from '../../core/routine/danced'
import { laidOut } from '../../core/routine/laid'
import type { Routine } from '../../core/routine/routine'
import { noted, settled } from '../../core/routine/settled'
import type { Song } from '../../core/song/song'
import type { Songs } from '../../storage/songs'
import { houseNow } from '../stores/house'
import { useDocument } from '../stores/useDocument'
import { useSaidChange } from '../stores/useSaidChange'
import { words } from '../stores/words'

/** A routine that is open on its song: as it lies on the counts the song has now, and danced. */
export function useRoutine(
  first: Routine,
  song: Song,
  store: Songs,
  combinations: readonly Combination[],
) {
  const document = useDocument(first, store.routines)
  const { message, say, ...said } = useSaidChange(document)
  const { vocabulary } = useStore(words, (s) => s)
  const { house } = useStore(houseNow, (s) => s)
  const stored = document.history.present
  const routine = useMemo(() => settled(stored, song), [stored, song])
  const laid = useMemo(() => {
    const byId = new Map(combinations.map((one) => [one.id, one]))
    return laidOut(routine, song, (id) => byId.get(id))
  }, [routine, song, combinations])
  const dance = useMemo(
    () => dancedTo(laid, song, vocabulary, house),
    [laid, song, vocabulary, house],
  )
  return {
    document,
    routine,
    laid,
    dance,
    message,
    say,
    change: (label: string, make: (now: Routine) => Routine, mark?: string) =>
      said.change(label, (now) => noted(make(settled(now, song)), song), mark),
  }
}

/** Makes a change of the routine, told in words. */
export type ChangeRoutine = ReturnType<typeof useRoutine>['change']
