import { Button, Checkbox, SegmentedControl, TextInput } from '@mantine/core'
import { IconChevronDown } from '@tabler/icons-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { Link, useParams } from 'react-router'
import { useStore } from 'zustand'
import { LAYERS, type Layer } from '../../core/body/layers'
import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { aloneFrom } from '../../core/combination/dancing'
import { tempoBetween } from '../../core/performance/songPlayed'
import { folded } from '../../core/record/folded'
import { cueSheet, cueSheetCsv, cueSheetVtt } from '../../core/routine/cueSheet'
import { dancedTo } from '../../core/routine/danced'
import {
  countsFrom,
  laidOn,
  leftInSection,
  lengthened,
  moved,
  removed,
  restedOn,
  roomAt,
  turned,
} from '../../core/routine/edits'
import { sumsOf } from '../../core/routine/fit'
import { laidOut } from '../../core/routine/laid'
import { endOfPiece, type RestHow, type Routine } from '../../core/routine/routine'
import { REST_WORDS, songFactPlace, songFactText } from '../../core/routine/words'
import { placeWords } from '../../core/song/lines'
import { oneAt, type Song } from '../../core/song/song'
import { TICKS_PER_COUNT } from '../../core/time/time'
import type { Songs } from '../../storage/songs'
import { eachFrame } from '../parts/eachFrame'
import { KeysButton, KeysHelp } from '../parts/KeysHelp'
import { undoKeys } from '../parts/keys'
import { LaterMenu } from '../parts/LaterMenu'
import { counted } from '../parts/locale'
import { inWords, ProblemPage } from '../parts/Problem'
import { SavedWord } from '../parts/SavedWord'
import { UndoButtons } from '../parts/UndoButtons'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { useScreenKeys } from '../parts/useScreenKeys'
import { useCombinations } from '../planning/usePlanning'
import { SongBar } from '../song/SongBar'
import map from '../song/song.module.css'
import { USUAL_CHOICE } from '../song/useSongPlay'
import { useSound } from '../song/useSound'
import { useSongs } from '../songs/useSongs'
import { DanceStage } from '../stage/DanceStage'
import { houseNow } from '../stores/house'
import { useServices } from '../stores/services'
import { useDocument } from '../stores/useDocument'
import { words } from '../stores/words'
import { CuePaper } from './CuePaper'
import { countId, nameOf, RoutineLines } from './RoutineLines'
import classes from './routine.module.css'
import { useFacts } from './useFacts'
import { useProposals } from './useProposals'
import { useRoutinePlay } from './useRoutinePlay'

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
    />
  )
}

const ALL_LAYERS: ReadonlySet<Layer> = new Set(LAYERS)

function OpenRoutine({
  first,
  song,
  store,
  combinations,
}: {
  readonly first: Routine
  readonly song: Song
  readonly store: Songs
  readonly combinations: readonly Combination[]
}) {
  const { deck, newId } = useServices()
  const document = useDocument(first, store.routines)
  const routine = document.history.present
  const { vocabulary } = useStore(words, (s) => s)
  const { house } = useStore(houseNow, (s) => s)
  const last = song.counts.ms.length - 1
  const [at, setAt] = useState(song.counts.ones[0]?.at ?? 0)
  const [side, setSide] = useState<Side>('R')
  const [wanted, setWanted] = useState('')
  const [message, setMessage] = useState('')
  const [choice, setChoice] = useState(USUAL_CHOICE)
  const [only, setOnly] = useState<Layer>()
  const sound = useSound(song, store, deck)
  useLeaveWarning(document.kept === 'failed')

  const find = useMemo(() => {
    const byId = new Map(combinations.map((one) => [one.id, one]))
    return (id: string) => byId.get(id)
  }, [combinations])
  const laid = useMemo(() => laidOut(routine, song, find), [routine, song, find])
  const dance = useMemo(
    () => dancedTo(laid, song, vocabulary, house),
    [laid, song, vocabulary, house],
  )
  const { facts, asked, offers } = useFacts(routine, song, combinations, at)
  const sums = sumsOf(routine, song)
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const proposals = useProposals(routine, song, setMessage)
  const piece = routine.pieces.find((one) => at >= one.at && at < endOfPiece(one))
  // Behind a stop it goes on one phrase earlier.
  const player = useRoutinePlay(dance, laid, song, { from: at, to: at + 1 }, choice, (stop) =>
    setAt(Math.max(laid.from, stop - oneAt(song.counts, stop).counts)),
  )
  const countRef = useRef<HTMLSpanElement>(null)
  usePlayhead(player, song, countRef)

  const change = (label: string, make: (now: Routine) => Routine, mark?: string) => {
    setMessage('')
    try {
      document.change(label, make, mark)
    } catch (error) {
      const { what, toDo } = inWords(error)
      setMessage(`${what} ${toDo}`)
    }
  }
  const select = (to: number) => setAt(Math.max(0, Math.min(last, to)))
  const phrase = oneAt(song.counts, at).counts
  const lay = (combination: Combination) => {
    const from = piece ? endOfPiece(piece) : at
    change(`lay ${combination.title}`, (now) =>
      laidOn(now, song, combination, { at: from, side, id: newId() }),
    )
    select(from)
  }
  const rest = (how: RestHow) => {
    const from = piece ? endOfPiece(piece) : at
    const counts = Math.min(roomAt(routine, song, from), leftInSection(song, from))
    change(REST_WORDS[how].toLowerCase(), (now) =>
      restedOn(now, song, { at: from, counts: Math.max(1, counts), how, id: newId() }),
    )
  }
  const onPiece = (label: string, make: (now: Routine, id: string) => Routine, to = 0) => {
    if (!piece) {
      setMessage('Select a piece first: touch it, or go to it with the arrows.')
      return
    }
    const { id } = piece
    change(label, (now) => make(now, id), `${label} ${id}`)
    if (to !== 0) select(at + to)
  }
  const move = (by: number) => onPiece('move', (now, id) => moved(now, song, id, by), by)
  const longer = (by: number) => onPiece('length', (now, id) => lengthened(now, song, id, by))
  const turn = () => onPiece('other side', turned)
  const remove = () => onPiece('take away', removed)
  const playOrStop = () => (player.playing ? player.stop() : void player.play())
  const keys = useScreenKeys([
    ...undoKeys(document.undo, document.redo),
    { on: [' '], does: 'play from the selected count, or stop', run: playOrStop },
    { on: ['ArrowRight'], does: 'the next count', run: () => select(at + 1), repeats: true },
    { on: ['ArrowLeft'], does: 'the count before', run: () => select(at - 1), repeats: true },
    {
      on: ['ArrowDown', 'PageDown'],
      does: 'a phrase on',
      run: () => select(at + phrase),
      repeats: true,
    },
    {
      on: ['ArrowUp', 'PageUp'],
      does: 'a phrase back',
      run: () => select(at - phrase),
      repeats: true,
    },
    { on: ['m'], does: 'the piece a phrase later', run: () => move(phrase) },
    { on: ['n'], does: 'the piece a phrase earlier', run: () => move(-phrase) },
    { on: ['Alt ArrowRight'], does: 'the piece a count later', run: () => move(1), repeats: true },
    {
      on: ['Alt ArrowLeft'],
      does: 'the piece a count earlier',
      run: () => move(-1),
      repeats: true,
    },
    { on: ['Shift ArrowRight'], does: 'the piece a phrase longer', run: () => longer(phrase) },
    { on: ['Shift ArrowLeft'], does: 'the piece a phrase shorter', run: () => longer(-phrase) },
    { on: ['x'], does: 'the piece four counts shorter', run: () => longer(-4) },
    { on: ['s'], does: 'the piece from its other side', run: turn },
    { on: ['p'], does: 'a pose in the free counts', run: () => rest('pose') },
    { on: ['Delete', 'Backspace'], does: 'take the piece away', run: remove },
  ])
  const rows = useMemo(() => cueSheet(routine, song, laid, dance), [routine, song, laid, dance])
  const saveCues = async (as: 'csv' | 'vtt') => {
    const { download, fileName } = await import('../parts/files')
    const text = as === 'csv' ? cueSheetCsv(rows) : cueSheetVtt(rows, song, laid)
    download(fileName(routine.title, `.${as}`), text, `text/${as}`)
  }
  const shown = combinations.filter(({ title }) => folded(title).includes(folded(wanted)))
  return (
    <main className={map.screen}>
      <KeysHelp {...keys} />
      <div className={map.top}>
        <h1 className="only-read">{routine.title}</h1>
        <TextInput
          className={map.title}
          aria-label="Name of the routine"
          value={routine.title}
          maxLength={120}
          onChange={({ currentTarget: { value } }) =>
            change('name', (now) => ({ ...now, title: value }), 'name')
          }
        />
        <Link className={classes.song} to={`/song/${song.id}`}>
          on {song.title}
        </Link>
        <span className={`counts ${classes.sums}`}>
          {counted(sums.danced, 'count')} danced · {sums.rest} at rest · {sums.left} left · R{' '}
          {sums.sides.R}, L {sums.sides.L}
        </span>
        <span className={map.spring} />
        <LaterMenu
          button={(onClick) => (
            <Button
              size="xs"
              variant="default"
              rightSection={<IconChevronDown size={14} />}
              aria-haspopup="menu"
              onClick={onClick}
            >
              Cue sheet
            </Button>
          )}
          items={[
            { label: 'Print it', onPick: () => window.print() },
            { label: 'Save as a table (CSV)', onPick: () => void saveCues('csv') },
            { label: 'Save as captions (VTT)', onPick: () => void saveCues('vtt') },
          ]}
        />
        <SavedWord state={document.kept} />
        <UndoButtons undo={document.undo} redo={document.redo} last={document.last} />
        <KeysButton onClick={keys.onOpen} />
      </div>
      <div className={classes.body}>
        <section className={classes.shelf} aria-label="Combinations to lay">
          <TextInput
            size="xs"
            aria-label="Find a combination"
            placeholder="Find a combination"
            value={wanted}
            onChange={({ currentTarget }) => setWanted(currentTarget.value)}
          />
          <SegmentedControl
            size="xs"
            aria-label="Side to lay"
            data={[
              { value: 'R', label: 'R side' },
              { value: 'L', label: 'L side' },
            ]}
            value={side}
            onChange={(value) => setSide(value as Side)}
          />
          <ul>
            {shown.map((one) => (
              <li key={one.id} className={classes.choice}>
                <Checkbox
                  aria-label={`Propose with ${one.title}`}
                  checked={ticked.has(one.id)}
                  onChange={({ currentTarget: { checked } }) => {
                    const next = new Set(ticked)
                    if (checked) next.add(one.id)
                    else next.delete(one.id)
                    setTicked(next)
                  }}
                />
                <button type="button" className={classes.lay} onClick={() => lay(one)}>
                  <b>{one.title}</b>
                  <span className="counts">
                    {counted(countsFrom(one), 'count')} · {one.tempo}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <p className={classes.hint}>Touched, it is laid on the selected count.</p>
          <Button
            size="xs"
            loading={proposals.asking}
            onClick={() => void proposals.ask(combinations.filter(({ id }) => ticked.has(id)))}
          >
            Propose with those ticked
          </Button>
          {proposals.asking && (
            <Button size="xs" variant="default" onClick={proposals.stop}>
              Stop
            </Button>
          )}
          {proposals.proposed.map((one, i) => (
            <button
              key={one.words + String(one.cost)}
              type="button"
              className={classes.lay}
              onClick={() => change('take a proposal', () => one.routine)}
            >
              <b>Proposal {i + 1}</b>
              <span className="counts">{one.words}</span>
            </button>
          ))}
        </section>
        <RoutineLines
          routine={routine}
          song={song}
          combinations={combinations}
          at={at}
          piece={piece}
          onSelect={select}
        />
        <aside className={classes.aside} aria-label="Danced here">
          <div className={classes.stage}>
            <DanceStage
              combination={laid.combination}
              dancing={aloneFrom(laid.combination.lead)}
              at={Math.max(0, TICKS_PER_COUNT * (at - laid.from))}
              layers={ALL_LAYERS}
              only={only}
              onOnly={setOnly}
              deck={deck}
            />
          </div>
          <p className={map.where}>
            <b className="display">{placeWords(song, at)}</b>
            <span>{piece ? nameOf(piece, combinations) : 'nothing is laid here'}</span>
          </p>
          <p className={map.message} role="status">
            {message}
          </p>
          {piece ? (
            <div className={classes.tools}>
              <Tool onClick={turn}>Other side</Tool>
              <Tool onClick={remove}>Take away</Tool>
              <Tool onClick={() => longer(-phrase)}>Shorter</Tool>
              <Tool onClick={() => longer(phrase)}>Longer</Tool>
              <Tool onClick={() => move(-phrase)}>Earlier</Tool>
              <Tool onClick={() => move(phrase)}>Later</Tool>
            </div>
          ) : (
            <div className={classes.tools}>
              {(Object.keys(REST_WORDS) as RestHow[]).map((how) => (
                <Tool key={how} onClick={() => rest(how)}>
                  {REST_WORDS[how]} here
                </Tool>
              ))}
            </div>
          )}
          <section aria-label="Worth a look">
            <ul className={classes.facts}>
              {facts.map((fact) => (
                <li key={`${fact.code} ${fact.at} ${'finding' in fact ? fact.finding.code : ''}`}>
                  <button type="button" onClick={() => select(fact.at)}>
                    <b>{songFactPlace(fact, song)}</b> {songFactText(fact, song, house.units)}
                  </button>
                  {fact === asked &&
                    offers.map((offer) => (
                      <Button
                        key={offer.words}
                        className={classes.offer}
                        size="compact-sm"
                        onClick={() => change(offer.words.toLowerCase(), () => offer.routine)}
                      >
                        {offer.words}
                      </Button>
                    ))}
                </li>
              ))}
            </ul>
          </section>
        </aside>
      </div>
      <SongBar
        playing={player.playing}
        choice={choice}
        tempo={tempoBetween(song, at, Math.min(last, at + phrase))}
        canPlay={sound.state.kind !== 'loading'}
        countRef={countRef}
        onChoice={setChoice}
        onPlayOrStop={playOrStop}
      />
      <CuePaper routine={routine} song={song} rows={rows} />
    </main>
  )
}

const Tool = ({
  onClick,
  children,
}: {
  readonly onClick: () => void
  readonly children: React.ReactNode
}) => (
  <Button size="xs" variant="default" onClick={onClick}>
    {children}
  </Button>
)

/** Shows where the song is: a line over the counts, and its place in the bar. */
function usePlayhead(
  player: ReturnType<typeof useRoutinePlay>,
  song: Song,
  count: React.RefObject<HTMLSpanElement | null>,
) {
  const latest = useRef({ player, song })
  latest.current = { player, song }
  const { playing } = player
  useEffect(() => {
    if (!playing) return
    let shown: HTMLElement | undefined
    const stop = eachFrame(() => {
      const at = latest.current.player.at()
      const cell =
        at === undefined ? undefined : window.document.getElementById(countId(Math.floor(at)))
      const mark = cell?.parentElement?.querySelector<HTMLElement>('[data-head]') ?? undefined
      if (shown && shown !== mark) shown.style.visibility = 'hidden'
      shown = mark
      if (count.current)
        count.current.textContent =
          latest.current.player.countedIn() ??
          (at === undefined ? '' : placeWords(latest.current.song, Math.floor(at)))
      if (!mark || !cell || at === undefined) return
      mark.style.visibility = 'visible'
      mark.style.transform = `translateX(${cell.offsetLeft + (at % 1) * cell.offsetWidth}px)`
    })
    return () => {
      stop()
      if (shown) shown.style.visibility = 'hidden'
      if (count.current) count.current.textContent = ''
    }
  }, [playing, count])
}
