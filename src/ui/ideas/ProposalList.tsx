import { memo, useCallback, useState } from 'react'
import { capital } from '../../core/capital'
import type { Combination, Event } from '../../core/combination/combination'
import type { PartId } from '../../core/combination/whose'
import { bringUsed } from '../../core/edits/edits'
import { sharing } from '../../core/edits/share'
import { layersPut, withSome } from '../../core/suggest/taken'
import { COUNT } from '../../core/time/time'
import { PreviewButton } from '../findings/PreviewButton'
import { type Session, withDance } from '../stores/session'
import { danceOf, type SessionState } from '../stores/state'
import { ownMoves } from '../stores/words'
import classes from './ideas.module.css'
import { ProposalLoop } from './ProposalLoop'
import type { Answer, Proposal } from './proposal'

interface ProposalListProps {
  readonly session: Session
  readonly answer: Answer
  /** Counts of the phrase, for its half. */
  readonly counts: number
  /** Whose line it would be written in. */
  readonly whom: PartId | undefined
  readonly onTaken: () => void
}

/**
 * What was proposed, to be looked at and taken. Each is danced beside its words, one after the
 * other, for nobody looks at five at once; the one that is pointed at or focused goes first.
 */
export const ProposalList = memo(function ProposalList(props: ProposalListProps) {
  const { session, answer, counts, onTaken } = props
  const { label, proposals, none, isNearest } = answer
  const [turn, setTurn] = useState(0)
  const [looked, setLooked] = useState<number>()
  const next = useCallback(
    () => setTurn((now) => (now + 1) % Math.max(1, proposals.length)),
    [proposals.length],
  )
  return (
    <ul className={classes.list} aria-label={label}>
      {(isNearest || proposals.length === 0) && <li className={classes.none}>{none}</li>}
      {proposals.map((proposal, i) => (
        <li
          key={`${proposal.words} ${proposal.why}`}
          className={classes.proposal}
          onPointerEnter={() => setLooked(i)}
          onPointerLeave={() => setLooked(undefined)}
          onFocus={() => setLooked(i)}
          onBlur={() => setLooked(undefined)}
        >
          <ProposalLoop proposal={proposal} isDanced={(looked ?? turn) === i} onOnce={next} />
          <div>
            <Take session={session} proposal={proposal} onTaken={onTaken} />
            {proposal.why && <span className={classes.why}>{capital(proposal.why)}</span>}
            {proposal.doubts && <span className={classes.doubt}>{proposal.doubts}</span>}
            {proposal.byHalf && (
              <Parts session={session} proposal={proposal} counts={counts} onTaken={onTaken} />
            )}
          </div>
        </li>
      ))}
    </ul>
  )
})

interface TakeProps {
  readonly session: Session
  readonly proposal: Proposal
  readonly onTaken: () => void
}

/** All of it. */
function Take({ session, proposal, onTaken }: TakeProps) {
  const { words, changed, does } = proposal
  return (
    <PreviewButton
      session={session}
      changed={written(session.getState(), changed)}
      does={does}
      onTaken={onTaken}
    >
      {words}
    </PreviewButton>
  )
}

/** A part of it. */
function Parts({ session, proposal, counts, onTaken }: TakeProps & { readonly counts: number }) {
  const { changed, does } = proposal
  const state = session.getState()
  const dance = danceOf(state)
  const half = (counts * COUNT) / 2
  const take = (words: string, isWanted: (event: Event) => boolean) => (
    <PreviewButton
      session={session}
      changed={written(state, withSome(dance, changed, isWanted))}
      does={does}
      onTaken={onTaken}
    >
      {words}
    </PreviewButton>
  )
  return (
    <span className={classes.parts}>
      {take('First half only', ({ at }) => at < half)}
      {layersPut(dance, changed).size > 1 && take('Feet only', ({ layer }) => layer === 'feet')}
    </span>
  )
}

/** A proposed dance as what is written, with the own moves it uses. */
const written = (state: SessionState, changed: Combination): Combination =>
  withDance(state, bringUsed(ownMoves())(sharing(danceOf(state), changed)))
