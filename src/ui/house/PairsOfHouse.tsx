import { Button, NativeSelect } from '@mantine/core'
import { useState } from 'react'
import { useStore } from 'zustand'
import { LAYERS, type Layer } from '../../core/body/layers'
import { capital } from '../../core/capital'
import type { HouseRules } from '../../core/house/house'
import { isSamePair, type Pair, withoutPair, withPairs } from '../../core/house/ownPairs'
import { nameOfThing } from '../../core/load/things'
import type { Family } from '../../core/moves/move'
import { layerWord, type Vocabulary } from '../../core/moves/vocabulary'
import { pairsOf, USUAL_PAIRS } from '../../core/suggest/pairs'
import { useServices } from '../stores/services'
import { words } from '../stores/words'
import classes from './house.module.css'

interface PairsOfHouseProps {
  readonly rules: HouseRules
  readonly onChange: (label: string, change: (now: HouseRules) => HouseRules) => void
}

/** What goes with what, by family: the usual pairs and her own, for the ideas. */
export function PairsOfHouse({ rules, onChange }: PairsOfHouseProps) {
  const { judge, combinations } = useServices()
  const { vocabulary } = useStore(words, (s) => s)
  const [family, setFamily] = useState<Family>('belly')
  const [said, setSaid] = useState('')
  const pairs = pairsOf(rules.pairs)
  const families = [...new Set([...USUAL_PAIRS, ...pairs].map((pair) => pair.family))]
  const shown = pairs.filter((pair) => pair.family === family)
  const add = (label: string, more: readonly Pair[]) =>
    onChange(label, (now) => ({ ...now, pairs: withPairs(now.pairs, more) }))
  const drop = (pair: Pair) =>
    onChange(pairWords(pair, vocabulary), (now) => ({
      ...now,
      pairs: withoutPair(now.pairs, pair),
    }))
  const learn = async () => {
    const found = await judge.ask('pairs', { combinations: await combinations.all() })
    const fresh = found.filter((one) => !pairs.some((pair) => isSamePair(pair, one)))
    if (fresh.length > 0) add('the pairs of your combinations', fresh)
    const [first] = fresh
    if (first) setFamily(first.family)
    setSaid(
      fresh.length > 0
        ? `${fresh.length} more from your combinations: ${fresh.map((one) => pairWords(one, vocabulary)).join('; ')}.`
        : 'Your combinations have no pair that is not here: something counts where it lies over the same step in two phrases.',
    )
  }
  return (
    <section aria-label="What goes with what">
      <div className={classes.top}>
        <h2 className="display">What goes with what</h2>
        <NativeSelect
          aria-label="Family of the pairs"
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
          disabled={!rules.pairs}
          onClick={() => onChange('all pairs', ({ pairs: _, ...now }) => now)}
        >
          Reset all pairs
        </Button>
      </div>
      <p className={classes.lead} aria-live="polite">
        {said || 'Ideas put these together first. Remove what you never would; add what you do.'}
      </p>
      <ul className={classes.pairs} aria-label={`Pairs of ${family}`}>
        {shown.map((pair) => (
          <li key={`${pair.on}|${pair.with}`}>
            {pairWords(pair, vocabulary)}
            <button
              type="button"
              aria-label={`Remove ${pairWords(pair, vocabulary)}`}
              onClick={() => drop(pair)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <AddPair
        vocabulary={vocabulary}
        onAdd={(pair) => add(pairWords({ ...pair, family }, vocabulary), [{ ...pair, family }])}
      />
    </section>
  )
}

const pairWords = (pair: Pair, vocabulary: Vocabulary): string =>
  `${nameOfThing(pair.with, vocabulary)} over ${nameOfThing(pair.on, vocabulary)}`

interface AddPairProps {
  readonly vocabulary: Vocabulary
  readonly onAdd: (pair: Omit<Pair, 'family'>) => void
}

/** Two moves, of which the one lies over the other. */
function AddPair({ vocabulary, onAdd }: AddPairProps) {
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
    <div className={classes.addPair}>
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
        Add pair
      </Button>
    </div>
  )
}

const layerOf = (key: string): Layer => (key.split(' ')[0] ?? '') as Layer
