import { ActionIcon, Button } from '@mantine/core'
import { IconChevronDown, IconFileImport, IconTrash } from '@tabler/icons-react'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useStore } from 'zustand'
import { DEMO_SONGS, type DemoId } from '../../core/demoSongs/titles'
import { emptyRoutine } from '../../core/routine/routine'
import type { Song } from '../../core/song/song'
import { clockText } from '../../core/time/clock'
import { BringBack } from '../parts/BringBack'
import { FilesButton } from '../parts/FilesButton'
import { isSound } from '../parts/isSound'
import { LaterMenu } from '../parts/LaterMenu'
import { inWords, ProblemPage, Unreadable } from '../parts/Problem'
import { type Handles, handlesOf, useFileDrop } from '../parts/useFileDrop'
import { useServices } from '../stores/services'
import { EnergyBand } from './EnergyBand'
import { LongFile } from './LongFile'
import { forget, reading, readSongFile } from './reading'
import classes from './songs.module.css'
import { sureWords, tempoWords } from './songWords'
import { type SongRecords, useSongs } from './useSongs'

const ACCEPTED = 'audio/*,video/*,.json,.mp3,.m4a,.ogg,.oga,.opus,.flac,.wav,.mp4,.webm,.mov'

/** All songs; a new one from a file, read here and kept in this browser. */
export function SongsScreen() {
  const { error, ready } = useSongs()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  return <Shelf {...ready} />
}

function Shelf({ store, all, unreadable, routines }: SongRecords) {
  const { deck, newId } = useServices()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const [gone, setGone] = useState<Song>()
  const open = async (files: readonly File[], handles?: Handles) => {
    const ids: (string | undefined)[] = []
    for (const file of files) {
      const handle = (await handles)?.get(file.name)
      ids.push(await readSongFile(file, { store, deck, newId }, { handle }))
    }
    const [only] = ids
    // One file that went well is looked at next, where nobody has gone elsewhere meanwhile.
    const isQuiet = reading.getState().told.length === 0
    if (ids.length === 1 && only !== undefined && isQuiet && location.pathname === '/songs')
      await navigate(`/song/${only}`)
  }
  const [playing, setPlaying] = useState(false)
  const openDemo = async (id: DemoId) => {
    setPlaying(true)
    try {
      const [{ playDemoSong }, { writeWav }] = await Promise.all([
        import('../../workers/demoSong'),
        import('../../audio/wav'),
      ])
      const { title, samples, rate } = await playDemoSong(id)
      const bytes = await writeWav(samples, rate)
      await open([new File([bytes], `${title}.wav`, { type: 'audio/wav' })])
    } finally {
      setPlaying(false)
    }
  }
  const newRoutine = async (song: Song) => {
    const routine = emptyRoutine(newId(), song)
    await store.routines.put(routine)
    await queries.invalidateQueries({ queryKey: ['routines'] })
    await navigate(`/routine/${routine.id}`)
  }
  const dropped = useFileDrop((files, transfer) => {
    const handles = handlesOf(transfer)
    void open(files, handles)
  }, isForSongs)
  return (
    <main className={classes.shelf} {...dropped}>
      <div className={classes.top}>
        <h1 className="display">Songs</h1>
        <LaterMenu
          button={(onClick) => (
            <Button
              variant="default"
              loading={playing}
              rightSection={<IconChevronDown size={16} />}
              aria-haspopup="menu"
              onClick={onClick}
            >
              Try a demo song
            </Button>
          )}
          note="Invented, and played by the app itself."
          items={DEMO_SONGS.map(({ id, title }) => ({
            label: title,
            onPick: () => void openDemo(id),
          }))}
        />
        <FilesButton
          accept={ACCEPTED}
          label="Open songs"
          leftSection={<IconFileImport size={18} />}
          onFiles={(files) => void open(files)}
        >
          Open a song
        </FilesButton>
      </div>
      <Readings />
      <Tolds open={(file, part) => void readSongFile(file, { store, deck, newId }, { part })} />
      {gone && (
        <BringBack
          title={gone.title}
          onBack={() => {
            setGone(undefined)
            void store.songs.restore(gone.id)
          }}
        />
      )}
      <Unreadable count={unreadable} of="song" />
      {all.length === 0 && (
        <p className={classes.empty}>Open a song you dance to. It stays in this browser.</p>
      )}
      <ul className={classes.songs}>
        {all.map((song) => (
          <li key={song.id}>
            <Link to={`/song/${song.id}`}>
              <b className="display">{song.title}</b>
              <span className={`counts ${classes.facts}`}>
                {[song.by, clockText(song.media.seconds), tempoWords(song), sureWords(song)]
                  .filter(Boolean)
                  .join(' · ')}
                {song.media.keep === 'linked' && ' · its file must be opened again'}
              </span>
              <EnergyBand song={song} />
            </Link>
            <span className={classes.routines}>
              {routines
                .filter((routine) => routine.song === song.id)
                .map(({ id, title }) => (
                  <Link key={id} to={`/routine/${id}`}>
                    {title}
                  </Link>
                ))}
              <Button size="compact-sm" variant="default" onClick={() => void newRoutine(song)}>
                New routine
              </Button>
            </span>
            <ActionIcon
              variant="subtle"
              color="gray"
              aria-label={`Delete ${song.title}`}
              onClick={() => {
                setGone(song)
                void store.songs.remove(song.id)
              }}
            >
              <IconTrash size={18} />
            </ActionIcon>
          </li>
        ))}
      </ul>
    </main>
  )
}

/** Sound, or counts that were saved; a combination is opened like on any screen. */
const isForSongs = (files: readonly File[]): boolean =>
  files.some(
    (file) => isSound(file) || (/\.json$/i.test(file.name) && !/\.sway\.json$/i.test(file.name)),
  )

/** What is being read, how far it is, and how it is stopped. */
function Readings() {
  const readings = useStore(reading, (now) => now.readings)
  return (
    <ul className={classes.readings} aria-live="polite">
      {readings.map(({ id, name, text, share, stop }) => (
        <li key={id}>
          <span className={classes.name}>{name}</span>
          <span className="counts">
            {text}
            {share === undefined ? '…' : `, ${Math.round(100 * share)} %`}
          </span>
          <progress max={1} {...(share !== undefined && { value: share })} aria-label={name} />
          <Button
            size="compact-sm"
            variant="default"
            onClick={() => {
              stop.abort()
              reading.setState((state) => ({
                readings: state.readings.filter((one) => one.id !== id),
              }))
            }}
          >
            Stop
          </Button>
        </li>
      ))}
    </ul>
  )
}

/** What came of files that are not simply songs now. */
function Tolds({
  open,
}: {
  readonly open: (file: File, part: { readonly from: number; readonly to: number }) => void
}) {
  const told = useStore(reading, (now) => now.told)
  return told.map(({ id, name, what, toDo, song, long }) => (
    <div key={id} role={song ? 'status' : 'alert'} className={classes.told} data-song={song}>
      <p>
        <b>“{name}”</b> {what} {toDo}
      </p>
      {long && (
        <LongFile
          seconds={long.seconds}
          onRead={(part) => {
            forget(id)
            open(long.file, part)
          }}
        />
      )}
      {song !== undefined && (
        <Link to={`/song/${song}`} onClick={() => forget(id)}>
          Open it
        </Link>
      )}
      <Button size="compact-sm" variant="default" onClick={() => forget(id)}>
        Close
      </Button>
    </div>
  ))
}
