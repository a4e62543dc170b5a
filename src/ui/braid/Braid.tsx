import { useElementSize, useMediaQuery } from '@mantine/hooks'
import { type ReactNode, useMemo, useRef } from 'react'
import { useStore } from 'zustand'
import { isLead } from '../../core/combination/dancing'
import { drag } from '../parts/drag'
import { pressOf } from '../parts/keys'
import { partTint } from '../parts/PartBadge'
import type { KeyScope } from '../shortcuts/shortcut'
import { press } from '../shortcuts/shortcuts'
import { openPlacing } from '../stores/placing'
import type { Session } from '../stores/session'
import {
  changedEvents,
  documentOf,
  drawnState,
  layersSelected,
  selectedEvents,
} from '../stores/state'
import classes from './braid.module.css'
import { Ghost } from './Ghost'
import { lineWidth, SIZE } from './geometry'
import { type Line, linesOf } from './lines'
import { PassLine } from './PassLine'
import { Placer } from './Placer'
import { RibbonInk } from './Ribbon'
import { isHere, placeText, selectionIn } from './selecting'
import { useBraidHands } from './useBraidHands'
import { usePaperWidth } from './usePaperWidth'

interface BraidProps {
  readonly session: Session
  readonly deck: KeyScope
  readonly newId: () => string
  /** What stands in the margin of a line: the phrase's own menu. */
  readonly margin: (line: Line) => ReactNode
}

/** Where fingers are what points. */
const FINGERS = '(pointer: coarse)'

/** The braid: phrases run down the page like lines of text, the body upright inside each. */
export function Braid({ session, deck, newId, margin }: BraidProps) {
  const { ref, width } = useElementSize()
  const box = useRef<HTMLDivElement>(null)
  const now = useStore(session, (s) => s)
  const state = useMemo(() => drawnState(now), [now])
  const document = documentOf(state)
  const freshIds = useMemo(
    () => (now.preview ? [...changedEvents(documentOf(now), now.preview)].join(' ') : ''),
    [now],
  )
  const { selection } = state
  const known = useRef<readonly Line[]>([])
  const isTouched = useMediaQuery(FINGERS) ?? false
  // A drag moves only its ghost: the lines are worked out when the combination changes.
  const lines = useMemo(() => {
    const air = isTouched ? SIZE.fingers : 0
    known.current = linesOf(state, lineWidth(width), known.current, air)
    return known.current
  }, [state, width, isTouched])
  const selected = useMemo(() => selectedEvents(state), [state])
  const selectedIds = selected.map(({ id }) => id).join(' ')
  const showsBoth = state.shown === 'both'

  usePaperWidth(box)
  const { ghost, topOf, pick, stretchFrom } = useBraidHands({
    session,
    newId,
    box,
    lines,
    state,
    selected,
  })

  const here = lines.find((line) => isHere(line, selection))
  const lane = here?.shape.lanes.find(({ layer }) => layer === selection.layer)
  const start = (here?.pass.at ?? 0) + selection.at
  const layers = layersSelected(selection).join(' ')
  return (
    <div className={classes.braid} ref={ref} data-braid>
      <svg width={0} height={0} aria-hidden className="only-read">
        <RibbonInk top={SIZE.leftFoot} bottom={SIZE.rightFoot} />
      </svg>
      <div
        ref={box}
        role="application"
        aria-roledescription="braid"
        aria-label={`${document.title}: arrow keys go over counts and layers, letters find a move`}
        aria-describedby="braid-place"
        tabIndex={0}
        className={classes.braid}
        onKeyDown={(event) => {
          if (event.target !== event.currentTarget) return
          if (press(session, pressOf(event.nativeEvent), deck)) event.preventDefault()
        }}
      >
        {lines.map((line) => {
          const { pass, dancing } = line
          const own = selectionIn(line, selection, start)
          return (
            <div
              key={`${line.whom ?? ''} ${dancing.part} ${dancing.side}${pass.index}`}
              className={line.whom === undefined ? classes.row : `${classes.row} ${classes.own}`}
              style={line.whom === undefined ? undefined : partTint(line.part)}
              data-alternate={showsBoth && !isLead(document, dancing)}
              onPointerDown={(event) => {
                if (event.target instanceof Element && event.target.closest('button')) return
                if (event.button === 0) drag(event, () => pick(event, line))
              }}
            >
              <div className={classes.head}>{margin(line)}</div>
              <PassLine
                line={line}
                from={own?.from}
                to={own?.to}
                layers={own ? layers : ''}
                selectedIds={own ? selectedIds : ''}
                freshIds={freshIds}
                dancers={line.shape.pairs === undefined ? undefined : document.parts}
                picked={
                  line.shape.pairs === undefined && !line.shape.props ? undefined : state.beside
                }
              />
            </div>
          )
        })}
        {ghost && <Ghost box={ghost} />}
        {here && lane && !isTouched && selected.length === 0 && state.query === undefined && (
          <button
            type="button"
            className={classes.plus}
            aria-label="Show what fits here"
            tabIndex={-1}
            style={{ left: here.shape.x(selection.at), top: topOf(here) + lane.top }}
            onClick={({ currentTarget }) => {
              const { left, bottom } = currentTarget.getBoundingClientRect()
              openPlacing({ by: 'mouse', left, top: bottom })
            }}
          >
            +
          </button>
        )}
        {here &&
          lane &&
          isTouched &&
          selection.event !== undefined &&
          selection.layer !== 'feet' && (
            <div
              className={classes.handle}
              data-handle
              aria-hidden
              style={{
                left: here.shape.x(selection.at + selection.length),
                top: topOf(here) + lane.top - here.shape.air / 2,
                height: lane.height + here.shape.air,
              }}
              onPointerDown={(event) => {
                event.stopPropagation()
                drag(event, () => stretchFrom(event, here), { atOnce: true })
              }}
            />
          )}
        {here && lane && state.query !== undefined && (
          <Placer
            session={session}
            newId={newId}
            left={Math.min(here.shape.x(selection.at), here.shape.width - 240)}
            top={topOf(here) + lane.top + lane.height + 2}
            onClose={() => {
              session.setState({ query: undefined })
              box.current?.focus({ preventScroll: true })
            }}
          />
        )}
      </div>
      <p id="braid-place" className="only-read" aria-live="polite">
        {placeText(state, here)}
      </p>
    </div>
  )
}
