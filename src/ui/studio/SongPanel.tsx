import { NativeSelect } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useCallback, useDeferredValue, useMemo } from 'react'
import { Link } from 'react-router'
import { useStore } from 'zustand'
import type { Combination } from '../../core/combination/combination'
import type { Performance } from '../../core/performance/performance'
import { placedOn } from '../../core/routine/placed'
import type { Routine } from '../../core/routine/routine'
import { songFactPlace, songFactText } from '../../core/routine/words'
import { placeWords } from '../../core/song/lines'
import { firstOne, type Song, secondsOfCount } from '../../core/song/song'
import { TICKS_PER_COUNT } from '../../core/time/time'
import type { Songs } from '../../storage/songs'
import type { PlaySong } from '../play/performances'
import { Film } from '../songs/Film'
import { checkedOf } from '../stores/checked'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import { documentOf, type SessionState } from '../stores/state'
import { TakePanel } from '../takes/TakePanel'
import { Stage } from './Stage'
import classes from './songPanel.module.css'
import type { StudioSong } from './useStudioSong'

interface SongPanelProps extends StudioSong {
  readonly session: Session
  /** What is danced, once through. */
  readonly perform: () => Performance
}

/** What a combination is danced to, and what only that song makes hard. */
export function SongPanel({ session, perform, ...music }: SongPanelProps) {
  const { records, played, sound, choose } = music
  const id = useStore(session, (s) => documentOf(s).id)
  const songs = useMemo(
    () =>
      (records?.all ?? []).map((song) => ({
        song,
        places: placesOf(song, records?.routines ?? [], id),
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
        <FilmHere session={session} store={records.store} played={played} />
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

/** Takes of what is danced here. */
function Filmed({ session, perform }: Pick<SongPanelProps, 'session' | 'perform'>) {
  const { deck } = useServices()
  const id = useStore(session, (s) => documentOf(s).id)
  const title = useStore(session, (s) => documentOf(s).title)
  const side = useStore(session, ({ selection }) => selection.dancing.side)
  const tick = useStore(session, cursorTick)
  const play = useCallback(async () => {
    const performance = perform()
    await deck.play(performance)
    return performance
  }, [deck, perform])
  return (
    <TakePanel
      combination={useMemo(() => ({ id, title }), [id, title])}
      play={play}
      still={useMemo(() => ({ side, tick }), [side, tick])}
      figure={<Stage session={session} />}
    />
  )
}

/** Where the cursor stands, in ticks of the dance. */
const cursorTick = ({ selection, history }: SessionState): number =>
  (checkedOf(history.present).lead.passes[selection.pass]?.at ?? 0) + selection.at

/** The film of the song; while nothing plays it shows what is danced where the cursor stands. */
function FilmHere({
  session,
  store,
  played: { song, at },
}: {
  readonly session: Session
  readonly store: Songs
  readonly played: PlaySong
}) {
  const tick = useStore(session, cursorTick)
  const still = secondsOfCount(song, at + tick / TICKS_PER_COUNT)
  return <Film song={song} store={store} still={still} />
}

/** What goes wrong only in this place of the song, because it is faster there. */
function Hard({ session, song, at }: PlaySong & { readonly session: Session }) {
  const { judge } = useServices()
  const document = useDeferredValue(useStore(session, documentOf))
  const { units } = useStore(houseNow, (s) => s.house)
  const facts = useQuery({
    queryKey: ['danced to', document, song, at],
    queryFn: ({ signal }) =>
      judge.ask(
        'routine',
        { routine: placedOn(song, document, at), song, combinations: [document] },
        signal,
      ),
    gcTime: 0,
    staleTime: 0,
  })
  const found = (facts.data ?? []).filter(({ code }) => code === 'song.dance')
  if (!facts.data) return <p>Looking…</p>
  if (found.length === 0)
    return <p>It is danced here as well as at its own tempo of {document.tempo}.</p>
  return (
    <ul className={classes.hard} aria-label="Too fast only here">
      {found.map((fact) => (
        <li key={`${fact.at} ${songFactText(fact, song, units)}`}>
          <b className="counts">{songFactPlace(fact, song)}</b> {songFactText(fact, song, units)}
        </li>
      ))}
    </ul>
  )
}

interface Place {
  readonly at: number
  readonly label: string
}

/** Where a song may be danced to: where this is laid on it first, then where its parts begin. */
function placesOf(
  song: Song,
  routines: readonly Routine[],
  combination: Combination['id'],
): readonly Place[] {
  const laid = routines
    .filter((routine) => routine.song === song.id)
    .flatMap(({ pieces }) => pieces)
    .flatMap(({ at, what }): readonly Place[] =>
      what.kind === 'dance' && what.combination === combination
        ? [{ at, label: `${placeWords(song, at)}, as it is laid` }]
        : [],
    )
  const sections = song.sections.map(({ at, label }) => {
    const from = Math.max(at, firstOne(song.counts))
    return { at: from, label }
  })
  const parts = sections.length > 0 ? sections : [{ at: firstOne(song.counts), label: 'From 1' }]
  return [...laid, ...parts.filter(({ at }) => laid.every((one) => one.at !== at))]
}
