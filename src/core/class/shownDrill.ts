import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { Combination } from '../combination/combination'
import type { Dancing } from '../combination/dancing'
import type { Pass } from '../combination/passes'
import type { Performance, Place } from '../performance/performance'
import type { Drill } from '../plan/drill'
import type { Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import { type CountWords, sayPass } from '../teaching/say'
import { type Say, sayNamed } from '../teaching/sayTogether'
import { TICKS_PER_COUNT } from '../time/time'

/** A dance as it is looked at: on the floor, in the dancers' window, by who follows. */
export interface ShownDance {
  readonly combination: Combination
  readonly from: (dancing: Dancing) => Simulation
}

/** A drill as those who dance it see it. */
export interface ShownDrill extends ShownDance {
  readonly performance: Performance
  readonly layers: readonly Layer[]
  readonly speed: string
  readonly stand: Drill['stand']
  /** The side it begins with; absent where both are in each round. */
  readonly lead: Side | undefined
  /** How often it is danced, as it is said before it begins. */
  readonly times: string
  /** The tick it stands at before it begins. */
  readonly start: number
  /** It is only shown: from its second round on from behind. */
  readonly isShown: boolean
  /** Where in its song a tick is; absent without a song. */
  readonly placeAt: ((tick: number) => string) | undefined
}

/** What to do on each count of a pass; where several dance, with the names it is for. */
export function countsOf(
  simulation: Simulation,
  company: Company | undefined,
  pass: Pass,
  layers: readonly Layer[],
): readonly CountWords[] {
  const shown = new Set(layers)
  const say: Say = (own, its) => sayPass(own, its, shown, own.vocabulary)
  return company ? sayNamed(company, pass.index, say) : say(simulation, pass)
}

/** Asked with every frame, so what is said of a pass is made once. */
const said = new WeakMap<Pass, Map<string, readonly CountWords[]>>()

/** What starts on the count a tick is in, for who dances a simulation, or for all of a company with their names. */
export function wordsIn(
  { simulation, company }: { simulation: Simulation; company?: Company | undefined },
  tick: number,
  layers: readonly Layer[],
): CountWords | undefined {
  const pass = simulation.passes.findLast((one) => one.at <= tick)
  if (!pass) return undefined
  const known = said.get(pass) ?? new Map<string, readonly CountWords[]>()
  said.set(pass, known)
  const key = `${company ? 'all' : 'one'} ${layers.join()}`
  const words = known.get(key) ?? countsOf(simulation, company, pass, layers)
  known.set(key, words)
  return words[Math.floor((tick - pass.at) / TICKS_PER_COUNT)]
}

/**
 * What starts on the count that sounds.
 * @returns nothing in a count-in
 */
export function wordsAt(
  { performance, layers }: Pick<ShownDrill, 'performance' | 'layers'>,
  { index, at }: Place,
): CountWords | undefined {
  const segment = performance.segments[index]
  return segment && segment.round > 0 ? wordsIn(segment, segment.from + at, layers) : undefined
}
