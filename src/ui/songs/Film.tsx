import { ActionIcon, Switch } from '@mantine/core'
import { IconChevronLeft, IconChevronRight } from '@tabler/icons-react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { filmVtt } from '../../core/routine/cueSheet'
import type { Song } from '../../core/song/song'
import type { Songs } from '../../storage/songs'
import { useAddress } from '../parts/useAddress'
import { useServices } from '../stores/services'
import classes from './film.module.css'
import { follow, stood } from './follow'
import { fileOf } from './useHeldSound'

interface FilmProps {
  readonly song: Song
  readonly store: Songs
  /** The second of the song that is shown while nothing plays. */
  readonly still: number
}

/** Seconds of a picture where the film does not say. */
const PICTURE = 1 / 30

/** The pictures of a song that is a film, without their sound: they go along with what is heard. */
export function Film({ song, store, still }: FilmProps) {
  const { media } = song
  const { deck } = useServices()
  const playing = useStore(deck, (is) => is)
  const video = useRef<HTMLVideoElement>(null)
  const [isMirrored, setMirrored] = useState(false)
  /** Pictures on from the second that is shown; none on from another one. */
  const [stepped, setStepped] = useState({ from: still, by: 0 })
  const by = stepped.from === still ? stepped.by : 0
  const step = (more: number) => setStepped({ from: still, by: by + more })
  const url = useAddress(useCallback(() => fileOf(store, media.mark), [store, media.mark]))
  const captions = useAddress(
    useCallback(async () => new Blob([filmVtt(song)], { type: 'text/vtt' }), [song]),
  )
  const offset = media.part?.from ?? 0
  useEffect(() => {
    const film = video.current
    if (!film || !url) return
    if (!playing) return stood(film, offset + still + by * PICTURE)
    return follow(film, () => {
      const heard = deck.position()?.music
      return heard?.mark === media.mark
        ? { second: offset + heard.second, rate: heard.rate }
        : undefined
    })
  }, [url, playing, still, by, offset, deck, media.mark])
  if (url === null)
    return <p role="status">The film is not kept here: find its file, and it is shown too.</p>
  return (
    <figure className={classes.film} aria-label="Film">
      <video
        ref={video}
        src={url}
        muted
        playsInline
        preload="auto"
        data-mirrored={isMirrored}
        aria-label={`Film of ${media.name}`}
      >
        {captions && <track key={captions} kind="captions" src={captions} default />}
      </video>
      <figcaption>
        <span>
          {isMirrored
            ? 'As in a mirror: her right is on your right.'
            : 'As it was filmed: her right is on your left.'}
        </span>
        <Switch
          size="xs"
          label="As in a mirror"
          checked={isMirrored}
          onChange={({ currentTarget }) => setMirrored(currentTarget.checked)}
        />
        <span className={classes.step}>
          <ActionIcon
            variant="default"
            disabled={playing}
            aria-label="One picture back"
            onClick={() => step(-1)}
          >
            <IconChevronLeft size={16} />
          </ActionIcon>
          <ActionIcon
            variant="default"
            disabled={playing}
            aria-label="One picture on"
            onClick={() => step(1)}
          >
            <IconChevronRight size={16} />
          </ActionIcon>
        </span>
      </figcaption>
    </figure>
  )
}
