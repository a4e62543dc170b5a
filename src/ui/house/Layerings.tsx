import { Button, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { useStore } from 'zustand'
import { LAYERS, type Layer } from '../../core/body/layers'
import { capital } from '../../core/capital'
import type { HouseRules } from '../../core/house/house'
import {
  isSameLayering,
  type Layering,
  withLayerings,
  withoutLayering,
} from '../../core/house/layerings'
import { nameOfThing } from '../../core/load/things'
import type { Family } from '../../core/moves/move'
import { layerWord, type Vocabulary } from '../../core/moves/vocabulary'
import { layeringsOf, USUAL_LAYERINGS } from '../../core/suggest/layerings'
import { useServices } from '../stores/services'
import { words } from '../stores/words'
import classes from './house.module.css'

interface LayeringsProps {
  readonly rules: HouseRules
  readonly onChange: (label: string, change: (now: HouseRules) => HouseRules) => void
}

/** What goes with what, by family: the usual layerings and her own, for the ideas. */
export function Layerings({ rules, onChange }: LayeringsProps) {
  const { judge, combinations } = useServices()
  const { vocabulary } = useStore(words, (s) => s)
  const [family, setFamily] = useState<Family>('belly')
  const [said, setSaid] = useState('')
  const layerings = layeringsOf(rules.layerings)
  const families = [
    ...new Set([...USUAL_LAYERINGS, ...layerings].map((layering) => layering.family)),
  ]
  const shown = layerings.filter((layering) => layering.family === family)
  const add = (label: string, more: readonly Layering[]) =>
    onChange(label, (now) => ({ ...now, layerings: withLayerings(now.layerings, more) }))
  const drop = (layering: Layering) =>
    onChange(layeringWords(layering, vocabulary), (now) => ({
      ...now,
      layerings: withoutLayering(now.layerings, layering),
    }))
  const learn = async () => {
    const found = await judge.ask('layerings', { combinations: await combinations.all() })
    const fresh = found.filter(
      (one) => !layerings.some((layering) => isSameLayering(layering, one)),
    )
    if (fresh.length > 0) add('the layerings of your combinations', fresh)
    const [first] = fresh
    if (first) setFamily(first.family)
    setSaid(
      fresh.length > 0
        ? `${fresh.length} more from your combinations: ${fresh.map((one) => layeringWords(one, vocabulary)).join('; ')}.`
        : 'Your combinations have no layering that is not here: something counts where it lies over the same step in two phrases.',
    )
  }
  return (
    <section aria-label="What goes with what">
      <div className={classes.top}>
        <h2 className="display">What goes with what</h2>
        <NativeSelect
          aria-label="Family"
          size="sm"
          data={families.map((value) => ({ value, label: capital(value) }))}
          value={family}
          onChange={({ currentTarget }) => setFamily(currentTarget.value)}
        />
        <Button variant="default" size="compact-md" onClick={() => void learn()}>
          Learn from my combinations
        </Button>
        <Button
          variant="default"
          size="compact-md"
          disabled={!rules.layerings}
          onClick={() => onChange('all layerings', ({ layerings: _, ...now }) => now)}
        >
          Reset all layerings
        </Button>
      </div>
      <p className={classes.lead} aria-live="polite">
        {said || 'Ideas put these together first. Remove what you never would; add what you do.'}
      </p>
      <ul className={classes.layerings} aria-label={`Layerings of ${family}`}>
        {shown.map((layering) => (
          <li key={`${layering.on}|${layering.with}`}>
            {layeringWords(layering, vocabulary)}
            <button
              type="button"
              aria-label={`Remove ${layeringWords(layering, vocabulary)}`}
              onClick={() => drop(layering)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <AddLayering
        vocabulary={vocabulary}
        onAdd={(layering) =>
          add(layeringWords({ ...layering, family }, vocabulary), [{ ...layering, family }])
        }
      />
    </section>
  )
}

const layeringWords = (layering: Layering, vocabulary: Vocabulary): string =>
  `${nameOfThing(layering.with, vocabulary)} over ${nameOfThing(layering.on, vocabulary)}`

interface AddLayeringProps {
  readonly vocabulary: Vocabulary
  readonly onAdd: (layering: Omit<Layering, 'family'>) => void
}

/** Two moves, of which the one lies over the other. */
function AddLayering({ vocabulary, onAdd }: AddLayeringProps) {
  const [over, setOver] = useState('')
  const [on, setOn] = useState('')
  const under = LAYERS.indexOf(layerOf(on))
  const choices = (layers: readonly Layer[]) => [
    { value: '', label: 'Choose …' },
    ...layers.map((layer) => ({
      group: layerWord[layer],
      items: vocabulary.moves
        .filter((move) => move.layer === layer)
        .map(({ id, name }) => ({ value: `${layer} ${id}`, label: capital(name) })),
    })),
  ]
  return (
    <div className={classes.addLayering}>
      <NativeSelect
        size="sm"
        label="Over"
        data={choices(LAYERS.filter((layer) => layer !== 'legs' && layer !== 'head'))}
        value={on}
        onChange={({ currentTarget }) => {
          setOn(currentTarget.value)
          if (LAYERS.indexOf(layerOf(over)) <= LAYERS.indexOf(layerOf(currentTarget.value)))
            setOver('')
        }}
      />
      <NativeSelect
        size="sm"
        label="goes"
        disabled={on === ''}
        data={choices(LAYERS.filter((layer, i) => layer !== 'legs' && i > under))}
        value={over}
        onChange={({ currentTarget }) => setOver(currentTarget.value)}
      />
      <Button
        variant="default"
        size="sm"
        disabled={on === '' || over === ''}
        onClick={() => {
          onAdd({ on, with: over })
          setOver('')
        }}
      >
        Add layering
      </Button>
    </div>
  )
}

const layerOf = (key: string): Layer => (key.split(' ')[0] ?? '') as Layer
