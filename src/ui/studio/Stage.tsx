import { useDeferredValue, useMemo } from 'react'
import { useStore } from 'zustand'
import type { Layer } from '../../core/body/layers'
import type { Combination } from '../../core/combination/combination'
import { placeIn } from '../../core/combination/names'
import { heatAt } from '../../core/load/heat'
import { DanceStage } from '../stage/DanceStage'
import { checkedOf, simulationFrom } from '../stores/checked'
import { useServices } from '../stores/services'
import type { Session } from '../stores/session'
import { documentOf, layersOf, type Selection } from '../stores/state'
import classes from './studio.module.css'

/** The dancing figure, as it is where the cursor is. */
export function Stage({ session }: { session: Session }) {
  const { deck } = useServices()
  // An edit is drawn in the braid first; the body may come a moment later.
  const state = useDeferredValue(useStore(session, (s) => s))
  const combination = documentOf(state)
  const { selection, only } = state
  const layers = useMemo(() => layersOf(only), [only])
  const pass = simulationFrom(combination, selection.dancing).passes[selection.pass]
  const setOnly = (layer: Layer | undefined) => session.setState({ only: layer })
  return (
    <div className={classes.stage}>
      <DanceStage
        combination={combination}
        dancing={selection.dancing}
        at={(pass?.at ?? 0) + selection.at}
        layers={layers}
        only={only}
        onOnly={setOnly}
        deck={deck}
      />
      <p className={classes.whose} data-load-here>
        {loadHere(combination, selection)}
      </p>
    </div>
  )
}

/** The load of the count the cursor stands on, with its parts. */
function loadHere(combination: Combination, { pass, at }: Selection): string {
  const checked = checkedOf(combination)
  const heat = heatAt(checked, pass, at)
  return heat
    ? `${placeIn(checked.lead.passes[pass]?.phrase.name ?? '', `${heat.count}`)}: ${heat.words}`
    : ''
}
