import { useCallback, useEffect, useState } from 'react'
import { UserError } from '../../core/errors'
import type { Song } from '../../core/song/song'
import type { Songs } from '../../storage/songs'
import { inWords } from '../parts/Problem'
import { keepSound } from '../songs/reading'
import type { PlayDeck } from '../stores/deck'

/** Whether the sound of a song can be heard. */
export type SoundState =
  | { readonly kind: 'loading' | 'here' | 'missing' }
  | { readonly kind: 'failed'; readonly what: string; readonly toDo: string }

/** Copies of a song differ by less than that in length, in seconds. */
const SAME_SECONDS = 2

/** Holds the sound of an open song, and takes on its file where that is missing. */
export function useSound(song: Song, store: Songs, deck: PlayDeck) {
  const { id, media } = song
  const { mark } = media
  const [state, setState] = useState<SoundState>({ kind: 'loading' })
  const load = useCallback(
    async (file: Blob, signal: AbortSignal) => {
      const { decodeSound, factsOf } = await import('../../audio/decode')
      const facts = await factsOf(file)
      const part = media.part
      const { sound } = await decodeSound(file, facts, { part, signal, onShare: () => {} })
      signal.throwIfAborted()
      await deck.hold(mark, sound)
      setState({ kind: 'here' })
    },
    [deck, mark, media.part],
  )
  useEffect(() => {
    const stop = new AbortController()
    const open = async () => {
      if (deck.held() === mark) return setState({ kind: 'here' })
      setState({ kind: 'loading' })
      const blob = (await store.sounds.get(mark)) ?? (await linkedFile(store, mark))
      if (!blob) return setState({ kind: 'missing' })
      await load(blob, stop.signal)
    }
    open().catch((error) => {
      if (!stop.signal.aborted) setState({ kind: 'failed', ...inWords(error) })
    })
    return () => stop.abort()
  }, [deck, mark, store, load])

  /** @throws UserError where it is another file */
  const find = async (file: File) => {
    const { factsOf, markOf } = await import('../../audio/decode')
    const [found, facts] = await Promise.all([markOf(file), factsOf(file)])
    if (found !== mark && Math.abs(facts.seconds - media.seconds) > SAME_SECONDS)
      throw new UserError(
        'This sounds like another version: it is not as long.',
        'Open it as a song of its own, under Songs.',
      )
    if (found !== mark)
      throw new UserError(
        'This is another copy of it, or another song of that length.',
        'Open it as a song of its own, under Songs.',
      )
    await load(file, new AbortController().signal)
    await keepSound(store, { ...song, id }, file)
  }
  return { state, find }
}

/** The file a song was opened from, where the browser still lets it be read without being asked. */
async function linkedFile({ sounds }: Songs, mark: string): Promise<File | undefined> {
  const handle = await sounds.linked(mark)
  return handle?.getFile().catch(() => undefined)
}
