import { LAYERS, type Layer } from '../body/layers'
import type { DancerLevel } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import { type Thing, thingsIn } from '../load/things'
import type { Tempo } from '../time/tempo'
import { layersIn, type Material } from './material'

/** How much there is to a layer of a phrase: said, taught, or taught alone first (teaching 1.1). */
export interface LayerWeight {
  readonly layer: Layer
  readonly things: readonly Thing[]
  /** Those not met yet. */
  readonly fresh: readonly Thing[]
  /** Its hardest count, danced alone. */
  readonly load: number
  readonly weight: 'light' | 'medium' | 'heavy'
}

/** What a layer is weighed by. */
export interface Weighing {
  readonly level: DancerLevel
  readonly house: House
  readonly tempo: Tempo
  /** Keys of things that were met in this class or before. */
  readonly met: ReadonlySet<string>
}

const LIGHT_ENTRIES = 2
const LIGHT_DEMAND = 2
const LIGHT_LOAD = 0.5

/** From this demand on a new thing is danced alone first. */
const heavyDemand = (level: DancerLevel): number =>
  level === 'new' || level === 'improver' ? 3 : 4

/** Every layer of a pass, feet first; of several dancers as it is for whoever has the most to learn. */
export function weightsOf(
  material: Material,
  pass: Pass,
  weighing: Weighing,
): readonly LayerWeight[] {
  const heaviest = new Map<Layer, LayerWeight>()
  for (const [i, passes] of material.asEach([pass]).entries())
    for (const own of passes)
      for (const one of weightsOfOne(material, i, own, weighing)) {
        const known = heaviest.get(one.layer)
        const heavier = known && compare(one, known) <= 0 ? known : one
        // What the others do is met as well.
        const things = eachOnce([...(known?.things ?? []), ...one.things])
        heaviest.set(one.layer, { ...heavier, things })
      }
  return LAYERS.flatMap((layer) => heaviest.get(layer) ?? [])
}

const eachOnce = (things: readonly Thing[]): readonly Thing[] => [
  ...new Map(things.map((one) => [one.key, one])).values(),
]

const WEIGHTS: readonly LayerWeight['weight'][] = ['light', 'medium', 'heavy']

const compare = (a: LayerWeight, b: LayerWeight): number =>
  WEIGHTS.indexOf(a.weight) - WEIGHTS.indexOf(b.weight) ||
  a.fresh.length - b.fresh.length ||
  a.load - b.load

/** Every layer of a pass as one of the dancers of a material dances it. */
function weightsOfOne(
  material: Material,
  dancer: number,
  pass: Pass,
  { level, house, tempo, met }: Weighing,
): readonly LayerWeight[] {
  const limit = house.limits[`load.limit.${level}`]
  const { vocabulary } = material.lead
  return layersIn([pass]).map((layer) => {
    const events = pass.events.filter((event) => event.layer === layer && !event.optional)
    const things = thingsIn(events, vocabulary)
    const fresh = things.filter(({ key }) => !met.has(key))
    const loads = material.loads([layer], tempo)[dancer] ?? []
    const load = loads.reduce(
      (most, one) => (one.pass === pass.index ? Math.max(most, one.total) : most),
      0,
    )
    const isHeavy =
      fresh.some(({ demand }) => demand >= heavyDemand(level)) ||
      load > house.limits['plan.heavy'] * limit
    const isLight =
      !(layer === 'arms' && pass.acts.length > 0) &&
      events.length <= LIGHT_ENTRIES &&
      things.every(({ demand, risks }) => demand <= LIGHT_DEMAND && risks.length === 0) &&
      load <= LIGHT_LOAD * limit
    return { layer, things, fresh, load, weight: isHeavy ? 'heavy' : isLight ? 'light' : 'medium' }
  })
}
