import { Button, Modal, NumberInput, TextInput } from '@mantine/core'
import {
  type RefObject,
  useCallback,
  useDeferredValue,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react'
import { useParams } from 'react-router'
import { sideOf } from '../../core/combination/names'
import type { Pass } from '../../core/combination/passes'
import * as edits from '../../core/edits/edits'
import * as phrases from '../../core/edits/phrases'
import { UserError } from '../../core/errors'
import { ownMoveOf } from '../../core/moves/makeOwn'
import { type Layer, moveOfOwn, type OwnMove } from '../../core/moves/move'
import { onSide, whatOf } from '../../core/moves/search'
import type { SoundKind } from '../../core/teaching/program'
import { tick } from '../../core/time/time'
import { inWords, Problem } from '../app/Problem'
import { useServices } from '../app/services'
import { Braid } from '../braid/Braid'
import type { Line } from '../braid/lines'
import { Findings } from '../findings/Findings'
import { OwnMoveForm } from '../moves/OwnMoveForm'
import { PlayBar } from '../play/PlayBar'
import { type PlayChoice, studioProgram } from '../play/programs'
import { SheetPanel } from '../sheet/SheetPanel'
import { StandingFigure } from '../stage/StandingFigure'
import { simulationFrom } from '../stores/checked'
import { placeAtSelection } from '../stores/editing'
import {
  change,
  documentOf,
  layersOf,
  openSession,
  type Session,
  select,
  selectedEvents,
  vocabularyOf,
} from '../stores/session'
import { useStore } from '../stores/store'
import { lastPlace } from '../stores/words'
import { CommandFinder } from './CommandFinder'
import { EventCard } from './EventCard'
import { MovesPanel, placeOf } from './MovesPanel'
import { PhraseMargin } from './PhraseMargin'
import { PANEL_WORDS, type Panel } from './panel'
import { saveOpen } from './saveOpen'
import { SHORTCUTS } from './shortcuts'
import classes from './studio.module.css'
import { TitleRow } from './TitleRow'
import { usePlayhead } from './usePlayhead'

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
  if (problem) return <Problem {...problem} />
  return session ? <Studio session={session} /> : <p className="only-read">Opening…</p>
}

function Studio({ session }: { session: Session }) {
  const { deck, newId, own } = useServices()
  const save = useStore(session.saver, (s) => s)
  const root = useRef<HTMLDivElement>(null)
  const [help, setHelp] = useState(false)
  const [finder, setFinder] = useState(false)
  const [panel, setPanel] = useState<Panel>('body')
  const [draft, setDraft] = useState<OwnMove>()
  const [renamed, setRenamed] = useState<Pass>()
  const [choice, setChoice] = useState<PlayChoice>(() => ({
    sides: 'turn',
    loop: 'all',
    tempo: documentOf(session.get()).tempo,
  }))

  const playOrStop = useCallback(() => {
    const { selection } = session.get()
    if (deck.get()) deck.stop()
    else void deck.play(studioProgram(documentOf(session.get()), choice, selection), choice.tempo)
  }, [deck, session, choice])
  const showHelp = useCallback(() => setHelp(true), [])
  const focusBraid = useCallback(
    () => root.current?.querySelector<HTMLElement>('[role="application"]')?.focus(),
    [],
  )
  const closeCard = useCallback(() => {
    select(session, { ...session.get().selection, event: undefined })
    focusBraid()
  }, [session, focusBraid])
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
      toggleSheet: () => setPanel((now) => (now === 'sheet' ? 'body' : 'sheet')),
    }
  }, [playOrStop, showHelp, newId, session])
  // The Moves screen can show what suits the place the cursor stood on.
  useEffect(() => () => lastPlace.set(() => placeOf(session.get())), [session])

  const margin = useCallback(
    (line: Line) => (
      <PhraseMargin session={session} line={line} newId={newId} onRename={setRenamed} />
    ),
    [session, newId],
  )
  const addPhrase = () => {
    const last = documentOf(session.get()).order.length - 1
    change(session, 'add a phrase', phrases.addPhrase(newId(), last))
  }

  return (
    <>
      <main className={classes.studio} ref={root} data-panel={panel}>
        <TitleRow session={session} onHelp={showHelp} panel={panel} onPanel={setPanel} />
        {save.kind === 'failed' && (
          <div className={classes.problem}>
            <Problem what={save.error.message} toDo={save.error.whatToDo} />
            <Button onClick={() => void saveOpen(session, 'json')}>Save as file now</Button>
          </div>
        )}
        <div className={classes.braidBox}>
          <Braid session={session} deck={braidDeck} newId={newId} margin={margin} />
          <Button variant="subtle" size="compact-sm" onClick={addPhrase}>
            Add a phrase
          </Button>
        </div>
        <aside className={classes.side} aria-label={PANEL_WORDS[panel]}>
          {panel === 'body' && (
            <>
              <Stage session={session} />
              <EventCard session={session} onClose={closeCard} deck={braidDeck} />
              <Findings session={session} onGo={focusBraid} />
            </>
          )}
          {panel === 'moves' && <MovesPanel session={session} />}
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
      <PlayPane
        session={session}
        root={root}
        choice={choice}
        onChoice={setChoice}
        onPlayOrStop={playOrStop}
      />
      <Help opened={help} onClose={() => setHelp(false)} />
      {finder && (
        <CommandFinder session={session} deck={braidDeck} onClose={() => setFinder(false)} />
      )}
      {draft && (
        <OwnMoveForm
          draft={draft}
          vocabulary={vocabularyOf(session.get())}
          isKnown={false}
          canReplace
          onClose={() => setDraft(undefined)}
          onSave={(move, replace) => {
            void own.saveMove(move)
            if (replace) replaceSelected(session, move, newId)
            setDraft(undefined)
            focusBraid()
          }}
        />
      )}
      {renamed && (
        <PhraseForm session={session} pass={renamed} onClose={() => setRenamed(undefined)} />
      )}
    </>
  )
}

/** A first form of an own move from what is selected; a sentence where there is none. */
function draftOfSelection(session: Session): OwnMove | undefined {
  const state = session.get()
  const { selection } = state
  try {
    return ownMoveOf(
      selectedEvents(state),
      { from: selection.at, length: selection.length },
      'My move',
      vocabularyOf(state),
    )
  } catch (error) {
    if (!(error instanceof UserError)) throw error
    session.set((now) => ({ ...now, message: `${error.message} ${error.whatToDo}` }))
    return undefined
  }
}

/** Puts an own move in place of what it was made of. */
function replaceSelected(session: Session, move: OwnMove, newId: () => string): void {
  const events = selectedEvents(session.get())
  const side = events.map(({ what }) => sideOf(what)).find((one) => one !== undefined)
  const { selection } = session.get()
  select(session, { ...selection, event: undefined, toLayer: undefined })
  change(session, `bring ${move.name}`, edits.bringMove(move))
  const what = whatOf(moveOfOwn(move))
  placeAtSelection(session, side ? onSide(what, side) : what, tick(move.counts * 12), newId)
}

function Message({ session }: { session: Session }) {
  const message = useStore(session, (s) => s.message)
  return (
    <p className={classes.message} aria-live="polite">
      {message}
    </p>
  )
}

/** The standing body, as it is where the cursor is. */
function Stage({ session }: { session: Session }) {
  const { deck } = useServices()
  // An edit is drawn in the braid first; the body may come a moment later.
  const state = useDeferredValue(useStore(session, (s) => s))
  const combination = documentOf(state)
  const { selection, only } = state
  const layers = useMemo(() => layersOf(only), [only])
  const pass = simulationFrom(combination, selection.side).passes[selection.pass]
  const setOnly = (layer: Layer | undefined) => session.set((s) => ({ ...s, only: layer }))
  return (
    <div className={classes.stage}>
      <p className={classes.whose}>
        {only ? (
          <Button size="compact-xs" variant="default" onClick={() => setOnly(undefined)}>
            All layers again
          </Button>
        ) : (
          'From behind: its right is your right. Touch a part.'
        )}
      </p>
      <StandingFigure
        combination={combination}
        side={selection.side}
        at={(pass?.at ?? 0) + selection.at + selection.length - 1}
        layers={layers}
        only={only}
        onOnly={setOnly}
        deck={deck}
      />
    </div>
  )
}

interface PlayPaneProps {
  readonly session: Session
  readonly root: RefObject<HTMLDivElement | null>
  readonly choice: PlayChoice
  readonly onChoice: (choice: PlayChoice) => void
  readonly onPlayOrStop: () => void
}

/** The play bar, and what keeps the sound in step with the braid. */
function PlayPane({ session, root, choice, onChoice, onPlayOrStop }: PlayPaneProps) {
  const { deck } = useServices()
  const only = useStore(session, (s) => s.only)
  const lead = useStore(session, (s) => documentOf(s).lead)
  const tempo = useStore(session, (s) => documentOf(s).tempo)
  const teachTempo = useStore(session, (s) => documentOf(s).teachTempo)
  const [hearsMoves, setHearsMoves] = useState(false)
  // The slider has the two tempi as its ends; when they change, what is chosen stays between them.
  const bounded = Math.min(
    Math.max(tempo, teachTempo),
    Math.max(Math.min(tempo, teachTempo), choice.tempo),
  )
  useEffect(() => {
    if (bounded !== choice.tempo) onChoice({ ...choice, tempo: bounded })
  }, [bounded, choice, onChoice])
  const now = useRef<HTMLSpanElement>(null)
  const current = useCallback(() => documentOf(session.get()), [session])
  usePlayhead(deck, current, root, now)

  const choose = (next: PlayChoice) => {
    onChoice(next)
    if (!deck.get()) return
    const restarts = next.sides !== choice.sides || next.loop !== choice.loop
    if (restarts)
      void deck.play(studioProgram(current(), next, session.get().selection), next.tempo)
    else deck.setTempo(next.tempo)
  }
  // What is played follows every edit, from the next sound on.
  useEffect(() => {
    let known = current()
    return session.subscribe(() => {
      if (!deck.get() || current() === known) return
      known = current()
      deck.swap(studioProgram(known, choice, session.get().selection))
    })
  }, [session, deck, choice, current])
  useEffect(() => {
    const layers = layersOf(only)
    deck.hear((kind: SoundKind) => {
      if (kind === 'phrase' || kind === 'count' || kind === 'and') return true
      return only ? layers.has(kind) : hearsMoves
    })
  }, [deck, only, hearsMoves])
  useEffect(() => () => deck.stop(), [deck])

  return (
    <PlayBar
      deck={deck}
      lead={lead}
      tempo={tempo}
      teachTempo={teachTempo}
      choice={choice}
      onChoice={choose}
      onPlayOrStop={onPlayOrStop}
      countRef={now}
      hearsMoves={hearsMoves}
      onHearsMoves={setHearsMoves}
    />
  )
}

function Help({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="All keys" size={1120} centered>
      <dl className={classes.keys}>
        {SHORTCUTS.map(({ keys, does }) => (
          <div key={does}>
            <dt>
              <kbd>{keys || 'Ctrl K, then'}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  )
}

function PhraseForm({
  session,
  pass,
  onClose,
}: {
  session: Session
  pass: Pass
  onClose: () => void
}) {
  const combination = useStore(session, documentOf)
  const phrase = combination.phrases.find(({ id }) => id === pass.phrase.id)
  if (!phrase) return null
  const { id, name, title, counts } = phrase
  return (
    <Modal opened onClose={onClose} title={`Phrase ${name}`} centered size="sm">
      <TextInput
        label="Name for the class"
        data-autofocus
        value={title}
        onChange={({ currentTarget }) =>
          change(
            session,
            `name phrase ${name}`,
            phrases.namePhrase(id, currentTarget.value),
            `name ${id}`,
          )
        }
      />
      <NumberInput
        label="Counts"
        mt="sm"
        min={1}
        max={16}
        value={counts}
        description="What no longer fits at the end is cut; undo brings it back."
        onChange={(value) => {
          const wanted = Math.min(16, Math.max(1, Math.round(Number(value) || counts)))
          change(session, `change the counts of ${name}`, phrases.setCounts(id, wanted))
        }}
      />
    </Modal>
  )
}
