import { useEffect, useState } from 'react'
import type { HeldSound } from '../../audio/held'
import type { Song } from '../../core/song/song'
import type { Songs } from '../../storage/songs'
import { inWords } from '../parts/Problem'
import { useServices } from '../stores/services'

/** Whether the sound of a song can be heard. */
export type SoundState =
  | { readonly kind: 'loading' | 'here' | 'missing' }
  | { readonly kind: 'failed'; readonly what: string; readonly toDo: string }

type Media = Song['media']

/** The sound of a file, or of the part of it that is a song. */
export async function decoded(
  file: Blob,
  { part }: Pick<Media, 'part'>,
  signal: AbortSignal,
): Promise<HeldSound> {
  const { decodeSound, factsOf } = await import('../../audio/decode')
  const facts = await factsOf(file)
  const { sound } = await decodeSound(file, facts, { part, signal, onShare: () => {} })
  signal.throwIfAborted()
  return sound
}

/** Holds the sound of a song, so that it is heard when it is played; nothing where there is none. */
export function useHeldSound(media: Media | undefined, store: Songs | undefined) {
  const { deck } = useServices()
  const [state, setState] = useState<SoundState>({ kind: 'loading' })
  useEffect(() => {
    if (!media || !store) return
    const { mark } = media
    const stop = new AbortController()
    const open = async () => {
      if (deck.held() === mark) return setState({ kind: 'here' })
      setState({ kind: 'loading' })
      const blob = await fileOf(store, mark)
      if (!blob) return setState({ kind: 'missing' })
      await deck.hold(mark, await decoded(blob, media, stop.signal))
      setState({ kind: 'here' })
    }
    open().catch((error) => {
      if (!stop.signal.aborted) setState({ kind: 'failed', ...inWords(error) })
    })
    return () => stop.abort()
  }, [deck, media, store])
  return { state, setState }
}

/** The file of a song: kept here, or the one it was opened from where the browser still lets that be read unasked. */
export async function fileOf({ sounds }: Songs, mark: string): Promise<Blob | undefined> {
  const kept = await sounds.get(mark)
  if (kept) return kept
  const handle = await sounds.linked(mark)
  return handle?.getFile().catch(() => undefined)
}
