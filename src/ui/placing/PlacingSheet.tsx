import { CloseButton, TextInput } from '@mantine/core'
import { IconArrowBackUp, IconChevronLeft, IconChevronRight, IconSearch } from '@tabler/icons-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { factsOf, type Primitive } from '../../core/body/feet'
import { LAYERS_DOWN, type Layer } from '../../core/body/layers'
import type { ArmPlace } from '../../core/body/places'
import { SIDES, type Side, sideWord } from '../../core/body/side'
import { whenSaid } from '../../core/combination/lengths'
import { placeIn } from '../../core/combination/names'
import { layerWord } from '../../core/moves/vocabulary'
import {
  COUNT,
  endOf,
  HALF_COUNT,
  labelIn,
  labelOfSpan,
  QUARTER_COUNT,
  slotAt,
  type Tick,
  tick,
} from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import { findOffers, type Offer } from '../../core/writing/search'
import { scrollerOf } from '../parts/scroller'
import { go, stepInTime } from '../stores/cursor'
import { placeAtSelection, rewrite } from '../stores/editing'
import { closePlacing, extending, type Placing, placing } from '../stores/placing'
import { behind, type Session, select, undoLast } from '../stores/session'
import {
  documentOf,
  hereAt,
  layersShown,
  phraseAt,
  type Selection,
  type SessionState,
  selectedEvents,
  sideMeant,
  vocabularyOf,
} from '../stores/state'
import { BlockRow } from './BlockRow'
import { BodyUnder, FloorUnder, HeadUnder, Pad } from './Pad'
import { Choices, PlacedRow } from './PlacedRow'
import { armSpots, COMPASS_SPOTS, floorFor, GAZE_SPOTS, STEPS_SOMEWHERE, stepTo } from './pads'
import classes from './placing.module.css'

interface PlacingSheetProps {
  readonly session: Session
  readonly newId: () => string
  /** Everything about what is selected is wanted. */
  readonly onAbout: () => void
  /** A move of the instructor’s own is to be made of what is selected. */
  readonly onMake: () => void
}

/** What fits where the selection stands, to be placed by touch or click; nothing while it is not asked for. */
export function PlacingSheet(props: PlacingSheetProps) {
  const how = useStore(placing)
  useEffect(() => closePlacing, [])
  return how.by === undefined ? null : <Sheet how={how} {...props} />
}

/** Offers looked for, and how many are shown before more are asked for. */
const MOST_OFFERS = 999
const FEW_OFFERS = 10
const FEW_STEPS = 12

/** How far a step of the cursor goes: a count, half of one, a quarter. */
const GRIDS = [
  { ticks: COUNT, word: '1' },
  { ticks: HALF_COUNT, word: '½' },
  { ticks: QUARTER_COUNT, word: '¼' },
] as const

/** What is worked on keeps so far from the edges of what is seen of it, in pixels. */
const NEAR_PX = 20

type Arm = 'both' | Side

function Sheet({
  how,
  session,
  newId,
  onAbout,
  onMake,
}: PlacingSheetProps & { readonly how: Placing }) {
  const state = useStore(session, (s) => s)
  /** What was placed here last: the next thing goes behind it. */
  const [placed, setPlaced] = useState<string>()
  const [primitive, setPrimitive] = useState<Primitive>('step')
  const [arm, setArm] = useState<Arm>('both')
  const [query, setQuery] = useState<string>()
  const [isAll, setAll] = useState(false)
  const [grid, setGrid] = useState<(typeof GRIDS)[number]>(GRIDS[0])
  const isExtending = useStore(extending, ({ isOn }) => isOn)
  const extend = () => extending.setState({ isOn: true })
  const { selection } = state
  const goesOn = placed !== undefined && selection.event === placed
  const target = useMemo(
    () => (goesOn ? behind(state) : { ...state.selection, event: undefined }),
    [state, goesOn],
  )
  const there = useMemo(
    (): SessionState => (target && goesOn ? { ...state, selection: target } : state),
    [state, goesOn, target],
  )
  const vocabulary = vocabularyOf(state)
  const { layer } = selection
  const side = sideMeant(there)
  const { families } = documentOf(state)
  const offers = useMemo(
    () =>
      findOffers(
        query ?? '',
        { layer, side, families, here: hereAt(there) },
        vocabulary,
        MOST_OFFERS,
      ).filter((offer) => query || !isOnPad(offer)),
    [query, layer, side, families, there, vocabulary],
  )
  const event = selection.event === undefined ? undefined : selectedEvents(state)[0]
  const phrase = named(there, target ?? selection)
  const label = labelIn(phrase)

  // What is worked on stays in sight above the sheet.
  const sheet = useRef<HTMLElement>(null)
  const isPressed = useRef(false)
  const { pass, dancing } = target ?? selection
  useEffect(() => {
    if (how.by !== 'finger') return
    const lane = document.querySelector(
      `[data-line="${dancing.side}:${pass}"] [data-lane="${layer}"]`,
    )
    const over = sheet.current?.getBoundingClientRect().top ?? window.innerHeight
    const row = lane?.getBoundingClientRect()
    if (!lane || !row) return
    const box = scrollerOf(lane)
    const top = box?.getBoundingClientRect().top ?? 0
    const below = row.bottom + NEAR_PX - over
    const above = top + NEAR_PX - row.top
    if (below > 0) box?.scrollBy({ top: below })
    else if (above > 0) box?.scrollBy({ top: -above })
  }, [how.by, pass, dancing.side, layer])

  // Typing on keys goes on in the braid, and Escape puts it away.
  useEffect(() => {
    if (state.query !== undefined) closePlacing()
  }, [state.query])
  useEffect(() => {
    const close = (press: KeyboardEvent) => {
      if (press.key === 'Escape') closePlacing()
    }
    window.addEventListener('keydown', close)
    return () => window.removeEventListener('keydown', close)
  }, [])

  const place = (what: What, length: Tick, on: Layer = layer) => {
    if (!target) return
    select(session, { ...target, layer: on, toLayer: undefined })
    placeAtSelection(session, what, length, newId)
    setPlaced(session.getState().selection.event)
    setQuery(undefined)
    setAll(false)
  }
  const placeArm = (where: ArmPlace) => {
    // The other arm of what stands there already has its place with it.
    if (arm !== 'both' && event?.what.kind === 'arms' && !event.what[arm])
      return rewrite(session, event, { what: { ...event.what, [arm]: where } })
    place({ kind: 'arms', ...(arm === 'both' ? { R: where, L: where } : { [arm]: where }) }, COUNT)
  }
  const goTo = (to: Layer) => {
    // At the end of a layer the next one begins where the phrase does.
    const from: Selection = target ?? { ...selection, at: tick(0), length: COUNT }
    select(session, {
      ...from,
      layer: to,
      toLayer: undefined,
      event: undefined,
      length: slotAt(from.at),
    })
    setPlaced(undefined)
    setQuery(undefined)
  }
  const step = (way: 1 | -1) => {
    const by = way * grid.ticks
    if (target) select(session, target)
    // From behind the last count back into it.
    if (target) stepInTime(session, by)
    else if (way < 0) go(session, { at: tick(endOf(selection) + by) })
    setPlaced(undefined)
  }
  // Single steps stand under the floor they are danced on.
  const steps = query || layer !== 'feet' ? [] : offers.filter(({ what }) => what.kind === 'foot')
  const moves = offers.filter((offer) => !steps.includes(offer))
  const shown = isAll || query ? moves : moves.slice(0, FEW_OFFERS)
  const isFull = !target
  return (
    <section
      ref={sheet}
      className={classes.sheet}
      aria-label="What fits here"
      onPointerDownCapture={() => {
        isPressed.current = true
      }}
      onClickCapture={(event) => {
        // The tap that opened it ends in a click on what lies under the finger now.
        if (event.detail > 0 && !isPressed.current) event.stopPropagation()
      }}
      data-by={how.by}
      style={how.by === 'mouse' ? besideCount(how) : undefined}
    >
      <header className={classes.top}>
        <button type="button" aria-label="Earlier" onClick={() => step(-1)}>
          <IconChevronLeft size={20} />
        </button>
        <h2 aria-live="polite">
          {isFull ? 'the end' : placeIn(phrase.name, labelOfSpan(target ?? selection, label))}
        </h2>
        <button
          type="button"
          aria-label={`Steps of ${grid.word} count, change`}
          onClick={() => setGrid(GRIDS[(GRIDS.indexOf(grid) + 1) % GRIDS.length] ?? GRIDS[0])}
        >
          {grid.word}
        </button>
        <button type="button" aria-label="Later" onClick={() => step(1)}>
          <IconChevronRight size={20} />
        </button>
        <div className={classes.layers} role="group" aria-label="Layer">
          {LAYERS_DOWN.filter((one) => one === 'legs' || layersShown(state).has(one)).map((one) => (
            <button
              key={one}
              type="button"
              className={`layer-${one}`}
              aria-pressed={one === layer}
              onClick={() => goTo(one)}
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
      <div className={classes.body}>
        {event && (
          <PlacedRow
            session={session}
            event={event}
            vocabulary={vocabulary}
            when={whenSaid(event, labelIn(named(state, selection)))}
            onAbout={onAbout}
            onExtend={extend}
          />
        )}
        {!event && selection.length > slotAt(selection.at) && (
          <BlockRow session={session} newId={newId} onMake={onMake} />
        )}
        {isExtending && (
          <p className={classes.end} role="status">
            Touch where it ends, on any layer.
          </p>
        )}
        {event && !goesOn && <p className={classes.end}>What you choose below takes its place.</p>}
        {isFull && (
          <p className={classes.end}>
            This layer is at the end of the dance. Touch a count above, choose another layer, or add
            a phrase.
          </p>
        )}
        <div className={classes.ways}>
          {layer === 'feet' && (
            <div>
              <Choices
                label="Step"
                options={STEPS_SOMEWHERE.map((value) => ({ value, word: value }))}
                value={primitive}
                onPick={setPrimitive}
              />
              <Pad
                label={`${primitive}, ${sideWord[side]} foot, to`}
                spots={floorFor(side)}
                disabled={isFull}
                onPick={(way) =>
                  place({ kind: 'foot', action: stepTo(primitive, side, way) }, COUNT)
                }
              >
                <FloorUnder />
              </Pad>
              <div className={classes.steps} role="group" aria-label="Steps that stay">
                {steps.slice(0, FEW_STEPS).map(({ id, name, what, length }) => (
                  <button
                    key={id}
                    type="button"
                    disabled={isFull}
                    onClick={() => place(what, length)}
                  >
                    {name}
                  </button>
                ))}
              </div>
            </div>
          )}
          {(layer === 'hips' || layer === 'torso') && (
            <Pad
              label={layer === 'hips' ? 'Hips to' : 'Ribs to'}
              spots={COMPASS_SPOTS}
              disabled={isFull}
              onPick={(to) => place({ kind: 'at', place: to }, COUNT)}
            >
              <FloorUnder />
            </Pad>
          )}
          {layer === 'arms' && (
            <div>
              <Choices
                label="Which arm"
                options={[
                  { value: 'L', word: 'left' },
                  { value: 'both', word: 'both' },
                  { value: 'R', word: 'right' },
                ]}
                value={arm}
                onPick={(value: Arm) => setArm(value)}
              />
              <Pad
                label={arm === 'both' ? 'Both arms to' : `${sideWord[arm]} arm to`}
                spots={armSpots(arm === 'L' ? 'L' : 'R')}
                disabled={isFull && arm === 'both'}
                onPick={placeArm}
              >
                <BodyUnder isLeft={arm === 'L'} />
              </Pad>
            </div>
          )}
          {layer === 'head' && (
            <Pad
              label="Look to"
              spots={GAZE_SPOTS}
              disabled={isFull}
              onPick={(gaze) => place({ kind: 'look', gaze }, COUNT)}
            >
              <HeadUnder />
            </Pad>
          )}
          <div>
            {query === undefined ? (
              <button type="button" className={classes.search} onClick={() => setQuery('')}>
                <IconSearch size={18} /> Search by name
              </button>
            ) : (
              <TextInput
                size="md"
                aria-label={`Find a move for the ${layerWord[layer].toLowerCase()}`}
                placeholder="hip circle, shimmy, step touch…"
                value={query}
                autoFocus
                onChange={({ currentTarget }) => setQuery(currentTarget.value)}
              />
            )}
            <ul className={classes.offers} aria-label="Moves that fit, best first">
              {shown.map((offer) => (
                <li key={offer.id}>
                  <button
                    type="button"
                    className={`layer-${offer.layer}`}
                    disabled={isFull}
                    onClick={() => place(offer.what, offer.length, offer.layer)}
                  >
                    <b>{offer.name}</b>
                    <span>
                      {offer.layer === layer
                        ? offer.hint
                        : `on the ${layerWord[offer.layer].toLowerCase()}`}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            {shown.length === 0 && (
              <p className={classes.end}>No move has that name. Try a part of it.</p>
            )}
            {shown.length < moves.length && (
              <button type="button" className={classes.search} onClick={() => setAll(true)}>
                {moves.length - shown.length} more
              </button>
            )}
          </div>
        </div>
      </div>
    </section>
  )
}

/** Whether it is touched on a pad instead. */
function isOnPad({ what }: Offer): boolean {
  if (what.kind === 'foot')
    return (
      STEPS_SOMEWHERE.includes(what.action.primitive) &&
      factsOf(what.action.primitive).direction !== undefined
    )
  if (what.kind === 'arms') return !what.hands && SIDES.some((one) => what[one] !== undefined)
  return what.kind === 'at' || what.kind === 'look'
}

/** How the counts of a phrase are called, and its name. */
const named = (state: SessionState, { pass }: Pick<Selection, 'pass'>) =>
  phraseAt(state, pass) ?? { name: '', counts: 8 }

/** Room the list takes beside a count, in pixels. */
const WIDE = 460
const TALL = 430

/** Under the count, or above it where there is no room below. */
function besideCount({ left, top }: Placing) {
  const room = window.innerHeight - top
  return {
    left: Math.max(8, Math.min(left, window.innerWidth - WIDE - 8)),
    ...(room > TALL ? { top: top + 14 } : { bottom: Math.max(8, window.innerHeight - top + 22) }),
  }
}
