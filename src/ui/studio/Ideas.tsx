import { Button } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { capital } from '../../core/capital'
import type { Event } from '../../core/combination/combination'
import { placeIn } from '../../core/combination/names'
import { bringUsed } from '../../core/edits/edits'
import { sharing } from '../../core/edits/share'
import { layerWord } from '../../core/moves/vocabulary'
import type { Filling } from '../../core/suggest/fill'
import { layersPut, withSome } from '../../core/suggest/taken'
import { type Gap, gapIn, placed, type Suggestion } from '../../core/suggest/suggest'
import type { Variation } from '../../core/suggest/vary'
import { COUNT, labelIn, labelOfSpan, slotAt } from '../../core/time/time'
import findings from '../findings/findings.module.css'
import { PreviewButton } from '../findings/PreviewButton'
import classes from '../moves/moves.module.css'
import { NumberField } from '../parts/NumberField'
import { useServices } from '../stores/services'
import { type Session, showPreview, withDance } from '../stores/session'
import { danceOf, phraseAt, type SessionState, vocabularyOf } from '../stores/state'
import { ownMoves } from '../stores/words'

/** The empty counts that are selected; as long as they are free where one place is. */
function gapOf(state: SessionState): { gap: Gap; label: string } | undefined {
  const { selection } = state
  const phrase = phraseAt(state, selection.pass)
  if (!phrase) return undefined
  const isOneSlot = selection.length <= slotAt(selection.at)
  const length = isOneSlot ? Infinity : selection.length
  const gap = gapIn(phrase, { ...selection, length }, vocabularyOf(state))
  if (!gap) return undefined
  const { pass, layer } = selection
  const said = labelOfSpan(gap, labelIn(phrase))
  return { gap: { pass, layer, ...gap }, label: placeIn(phrase.name, said) }
}

type Asked =
  | {
      readonly kind: 'suggest'
      readonly label: string
      readonly gap: Gap
      readonly list: readonly Suggestion[]
    }
  | {
      readonly kind: 'fill'
      readonly label: string
      readonly list: readonly Filling[]
      /** Why there is none. */
      readonly inTheWay?: string | undefined
    }
  | { readonly kind: 'vary'; readonly label: string; readonly list: readonly Variation[] }

/** Moves for the selected empty counts, and whole phrases: looked at in the braid, placed only when chosen. */
export function Ideas({ session }: { session: Session }) {
  const { judge, newId } = useServices()
  const state = useStore(session, (s) => s)
  const document = danceOf(state)
  const [asked, setAsked] = useState<Asked>()
  const [thinking, setThinking] = useState<AbortController>()
  const [seed, setSeed] = useState(1)
  const running = useRef<AbortController>(undefined)
  useEffect(
    () => () => {
      running.current?.abort()
      showPreview(session, undefined)
    },
    [session],
  )
  // What was proposed was proposed for the combination as it was.
  const proposedFor = useRef(document)
  const isCurrent = asked && proposedFor.current === document
  const here = gapOf(state)
  const layer = layerWord[state.selection.layer].toLowerCase()
  const phrase = document.phrases.find(
    ({ id }) => id === document.order[state.selection.pass]?.phrase,
  )
  const ask = async (make: (signal: AbortSignal) => Promise<Asked>) => {
    running.current?.abort()
    const stop = new AbortController()
    running.current = stop
    setThinking(stop)
    setAsked(undefined)
    try {
      const answer = await make(stop.signal)
      proposedFor.current = document
      setAsked(answer)
    } catch (error) {
      if (!stop.signal.aborted)
        session.setState((now) => ({ ...now, message: `No ideas were found: ${String(error)}` }))
    }
    setThinking((now) => (now === stop ? undefined : now))
  }
  const suggest = () => {
    if (!here) return
    const { gap, label } = here
    void ask(async (signal) => ({
      kind: 'suggest',
      label,
      gap,
      list: await judge.ask('suggest', { combination: document, gap }, signal),
    }))
  }
  const fill = () =>
    void ask(async (signal) => {
      const { pass } = state.selection
      const input = { combination: document, wish: { pass, layer: state.selection.layer, seed } }
      const list = await judge.ask('fill', input, signal)
      const inTheWay = list.length > 0 ? undefined : await judge.ask('inTheWay', input, signal)
      return { kind: 'fill', label: `${phrase?.name ?? ''}, ${layer}`, list, inTheWay }
    })
  const isEmpty = phrase !== undefined && phrase.events.length === 0
  const makeUp = () =>
    void ask(async (signal) => ({
      kind: 'fill',
      label: phrase?.name ?? '',
      list: await judge.ask(
        'whole',
        { combination: document, wish: { pass: state.selection.pass, seed } },
        signal,
      ),
    }))
  const vary = () =>
    void ask(async (signal) => ({
      kind: 'vary',
      label: phrase?.name ?? '',
      list: await judge.ask(
        'vary',
        { combination: document, wish: { pass: state.selection.pass, seed } },
        signal,
      ),
    }))
  return (
    <section aria-label="Ideas" className={classes.ideas}>
      <div className={classes.ideaRow}>
        <Button size="compact-sm" variant="default" disabled={!here} onClick={suggest}>
          {here ? `Ideas for ${here.label}, ${layer}` : `These ${layer} counts are taken`}
        </Button>
        <Button size="compact-sm" variant="default" onClick={fill}>
          Fill {phrase?.name} {layer}
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          disabled={!phrase}
          onClick={isEmpty ? makeUp : vary}
        >
          {isEmpty ? `Make ${phrase.name} up` : `Vary ${phrase?.name ?? ''}`}
        </Button>
        <NumberField
          aria-label="Number of the proposals: the same number gives the same ones"
          size="xs"
          w={58}
          min={1}
          max={9999}
          value={seed}
          onCommit={setSeed}
        />
      </div>
      {thinking && (
        <p className={classes.none}>
          Thinking…{' '}
          <button type="button" className={findings.again} onClick={() => thinking.abort()}>
            Stop
          </button>
        </p>
      )}
      {isCurrent && asked.kind === 'suggest' && (
        <ul className={classes.ideaList} aria-label={`Ideas for ${asked.label}`}>
          {asked.list.map(({ offer, reasons, doubts }) => {
            const { changed } = placed(document, asked.gap, offer, newId())
            return (
              <li key={offer.id}>
                <PreviewButton
                  session={session}
                  changed={withDance(state, bringUsed(ownMoves())(changed))}
                  does={`place ${offer.name}`}
                  onTaken={() => setAsked(undefined)}
                >
                  {offer.name}
                </PreviewButton>
                <span className={classes.why}>{reasons.join(' · ')}</span>
                {doubts.length > 0 && <span className={classes.doubt}>{doubts.join(' ')}</span>}
              </li>
            )
          })}
          {asked.list.length === 0 && <li className={classes.none}>Nothing fits there.</li>}
        </ul>
      )}
      {isCurrent && asked.kind === 'vary' && (
        <ul className={classes.ideaList} aria-label={`Variations of ${asked.label}`}>
          {asked.list.map(({ words, combination: varied }) => (
            <li key={words}>
              <PreviewButton
                session={session}
                changed={withDance(state, bringUsed(ownMoves())(sharing(document, varied)))}
                does={`vary ${asked.label}: ${words}`}
                onTaken={() => setAsked(undefined)}
              >
                {capital(words)}
              </PreviewButton>
            </li>
          ))}
          {asked.list.length === 0 && (
            <li className={classes.none}>
              No variation comes out clean as it stands. Put right what is found in it first.
            </li>
          )}
        </ul>
      )}
      {isCurrent && asked.kind === 'fill' && (
        <ul className={classes.ideaList} aria-label={`Ways to fill ${asked.label}`}>
          {asked.list.map(({ names, reason, combination: filled }) => {
            const take = (words: string, isWanted: (event: Event) => boolean) => (
              <PreviewButton
                key={words}
                session={session}
                changed={withDance(
                  state,
                  bringUsed(ownMoves())(sharing(document, withSome(document, filled, isWanted))),
                )}
                does={`fill ${asked.label}`}
                onTaken={() => setAsked(undefined)}
              >
                {words}
              </PreviewButton>
            )
            const half = ((phrase?.counts ?? 0) * COUNT) / 2
            return (
              <li key={names.join()}>
                {take(names.join(', '), () => true)}
                <span className={classes.why}>{reason}</span>
                <span className={classes.parts}>
                  {take('First half only', ({ at }) => at < half)}
                  {layersPut(document, filled).size > 1 &&
                    take('Feet only', (event) => event.layer === 'feet')}
                </span>
              </li>
            )
          })}
          {asked.list.length === 0 && (
            <li className={classes.none}>
              No clean way to fill it was found. {asked.inTheWay ?? 'Try another number.'}
            </li>
          )}
        </ul>
      )}
    </section>
  )
}
