import { Button, Modal, NumberInput, TextInput } from '@mantine/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useParams } from 'react-router'
import type { Pass } from '../../core/combination/passes'
import * as edits from '../../core/edits/edits'
import type { SoundKind } from '../../core/teaching/program'
import { inWords, Problem } from '../app/Problem'
import { useServices } from '../app/services'
import { Braid } from '../braid/Braid'
import { saveAsFile } from '../combinations/files'
import { Findings } from '../findings/Findings'
import { PlayBar } from '../play/PlayBar'
import { type PlayChoice, studioProgram } from '../play/programs'
import { StandingFigure } from '../stage/StandingFigure'
import { simulationFrom } from '../stores/checked'
import {
  change,
  documentOf,
  layersShown,
  openSession,
  type Session,
  select,
  selectedEvents,
} from '../stores/session'
import { useStore } from '../stores/store'
import { EventCard } from './EventCard'
import { PhraseMargin } from './PhraseMargin'
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
  const { deck, newId } = useServices()
  const state = useStore(session, (s) => s)
  const save = useStore(session.saver, (s) => s)
  const combination = documentOf(state)
  const { selection, only } = state
  const root = useRef<HTMLDivElement>(null)
  const now = useRef<HTMLSpanElement>(null)
  const [help, setHelp] = useState(false)
  const [renamed, setRenamed] = useState<Pass>()
  const [hearsMoves, setHearsMoves] = useState(false)
  const [choice, setChoice] = useState<PlayChoice>({
    sides: 'turn',
    loop: 'all',
    tempo: combination.tempo,
  })
  const layers = useMemo(() => layersShown({ only } as typeof state), [only])
  usePlayhead(deck, combination, root, now)

  const playOrStop = useCallback(() => {
    if (deck.get()) deck.stop()
    else
      void deck.play(
        studioProgram(documentOf(session.get()), choice, session.get().selection),
        choice.tempo,
      )
  }, [deck, session, choice])
  const choose = (next: PlayChoice) => {
    setChoice(next)
    if (!deck.get()) return
    if (next.sides !== choice.sides || next.loop !== choice.loop)
      void deck.play(studioProgram(combination, next, selection), next.tempo)
    else deck.setTempo(next.tempo)
  }
  // What is played follows every edit, from the next count on.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new selection alone does not change what is played
  useEffect(() => {
    if (deck.get()) deck.swap(studioProgram(combination, choice, selection))
  }, [combination])
  useEffect(() => {
    deck.hear((kind: SoundKind) => {
      if (kind === 'phrase' || kind === 'count' || kind === 'and') return true
      return only ? layers.has(kind) : hearsMoves
    })
  }, [deck, only, layers, hearsMoves])
  useEffect(() => () => deck.stop(), [deck])

  const focusBraid = () => root.current?.querySelector<HTMLElement>('[role="application"]')?.focus()
  const goToCard = () =>
    requestAnimationFrame(() =>
      root.current
        ?.querySelector<HTMLElement>('[aria-label="Selected move"] input, select')
        ?.focus(),
    )
  const simulation = simulationFrom(combination, selection.side)
  const at = (simulation.passes[selection.pass]?.at ?? 0) + selection.at + selection.length - 1
  const hasCard = selection.event !== undefined && selectedEvents(state).length === 1

  return (
    <>
      <main className={classes.studio} ref={root}>
        <TitleRow session={session} onHelp={() => setHelp(true)} />
        {save.kind === 'failed' && (
          <div className={classes.problem}>
            <Problem what={save.error.message} toDo={save.error.whatToDo} />
            <Button onClick={() => saveAsFile(combination)}>Save as file now</Button>
          </div>
        )}
        <div className={classes.braidBox}>
          <Braid
            session={session}
            deck={{ playOrStop, showHelp: () => setHelp(true), goToCard }}
            newId={newId}
            margin={(pass, side) => (
              <PhraseMargin
                session={session}
                pass={pass}
                side={side}
                newId={newId}
                onRename={setRenamed}
              />
            )}
          />
          <Button
            variant="subtle"
            size="compact-sm"
            onClick={() =>
              change(
                session,
                'add a phrase',
                edits.addPhrase(newId(), combination.order.length - 1),
              )
            }
          >
            Add a phrase
          </Button>
        </div>
        <aside className={classes.side} aria-label="Body and findings">
          <div className={classes.stage}>
            <p className={classes.whose}>
              {only ? (
                <Button
                  size="compact-xs"
                  variant="default"
                  onClick={() => session.set((s) => ({ ...s, only: undefined }))}
                >
                  All layers again
                </Button>
              ) : (
                'From behind: its right is your right. Touch a part.'
              )}
            </p>
            <StandingFigure
              combination={combination}
              side={selection.side}
              at={at}
              layers={layers}
              only={only}
              onOnly={(layer) => session.set((s) => ({ ...s, only: layer }))}
              deck={deck}
            />
          </div>
          {hasCard && (
            <EventCard
              session={session}
              onClose={() => {
                select(session, { ...selection, event: undefined })
                focusBraid()
              }}
            />
          )}
          <Findings session={session} onGo={focusBraid} />
        </aside>
      </main>
      <p className={classes.message} aria-live="polite">
        {state.message}
      </p>
      <PlayBar
        deck={deck}
        combination={combination}
        choice={choice}
        onChoice={choose}
        onPlayOrStop={playOrStop}
        countRef={now}
        hearsMoves={hearsMoves}
        onHearsMoves={setHearsMoves}
      />
      <Modal opened={help} onClose={() => setHelp(false)} title="All keys" size="lg" centered>
        <dl className={classes.keys}>
          {SHORTCUTS.map(({ keys, does }) => (
            <div key={keys}>
              <dt>
                <kbd>{keys}</kbd>
              </dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
      </Modal>
      {renamed && (
        <PhraseForm session={session} pass={renamed} onClose={() => setRenamed(undefined)} />
      )}
    </>
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
            edits.namePhrase(id, currentTarget.value),
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
          change(session, `change the counts of ${name}`, edits.setCounts(id, wanted))
        }}
      />
    </Modal>
  )
}
