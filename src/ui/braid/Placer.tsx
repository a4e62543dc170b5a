import { Combobox, TextInput, useCombobox } from '@mantine/core'
import { useEffect, useMemo, useState } from 'react'
import { useStore } from 'zustand'
import { layerWord } from '../../core/moves/vocabulary'
import { labelOfTick } from '../../core/time/time'
import { findOffers, type Offer } from '../../core/writing/search'
import { MoveFigure } from '../stage/MoveFigure'
import { placeAtSelection } from '../stores/editing'
import { goBehind, type Session, select } from '../stores/session'
import { documentOf, hereAt, sideMeant, vocabularyOf } from '../stores/state'
import classes from './placer.module.css'

interface PlacerProps {
  readonly session: Session
  readonly left: number
  readonly top: number
  readonly newId: () => string
  readonly onClose: () => void
}

/** As many as show without scrolling. */
const MOST_OFFERS = 9

/** Type to find a move, Enter to place it on the selected counts. */
export function Placer({ session, left, top, newId, onClose }: PlacerProps) {
  const state = useStore(session, (s) => s)
  const [query, setQuery] = useState(state.query ?? '')
  const combobox = useCombobox({ opened: true, onDropdownClose: onClose })
  const { selection } = state
  const { families } = documentOf(state)
  const side = sideMeant(state)
  const offers = useMemo(
    () =>
      findOffers(
        query,
        { layer: selection.layer, side, families, here: hereAt(state) },
        vocabularyOf(state),
        MOST_OFFERS,
      ),
    [query, state, selection.layer, side, families],
  )
  // The first one is always marked, so that Enter takes it.
  useEffect(() => {
    if (offers.length === 0) return
    // The list is drawn a moment after the field, the first time.
    const frame = requestAnimationFrame(() => combobox.selectFirstOption())
    return () => cancelAnimationFrame(frame)
  }, [offers, combobox.selectFirstOption])
  // What is marked in the list is danced beside it.
  const [marked, setMarked] = useState(0)
  const shown = offers[Math.min(marked, offers.length - 1)]
  const place = ({ what, length, layer }: Offer) => {
    // A move of another layer goes onto its own line.
    if (layer !== selection.layer)
      select(session, { ...selection, layer, toLayer: undefined, event: undefined })
    placeAtSelection(session, what, length, newId)
    onClose()
  }
  return (
    <div className={classes.placer} style={{ left, top }}>
      <Combobox
        store={combobox}
        position="bottom-start"
        width="min(640px, 94vw)"
        middlewares={{ flip: true, shift: true }}
        onOptionSubmit={(id) => {
          const offer = offers.find((candidate) => candidate.id === id)
          if (offer) place(offer)
        }}
      >
        <Combobox.Target>
          <TextInput
            size="sm"
            w={230}
            aria-label={`Find a move for the ${layerWord[selection.layer].toLowerCase()} on ${labelOfTick(selection.at)}`}
            placeholder={`${layerWord[selection.layer]}: type a move…`}
            value={query}
            autoFocus
            onChange={(event) => {
              setQuery(event.currentTarget.value)
              setMarked(0)
            }}
            onBlur={onClose}
            onKeyDown={(event) => {
              event.stopPropagation()
              if (event.key === 'Escape') onClose()
              const index = combobox.getSelectedOptionIndex()
              requestAnimationFrame(() => setMarked(Math.max(0, combobox.getSelectedOptionIndex())))
              const isEarly = event.key === 'Enter' && index < 0
              const goesOn = event.key === 'Tab' && !event.shiftKey
              if (!isEarly && !goesOn) return
              event.preventDefault()
              const offer = offers[Math.max(0, index)]
              if (!offer) return
              place(offer)
              // Behind it, ready for the next one.
              if (goesOn) goBehind(session)
            }}
          />
        </Combobox.Target>
        <Combobox.Dropdown className={classes.dropdown}>
          <Combobox.Options className={classes.options} aria-label="Moves that fit">
            {offers.map((offer) => (
              <Combobox.Option
                key={offer.id}
                value={offer.id}
                onMouseEnter={() => setMarked(offers.indexOf(offer))}
                className={`layer-${offer.layer}`}
              >
                <span className={classes.offer}>{offer.name}</span>
                <span className={classes.hint}>
                  {offer.layer === selection.layer
                    ? offer.hint
                    : `on the ${layerWord[offer.layer].toLowerCase()}`}
                </span>
              </Combobox.Option>
            ))}
            {offers.length === 0 && (
              <Combobox.Empty>No move has that name. Try a part of it.</Combobox.Empty>
            )}
          </Combobox.Options>
          {shown && (
            <MoveFigure
              name={shown.name}
              written={{ layer: shown.layer, what: shown.what }}
              side={side ?? 'R'}
              vocabulary={vocabularyOf(state)}
            />
          )}
        </Combobox.Dropdown>
      </Combobox>
    </div>
  )
}
