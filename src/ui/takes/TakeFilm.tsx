import { useCallback, useEffect, useRef } from 'react'
import { useStore } from 'zustand'
import type { Side } from '../../core/body/side'
import { secondIn, type Take } from '../../core/take/take'
import { secondsBetween } from '../../core/time/timeMap'
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

/** The pace of a film is told over so many ticks. */
const OVER = 6

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
      if (!now) return undefined
      const { dancing, tick: danced, at, segment } = now
      const second = secondIn(take, dancing.side, danced)
      const [before, after] = [danced - OVER, danced + OVER].map((one) =>
        secondIn(take, dancing.side, one),
      )
      if (second === undefined) return undefined
      const heard = secondsBetween(segment.time, at - OVER, at + OVER)
      const isInside = before !== undefined && after !== undefined
      return { second, rate: isInside ? (after - before) / heard : 1 }
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
