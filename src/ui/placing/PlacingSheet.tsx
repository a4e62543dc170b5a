import { useEffect, useMemo, useRef, useState } from 'react'
import { useStore } from 'zustand'
import { factsOf } from '../../core/body/feet'
import type { Layer } from '../../core/body/layers'
import { SIDES } from '../../core/body/side'
import { whenSaid } from '../../core/combination/lengths'
import { placeIn } from '../../core/combination/names'
import { COUNT, endOf, labelIn, labelOfSpan, slotAt, type Tick, tick } from '../../core/time/time'
import type { What } from '../../core/what/kinds'
import { findOffers, type Offer } from '../../core/writing/search'
import { scrollerOf } from '../parts/scroller'
import { go, stepInTime } from '../stores/cursor'
import { placeAtSelection } from '../stores/editing'
import { closePlacing, extending, type Placing, placing } from '../stores/placing'
import { behind, type Session, select } from '../stores/session'
import {
  documentOf,
  hereAt,
  phraseAt,
  type Selection,
  type SessionState,
  selectedEvents,
  sideMeant,
  vocabularyOf,
} from '../stores/state'
import { BlockRow } from './BlockRow'
import { OfferList } from './OfferList'
import { PadOfLayer } from './PadOfLayer'
import { PlacedRow } from './PlacedRow'
import { STEPS_SOMEWHERE } from './pads'
import classes from './placing.module.css'
import { SheetTop } from './SheetTop'

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

/** Offers looked for. */
const MOST_OFFERS = 999

/** What is worked on keeps so far from the edges of what is seen of it, in pixels. */
const NEAR_PX = 20

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
  const [query, setQuery] = useState<string>()
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
  const step = (by: number) => {
    if (target) select(session, target)
    // From behind the last count back into it.
    if (target) stepInTime(session, by)
    else if (by < 0) go(session, { at: tick(endOf(selection) + by) })
    setPlaced(undefined)
  }
  // Single steps stand under the floor they are danced on.
  const steps = query || layer !== 'feet' ? [] : offers.filter(({ what }) => what.kind === 'foot')
  const moves = offers.filter((offer) => !steps.includes(offer))
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
      <SheetTop
        session={session}
        state={state}
        place={target ? placeIn(phrase.name, labelOfSpan(target, labelIn(phrase))) : 'the end'}
        layer={layer}
        onStep={step}
        onLayer={goTo}
      />
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
          <PadOfLayer
            session={session}
            layer={layer}
            side={side}
            steps={steps}
            isFull={isFull}
            event={event}
            place={place}
          />
          <OfferList
            layer={layer}
            moves={moves}
            query={query}
            onQuery={setQuery}
            isFull={isFull}
            onPlace={(offer) => place(offer.what, offer.length, offer.layer)}
          />
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
