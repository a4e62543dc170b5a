import { type FootAction, factsOf } from '../body/feet'
import { otherSide, SIDES } from '../body/side'
import type { Phrase } from '../combination/combination'
import { type DancedEvent, dancedIn } from '../combination/lengths'
import { sideOf } from '../combination/names'
import { stepsOf } from '../combination/steps'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { inDanceOrder } from '../simulate/simulate'
import { COUNT, endOf, HALF_COUNT, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { hundredths, type StepEdit } from './feetEdit'

/** One step of a phrase, figures opened. */
interface Item {
  readonly event: DancedEvent
  /** Which step of a figure it is; absent where it is an event of its own. */
  readonly step: number | undefined
  readonly at: Tick
  readonly action: FootAction
}

/** What may be danced at one place: as written, or changed. */
export interface Option {
  /** In hundredths; 0 as written. */
  readonly cost: number
  readonly edit: StepEdit | undefined
  readonly steps: readonly { readonly at: Tick; readonly action: FootAction }[]
  /** Stays as it is on the other side. */
  readonly kept: boolean
}

/** A place of a phrase with its options, in the order it is danced. */
export interface Place {
  readonly at: Tick
  readonly options: readonly Option[]
}

/** The steps of a phrase in the order they are danced. */
function itemsOf(phrase: Phrase, vocabulary: Vocabulary): readonly Item[] {
  return dancedIn(phrase, vocabulary)
    .filter(({ layer }) => layer === 'feet')
    .flatMap((event) =>
      stepsOf(event, vocabulary).map(
        ({ at, action }, i): Item => ({
          event,
          step: event.what.kind === 'move' ? i : undefined,
          at: tick(event.at + at),
          action,
        }),
      ),
    )
    .sort(inDanceOrder)
}

/** Every place of a phrase where something is danced or can be put in, with what each change costs (model 7). */
export function placesOf(
  phrase: Phrase,
  vocabulary: Vocabulary,
  { limits }: House,
  allows: Allows = () => true,
): readonly Place[] {
  const items = itemsOf(phrase, vocabulary)
  const last = items.findLast(({ action }) => action.primitive !== 'hold')
  const places = items.map((item): Place & { readonly rank: number } => ({
    at: item.at,
    rank: 1,
    options: [
      asWritten(item),
      ...(!item.event.kept && item.at >= 0 ? changes(item, items, item === last, limits) : []),
    ],
  }))
  const free = freeCounts(phrase, items)
  const empty: Option = { cost: 0, edit: undefined, steps: [], kept: false }
  const inserts = free.map((at) => ({
    at,
    rank: 0,
    options: [
      empty,
      ...SIDES.map((foot) =>
        putIn('insert', at, { primitive: 'close', foot }, limits['repair.insert']),
      ),
      ...SIDES.map((foot) => {
        const isUnderHips = phrase.events.some(
          (one) => one.layer === 'hips' && one.at === at && sideOf(one.what) === foot,
        )
        const cost = limits[isUnderHips ? 'repair.swayHips' : 'repair.sway']
        return putIn('sway', at, { primitive: 'sway', foot }, cost)
      }),
    ],
  }))
  return [...places, ...inserts]
    .map((place) => ({
      ...place,
      options: place.options.filter(({ edit }) => !edit || allows(edit, phrase)),
    }))
    .sort((a, b) => a.at - b.at || b.rank - a.rank)
}

/** Which edits a search may make. */
export type Allows = (edit: StepEdit, phrase: Phrase) => boolean

/** Something the feet do on a count on which they begin nothing. */
const putIn = (kind: 'insert' | 'sway', at: Tick, action: FootAction, cost: number): Option => ({
  cost: hundredths(cost),
  edit: { kind, at, to: [action], cost },
  steps: [{ at, action }],
  kept: false,
})

const asWritten = ({ at, action, event }: Item): Option => ({
  cost: 0,
  edit: undefined,
  steps: [{ at, action }],
  kept: event.kept === true,
})

function changes(
  item: Item,
  items: readonly Item[],
  isLast: boolean,
  figures: House['limits'],
): readonly Option[] {
  const { at, action, event, step } = item
  const { primitive, foot } = action
  const option = (kind: StepEdit['kind'], cost: number, steps: Option['steps']): Option => ({
    cost: hundredths(cost),
    edit: {
      kind,
      event: event.id,
      ...(step !== undefined && { step }),
      at,
      from: action,
      to: steps.map((one) => one.action),
      cost,
    },
    steps,
    kept: false,
  })
  const list: Option[] = []
  if (primitive === 'hold')
    for (const side of SIDES)
      list.push(
        option('sway', figures['repair.sway'], [{ at, action: { primitive: 'sway', foot: side } }]),
      )
  if (!foot) return list
  const touched = figures[isLast ? 'repair.touchLast' : 'repair.touch']
  if (primitive === 'step' || primitive === 'close')
    list.push(
      option('touch', touched, [
        {
          at,
          action: { ...action, primitive: 'touch', direction: action.direction ?? 'together' },
        },
      ]),
    )
  if (primitive === 'touch')
    list.push(option('step', touched, [{ at, action: { ...action, primitive: 'step' } }]))
  list.push(
    option('swap', figures['repair.swap'], [{ at, action: { ...action, foot: otherSide[foot] } }]),
  )
  if (primitive === 'leap') {
    const { direction: _, size: __, ...rest } = action
    list.push(option('hop', figures['repair.hop'], [{ at, action: { ...rest, primitive: 'hop' } }]))
  }
  const before = tick(at - HALF_COUNT)
  const isFree = before >= 0 && !items.some((other) => other.at >= before && other.at < at)
  const cut = items.findLast((other) => other.at < before)
  const cutsKept = cut?.event.kept === true && endOf(cut.event) > before
  const hasRoom = at % TICKS_PER_COUNT === 0 && isFree && !cutsKept
  // The weight comes back before the foot that went out comes home.
  if (
    hasRoom &&
    (primitive === 'close' || action.direction === 'together') &&
    factsOf(primitive).needs === 'free'
  )
    list.push(
      option('recover', figures['repair.recover'], [
        {
          at: before,
          action: { primitive: 'step', foot: otherSide[foot], direction: 'in-place' },
        },
        { at, action },
      ]),
    )
  if (primitive === 'step' && hasRoom)
    list.push(
      option('ball-change', figures['repair.ballChange'], [
        {
          at: before,
          action: {
            primitive: 'step',
            foot,
            direction: 'together',
            size: 'small',
            contact: 'ball',
          },
        },
        { at, action: { ...action, foot: otherSide[foot] } },
      ]),
    )
  return list
}

/** Whole counts on which the feet begin nothing. */
function freeCounts(phrase: Phrase, items: readonly Item[]): readonly Tick[] {
  return Array.from({ length: phrase.counts }, (_, i) => tick(i * COUNT)).filter((at) => {
    if (items.some((item) => item.at === at)) return false
    const before = items.findLast((item) => item.at < at)
    return !(before?.event.kept && endOf(before.event) > at)
  })
}
