import { useQuery } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useParams } from 'react-router'
import { isCounted } from '../../core/song/even'
import { oneAt, type Song, secondsOfCount, tempoBetween } from '../../core/song/song'
import { beforeStop } from '../../core/song/stretch'
import type { Songs } from '../../storage/songs'
import { KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { inWords, ProblemPage } from '../parts/Problem'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { useScreenKeys } from '../parts/useScreenKeys'
import { Film } from '../songs/Film'
import { useSongs } from '../songs/useSongs'
import { useServices } from '../stores/services'
import { useDocument } from '../stores/useDocument'
import { useSaidChange } from '../stores/useSaidChange'
import { countChanges } from './countChanges'
import { SongAside } from './SongAside'
import { SongBar } from './SongBar'
import { SongLines } from './SongLines'
import { SongTop } from './SongTop'
import { SoundMissing } from './SoundMissing'
import classes from './song.module.css'
import { risen, USUAL_CHOICE } from './songChoice'
import { songKeys } from './songKeys'
import { useCountSelection } from './useCountSelection'
import { usePlayhead } from './usePlayhead'
import { useRecount } from './useRecount'
import { useSongPlay } from './useSongPlay'
import { useSound } from './useSound'
import { useTaps } from './useTaps'

/** Counts in a line, from all that a song has to what is seen best. */
const ZOOMS = [32, 16, 8] as const

/** One song: its counts and sections, heard, put right by tapping and by hand. */
export function SongScreen() {
  const { id = '' } = useParams()
  const { error, ready } = useSongs()
  if (error) return <ProblemPage {...inWords(error)} />
  if (!ready) return <p className="only-read">Opening…</p>
  const song = ready.all.find((one) => one.id === id)
  if (!song)
    return <ProblemPage what="This song is not here." toDo="Go to Songs; open its file there." />
  return <OpenSong key={id} first={song} store={ready.store} />
}

function OpenSong({ first, store }: { readonly first: Song; readonly store: Songs }) {
  const { newId } = useServices()
  const document = useDocument(first, store.songs)
  const song = document.history.present
  const { counts } = song
  const { selection, select, go } = useCountSelection(counts.ms.length)
  const { from } = selection
  const [zoom, setZoom] = useState(0)
  const [hasFilm, setFilm] = useState(true)
  const [choice, setChoice] = useState(USUAL_CHOICE)
  const { change, message, say } = useSaidChange(document)
  const sound = useSound(song, store)
  const { data: features } = useQuery({
    queryKey: ['heard', song.media.mark],
    queryFn: async () => (await store.heard.read(song.media.mark)) ?? null,
    gcTime: 0,
  })
  useLeaveWarning(document.kept === 'failed')
  const player = useSongPlay(
    song,
    selection,
    choice,
    (stop) => select(beforeStop(song, stop)),
    (rounds) => setChoice((now) => risen(now, rounds)),
  )
  const recount = useRecount({ song, selection, features, change, say, newId })
  const taps = useTaps(player, recount.byTaps)
  const edits = countChanges(change, selection)
  const line = ZOOMS[zoom] ?? ZOOMS[0]
  const phrase = oneAt(counts, from).counts
  const playOrStop = () => {
    taps.drop()
    if (player.playing) player.stop()
    else void player.play()
  }
  const keys = useScreenKeys([
    ...undoKeys(document.undo, document.redo),
    ...songKeys({
      edits,
      go,
      line,
      phrase,
      zoom: (by) => setZoom(Math.max(0, Math.min(ZOOMS.length - 1, zoom + by))),
      playOrStop,
      tap: taps.tap,
      film: () => setFilm(!hasFilm),
    }),
  ])
  const grid = useRef<HTMLDivElement>(null)
  const countRef = useRef<HTMLSpanElement>(null)
  usePlayhead(player, song, grid, countRef)
  const last = counts.ms.length - 1
  return (
    <main className={classes.screen}>
      <KeysHelp {...keys} />
      <SongTop
        song={song}
        document={document}
        isAsking={recount.isAsking}
        canCount={Boolean(features)}
        change={change}
        onCount={recount.anew}
        onKeys={keys.onOpen}
      />
      <SoundMissing {...sound} say={say} />
      <div className={classes.body}>
        <SongLines
          song={song}
          most={line}
          heat={features ?? undefined}
          selection={selection}
          onSelect={select}
          onSection={({ at }) => select(at)}
          onDrag={edits.drag}
          grid={grid}
        />
        <SongAside
          song={song}
          selection={selection}
          taps={taps.count}
          isAsking={recount.isAsking}
          message={message}
          newId={newId}
          onTap={taps.tap}
          onTempo={recount.atTempo}
          change={change}
          film={
            song.media.picture &&
            hasFilm && <Film song={song} store={store} still={secondsOfCount(song, from)} />
          }
        />
      </div>
      <SongBar
        playing={player.playing}
        choice={choice}
        tempo={isCounted(counts) ? tempoBetween(song, from, Math.min(last, from + phrase)) : 0}
        canPlay={sound.state.kind !== 'loading'}
        countRef={countRef}
        onChoice={setChoice}
        onPlayOrStop={playOrStop}
      />
    </main>
  )
}
