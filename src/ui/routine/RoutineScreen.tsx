import { useMemo, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { USUAL_SOUND } from '../../core/class/soundChoice'
import type { Combination } from '../../core/combination/combination'
import { cueSheet } from '../../core/routine/cueSheet'
import { pieceAt } from '../../core/routine/room'
import type { Routine } from '../../core/routine/routine'
import { placeWords } from '../../core/song/lines'
import { firstOne, type Song, tempoBetween } from '../../core/song/song'
import { beforeStop } from '../../core/song/stretch'
import { TICKS_PER_COUNT } from '../../core/time/time'
import type { Songs } from '../../storage/songs'
import { fileName } from '../parts/files'
import { KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { inWords, ProblemPage } from '../parts/Problem'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { useScreenKeys } from '../parts/useScreenKeys'
import { useCombinations } from '../planning/usePlanning'
import { SavedSound } from '../play/SavedSound'
import { useSavedSound } from '../play/useSavedSound'
import { SongBar } from '../song/SongBar'
import { SoundMissing } from '../song/SoundMissing'
import map from '../song/song.module.css'
import { risen, type SongChoice, USUAL_CHOICE } from '../song/songChoice'
import { usePlayhead } from '../song/usePlayhead'
import { useSound } from '../song/useSound'
import { useSongs } from '../songs/useSongs'
import { CuePaper } from './CuePaper'
import { RoutineAside } from './RoutineAside'
import { RoutineLines } from './RoutineLines'
import { RoutineShelf } from './RoutineShelf'
import { RoutineStage } from './RoutineStage'
import { RoutineTakes } from './RoutineTakes'
import { RoutineTop } from './RoutineTop'
import classes from './routine.module.css'
import { ComingNext, ThenForm } from './ThenForm'
import { routineKeys, useHands } from './useHands'
import { useRoutine } from './useRoutine'
import { useRoutinePlay } from './useRoutinePlay'
import { useThen } from './useThen'

/** The song map: combinations laid on a song, danced to it. */
export function RoutineScreen() {
  const { id = '' } = useParams()
  const { error, ready } = useSongs()
  const combinations = useCombinations()
  const failed = error ?? combinations.error
  if (failed) return <ProblemPage {...inWords(failed)} />
  if (!ready || !combinations.data) return <p className="only-read">Opening…</p>
  const routine = ready.routines.find((one) => one.id === id)
  if (!routine)
    return (
      <ProblemPage what="This routine is not here." toDo="Go to Songs; make a new one there." />
    )
  const song = ready.all.find((one) => one.id === routine.song)
  if (!song)
    return (
      <ProblemPage
        what={`The song of “${routine.title}” is not here.`}
        toDo="Go to Songs and bring it back, or open its file anew."
      />
    )
  return (
    <OpenRoutine
      key={id}
      first={routine}
      song={song}
      store={ready.store}
      combinations={combinations.data}
      routines={ready.routines}
    />
  )
}

function OpenRoutine({
  first,
  song,
  store,
  combinations,
  routines,
}: {
  readonly first: Routine
  readonly song: Song
  readonly store: Songs
  readonly combinations: readonly Combination[]
  readonly routines: readonly Routine[]
}) {
  const { document, routine, laid, dance, change, message, say } = useRoutine(
    first,
    song,
    store,
    combinations,
  )
  const last = song.counts.ms.length - 1
  const [cursor, setCursor] = useState(firstOne(song.counts))
  const at = Math.min(cursor, last)
  const select = (to: number) => setCursor(Math.max(0, Math.min(last, to)))
  const [choice, setChoice] = useState(USUAL_CHOICE)
  const [isFilmed, setFilmed] = useState(false)
  const sound = useSound(song, store)
  useLeaveWarning(document.kept === 'failed')
  const piece = pieceAt(routine, at)
  const player = useRoutinePlay(
    dance,
    laid,
    song,
    at,
    choice,
    (stop) => select(beforeStop(song, stop)),
    (rounds) => setChoice((now) => risen(now, rounds)),
    () => run.ended(),
  )
  const run = useThen(routine, routines, sound.state.kind !== 'loading', () => void player.play())
  const saved = useSavedSound()
  const grid = useRef<HTMLDivElement>(null)
  const countRef = useRef<HTMLSpanElement>(null)
  usePlayhead(player, song, grid, countRef)
  const find = (id: string) => combinations.find((one) => one.id === id)
  const hands = useHands({ routine, song, at, piece, select, change, say, find })
  const playOrStop = () => (player.playing ? player.stop() : void player.play())
  const keys = useScreenKeys([
    ...undoKeys(document.undo, document.redo),
    ...routineKeys(hands, (by) => select(at + by), playOrStop),
  ])
  const rows = useMemo(() => cueSheet(routine, song, laid, dance), [routine, song, laid, dance])
  const figure = (
    <RoutineStage
      laid={laid}
      dance={dance}
      at={at}
      withSong={() => ({
        performance: player.whole(),
        heard: mixOf(choice),
        placeOf: ({ tick }) => placeWords(song, Math.floor(laid.from + tick / TICKS_PER_COUNT)),
      })}
    />
  )
  return (
    <main className={map.screen}>
      <KeysHelp {...keys} />
      <RoutineTop
        routine={routine}
        song={song}
        laid={laid}
        dance={dance}
        combinations={combinations}
        rows={rows}
        document={document}
        change={change}
        isFilmed={isFilmed}
        onFilmed={() => setFilmed(!isFilmed)}
        onKeys={keys.onOpen}
        onSound={() => void saved.save(fileName(routine.title, ''), player.whole(), mixOf(choice))}
      />
      <SavedSound {...saved} />
      {run.coming && <ComingNext {...run.coming} />}
      <SoundMissing {...sound} say={say} />
      <div className={classes.body}>
        <RoutineShelf
          routine={routine}
          song={song}
          combinations={combinations}
          onLay={hands.lay}
          onTake={(proposal) => change('take a proposal', () => proposal)}
          say={say}
        >
          <ThenForm routine={routine} routines={routines} change={change} />
        </RoutineShelf>
        <RoutineLines
          routine={routine}
          song={song}
          combinations={combinations}
          at={at}
          grid={grid}
          onSelect={select}
        />
        {isFilmed ? (
          <RoutineTakes
            routine={routine}
            laid={laid}
            at={at}
            figure={figure}
            play={player.playWhole}
          />
        ) : (
          <RoutineAside
            routine={routine}
            song={song}
            units={dance.house.units}
            combinations={combinations}
            at={at}
            piece={piece}
            hands={hands}
            message={message}
            figure={figure}
            onSelect={select}
            change={change}
          />
        )}
      </div>
      <SongBar
        playing={player.playing}
        choice={choice}
        tempo={tempoBetween(song, at, Math.min(last, at + hands.phrase))}
        canPlay={sound.state.kind !== 'loading'}
        countRef={countRef}
        onChoice={setChoice}
        onPlayOrStop={playOrStop}
      />
      <CuePaper
        routine={routine}
        song={song}
        rows={rows}
        then={routines.find(({ id }) => id === routine.next?.routine)?.title}
      />
    </main>
  )
}

/** A routine in a file is heard as it is on the screen. */
const mixOf = ({ isClicked, isNumbered, loud }: SongChoice) => ({
  mix: {
    click: isClicked ? USUAL_SOUND.mix.click : 0,
    half: 0,
    rhythm: 0,
    voice: isNumbered ? 1 : 0,
    moves: 0,
  },
  loud,
  own: new Map(),
})
