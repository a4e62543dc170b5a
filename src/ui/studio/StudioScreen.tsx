import { Button } from '@mantine/core'
import { IconArrowBackUp } from '@tabler/icons-react'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useParams } from 'react-router'
import { useStore } from 'zustand'
import type { Pass } from '../../core/combination/passes'
import * as phrases from '../../core/edits/phrases'
import type { OwnMove } from '../../core/moves/move'
import { Braid } from '../braid/Braid'
import { JoinStrip } from '../braid/JoinStrip'
import type { Line } from '../braid/lines'
import { Findings } from '../findings/Findings'
import { FloorPanel } from '../floorMap/FloorPanel'
import { LevelPanel } from '../level/LevelPanel'
import { OwnMoveForm } from '../moves/OwnMoveForm'
import { focusBraid } from '../parts/focusBraid'
import { KeysHelp } from '../parts/KeysHelp'
import { inWords, Problem, ProblemPage } from '../parts/Problem'
import { useLeaveWarning } from '../parts/useLeaveWarning'
import { PlacingSheet } from '../placing/PlacingSheet'
import { type PlayChoice, studioPerformance } from '../play/performances'
import { SheetPanel } from '../sheet/SheetPanel'
import { SHORTCUTS } from '../shortcuts/shortcuts'
import { stageChoice } from '../stage/stageChoice'
import { PANEL_WORDS, type Panel } from '../stores/panel'
import { closePlacing, placing } from '../stores/placing'
import { useServices } from '../stores/services'
import { change, openSession, pickBeside, type Session, select, undoLast } from '../stores/session'
import { documentOf, vocabularyOf } from '../stores/state'
import { lastPlace } from '../stores/words'
import { ActCard } from './ActCard'
import { CommandFinder } from './CommandFinder'
import { EventCard } from './EventCard'
import { MeetingCard } from './MeetingCard'
import { MovesPanel, placeOf } from './MovesPanel'
import { OptionsForm, OptionsOnPaper, TryingStrip } from './OptionsForm'
import { draftOfSelection, replaceSelected } from './ownMoveHere'
import { PartsBar } from './PartsBar'
import { PartsForm } from './PartsForm'
import { PhraseForm } from './PhraseForm'
import { PhraseMargin } from './PhraseMargin'
import { PlayPane } from './PlayPane'
import { PropsBar } from './PropsBar'
import { PropsForm } from './PropsForm'
import { SongPanel } from './SongPanel'
import { Stage } from './Stage'
import { saveOpen } from './saveOpen'
import classes from './studio.module.css'
import { TitleRow } from './TitleRow'
import { useBraidKeys } from './useBraidKeys'
import { useStudioSong } from './useStudioSong'

/** Opens a stored combination, or says why it can't. */
export function StudioScreen() {
  const { id = '' } = useParams()
  const services = useServices()
  const { combinations } = services
  const [session, setSession] = useState<Session>()
  const [problem, setProblem] = useState<{ what: string; toDo: string }>()
  useEffect(() => {
    let opened: Session | undefined
    let isGone = false
    combinations.get(id).then(
      (stored) => {
        if (isGone) return
        if (!stored) {
          setProblem({
            what: 'This combination is not here.',
            toDo: 'Go back to all combinations; it may be under “Deleted” there.',
          })
          return
        }
        opened = openSession(stored, services)
        setProblem(undefined)
        setSession(opened)
      },
      (error: unknown) => setProblem(inWords(error)),
    )
    return () => {
      isGone = true
      opened?.close()
      setSession(undefined)
    }
  }, [id, combinations, services])
  if (problem) return <ProblemPage {...problem} />
  return session ? <Studio session={session} /> : <p className="only-read">Opening…</p>
}

/** What beside the braid gains by more room. */
const CAN_BE_WIDE: ReadonlySet<Panel> = new Set(['body', 'floor', 'song'])

/** Phrases an order has at the most for the figure to be wide by itself. */
const SHORT_ORDER = 2

function Studio({ session }: { session: Session }) {
  const { deck, newId, own } = useServices()
  const save = useStore(session.saver, (s) => s)
  const root = useRef<HTMLDivElement>(null)
  const [help, setHelp] = useState(false)
  const [finder, setFinder] = useState(false)
  const [panel, setPanel] = useState<Panel>('body')
  const [draft, setDraft] = useState<OwnMove>()
  const [partsShown, setPartsShown] = useState(false)
  const [propsShown, setPropsShown] = useState(false)
  const [renamed, setRenamed] = useState<Pass>()
  const [varied, setVaried] = useState<Pass>()
  const [choice, setChoice] = useState<PlayChoice>(() => ({
    sides: 'turn',
    loop: 'all',
    tempo: documentOf(session.getState()).tempo,
    speed: 1,
  }))

  const music = useStudioSong(session)
  const [isFilmShown, setFilmShown] = useState(true)
  /** What was selected when it began to play: the cursor may go on from there. */
  const played = useRef(session.getState().selection)
  const playOrStop = useCallback(() => {
    played.current = session.getState().selection
    if (deck.getState()) deck.stop()
    else
      void deck.play(
        studioPerformance(documentOf(session.getState()), choice, played.current, music.played),
      )
  }, [deck, session, choice, music.played])
  const performOnce = useCallback(() => {
    const { selection } = session.getState()
    played.current = selection
    return studioPerformance(documentOf(session.getState()), choice, selection, music.played, false)
  }, [session, choice, music.played])
  const showHelp = useCallback(() => setHelp(true), [])
  const showCard = useCallback(() => {
    closePlacing()
    setPanel('body')
    requestAnimationFrame(() =>
      root.current
        ?.querySelector('[aria-label="Selected move"]')
        ?.scrollIntoView({ block: 'start' }),
    )
  }, [])
  const closeBeside = useCallback(() => {
    pickBeside(session, undefined)
    focusBraid()
  }, [session])
  const closeCard = useCallback(() => {
    select(session, { ...session.getState().selection, event: undefined })
    focusBraid()
  }, [session])
  const braidDeck = useMemo(() => {
    const goToCard = () =>
      requestAnimationFrame(() =>
        root.current
          ?.querySelector<HTMLElement>('[aria-label="Selected move"] :is(input, select)')
          ?.focus(),
      )
    const makeMove = () => {
      const made = draftOfSelection(session)
      if (made) setDraft(made)
    }
    return {
      newId,
      playOrStop,
      showHelp,
      goToCard,
      makeMove,
      findCommand: () => setFinder(true),
      showPanel: setPanel,
      toggleSheet: () => setPanel((now) => (now === 'sheet' ? 'body' : 'sheet')),
      // From another panel it is asked for, in its own it is put away.
      toggleFilm: () => {
        setFilmShown((isShown) => panel !== 'song' || !isShown)
        setPanel('song')
      },
    }
  }, [playOrStop, showHelp, newId, session, panel])
  useBraidKeys(session, braidDeck)
  // A short combination leaves room that the figure can use.
  const isShort = useStore(session, (s) => documentOf(s).order.length <= SHORT_ORDER)
  const isWide = useStore(stageChoice, (s) => s.isWide) ?? isShort
  const placedBy = useStore(placing, (how) => how.by)
  const isFloorAlone = useStore(stageChoice, (s) => s.isFloorAlone) && panel === 'floor'
  // A reload opens the copy that is written now, not what it was made from.
  const id = useStore(session, (s) => documentOf(s).id)
  useEffect(() => {
    const path = `/combination/${id}`
    if (location.pathname !== path) history.replaceState(history.state, '', path)
  }, [id])
  useLeaveWarning(save.kind === 'failed')
  // The Moves screen can show what suits the place the cursor stood on.
  useEffect(() => () => lastPlace.setState(() => placeOf(session.getState())), [session])

  const margin = useCallback(
    (line: Line) => (
      <PhraseMargin
        session={session}
        line={line}
        newId={newId}
        onRename={setRenamed}
        onOptions={setVaried}
      />
    ),
    [session, newId],
  )
  const addPhrase = () => {
    const last = documentOf(session.getState()).order.length - 1
    change(session, 'add a phrase', phrases.addPhrase(newId(), last))
  }

  return (
    <>
      <main
        className={classes.studio}
        ref={root}
        data-panel={panel}
        data-wide={isWide}
        data-alone={isFloorAlone}
        data-placing={placedBy}
      >
        <TitleRow
          session={session}
          onHelp={showHelp}
          panel={panel}
          onPanel={setPanel}
          onParts={() => setPartsShown(true)}
          onProps={() => setPropsShown(true)}
        />
        {save.kind === 'failed' && (
          <div className={classes.problem}>
            <Problem what={save.error.message} toDo={save.error.whatToDo} />
            <Button onClick={() => void saveOpen(session, 'json')}>Save as file now</Button>
          </div>
        )}
        <div className={classes.braidBox}>
          <PartsBar session={session} onParts={() => setPartsShown(true)} />
          <PropsBar session={session} onProps={() => setPropsShown(true)} />
          <TryingStrip session={session} />
          <Braid session={session} deck={braidDeck} newId={newId} margin={margin} />
          <HowToBegin session={session} onPanel={setPanel} />
          <OptionsOnPaper session={session} />
          <JoinStrip session={session} />
          <Button variant="subtle" size="compact-sm" onClick={addPhrase}>
            Add a phrase
          </Button>
        </div>
        <aside className={classes.side} aria-label={PANEL_WORDS[panel]}>
          {CAN_BE_WIDE.has(panel) && !isFloorAlone && (
            <button
              type="button"
              className={classes.wider}
              aria-pressed={isWide}
              onClick={() => stageChoice.setState({ isWide: !isWide })}
            >
              {isWide ? 'Narrower' : 'Wider'}
            </button>
          )}
          {panel === 'body' && (
            <>
              <Stage session={session} />
              <EventCard session={session} onClose={closeCard} deck={braidDeck} />
              <MeetingCard session={session} onClose={closeBeside} />
              <ActCard session={session} onClose={closeBeside} />
              <Findings session={session} onGo={focusBraid} />
            </>
          )}
          {panel === 'floor' && <FloorPanel session={session} isAlone={isFloorAlone} />}
          {panel === 'level' && <LevelPanel session={session} />}
          {panel === 'moves' && <MovesPanel session={session} />}
          {panel === 'song' && (
            <SongPanel
              session={session}
              perform={performOnce}
              isFilmShown={isFilmShown}
              onFilm={braidDeck.toggleFilm}
              {...music}
            />
          )}
          {panel === 'sheet' && (
            <SheetPanel
              session={session}
              onClose={() => {
                setPanel('body')
                focusBraid()
              }}
            />
          )}
        </aside>
      </main>
      <Message session={session} />
      {placedBy === undefined && <ThumbUndo session={session} />}
      {/* Who looks through the list of moves takes one from there. */}
      {panel !== 'moves' && (
        <PlacingSheet
          session={session}
          newId={newId}
          onAbout={showCard}
          onMake={braidDeck.makeMove}
        />
      )}
      <PlayPane
        session={session}
        root={root}
        played={played}
        choice={choice}
        onChoice={setChoice}
        onPlayOrStop={playOrStop}
        song={music.played}
      />
      <KeysHelp lines={SHORTCUTS} opened={help} onClose={closing(() => setHelp(false))} />
      {finder && (
        <CommandFinder
          session={session}
          deck={braidDeck}
          onClose={closing(() => setFinder(false))}
        />
      )}
      {draft && (
        <OwnMoveForm
          draft={draft}
          vocabulary={vocabularyOf(session.getState())}
          isKnown={false}
          canReplace
          onClose={closing(() => setDraft(undefined))}
          onSave={async (move, replace) => {
            // What could not be kept stays in the form; what went wrong is told above it.
            await own.saveMove(move)
            if (replace) replaceSelected(session, move, newId)
            setDraft(undefined)
            focusSoon()
          }}
        />
      )}
      {varied && (
        <OptionsForm
          session={session}
          pass={varied}
          onClose={closing(() => setVaried(undefined))}
        />
      )}
      {partsShown && <PartsForm session={session} onClose={closing(() => setPartsShown(false))} />}
      {propsShown && <PropsForm session={session} onClose={closing(() => setPropsShown(false))} />}
      {renamed && (
        <PhraseForm
          session={session}
          pass={renamed}
          onClose={closing(() => setRenamed(undefined))}
        />
      )}
    </>
  )
}

/** When a window over the studio is gone, the braid has the keys again; who types there already goes on. */
const focusSoon = () =>
  requestAnimationFrame(() => {
    if (!document.activeElement?.closest('[data-braid]')) focusBraid()
  })
const closing = (close: () => void) => () => {
  close()
  focusSoon()
}

/** What an empty studio says first: by hand, by touch, from a page. */
function HowToBegin({
  session,
  onPanel,
}: {
  readonly session: Session
  readonly onPanel: (panel: Panel) => void
}) {
  const isEmpty = useStore(session, (s) =>
    documentOf(s).phrases.every(({ events }) => events.length === 0),
  )
  if (!isEmpty) return null
  return (
    <section className={classes.begin} aria-label="How to begin">
      <p>
        <b>By hand:</b> the cursor stands on count 1 of the feet. Type <kbd>step side</kbd>, press{' '}
        <kbd>Enter</kbd>; <kbd>→</kbd> is the next count, <kbd>↑</kbd> the next layer.
      </p>
      <p>
        <b>By touch or mouse:</b> touch a count, or click it twice, and choose what fits; or take
        one from the{' '}
        <button type="button" onClick={() => onPanel('moves')}>
          list of moves
        </button>
        .
      </p>
      <p>
        <b>From a page:</b> open the{' '}
        <button type="button" onClick={() => onPanel('sheet')}>
          count sheet
        </button>{' '}
        and write or paste what you have, line by line.
      </p>
    </section>
  )
}

/** Shown where fingers point, once there is something to take back. */
function ThumbUndo({ session }: { readonly session: Session }) {
  const label = useStore(session, (s) => s.history.past.at(-1)?.label)
  if (label === undefined) return null
  return (
    <button
      type="button"
      className={classes.back}
      aria-label={`Take back: ${label}`}
      onClick={() => undoLast(session)}
    >
      <IconArrowBackUp size={22} />
    </button>
  )
}

function Message({ session }: { session: Session }) {
  const message = useStore(session, (s) => s.message)
  return (
    <p className={classes.message} aria-live="polite">
      {message}
    </p>
  )
}
