import { CloseButton } from '@mantine/core'
import { IconArrowBackUp, IconChevronLeft, IconChevronRight } from '@tabler/icons-react'
import { useState } from 'react'
import { LAYERS_DOWN, type Layer } from '../../core/body/layers'
import { layerWord } from '../../core/moves/vocabulary'
import { COUNT, HALF_COUNT, QUARTER_COUNT } from '../../core/time/time'
import { closePlacing } from '../stores/placing'
import { type Session, undoLast } from '../stores/session'
import { layersShown, type SessionState } from '../stores/state'
import classes from './placing.module.css'

/** How far a step of the cursor goes: a count, half of one, a quarter. */
const GRIDS = [
  { ticks: COUNT, word: '1' },
  { ticks: HALF_COUNT, word: '½' },
  { ticks: QUARTER_COUNT, word: '¼' },
] as const

interface SheetTopProps {
  readonly session: Session
  readonly state: SessionState
  /** Where the next thing goes: `A3&`, or the end. */
  readonly place: string
  readonly layer: Layer
  /** @param ticks forward, or back where it is below 0 */
  readonly onStep: (ticks: number) => void
  readonly onLayer: (layer: Layer) => void
}

/** Where it goes, and the way to other counts and layers. */
export function SheetTop({ session, state, place, layer, onStep, onLayer }: SheetTopProps) {
  const [grid, setGrid] = useState<(typeof GRIDS)[number]>(GRIDS[0])
  return (
    <header className={classes.top}>
      <button type="button" aria-label="Earlier" onClick={() => onStep(-grid.ticks)}>
        <IconChevronLeft size={20} />
      </button>
      <h2 aria-live="polite">{place}</h2>
      <button
        type="button"
        aria-label={`Steps of ${grid.word} count, change`}
        onClick={() => setGrid(GRIDS[(GRIDS.indexOf(grid) + 1) % GRIDS.length] ?? GRIDS[0])}
      >
        {grid.word}
      </button>
      <button type="button" aria-label="Later" onClick={() => onStep(grid.ticks)}>
        <IconChevronRight size={20} />
      </button>
      <div className={classes.layers} role="group" aria-label="Layer">
        {LAYERS_DOWN.filter((one) => one === 'legs' || layersShown(state).has(one)).map((one) => (
          <button
            key={one}
            type="button"
            className={`layer-${one}`}
            aria-pressed={one === layer}
            onClick={() => onLayer(one)}
          >
            {layerWord[one]}
          </button>
        ))}
      </div>
      <button
        type="button"
        aria-label="Undo"
        disabled={state.history.past.length === 0}
        onClick={() => undoLast(session)}
      >
        <IconArrowBackUp size={20} />
      </button>
      <CloseButton size={44} aria-label="Close what fits here" onClick={closePlacing} />
    </header>
  )
}
