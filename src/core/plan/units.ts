import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import { otherSide } from '../body/side'
import type { DancerLevel } from '../combination/combination'
import { mirrorWhat } from '../combination/mirror'
import type { Pass } from '../combination/passes'
import type { House } from '../house/house'
import type { Drill, DrillKind, Stand } from './drill'
import { layersIn, type Material } from './material'
import type { PlanWishes, Seen } from './plan'

/** A drill before it is known how often it is danced. */
export type Unit = Omit<Drill, 'id' | 'repeats' | 'locked'>

/** Whole seconds of talk before a drill (model 10, house figures): something new takes longer to show. */
export const talkOf = ({ limits }: House, isNew = false): number =>
  Math.round(limits[isNew ? 'plan.talkNew' : 'plan.talk'])

/** A way of teaching, and why it suits. */
export interface Proposed {
  readonly way: 'phrases' | 'layers'
  readonly because: string
}

const feetOf = (pass: Pass): string =>
  pass.events
    .filter(({ layer }) => layer === 'feet')
    .map((event) => JSON.stringify([event.at, event.length, event.what]))
    .sort()
    .join()

const otherFeet = (pass: Pass): string =>
  feetOf({
    ...pass,
    events: pass.events.map((event) => ({ ...event, what: mirrorWhat(event.what) })),
  })

/** A base that repeats under layers that change is taught layer by layer; else phrase by phrase (domain). */
export function proposeWay({ lead }: Material): Proposed {
  const first = firstPasses(lead.passes)
  if (first.length < 2)
    return { way: 'layers', because: 'there is one phrase: its feet first, then a layer at a time' }
  const seen = new Set<string>()
  let same = 0
  for (const pass of first) {
    const feet = feetOf(pass)
    if (feet !== '' && (seen.has(feet) || seen.has(otherFeet(pass)))) same++
    seen.add(feet)
  }
  if (same * 2 >= first.length - 1)
    return {
      way: 'layers',
      because: `the feet repeat in ${same + 1} of ${first.length} phrases while the layers change`,
    }
  return {
    way: 'phrases',
    because: 'the feet change from phrase to phrase, so each is finished before the next',
  }
}

/** The first dancing of each phrase. */
export const firstPasses = (passes: readonly Pass[]): readonly Pass[] =>
  passes.filter(({ time }) => time === 1)

/** Who plans: what the class is, and which side goes first. */
export interface Planning {
  readonly level: DancerLevel
  readonly tempo: number
  readonly seen: Seen
  readonly sides: readonly Side[]
  /** Load a layer may have alone and still go on the feet at once. */
  readonly limit: number
  readonly isTaught: (phrase: string, layer: Layer) => boolean
}

export function teachingOf({ combination }: Material, wishes: PlanWishes, limit: number): Planning {
  const { lead, id } = combination
  const first = wishes.known.weaker[id]?.side ?? lead
  const taught = new Set(wishes.known.taught)
  return {
    level: wishes.level,
    tempo: wishes.tempoNow,
    seen: wishes.seen,
    sides: [first, otherSide[first]],
    limit: limit / 2,
    isTaught: (phrase, layer) => taught.has(taughtKey(id, phrase, layer)),
  }
}

export const taughtKey = (combination: string, phrase: string, layer: Layer): string =>
  `${combination}|${phrase}|${layer}`

const turnsIn = (passes: readonly Pass[], { lead }: Material): boolean =>
  lead.danced.some(
    ({ pass, action }) => action.turn && passes.some(({ index }) => index === pass.index),
  )

/**
 * With the back to the class where the feet are new or the facing changes, since mirroring
 * a turn confuses; else facing it, to see and be seen.
 */
function standFor(layers: readonly Layer[], passes: readonly Pass[], material: Material): Stand {
  if (!layers.includes('feet')) return 'mirror'
  return layers.length === 1 || turnsIn(passes, material) ? 'back' : 'mirror'
}

interface Made {
  readonly kind: DrillKind
  readonly passes: readonly Pass[]
  readonly layers: readonly Layer[]
  readonly isNew?: boolean
  readonly tempo?: number
  readonly isMusic?: boolean
}

/** A unit over some passes; both sides without a stop where it is all of a combination that switches. */
export function unitOf(material: Material, teaching: Planning, made: Made): Unit {
  const { combination, lead, joins } = material
  const { passes, layers, kind } = made
  const isAll = passes.length === lead.passes.length
  const inTurn = isAll && joins.switches && kind !== 'feet' && kind !== 'alone'
  return {
    kind,
    combination: combination.id,
    phrases: isAll ? [] : passes.map(({ phrase }) => phrase.id),
    layers: [...layers],
    sides: [...teaching.sides],
    ...(inTurn && { inTurn: true }),
    tempo: made.tempo ?? teaching.tempo,
    talk: talkOf(lead.house, made.isNew),
    stand: standFor(layers, passes, material),
    ...(made.isMusic && { music: true }),
  }
}

/** The layers of some passes; an empty phrase is counted through on the feet. */
export function layersOf(passes: readonly Pass[]): readonly Layer[] {
  const layers = layersIn(passes)
  return layers.length > 0 ? layers : ['feet']
}

const isHeavy = (
  material: Material,
  pass: Pass,
  layer: Layer,
  { tempo, limit }: Planning,
): boolean =>
  material
    .loads([layer], tempo)
    .some(({ pass: index, total }) => index === pass.index && total > limit)

/** A layer of a phrase: alone where it is heavy or has no feet to stand on, then on the feet. */
function layerUnits(
  material: Material,
  pass: Pass,
  layer: Layer,
  teaching: Planning,
): readonly Unit[] {
  const hasFeet = layersIn([pass]).includes('feet')
  const make = (kind: DrillKind, layers: readonly Layer[], isNew: boolean) =>
    unitOf(material, teaching, { kind, passes: [pass], layers, isNew })
  if (!hasFeet) return [make('alone', [layer], true)]
  const onFeet = (isNew: boolean) => make('on-feet', ['feet', layer], isNew)
  return isHeavy(material, pass, layer, teaching)
    ? [make('alone', [layer], true), onFeet(false)]
    : [onFeet(true)]
}

/**
 * All there is to teach of a combination, in the order of a way of teaching. Every start of
 * this list can be a class: nothing needs what comes after it.
 */
export function unitsOf(
  material: Material,
  way: Proposed['way'],
  teaching: Planning,
): readonly Unit[] {
  const passes = firstPasses(material.lead.passes)
  const above = (pass: Pass) =>
    layersOf([pass]).filter(
      (layer) => layer !== 'feet' && !teaching.isTaught(pass.phrase.id, layer),
    )
  const needsFeet = (pass: Pass) =>
    layersOf([pass]).includes('feet') && !teaching.isTaught(pass.phrase.id, 'feet')
  const feet = (pass: Pass) =>
    needsFeet(pass)
      ? [
          unitOf(material, teaching, {
            kind: 'feet',
            passes: [pass],
            layers: ['feet'],
            isNew: true,
          }),
        ]
      : []
  const before = (pass: Pass) =>
    material.lead.passes.filter(({ index }) => index === pass.index - 1)
  const join = (pass: Pass, layers: readonly Layer[]) =>
    pass.index === 0
      ? []
      : [unitOf(material, teaching, { kind: 'join', passes: [...before(pass), pass], layers })]
  const all = (pass: Pass): readonly Unit[] => unitsAll(material, pass, teaching)

  if (way === 'phrases')
    return passes.flatMap((pass) => {
      const layers = above(pass)
      const isNew = layers.length > 0 || needsFeet(pass)
      if (!isNew) return []
      const each =
        teaching.seen === 'all'
          ? []
          : layers.flatMap((layer) => layerUnits(material, pass, layer, teaching))
      const together = teaching.seen === 'all' || layers.length > 1 ? all(pass) : []
      return [...feet(pass), ...each, ...together, ...join(pass, layersOf([...before(pass), pass]))]
    })

  const onFeet = passes.flatMap((pass) =>
    needsFeet(pass) ? [...feet(pass), ...join(pass, ['feet'])] : [],
  )
  if (teaching.seen === 'all')
    return [...onFeet, ...passes.flatMap((pass) => (above(pass).length > 0 ? all(pass) : []))]
  const layers = layersOf(passes).filter((layer) => layer !== 'feet')
  const layered = layers.flatMap((layer) =>
    passes.flatMap((pass) =>
      above(pass).includes(layer) ? layerUnits(material, pass, layer, teaching) : [],
    ),
  )
  const together = passes.flatMap((pass) => (above(pass).length > 1 ? all(pass) : []))
  return [...onFeet, ...layered, ...together]
}

const unitsAll = (material: Material, pass: Pass, teaching: Planning): readonly Unit[] => {
  const layers = layersOf([pass])
  return layers.some((layer) => layer !== 'feet')
    ? [unitOf(material, teaching, { kind: 'all', passes: [pass], layers })]
    : []
}
