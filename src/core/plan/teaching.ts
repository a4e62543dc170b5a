import type { Layer } from '../body/layers'
import { otherSide, type Side } from '../body/side'
import type { DancerLevel } from '../combination/combination'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import { thingsIn } from '../load/things'
import { countInCounts, countInFor } from '../performance/segments'
import type { Tempo } from '../time/tempo'
import type { Drill } from './drill'
import { layersIn, type Material, type Materials } from './material'
import type { ClassType, PlanWishes, Seen, SidesWish } from './plan'

/** A step before it has a name in its class. */
export type Unit = Omit<Drill, 'id' | 'locked'>

/** How one combination is taught in a class. */
export interface Teaching {
  readonly material: Material
  readonly level: DancerLevel
  readonly house: House
  readonly type: ClassType
  /** The tempo it is taught at, and the one that is meant. */
  readonly slow: Tempo
  readonly tempo: Tempo
  readonly seen: Seen
  readonly lead: Side
  /** As they are danced where both are: the one that fell behind first. */
  readonly sides: readonly Side[]
  readonly which: Exclude<SidesWish, 'propose'>
  readonly isTaught: (phrase: string, layer: Layer) => boolean
}

export const taughtKey = (combination: string, phrase: string, layer: Layer): string =>
  `${combination}|${phrase}|${layer}`

/**
 * Both sides where a combination goes on by itself; the lead alone where its order already has
 * mirrored phrases; the other side last where it is taught over weeks (teaching 3.2).
 */
function proposeSides(
  { combination }: Pick<Material, 'combination'>,
  type: ClassType,
): Exclude<SidesWish, 'propose'> {
  if (combination.order.some(({ mirrored }) => mirrored)) return 'lead'
  return type === 'choreography' ? 'last' : 'both'
}

export function teachingOf(material: Material, wishes: PlanWishes, { house }: Materials): Teaching {
  const { combination } = material
  const { lead, id } = combination
  const first = wishes.known.weaker[id]?.side ?? lead
  const taught = new Set(wishes.known.taught)
  return {
    material,
    level: wishes.level,
    house,
    type: wishes.type,
    slow: wishes.tempoNow,
    tempo: wishes.tempoTarget,
    seen: wishes.seen,
    lead,
    sides: [first, otherSide[first]],
    which: wishes.sides === 'propose' ? proposeSides(material, wishes.type) : wishes.sides,
    isTaught: (phrase, layer) => taught.has(taughtKey(id, phrase, layer)),
  }
}

/** The first dancing of each phrase. */
export const firstPasses = (passes: readonly Pass[]): readonly Pass[] =>
  passes.filter(({ time }) => time === 1)

/** The layers of some passes, of all who dance them; an empty phrase is counted through on the feet. */
export function layersOf(
  passes: readonly Pass[],
  material: Pick<Material, 'asEach'>,
): readonly Layer[] {
  const layers = layersIn(material.asEach(passes).flat())
  return layers.length > 0 ? layers : ['feet']
}

/** Keys of the things a class has met by what was taught before it. */
export const metBefore = (teachings: readonly Teaching[]): ReadonlySet<string> =>
  new Set(
    teachings.flatMap(({ material, isTaught }) =>
      material.each().flatMap(({ passes, vocabulary }) =>
        passes.flatMap((pass) =>
          thingsIn(
            pass.events.filter(({ layer }) => isTaught(pass.phrase.id, layer)),
            vocabulary,
          ).map(({ key }) => key),
        ),
      ),
    ),
  )

/** The layers of a phrase that are still to be taught. */
export const untaughtIn = (pass: Pass, { isTaught, material }: Teaching): readonly Layer[] =>
  layersOf([pass], material).filter((layer) => !isTaught(pass.phrase.id, layer))

/** Whether the phrases of a dance are all of it, from its first count to its last. */
export const isWhole = (passes: readonly Pass[], { lead }: Material): boolean =>
  passes.length === lead.passes.length

/** Ids of the phrases of some passes; none where they are all of the combination. */
export const phrasesOf = (passes: readonly Pass[], material: Material): readonly string[] =>
  isWhole(passes, material) ? [] : passes.map(({ phrase }) => phrase.id)

/** Whether some passes turn a wall, or all the way round. */
export const turnsIn = (passes: readonly Pass[], { each }: Material): boolean =>
  each().some(({ danced }) =>
    danced.some(
      ({ pass, action }) => action.turn && passes.some(({ index }) => index === pass.index),
    ),
  )

/** Rounds of so many counts that fit into some seconds, the longest a step may take unless it is said, with a count-in a side. */
export function roundsThatFit(
  wanted: number,
  counts: number,
  sides: number,
  tempo: Tempo,
  { house: { limits }, material }: Teaching,
  seconds = limits['plan.longest'],
): number {
  const countIn = countInCounts(material.combination, true, countInFor(tempo))
  const room = (seconds * tempo) / 60 - sides * countIn
  return Math.min(wanted, limits['plan.rounds'], Math.floor(room / (counts * sides)))
}
