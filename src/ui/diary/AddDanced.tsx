import { Button, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { dancedByHand } from '../../core/class/dancedRow'
import type { Combination } from '../../core/combination/combination'
import type { DancedDrill } from '../../core/diary/diary'
import type { Materials } from '../../core/plan/material'
import { useServices } from '../stores/services'
import classes from './diary.module.css'

/** Writes down what was danced without the floor; the row is corrected in the table. */
export function AddDanced({
  combinations,
  materials,
  onAdd,
}: {
  readonly combinations: readonly Combination[]
  readonly materials: Materials
  readonly onAdd: (row: DancedDrill) => void
}) {
  const { newId } = useServices()
  const [chosen, setChosen] = useState<string>()
  const [phrase, setPhrase] = useState('')
  const [layers, setLayers] = useState<'all' | 'feet'>('all')
  const combination = combinations.find(({ id }) => id === chosen) ?? combinations[0]
  if (!combination) return null
  const own = combination.phrases.find(({ id }) => id === phrase)
  const wish = {
    combination: combination.id,
    phrase: own?.id,
    layers: layers === 'feet' ? (['feet'] as const) : undefined,
  }
  const add = () => {
    const row = dancedByHand(wish, newId(), materials)
    if (row) onAdd(row)
  }
  return (
    <div className={classes.addDanced}>
      <b>Also danced</b>
      <NativeSelect
        size="xs"
        aria-label="Combination that was danced"
        data={combinations.map(({ id, title }) => ({ value: id, label: title }))}
        value={combination.id}
        onChange={({ currentTarget: { value } }) => setChosen(value)}
      />
      <NativeSelect
        size="xs"
        aria-label="Phrase that was danced"
        data={[
          { value: '', label: 'all of it' },
          ...combination.phrases.map(({ id, name, title }) => ({
            value: id,
            label: [name, title].filter(Boolean).join(' · '),
          })),
        ]}
        value={own?.id ?? ''}
        onChange={({ currentTarget: { value } }) => setPhrase(value)}
      />
      <NativeSelect
        size="xs"
        aria-label="Layers that were danced"
        data={[
          { value: 'all', label: 'all layers' },
          { value: 'feet', label: 'the feet' },
        ]}
        value={layers}
        onChange={({ currentTarget: { value } }) => setLayers(value === 'feet' ? 'feet' : 'all')}
      />
      <Button size="compact-sm" variant="default" onClick={add}>
        Add it
      </Button>
    </div>
  )
}
