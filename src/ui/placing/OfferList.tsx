import { TextInput } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { useState } from 'react'
import type { Layer } from '../../core/body/layers'
import { layerWord } from '../../core/moves/vocabulary'
import type { Offer } from '../../core/writing/search'
import classes from './placing.module.css'

interface OfferListProps {
  readonly layer: Layer
  /** What fits, the best first. */
  readonly moves: readonly Offer[]
  /** Absent where nothing is looked for by name. */
  readonly query: string | undefined
  readonly onQuery: (query: string) => void
  /** There is no count left on this layer. */
  readonly isFull: boolean
  readonly onPlace: (offer: Offer) => void
}

/** So many are shown before more are asked for. */
const FEW_OFFERS = 10

/** Moves that fit, the best first, and looked for by name. */
export function OfferList({ layer, moves, query, onQuery, isFull, onPlace }: OfferListProps) {
  const [isAll, setAll] = useState(false)
  const shown = isAll || query ? moves : moves.slice(0, FEW_OFFERS)
  return (
    <div>
      {query === undefined ? (
        <button type="button" className={classes.search} onClick={() => onQuery('')}>
          <IconSearch size={18} /> Search by name
        </button>
      ) : (
        <TextInput
          size="md"
          aria-label={`Find a move for the ${layerWord[layer].toLowerCase()}`}
          placeholder="hip circle, shimmy, step touch…"
          value={query}
          autoFocus
          onChange={({ currentTarget }) => onQuery(currentTarget.value)}
        />
      )}
      <ul className={classes.offers} aria-label="Moves that fit, best first">
        {shown.map((offer) => (
          <li key={offer.id}>
            <button
              type="button"
              className={`layer-${offer.layer}`}
              disabled={isFull}
              onClick={() => {
                setAll(false)
                onPlace(offer)
              }}
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
  )
}
