import type { Layer } from '../../body/layers'
import type { Event } from '../../combination/combination'
import { formName, nearestForm } from '../../combination/forms'
import { nameOf } from '../../combination/names'
import { oncePerPhrase } from '../../combination/oncePerPhrase'
import { type CountLoad, loadsOf } from '../../load/load'
import { addRisks, NO_RISKS, riskOf, risksOf, risksOver } from '../../load/risk'
import type { Risk } from '../../moves/move'
import type { Vocabulary } from '../../moves/vocabulary'
import type { Simulation } from '../../simulate/simulate'
import { tick } from '../../time/time'
import type { Fact, Found } from '../finding'
import { aboutStep, type Rule, spotIn, spotOf } from '../rule'
import { tooMany } from '../withinEight'

/** Counts that are harder than the level takes, and risky repetitions that pile up (model 8, 9). */
export const load: Rule = {
  id: 'load',
  *check({ simulation, house, level }) {
    const limit = house.limits[`load.limit.${level}`]
    const over = new Map<number, CountLoad[]>()
    for (const one of loadsOf(simulation))
      if (one.total > limit * house.limits['load.over'] + 1e-9)
        over.set(one.pass, [...(over.get(one.pass) ?? []), one])
    for (const pass of simulation.passes) {
      const counts = over.get(pass.index)
      if (!counts) continue
      const worst = counts.reduce((a, b) => (b.total > a.total ? b : a))
      const remedy = remedyOf(worst, pass.events, simulation.vocabulary)
      yield {
        code: 'load.high',
        load: worst.total,
        limit,
        level,
        counts: counts.length,
        ...remedy.fact,
        spot: spotIn(pass, tick(worst.at), remedy.layer),
        events: remedy.events,
      }
    }
    yield* impacts(simulation, house.limits[`load.impact.${level}`])
    yield* risks(simulation, (risk) => house.limits[`risk.drill.${risk}`])
  },
}

/**
 * What to do about a count: leave out the flourishes that run there, dance the easier form of the
 * hardest move, or drop a layer; hips that are all there is are never dropped.
 */
function remedyOf({ parts }: CountLoad, events: readonly Event[], vocabulary: Vocabulary) {
  const above = parts.filter(({ layer }) => layer !== 'feet')
  const hardest = (above.length > 0 ? above : parts).reduce<(typeof parts)[number] | undefined>(
    (a, b) => (!a || b.own * b.share > a.own * a.share ? b : a),
    undefined,
  )
  const event = events.find(({ id }) => id === hardest?.event)
  const easier = event && nearestForm(event, 'easier', vocabulary)
  const isAlone = above.length === 1 && parts.length === 1
  const fact: { drop?: Layer; easier?: { from: string; to: string } } = {
    ...(hardest && hardest.layer !== 'feet' && !isAlone && { drop: hardest.layer }),
    ...(event &&
      easier && {
        easier: { from: nameOf(event, vocabulary), to: formName(easier, event.layer, vocabulary) },
      }),
  }
  return { fact, layer: hardest?.layer ?? 'feet', events: event ? [event.id] : [] }
}

const IMPACTS: ReadonlySet<string> = new Set(['hop', 'leap', 'jump'])

/** More hops, leaps and jumps within 8 counts than a level takes. */
function* impacts({ danced }: Simulation, most: number): Generator<Found> {
  const landings = danced.filter(({ action }) => IMPACTS.has(action.primitive))
  for (const landing of tooMany(landings, most))
    yield { code: 'load.impact', times: landing.times, most, ...aboutStep(landing) }
}

const risksIn = oncePerPhrase(risksOf)

function* risks(
  simulation: Simulation,
  capOf: (risk: Risk) => number,
): Generator<
  Extract<Fact, { code: 'load.risk' }> & {
    spot: ReturnType<typeof spotOf>
    events: readonly string[]
  }
> {
  const { passes, vocabulary } = simulation
  const sum = passes.reduce(
    (all, { events }) => addRisks(all, risksIn(events, vocabulary)),
    NO_RISKS,
  )
  for (const risk of risksOver(sum, capOf)) {
    const first = passes
      .flatMap((pass) => pass.events.map((event) => ({ pass, event })))
      .find(({ event }) => riskOf(event, vocabulary).some((one) => one.risk === risk))
    if (first)
      yield {
        code: 'load.risk',
        risk,
        times: sum[risk],
        cap: capOf(risk),
        over: 'drill',
        spot: spotOf(first.pass, first.event),
        events: [first.event.id],
      }
  }
}
