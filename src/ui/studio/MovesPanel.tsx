import { Button } from '@mantine/core'
import { useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { placeIn } from '../../core/combination/names'
import { onSide, whatOf } from '../../core/combination/whatOf'
import { layerWord } from '../../core/moves/vocabulary'
import { labelIn } from '../../core/time/time'
import type { Wanted } from '../../core/writing/wanted'
import { Ideas } from '../ideas/Ideas'
import { MoveFacts } from '../moves/MoveFacts'
import { MoveFilters } from '../moves/MoveFilters'
import { MoveList } from '../moves/MoveList'
import classes from '../moves/moves.module.css'
import { useMoves } from '../moves/useMoves'
import { placeAtSelection } from '../stores/editing'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import {
  documentOf,
  hereAt,
  phraseAt,
  type SessionState,
  sideMeant,
  vocabularyOf,
} from '../stores/state'

/** What fits where the cursor stands, and what that place is called. */
export function placeOf(state: SessionState): { label: string; wanted: Wanted } {
  const { selection } = state
  const { families, title } = documentOf(state)
  const phrase = phraseAt(state, selection.pass)
  const at = placeIn(phrase?.name ?? '', labelIn(phrase ?? { counts: 8 })(selection.at))
  return {
    label: `${at} of “${title}”, ${layerWord[selection.layer].toLowerCase()}`,
    wanted: {
      layer: selection.layer,
      side: sideMeant(state),
      families,
      here: hereAt(state),
    },
  }
}

/** The vocabulary beside the braid: what suits the cursor, to be dragged in or placed. */
export function MovesPanel({ session }: { session: Session }) {
  const { newId } = useServices()
  const state = useStore(session, (s) => s)
  const vocabulary = vocabularyOf(state)
  const place = useMemo(() => placeOf(state), [state])
  const { moves, favourites, filters } = useMoves(vocabulary, place.wanted, true)
  const [id, setId] = useState<string>()
  const move = moves.find((one) => one.id === id) ?? moves[0]
  return (
    <section className={classes.panel} aria-label="Moves">
      <Ideas session={session} />
      <MoveFilters {...filters} withLayer={!filters.suits} suitsWord={`Suits ${place.label}`} />
      <MoveList
        moves={moves}
        chosen={move?.id}
        favourites={favourites}
        draggable
        onChoose={(chosen) => setId(chosen.id)}
      />
      {move ? (
        <>
          <Button
            size="compact-md"
            disabled={move.layer !== state.selection.layer}
            onClick={() =>
              placeAtSelection(
                session,
                onSide(whatOf(move), sideMeant(session.getState())),
                move.length,
                newId,
              )
            }
          >
            Place {move.name.toLowerCase()} here
          </Button>
          <div style={{ overflowY: 'auto', flex: '1 1 120px' }}>
            <MoveFacts move={move} vocabulary={vocabulary} onGo={setId} />
          </div>
        </>
      ) : (
        <p className={classes.none}>Nothing suits here. Pick another count, or turn “Suits” off.</p>
      )}
    </section>
  )
}
