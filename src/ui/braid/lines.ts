import type { Between } from '../../core/combination/between'
import type { Combination, Phrase } from '../../core/combination/combination'
import { type Dancing, dancingTogether } from '../../core/combination/dancing'
import type { DancedEvent } from '../../core/combination/lengths'
import { mirrorBetween } from '../../core/combination/mirrorBetween'
import { leadOfPart, partIds } from '../../core/combination/partOf'
import { leadingInto, type Pass, pickupBefore } from '../../core/combination/passes'
import { isShared, type PartId } from '../../core/combination/whose'
import { type Heat, heatOf } from '../../core/load/heat'
import { carriedLanes } from '../../core/props/lane'
import { type Simulation, stateBefore } from '../../core/simulate/simulate'
import { type UnwrittenWay, unwrittenWays } from '../../core/simulate/unwritten'
import { checkedPart, simulationFrom } from '../stores/checked'
import { documentOf, linesShown, type SessionState } from '../stores/state'
import { type LineShape, SIZE, shapeLine } from './geometry'
import { pairRows } from './PairLane'
import { heightOf, type LineProp } from './propRows'
import { heightUnder } from './UnderFeet'

/** One line of the braid: a phrase as it is danced on one side, by all or by one of several. */
export interface Line {
  readonly pass: Pass
  /** What leads into it over the end of the line above, on its own ticks. */
  readonly early: readonly DancedEvent[]
  /** What is drawn of the pass: of several dancers what all dance, in a part's own line all of hers. */
  readonly events: readonly DancedEvent[]
  readonly dancing: Dancing
  /** The part whose own line it is; absent for what all dance. */
  readonly whom: PartId | undefined
  /** Its place among the parts. */
  readonly part: number
  readonly simulation: Simulation
  /** The weight of all others who dance the pass; where it is another one it is drawn in their own lines. */
  readonly others: readonly Simulation[]
  /** What two do with each other, as it is danced on this side. */
  readonly met: readonly Between[]
  /** What is carried, and by whom where it is not everybody's. */
  readonly carried: readonly LineProp[]
  readonly shape: LineShape
  /** The phrase as it is stored, and what else the drawing hangs on. */
  readonly phrase: Phrase
  readonly drawnFrom: string
  /** How hard each count is, against what the level takes. */
  readonly heat: readonly Heat[]
  /** Movements nobody wrote. */
  readonly hairs: readonly UnwrittenWay[]
}

/** What the drawing of a line hangs on besides its phrase: how the body comes into it. */
function drawnFrom(simulation: Simulation, pass: Pass, shown: string): string {
  const { index, at, mirrored, time, times } = pass
  const { keepTurns, otherTurns } = simulation.combination
  const turns = keepTurns ? (otherTurns ? 'other' : 'kept') : ''
  return [shown, index, at, mirrored, time, times, turns, bodyBefore(simulation, pass)].join(' ')
}

function bodyBefore(simulation: Simulation, pass: Pass): string {
  const { weight, level, stands, feet, moment } = stateBefore(simulation, pass.at)
  return [weight, level, stands, moment, feet.R.contact, feet.L.contact].join(' ')
}

/** Ticks before count 1 that every line leaves room for, so that counts stand under counts. */
const roomBefore = (combination: Combination): number =>
  Math.max(...combination.order.map((_, index) => pickupBefore(combination, index)))

/**
 * The lines of the braid from the top. A line whose phrase and way in have not changed is
 * the very one from before, so that an edit draws only what it changed.
 */
export function linesOf(
  state: SessionState,
  width: number,
  before: readonly Line[],
  air = 0,
): readonly Line[] {
  const document = documentOf(state)
  const phrases = new Map(document.phrases.map((phrase) => [phrase.id, phrase]))
  const pickup = roomBefore(document)
  const parts = partIds(document)
  return linesShown(state).flatMap(({ pass: index, dancing, whom, layers }): readonly Line[] => {
    const simulation = simulationFrom(document, dancing)
    const pass = simulation.passes[index]
    const phrase = phrases.get(document.order[index]?.phrase ?? '')
    if (!pass || !phrase) return []
    const isOfAll = document.parts !== undefined && whom === undefined
    const drawn = (list: readonly DancedEvent[]) => (isOfAll ? list.filter(isShared) : list)
    const early = drawn(leadingInto(simulation.passes, pass).events)
    const events = drawn(pass.events)
    const heat = whom === undefined ? heatOf(checkedPart(document, dancing.part), pass.index) : []
    const hairs = isOfAll ? [] : unwrittenWays(simulation, pass)
    const others = isOfAll ? othersOf(document, dancing) : []
    const carried = whom === undefined ? carriedIn(document, dancing, pass.index) : []
    const from = drawnFrom(
      simulation,
      pass,
      [
        whom ?? '',
        dancing.part,
        dancing.side,
        width,
        air,
        [...layers].join(),
        pickup,
        JSON.stringify([heat, hairs, early, carried.map(drawnOf)]),
        ...others.map((one) => bodyBefore(one, pass)),
      ].join(' '),
    )
    const same = before.find(
      (line) =>
        line.phrase === phrase &&
        line.drawnFrom === from &&
        line.simulation.vocabulary === simulation.vocabulary,
    )
    if (same) return [same]
    const under = layers.has('feet') ? heightUnder(simulation, pass) : 0
    const ruler = whom === undefined ? SIZE.ruler : SIZE.noRuler
    const all = [...early, ...events]
    const met = isOfAll ? meetingsOf(phrase, isFlippedIn(document, dancing, pass)) : []
    const rows = pairRows(met).length
    const shape = shapeLine(all, pass.length, width, layers, pickup, under, ruler, {
      pairs: rows,
      air,
      props: carried.reduce((sum, one) => sum + heightOf(one), 0),
    })
    return [
      {
        pass,
        early,
        events,
        dancing,
        whom,
        part: parts.indexOf(dancing.part),
        simulation,
        others,
        met,
        carried,
        shape,
        phrase,
        drawnFrom: from,
        heat,
        hairs,
      },
    ]
  })
}

const isFlippedIn = (document: Combination, dancing: Dancing, { mirrored }: Pass): boolean =>
  (leadOfPart(document, dancing.part) !== dancing.side) !== mirrored

/** What a drawn thing hangs on. */
const drawnOf = ({ lane: { prop, held, drapes, acts }, by }: LineProp) => [
  prop.name,
  by,
  held,
  drapes,
  acts.map(({ act, from }) => [act, from]),
]

/** What is carried through a pass; of several dancers what each has of her own, and once what all have. */
function carriedIn(document: Combination, dancing: Dancing, index: number): readonly LineProp[] {
  if (!document.carried) return []
  const lanesOf = (one: Dancing) => {
    const simulation = simulationFrom(document, one)
    const pass = simulation.passes[index]
    return pass ? carriedLanes(simulation, pass) : []
  }
  const { parts } = document
  if (!parts) return lanesOf(dancing).map((lane) => ({ lane, by: undefined }))
  const shared = new Set(document.carried.filter(({ part }) => !part).map(({ id }) => id))
  return dancingTogether(document, dancing).flatMap((one) =>
    lanesOf(one).flatMap((lane): readonly LineProp[] => {
      const isShared = shared.has(lane.prop.id)
      if (isShared && one.part !== dancing.part && lane.acts.every(({ act }) => !act.who)) return []
      const name = parts.find(({ id }) => id === one.part)?.name
      return [{ lane, by: isShared && one.part === dancing.part ? undefined : name }]
    }),
  )
}

/** Waits are drawn in the line of who waits. */
const meetingsOf = ({ between = [] }: Phrase, isFlipped: boolean): readonly Between[] =>
  between.map((one) => (isFlipped ? mirrorBetween(one) : one))

/** The others as they dance on the same side, but those who are the image: their weight is the other one all along. */
function othersOf(document: Combination, dancing: Dancing): readonly Simulation[] {
  const isLead = leadOfPart(document, dancing.part) === dancing.side
  const image = document.parts?.find(({ id }) => id === dancing.part)?.mirrored
  return (document.parts ?? []).flatMap(({ id, mirrored }) => {
    if (id === dancing.part || mirrored !== image) return []
    const lead = leadOfPart(document, id)
    return [simulationFrom(document, { part: id, side: isLead ? lead : lead === 'R' ? 'L' : 'R' })]
  })
}
