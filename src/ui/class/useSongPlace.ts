import { useCallback, useEffect, useRef, useState } from 'react'
import type { Drill } from '../../core/plan/drill'
import { leftAt, type SongPlaceLeft, stopsOf, untilStop } from '../../core/routine/drillStops'
import type { LaidSongs } from '../../core/routine/withSong'

interface Left extends SongPlaceLeft {
  readonly drill: string
}

/** Where a class is in the song of a drill while nothing sounds, and whether it waits at the song's stops. */
export function useSongPlace(drill: Drill | undefined, songs: LaidSongs) {
  const left = useRef<Left>(undefined)
  /** Where what sounds is to stop. */
  const stop = useRef<ReturnType<typeof untilStop>['stop']>(undefined)
  const [chosen, setChosen] = useState<boolean>()
  const [said, setSaid] = useState('')
  const id = drill?.id
  useEffect(() => {
    if (left.current?.drill !== id) setSaid('')
  }, [id])
  const hasStops = drill !== undefined && stopsOf(drill, songs).length > 0
  // Who is still learning it waits there; at its own speed it goes through.
  const isStopping = chosen ?? (drill?.song?.rate ?? 1) < 1
  return {
    hasStops,
    isStopping,
    said,
    toggle: () => setChosen(!isStopping),
    /** What is danced next of a drill. */
    next: useCallback(
      (rest: Drill) => {
        const own = left.current?.drill === rest.id ? left.current : undefined
        const part = untilStop(rest, songs, own, isStopping)
        stop.current = part.stop
        setSaid('')
        return { ...part, isWhole: !part.stop }
      },
      [songs, isStopping],
    ),
    /** Whether what has ended has come to a stop, from which it goes on. */
    stopped: useCallback((ended: string | undefined) => {
      const at = stop.current
      stop.current = undefined
      left.current = at && ended ? { ...at.left, drill: ended } : undefined
      if (at) setSaid(`${at.label || 'A stop'}. It goes on a phrase earlier.`)
      return at !== undefined
    }, []),
    /** It was halted there, in seconds of its song. */
    halted: useCallback(
      (ended: Drill | undefined, second: number | undefined) => {
        const place = ended && second !== undefined && leftAt(ended, songs, second)
        if (place) left.current = { ...place, drill: ended.id }
      },
      [songs],
    ),
    /** It begins where the drill does. */
    anew: useCallback(() => {
      left.current = undefined
      setSaid('')
    }, []),
  }
}
