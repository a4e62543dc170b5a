import { useCallback, useEffect, useRef } from 'react'
import { useStore } from 'zustand'
import type { Side } from '../../core/body/side'
import { besideDance, secondIn, type Take } from '../../core/take/take'
import type { Takes } from '../../storage/takes'
import { useAddress } from '../parts/useAddress'
import { follow, stood } from '../songs/follow'
import { useServices } from '../stores/services'
import classes from './takes.module.css'

/** A tick of a side's dance. */
export interface DancePlace {
  readonly side: Side
  readonly tick: number
}

interface TakeFilmProps {
  readonly take: Take
  readonly store: Takes
  /** What is shown while nothing plays. */
  readonly still: DancePlace
  readonly isMirrored: boolean
}

/** A take, count by count with what is danced now, however fast. */
export function TakeFilm({ take, store, still, isMirrored }: TakeFilmProps) {
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const video = useRef<HTMLVideoElement>(null)
  const { id, type } = take
  const url = useAddress(useCallback(() => store.film({ id, type }), [store, id, type]))
  const { side, tick } = still
  useEffect(() => {
    const shown = video.current
    if (!shown || !url) return
    if (!playing) {
      const second = secondIn(take, side, tick)
      if (second !== undefined) stood(shown, second)
      return
    }
    return follow(shown, () => {
      const now = deck.moment()
      return now && besideDance(take, now)
    })
  }, [url, playing, take, side, tick, deck])
  if (url === null) return <p role="status">Nothing was filmed in this take.</p>
  return (
    <video
      ref={video}
      className={classes.film}
      src={url}
      muted
      playsInline
      preload="auto"
      data-mirrored={isMirrored}
      aria-label={`Take ${take.title}`}
    />
  )
}
