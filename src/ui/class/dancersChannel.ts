import { useEffect, useRef } from 'react'
import type { FloorNews } from '../../core/following/news.schema'
import type { Telling } from '../../core/following/telling'

/** A window that has just opened asks for all that holds. */
type Said = FloorNews | { readonly t: 'ask' }

const channelOf = (id: string): BroadcastChannel => new BroadcastChannel(`molten-sway class ${id}`)

/** A floor that has just opened listens for so long whether another one dances. */
const LISTENS_MS = 500

/** Tells other windows of this browser where the class is, in step with the sound. */
export function useBroadcast(id: string, telling: Telling, isPlaying: boolean): void {
  const playing = useRef(isPlaying)
  playing.current = isPlaying
  useEffect(() => {
    const channel = channelOf(id)
    const opened = performance.now()
    /** Another floor of the same class dances. */
    let isOther = false
    const told = (news: FloorNews) => {
      const isHeard = !isOther && performance.now() - opened > LISTENS_MS
      // Of two windows of a class the one that dances is heard.
      if (playing.current || isHeard) channel.postMessage(news)
    }
    let stop = telling.subscribe(told)
    const tellAll = () => {
      stop()
      stop = telling.subscribe(told)
    }
    const listened = setTimeout(tellAll, LISTENS_MS + 1)
    channel.onmessage = ({ data }: MessageEvent<Said>) => {
      if (data.t === 'run') isOther = true
      if (data.t === 'rest') isOther = false
      if (data.t === 'ask') tellAll()
    }
    channel.postMessage({ t: 'ask' } satisfies Said)
    return () => {
      clearTimeout(listened)
      stop()
      channel.close()
    }
  }, [id, telling])
}

/** Hears what a floor in another window tells. */
export function hearFloor(id: string, heard: (news: FloorNews) => void): () => void {
  const channel = channelOf(id)
  channel.onmessage = ({ data }: MessageEvent<Said>) => {
    if (data.t !== 'ask') heard(data)
  }
  channel.postMessage({ t: 'ask' } satisfies Said)
  return () => channel.close()
}
