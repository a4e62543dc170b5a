import { Button } from '@mantine/core'
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { NumberField } from '../parts/NumberField'
import { useServices } from '../stores/services'
import { type Session, showPreview } from '../stores/session'
import { danceOf } from '../stores/state'
import { AskedFor } from './AskedFor'
import classes from './ideas.module.css'
import { ProposalList } from './ProposalList'
import { type Answer, placeAsked } from './proposal'
import {
  answerPhrase,
  fillLayer,
  makeUp,
  mixPhrase,
  type Question,
  suggestHere,
  varyPhrase,
} from './questions'
import { useKnown } from './useKnown'
import { askedOf, wished } from './wished'

/** Moves, fillings, whole phrases, answers, variations and mixes: looked at in the braid, placed only when chosen. */
export function Ideas({ session }: { session: Session }) {
  const { judge, newId, combinations } = useServices()
  const state = useStore(session, (s) => s)
  const dance = danceOf(state)
  const wish = useStore(wished, (s) => s)
  const knownOf = useKnown()
  const [answer, setAnswer] = useState<Answer>()
  const [thinking, setThinking] = useState<AbortController>()
  const running = useRef<AbortController>(undefined)
  const last = useRef<Question>(undefined)
  useEffect(
    () => () => {
      running.current?.abort()
      showPreview(session, undefined)
    },
    [session],
  )
  // What was proposed was proposed for the combination as it was.
  const proposedFor = useRef(dance)
  const isCurrent = proposedFor.current === dance
  const place = placeAsked(state)
  const ask = async (question: Question) => {
    if (!place) return
    running.current?.abort()
    const stop = new AbortController()
    running.current = stop
    last.current = question
    setThinking(stop)
    setAnswer(undefined)
    try {
      const { signal } = stop
      const now = wished.getState()
      const known = now.group ? await knownOf(now.group.id, signal) : []
      const shelf = () => combinations.all()
      const asked = askedOf(now, known)
      const found = await question({ judge, dance, place, asked, signal, newId, shelf })
      proposedFor.current = dance
      setAnswer(found)
    } catch (error) {
      if (!stop.signal.aborted)
        session.setState((now) => ({ ...now, message: `No ideas were found: ${String(error)}` }))
    }
    setThinking((now) => (now === stop ? undefined : now))
  }
  const close = useCallback(() => setAnswer(undefined), [])
  const shown = isCurrent ? answer : undefined
  const phrase = place?.phrase ?? ''
  return (
    <section aria-label="Ideas" className={classes.ideas}>
      <div className={classes.row}>
        <Ask disabled={!place?.gap} onClick={() => void ask(suggestHere)}>
          {place?.gap
            ? `Ideas for ${place.gap.label}, ${place.layerSaid}`
            : `These ${place?.layerSaid ?? ''} counts are taken`}
        </Ask>
        <Ask disabled={!place} onClick={() => void ask(fillLayer)}>
          Fill {place?.within?.label ?? phrase} {place?.layerSaid}
        </Ask>
        <Ask disabled={!place} onClick={() => void ask(place?.isEmpty ? makeUp : varyPhrase)}>
          {place?.isEmpty ? `Make ${phrase} up` : `Vary ${phrase}`}
        </Ask>
        <Ask disabled={!place || place.isEmpty} onClick={() => void ask(answerPhrase)}>
          Answer {phrase}
        </Ask>
        <Ask disabled={!place} onClick={() => void ask(mixPhrase)}>
          Mix {phrase} with the shelf
        </Ask>
      </div>
      <div className={classes.row}>
        <NumberField
          aria-label="Number of the proposals: the same number gives the same ones"
          size="xs"
          w={58}
          min={1}
          max={9999}
          value={wish.seed}
          onCommit={(seed) => wished.setState({ seed })}
        />
        <Ask
          disabled={!shown}
          onClick={() => {
            wished.setState(({ seed }) => ({ seed: (seed % 9999) + 1 }))
            if (last.current) void ask(last.current)
          }}
        >
          Others
        </Ask>
        {shown && (
          <Ask disabled={false} onClick={close}>
            Close
          </Ask>
        )}
        <AskedFor />
      </div>
      {thinking && (
        <p className={classes.none}>
          Thinking…{' '}
          <button type="button" className={classes.stop} onClick={() => thinking.abort()}>
            Stop
          </button>
        </p>
      )}
      {shown && place && (
        <ProposalList
          session={session}
          answer={shown}
          counts={place.counts}
          whom={state.selection.whom}
          onTaken={close}
        />
      )}
    </section>
  )
}

function Ask(props: {
  readonly disabled: boolean
  readonly onClick: () => void
  readonly children: ReactNode
}) {
  return <Button size="compact-sm" variant="default" {...props} />
}
