import { Button, FileButton, NativeSelect, TextInput } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { tempoBetween } from '../../core/performance/songPlayed'
import { RHYTHMS } from '../../core/rhythm/rhythms'
import { dragged } from '../../core/song/correct'
import { sectionsTaken, withCounts } from '../../core/song/edits'
import { isCounted } from '../../core/song/even'
import { placeWords } from '../../core/song/lines'
import { oneAt, type Song } from '../../core/song/song'
import { priorOf } from '../../core/song/styles'
import type { Songs } from '../../storage/songs'
import { eachFrame } from '../parts/eachFrame'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { inWords, Problem, ProblemPage } from '../parts/Problem'
import { SavedWord } from '../parts/SavedWord'
import { UndoButtons } from '../parts/UndoButtons'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { useScreenKeys } from '../parts/useScreenKeys'
import { useSongs } from '../songs/useSongs'
import { useServices } from '../stores/services'
import { useDocument } from '../stores/useDocument'
import { countChanges, NUDGE, SongAside } from './SongAside'
import { SongBar } from './SongBar'
import { SongLines } from './SongLines'
import classes from './song.module.css'
import { useRecount } from './useRecount'
import { type Counts, USUAL_CHOICE, useSongPlay } from './useSongPlay'
import { useSound } from './useSound'

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
  const { deck, newId } = useServices()
  const document = useDocument(first, store.songs)
  const song = document.history.present
  const { counts } = song
  const [selection, setSelection] = useState<Counts>({ from: 0, to: 1 })
  const anchor = useRef(0)
  const [zoom, setZoom] = useState(0)
  const [choice, setChoice] = useState(USUAL_CHOICE)
  const [message, setMessage] = useState('')
  const sound = useSound(song, store, deck)
  const features = useQuery({
    queryKey: ['heard', song.media.mark],
    queryFn: async () => (await store.heard.read(song.media.mark)) ?? null,
    gcTime: 0,
  })
  // Behind a stop it goes on one phrase earlier.
  const player = useSongPlay(song, selection, choice, (stop) =>
    select(Math.max(0, stop - oneAt(counts, stop).counts)),
  )
  useLeaveWarning(document.kept === 'failed')

  const change: typeof document.change = (label, make, mark) => {
    setMessage('')
    try {
      document.change(label, make, mark)
    } catch (error) {
      const { what, toDo } = inWords(error)
      setMessage(`${what} ${toDo}`)
    }
  }
  const last = counts.ms.length - 1
  const select = (at: number, isMore = false) => {
    const to = Math.max(0, Math.min(last, at))
    if (!isMore) anchor.current = to
    setSelection({ from: Math.min(anchor.current, to), to: Math.max(anchor.current, to) + 1 })
  }
  // A song that has fewer counts by now has its selection within them.
  const { from } = selection
  useEffect(() => {
    if (from <= last) return
    anchor.current = last
    setSelection({ from: last, to: last + 1 })
  }, [from, last])

  const recount = useRecount({
    song,
    selection,
    features: features.data,
    change,
    say: setMessage,
    newId,
  })
  const taps = useTaps(player, recount.byTaps)
  const edits = countChanges(change, selection)
  const head = () => (anchor.current === selection.from ? selection.to - 1 : selection.from)
  const phrase = counts.ones.findLast(({ at }) => at <= from)?.counts ?? 8
  const playOrStop = () => {
    taps.drop()
    if (player.playing) player.stop()
    else void player.play()
  }
  const keys = useScreenKeys([
    ...undoKeys(document.undo, document.redo),
    { on: [' '], does: 'play from the selected count, or stop', run: playOrStop },
    { on: ['ArrowRight'], does: 'the next count', run: () => select(head() + 1), repeats: true },
    { on: ['ArrowLeft'], does: 'the count before', run: () => select(head() - 1), repeats: true },
    {
      on: ['ArrowDown'],
      does: 'a line on',
      run: () => select(head() + (ZOOMS[zoom] ?? 32)),
      repeats: true,
    },
    {
      on: ['ArrowUp'],
      does: 'a line back',
      run: () => select(head() - (ZOOMS[zoom] ?? 32)),
      repeats: true,
    },
    {
      on: ['Shift ArrowRight'],
      does: 'select one more',
      run: () => select(head() + 1, true),
      repeats: true,
    },
    {
      on: ['Shift ArrowLeft'],
      does: 'select one less',
      run: () => select(head() - 1, true),
      repeats: true,
    },
    { on: ['PageDown'], does: 'a phrase on', run: () => select(head() + phrase), repeats: true },
    { on: ['PageUp'], does: 'a phrase back', run: () => select(head() - phrase), repeats: true },
    { on: ['t'], does: 'tap along', run: taps.tap },
    { on: ['1'], does: 'this is 1', run: edits.one },
    { on: ['!'], does: 'count anew here', run: edits.anew },
    { on: ['['], does: 'twice as many counts', run: edits.twice },
    { on: [']'], does: 'half as many counts', run: edits.half },
    {
      on: [','],
      does: 'counts a little earlier',
      run: () => edits.nudge(-NUDGE.little),
      repeats: true,
    },
    {
      on: ['.'],
      does: 'counts a little later',
      run: () => edits.nudge(NUDGE.little),
      repeats: true,
    },
    {
      on: ['Alt ArrowLeft'],
      does: 'this count earlier, set by hand',
      run: () => setByHand(-NUDGE.little),
      repeats: true,
    },
    {
      on: ['Alt ArrowRight'],
      does: 'this count later, set by hand',
      run: () => setByHand(NUDGE.little),
      repeats: true,
    },
    { on: ['0'], does: 'no count here, or again', run: edits.uncount },
    {
      on: ['+'],
      does: 'fewer counts in a line',
      run: () => setZoom(Math.min(ZOOMS.length - 1, zoom + 1)),
    },
    { on: ['-'], does: 'more counts in a line', run: () => setZoom(Math.max(0, zoom - 1)) },
  ])
  const setByHand = (by: number) =>
    change(
      'set a count by hand',
      (now) => withCounts(now, dragged(now.counts, from, (now.counts.ms[from] ?? 0) + by)),
      `by hand ${from}`,
    )
  const screen = useRef<HTMLDivElement>(null)
  const countRef = useRef<HTMLSpanElement>(null)
  usePlayhead(player, song, screen, countRef)
  const tempoHere = tempoBetween(song, from, Math.min(last, from + phrase))
  const isProposed = song.sections.some(({ found }) => found)
  return (
    <main className={classes.screen}>
      <KeysHelp {...keys} />
      <div className={classes.top}>
        <h1 className="only-read">{song.title}</h1>
        <TextInput
          className={classes.title}
          aria-label="Name of the song"
          value={song.title}
          maxLength={120}
          onChange={({ currentTarget: { value } }) =>
            value !== '' && change('name', (now) => ({ ...now, title: value }), 'name')
          }
        />
        <TextInput
          className={classes.by}
          aria-label="By whom"
          placeholder="by"
          value={song.by}
          maxLength={120}
          onChange={({ currentTarget: { value } }) =>
            change('by whom', (now) => ({ ...now, by: value }), 'by')
          }
        />
        <NativeSelect
          aria-label="Rhythm"
          value={song.rhythm ?? ''}
          data={[
            { value: '', label: 'any rhythm' },
            ...RHYTHMS.filter(({ id }) => priorOf(id)).map(({ id, name }) => ({
              value: id,
              label: name,
            })),
          ]}
          onChange={({ currentTarget: { value } }) =>
            change('rhythm', ({ rhythm: _, ...now }) => (value ? { ...now, rhythm: value } : now))
          }
        />
        <Button
          variant="default"
          loading={recount.isAsking}
          disabled={!features.data}
          onClick={() => recount.anew()}
        >
          Count again
        </Button>
        {isProposed && (
          <Button variant="default" onClick={() => change('take the sections', sectionsTaken)}>
            Take these sections
          </Button>
        )}
        <span className={classes.spring} />
        <SavedWord state={document.kept} />
        <UndoButtons undo={document.undo} redo={document.redo} last={document.last} />
        <KeysButton onClick={keys.onOpen} />
      </div>
      {sound.state.kind === 'failed' && <Problem what={sound.state.what} toDo={sound.state.toDo} />}
      {sound.state.kind === 'missing' && (
        <div className={classes.missing} role="status">
          <p>
            The sound of this song is not kept here. Its counts, sections and clicks work without
            it.
          </p>
          <FileButton
            accept="audio/*,video/*"
            onChange={(file) => {
              if (!file) return
              sound.find(file).catch((error) => {
                const { what, toDo } = inWords(error)
                setMessage(`${what} ${toDo}`)
              })
            }}
            inputProps={{ 'aria-label': 'Find the file' }}
          >
            {(props) => (
              <Button {...props} size="compact-sm" variant="default">
                Find the file
              </Button>
            )}
          </FileButton>
        </div>
      )}
      <div className={classes.body}>
        <SongLines
          song={song}
          most={ZOOMS[zoom] ?? 32}
          heat={features.data ?? undefined}
          selection={selection}
          onSelect={select}
          onSection={({ at }) => select(at)}
          onDrag={(at, ms) =>
            change('set a count by hand', (now) => withCounts(now, dragged(now.counts, at, ms)))
          }
          screen={screen}
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
        />
      </div>
      <SongBar
        playing={player.playing}
        choice={choice}
        tempo={isCounted(counts) ? tempoHere : 0}
        canPlay={sound.state.kind !== 'loading'}
        countRef={countRef}
        onChoice={setChoice}
        onPlayOrStop={playOrStop}
      />
    </main>
  )
}

type Player = ReturnType<typeof useSongPlay>

/** Nobody taps any more after so long. */
const TAPPED_MS = 2500
const LEAST_TAPS = 8

/** Taps along with what sounds; the first one starts it. */
function useTaps(player: Player, done: (seconds: readonly number[]) => void) {
  const [count, setCount] = useState<number>()
  const taps = useRef<number[]>([])
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const drop = () => {
    clearTimeout(timer.current)
    taps.current = []
    setCount(undefined)
  }
  const finish = () => {
    const made = taps.current
    drop()
    player.stop()
    done(made)
  }
  const tap = () => {
    clearTimeout(timer.current)
    const second = player.playing ? player.second() : undefined
    if (!player.playing) {
      taps.current = []
      setCount(0)
      void player.play()
      return
    }
    if (second === undefined) return
    taps.current = [...taps.current, second]
    setCount(taps.current.length)
    timer.current = setTimeout(taps.current.length >= LEAST_TAPS ? finish : drop, TAPPED_MS)
  }
  useEffect(() => () => clearTimeout(timer.current), [])
  return { count, tap, drop }
}

/** Shows where the sound is: a line over the counts, and its number in the bar. */
function usePlayhead(
  player: Player,
  song: Song,
  screen: React.RefObject<HTMLDivElement | null>,
  count: React.RefObject<HTMLSpanElement | null>,
) {
  const latest = useRef({ player, song })
  latest.current = { player, song }
  const { playing } = player
  useEffect(() => {
    const lines = screen.current
    if (!playing || !lines) return
    let shown: HTMLElement | undefined
    let heard = ''
    const stop = eachFrame(() => {
      const at = latest.current.player.at()
      const rows = [...lines.querySelectorAll<HTMLElement>('[data-line]')]
      const row =
        at === undefined
          ? undefined
          : (rows.findLast((one) => Number(one.dataset.line) <= at) ?? rows[0])
      const mark = row?.querySelector<HTMLElement>(`.${classes.head}`) ?? undefined
      if (shown && shown !== mark) shown.style.visibility = 'hidden'
      shown = mark
      const text =
        at === undefined ? '' : placeWords(latest.current.song, Math.max(0, Math.floor(at + 1e-6)))
      if (text !== heard && count.current) count.current.textContent = text
      heard = text
      if (!row || !mark || at === undefined) return
      const from = Number(row.dataset.line)
      const cell = row.querySelector<HTMLElement>('[data-at]')
      const wide = cell?.offsetWidth ?? 0
      mark.style.visibility = 'visible'
      mark.style.transform = `translateX(${(cell?.offsetLeft ?? 0) + Math.max(-0.5, at - from) * wide}px)`
    })
    return () => {
      stop()
      if (shown) shown.style.visibility = 'hidden'
      if (count.current) count.current.textContent = ''
    }
  }, [playing, screen, count])
}
