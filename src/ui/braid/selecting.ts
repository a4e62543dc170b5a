import type { Layer } from '../../core/body/layers'
import { isSameDancing } from '../../core/combination/dancing'
import { nameOf, placeIn } from '../../core/combination/names'
import { layerWord } from '../../core/moves/vocabulary'
import { labelIn, labelOfSpan, slotAt, tick } from '../../core/time/time'
import { type Session, select } from '../stores/session'
import {
  isLineOf,
  layersSelected,
  type Selection,
  type SessionState,
  selectedEvents,
  vocabularyOf,
} from '../stores/state'
import type { Line } from './lines'
import type { LineSelection } from './PassLine'

/** Whether the selection begins in a line. */
export const isHere = ({ pass, dancing, whom }: Line, selection: Selection): boolean =>
  isLineOf({ pass: pass.index, dancing, whom }, selection)

/** Stretches the selection from where it starts to a place, layers too. */
export function stretchSelectionTo(session: Session, line: Line, layer: Layer, at: number): void {
  const { selection } = session.getState()
  const first = line.simulation.passes[selection.pass]
  if (line.whom !== selection.whom || !isSameDancing(line.dancing, selection.dancing)) return
  if (!first) return
  const from = first.at + selection.at
  const end = line.pass.at + at + slotAt(tick(at))
  if (end <= from) return
  select(session, {
    ...selection,
    event: undefined,
    toLayer: layer === selection.layer ? undefined : layer,
    length: tick(end - from),
  })
}

/** What of a line is selected; undefined where nothing is. @param start the tick of the dance the selection begins on */
export function selectionIn(
  { pass, dancing, whom }: Line,
  selection: Selection,
  start: number,
): LineSelection | undefined {
  if (whom !== selection.whom || !isSameDancing(dancing, selection.dancing)) return undefined
  if (pass.index < selection.pass) return undefined
  const from = Math.max(start - pass.at, pass.index === selection.pass ? selection.at : 0)
  const to = Math.min(start + selection.length - pass.at, pass.length)
  return to > from ? { from, to, layers: layersSelected(selection) } : undefined
}

/** Where the cursor is and what stands there, for screen readers. */
export function placeText(state: SessionState, here: Line | undefined): string {
  const { selection } = state
  const vocabulary = vocabularyOf(state)
  const label = labelOfSpan(selection, labelIn(here?.pass.phrase ?? { counts: 8 }))
  const layers = layersSelected(selection)
    .map((layer) => layerWord[layer])
    .join(', ')
  const names = selectedEvents(state).map((event) => nameOf(event, vocabulary))
  const said = names.length === 0 ? 'empty' : names.slice(0, 6).join(', ')
  return `${placeIn(here?.pass.phrase.name ?? '', label)}, ${layers}: ${said}${names.length > 6 ? ` and ${names.length - 6} more` : ''}`
}
