import { NativeSelect, Switch, TextInput } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'
import { useMemo } from 'react'
import { useStore } from 'zustand'
import { LAYERS, Layer } from '../../core/body/layers'
import { Family, familiesWith } from '../../core/moves/move'
import { layerWord } from '../../core/moves/vocabulary'
import type { MoveWish } from '../../core/writing/browse'
import { words } from '../stores/words'
import classes from './moves.module.css'

export type Kept = 'all' | 'favourites' | 'own'

interface FiltersProps {
  readonly wish: MoveWish
  readonly onWish: (wish: MoveWish) => void
  readonly kept: Kept
  readonly onKept: (kept: Kept) => void
  /** What the switch for “suits” says; none where there is no place to suit. */
  readonly suitsWord?: string | undefined
  readonly suits: boolean
  readonly onSuits: (suits: boolean) => void
  /** In the studio the layer is the one the cursor is on. */
  readonly withLayer: boolean
}

/** What to look for in the vocabulary. */
export function MoveFilters(props: FiltersProps) {
  const { vocabulary } = useStore(words, (s) => s)
  const used = useMemo(() => vocabulary.moves.flatMap(({ families }) => families), [vocabulary])
  const { wish, onWish, kept, onKept, suitsWord, suits, onSuits, withLayer } = props
  return (
    <div className={classes.filters}>
      <TextInput
        aria-label="Search moves"
        placeholder="Search by any of its names"
        leftSection={<IconSearch size={16} />}
        value={wish.text}
        onChange={({ currentTarget }) => onWish({ ...wish, text: currentTarget.value })}
      />
      <div className={classes.fields}>
        {withLayer && (
          <NativeSelect
            aria-label="Layer"
            data={[
              { value: '', label: 'every layer' },
              ...LAYERS.map((layer) => ({ value: layer, label: layerWord[layer] })),
            ]}
            value={wish.layer ?? ''}
            onChange={({ currentTarget: { value } }) =>
              onWish({ ...wish, layer: Layer.safeParse(value).data })
            }
          />
        )}
        <NativeSelect
          aria-label="Family"
          data={[{ value: '', label: 'every family' }, ...familiesWith(used)]}
          value={wish.family ?? ''}
          onChange={({ currentTarget: { value } }) =>
            onWish({ ...wish, family: Family.safeParse(value).data })
          }
        />
        <NativeSelect
          aria-label="Demand"
          data={[
            { value: '', label: 'any demand' },
            ...[1, 2, 3, 4].map((demand) => ({
              value: String(demand),
              label: demand === 1 ? 'plain only' : `up to ${demand} of 5`,
            })),
          ]}
          value={String(wish.demand ?? '')}
          onChange={({ currentTarget: { value } }) =>
            onWish({ ...wish, demand: value ? Number(value) : undefined })
          }
        />
        <NativeSelect
          aria-label="Which moves"
          data={[
            { value: 'all', label: 'all moves' },
            { value: 'favourites', label: 'favourites' },
            { value: 'own', label: 'own and renamed' },
          ]}
          value={kept}
          onChange={({ currentTarget }) => onKept(currentTarget.value as Kept)}
        />
      </div>
      {suitsWord && (
        <Switch
          size="sm"
          label={suitsWord}
          checked={suits}
          onChange={({ currentTarget }) => onSuits(currentTarget.checked)}
        />
      )}
    </div>
  )
}
