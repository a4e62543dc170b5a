import { Button, NativeSelect } from '@mantine/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import type { Performance } from '../../core/performance/performance'
import { placesFor } from '../../core/routine/places'
import type { Session } from '../stores/session'
import { documentOf } from '../stores/state'
import { Filmed, FilmHere } from './FilmHere'
import { Hard } from './Hard'
import classes from './songPanel.module.css'
import type { StudioSong } from './useStudioSong'

interface SongPanelProps extends StudioSong {
  readonly session: Session
  /** What is danced, once through. */
  readonly perform: () => Performance
  readonly isFilmShown: boolean
  /** Shows the film, or puts it away. */
  readonly onFilm: () => void
}

/** What a combination is danced to, and what only that song makes hard. */
export function SongPanel({ session, perform, isFilmShown, onFilm, ...music }: SongPanelProps) {
  const { records, played, sound, choose } = music
  const id = useStore(session, (s) => documentOf(s).id)
  const songs = useMemo(
    () =>
      (records?.all ?? []).map((song) => ({
        song,
        places: placesFor(id, song, records?.routines ?? []),
      })),
    [records, id],
  )
  const value = played ? `${played.song.id} ${played.at}` : ''
  return (
    <section className={classes.panel} aria-label="Danced to">
      <NativeSelect
        label="Danced to"
        value={value}
        onChange={({ currentTarget: { value: picked } }) => {
          const [song = '', at = ''] = picked.split(' ')
          choose(picked ? { song, at: Number(at), rate: played?.rate ?? 1 } : undefined)
        }}
      >
        <option value="">the count alone</option>
        {songs.map(({ song, places }) => (
          <optgroup key={song.id} label={song.title}>
            {places.map(({ at, label }) => (
              <option key={`${at} ${label}`} value={`${song.id} ${at}`}>
                {label}
              </option>
            ))}
          </optgroup>
        ))}
      </NativeSelect>
      {records && songs.length === 0 && (
        <p>
          <Link to="/songs">Open a song you dance to</Link>. It stays in this browser.
        </p>
      )}
      {played && sound.kind === 'missing' && (
        <p role="status">
          The sound of this song is not kept here: it is danced to the clicks of its counts.{' '}
          <Link to={`/song/${played.song.id}`}>Find its file</Link>
        </p>
      )}
      {sound.kind === 'failed' && (
        <p role="alert">
          {sound.what} {sound.toDo}
        </p>
      )}
      {played?.song.media.picture && records && (
        <>
          <Button size="xs" variant="default" aria-pressed={isFilmShown} onClick={onFilm}>
            {isFilmShown ? 'Put the film away' : 'Show the film'}
          </Button>
          {isFilmShown && <FilmHere session={session} store={records.store} played={played} />}
        </>
      )}
      {played && <Hard session={session} {...played} />}
      {played && (
        <p>
          <Link to={`/song/${played.song.id}`}>The counts of {played.song.title}</Link>
        </p>
      )}
      <Filmed session={session} perform={perform} />
    </section>
  )
}
