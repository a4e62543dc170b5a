import { dequal } from 'dequal'
import type { Direction } from '../body/feet'
import { otherWay } from '../body/side'
import { type Combination, DancerLevel, type Event, type Phrase } from '../combination/combination'
import { dancedIn } from '../combination/lengths'
import { mirrorEvent } from '../combination/mirror'
import { phraseDanced } from '../combination/passes'
import { madeBy } from '../edits/edit'
import { sharedTurn } from '../edits/turns'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import { levelForm } from '../forms/levels'
import type { House } from '../house/house'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, tick } from '../time/time'
import type { What } from '../what/kinds'
import type { PassWish } from './asked'
import { waysToFill } from './fill'
import { halfOf, isOfMovesOnly } from './halves'
import { mendedIn } from './mend'
import { isUnclean, newFindings } from './suggest'

/** A phrase otherwise, or what answers it: in the words of a teacher. */
export interface Variation {
  readonly words: string
  /** What is new in it, where the words do not say it all. */
  readonly why?: string
  readonly combination: Combination
}

/** What it would be called, and what it is; undefined where there is no such one. */
type Written = readonly [string, Combination | undefined]

/** The layers a variation may add, the plainest first. */
const ADDED = ['hips', 'torso', 'arms'] as const

/**
 * Variations of the phrase a pass dances, and what answers it behind it: those that bring no fault,
 * no snag and no caution which was not there, and that are not what there is already.
 */
export function variationsOf(
  combination: Combination,
  wish: PassWish,
  base: Vocabulary,
  house: House,
): readonly Variation[] {
  const { pass } = wish
  const vocabulary = vocabularyFor(combination, base)
  const phrase = phraseDanced(combination, pass)
  if (!phrase || phrase.events.length === 0) return []
  const before = checkCombination(combination, base, house)
  const isAlone = isOfMovesOnly(phrase)
  const moved = (make: () => Combination | undefined) => (isAlone ? make() : undefined)
  /** Of those that say the same in other ways the first clean one is enough. */
  const written: readonly (readonly Written[])[] = [
    [
      [
        'its second half to the other side',
        moved(() => halfTurned(combination, phrase, vocabulary)),
      ],
    ],
    [
      [
        'its halves the other way round',
        moved(() => halvesSwapped(combination, phrase, vocabulary)),
      ],
    ],
    [['twice as fast, and once more', moved(() => doubled(combination, phrase, vocabulary))]],
    [['in the other direction', changed(combination, phrase, elsewhere)]],
    [['on the spot', changed(combination, phrase, onTheSpot)]],
    [['travelling, forward and back again', travelling(combination, phrase)]],
    turnsPut(combination, phrase),
    ...otherLevels(combination, phrase, base, house).map((one) => [one]),
    ...otherEnds(combination, phrase, before, base, house).map((one) => [one]),
    [['circles the other way', changed(combination, phrase, otherWayRound)]],
    [['small throughout', changed(combination, phrase, small)]],
    ...ADDED.map((layer): readonly Written[] => [
      [
        `with the ${layer} too`,
        phrase.events.some((event) => event.layer === layer)
          ? undefined
          : waysToFill(combination, { ...wish, layer }, base, house, 1)[0]?.combination,
      ],
    ]),
  ]
  return written.flatMap((ways): readonly Variation[] => {
    for (const [words, made] of ways) {
      if (!made || dequal(made, combination)) continue
      const fresh = newFindings(before, checkCombination(made, base, house))
      if (!fresh.some(isUnclean)) return [{ words, combination: made }]
    }
    return []
  })
}

const withEvents = (
  combination: Combination,
  { id }: Phrase,
  events: readonly Event[],
): Combination => ({
  ...combination,
  phrases: combination.phrases.map((one) =>
    one.id === id ? { ...one, events: [...events].sort((a, b) => a.at - b.at) } : one,
  ),
})

function halfTurned(
  combination: Combination,
  phrase: Phrase,
  vocabulary: Vocabulary,
): Combination | undefined {
  const half = halfOf(phrase, vocabulary)
  if (half === undefined) return undefined
  const events = phrase.events.map((event) => (event.at >= half ? mirrorEvent(event) : event))
  return withEvents(combination, phrase, events)
}

function halvesSwapped(
  combination: Combination,
  phrase: Phrase,
  vocabulary: Vocabulary,
): Combination | undefined {
  const half = halfOf(phrase, vocabulary)
  if (half === undefined) return undefined
  const events = phrase.events.map((event) => ({
    ...event,
    at: tick(event.at < half ? event.at + half : event.at - half),
  }))
  return withEvents(combination, phrase, events)
}

/** In half the counts, and then again; undefined where something would fall between the halves of counts. */
function doubled(
  combination: Combination,
  phrase: Phrase,
  vocabulary: Vocabulary,
): Combination | undefined {
  const half = (phrase.counts * COUNT) / 2
  const quick = dancedIn(phrase, vocabulary).map((event): Event | undefined => {
    const { id } = event
    const own = phrase.events.find((one) => one.id === id)
    const [at, length] = [event.at / 2, event.length / 2]
    if (!own || !Number.isInteger(at) || !Number.isInteger(length) || at < 0) return undefined
    return { ...own, at: tick(at), ...(own.what.kind !== 'foot' && { length: tick(length) }) }
  })
  if (!Number.isInteger(half) || quick.some((one) => one === undefined)) return undefined
  const once = quick as readonly Event[]
  const again = once.map((event) => ({
    ...event,
    id: `${event.id}-again`,
    at: tick(event.at + half),
  }))
  return withEvents(combination, phrase, [...once, ...again])
}

/** The phrase with what each of its events does changed; undefined where nothing of it changes. */
function changed(
  combination: Combination,
  phrase: Phrase,
  change: (what: What) => What,
): Combination | undefined {
  const events = phrase.events.map((event) => ({ ...event, what: change(event.what) }))
  const isOther = events.some(({ what }, i) => what !== phrase.events[i]?.what)
  return isOther ? withEvents(combination, phrase, events) : undefined
}

const OPPOSITE: Readonly<Partial<Record<Direction, Direction>>> = {
  forward: 'back',
  back: 'forward',
  'diag-forward': 'diag-back',
  'diag-back': 'diag-forward',
  'cross-front': 'cross-behind',
  'cross-behind': 'cross-front',
}

function elsewhere(what: What): What {
  const to =
    what.kind === 'foot' && what.action.direction ? OPPOSITE[what.action.direction] : undefined
  return what.kind === 'foot' && to ? { ...what, action: { ...what.action, direction: to } } : what
}

/** Steps that go somewhere, and those that come back, fall on their own place. */
const onTheSpot = (what: What): What =>
  what.kind === 'foot' &&
  what.action.primitive === 'step' &&
  what.action.direction !== undefined &&
  what.action.direction !== 'in-place'
    ? { ...what, action: { ...what.action, direction: 'in-place' } }
    : what

const otherWayRound = (what: What): What =>
  what.kind === 'move' && what.way ? { ...what, way: otherWay[what.way] } : what

const small = (what: What): What =>
  what.kind === 'foot' && what.action.size === undefined && onTheSpot(what) !== what
    ? { ...what, action: { ...what.action, size: 'small' } }
    : what

/** Steps on the spot go forward in its first half and back in its second. */
function travelling(combination: Combination, phrase: Phrase): Combination | undefined {
  const half = (phrase.counts * COUNT) / 2
  const events = phrase.events.map((event): Event => {
    const { what, at } = event
    if (what.kind !== 'foot' || what.action.primitive !== 'step') return event
    if (what.action.direction !== 'in-place') return event
    const direction = at < half ? 'forward' : 'back'
    return { ...event, what: { ...what, action: { ...what.action, direction } } }
  })
  const isOther = events.some((event, i) => event !== phrase.events[i])
  return isOther ? withEvents(combination, phrase, events) : undefined
}

/** Once round over the steps of its second half or over all of them, each way. */
function turnsPut(combination: Combination, phrase: Phrase): readonly Written[] {
  const counts = phrase.counts * COUNT
  const spans = [
    { where: 'over its second half', at: tick(counts / 2), length: tick(counts / 2) },
    { where: 'over all of it', at: tick(0), length: tick(counts) },
  ]
  const hasTurn = phrase.events.some(
    ({ what }) => what.kind === 'share' || (what.kind === 'foot' && what.action.turn),
  )
  if (hasTurn || phrase.counts % 2 > 0) return []
  return spans.flatMap(({ where, ...span }) =>
    ([ROUND, -ROUND] as const).map((degrees): Written => {
      const way = degrees > 0 ? 'right' : 'left'
      const put = sharedTurn(phrase.id, span, degrees, `${phrase.id} turn`)
      return [`with one turn to the ${way} ${where}`, madeBy(put, combination)]
    }),
  )
}

const ROUND = 360

/** Its forms one level down and one up. */
function otherLevels(
  combination: Combination,
  phrase: Phrase,
  base: Vocabulary,
  house: House,
): readonly Written[] {
  // What is danced at a level by its options stands there already.
  if (combination.parts || phrase.options) return []
  const levels = DancerLevel.options
  const own = levels.indexOf(combination.level ?? house.level)
  const alone = {
    ...combination,
    phrases: [phrase],
    order: [{ phrase: phrase.id, mirrored: false }],
  }
  return [levels[own - 1], levels[own + 1]].flatMap((level, i): readonly Written[] => {
    if (!level) return []
    const form = levelForm(alone, level, base, house).combination.phrases[0]
    if (!form || dequal(form.events, phrase.events)) return []
    return [
      [
        `${i > 0 || own === 0 ? 'harder' : 'easier'}, for ${LEVEL_WORDS[level]}`,
        withEvents(combination, phrase, form.events),
      ],
    ]
  })
}

const LEVEL_WORDS: Readonly<Record<DancerLevel, string>> = {
  new: 'new dancers',
  improver: 'improvers',
  intermediate: 'intermediate dancers',
  advanced: 'advanced dancers',
}

/** With another end, so that what can’t follow yet can: the cheapest change of its own steps. */
function otherEnds(
  combination: Combination,
  phrase: Phrase,
  { joins, lead }: Checked,
  base: Vocabulary,
  house: House,
): readonly Written[] {
  if (lead.danced.length === 0) return []
  const goals = [
    ...(joins.switches ? [] : [['switch', 'it switches sides'] as const]),
    ...(joins.repeats ? [] : [['repeat', 'it repeats'] as const]),
  ]
  return goals.flatMap(([goal, does]): readonly Written[] => {
    const mended = mendedIn(combination, [phrase.id], goal, base, house)
    return mended
      ? [[`with another end, so that ${does}: ${mended.words}`, mended.combination]]
      : []
  })
}
