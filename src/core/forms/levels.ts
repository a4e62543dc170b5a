import { dequal } from 'dequal'
import type { Combination, Event } from '../combination/combination'
import { DancerLevel } from '../combination/combination'
import { type EventForm, nearestForm } from '../combination/forms'
import { type DancedEvent, dancedIn, ownLengthOf, whenSaid } from '../combination/lengths'
import { followed } from '../combination/like'
import { mirrorForms, mirrorWhat } from '../combination/mirror'
import { nameOf, placeIn } from '../combination/names'
import { withTried } from '../combination/options'
import type { Edit } from '../edits/edit'
import { changeEvent, eventOf, removeEvents } from '../edits/edits'
import { checkCombination } from '../findings/check'
import type { Checked } from '../findings/checked'
import { type Finding, type FindingCode, severityOf } from '../findings/finding'
import type { House } from '../house/house'
import { hardestLoad } from '../load/load'
import { asksMuch } from '../moves/easing'
import { type Vocabulary, vocabularyFor } from '../moves/vocabulary'
import { COUNT, HALF_COUNT, labelIn } from '../time/time'
import type { What } from '../what/kinds'
import { additionsTo } from './additions'
import { easierWhats, formOf, safeWhats } from './easier'
import { walkedTurn } from './walked'

/** What is danced otherwise at a level: all that was alike, once. */
export interface Swap {
  readonly kind: 'easier' | 'harder' | 'dropped' | 'added'
  /** The events it is about, the first one first. */
  readonly events: readonly string[]
  /** Whose own it is, of several dancers; absent where all dance it. */
  readonly whose?: string
  /** `A5-8, B1`. */
  readonly at: string
  /** Absent where it is added. */
  readonly from?: string
  /** Absent where it is left out. */
  readonly to?: string
}

/** A combination as a level dances it. */
export interface LevelForm {
  readonly level: DancerLevel
  readonly combination: Combination
  readonly swaps: readonly Swap[]
  /** The hardest count before and after, and what the level takes. */
  readonly load: { readonly before: number; readonly after: number; readonly limit: number }
  /** What is still over for the level: load, turns, what strains. */
  readonly left: readonly Finding[]
}

/** What a level is missed by. */
const MISSES_LEVEL: ReadonlySet<FindingCode> = new Set([
  'load.high',
  'load.risk',
  'load.impact',
  'turn.too-fast',
  'turn.many',
  'head.level',
  'head.quick',
])
/** Of these the move itself is what asks too much. */
const EASED: ReadonlySet<FindingCode> = new Set([
  'turn.too-fast',
  'turn.many',
  'head.quick',
  'load.impact',
])

const MOST_CHANGES = 60

/**
 * The version for a level. Below the combination's own all flourishes go and the written easier
 * forms are taken; then what strains neck or back, what turns or goes too fast for the level, and
 * what is too hard on a count is eased. Above it the written harder forms are taken, else at most
 * two flourishes are added. What is alike is changed together, and every change is judged: what
 * brings any finding the original has not at that level is not taken.
 */
export function levelForm(
  combination: Combination,
  level: DancerLevel,
  base: Vocabulary,
  house: House,
): LevelForm {
  const vocabulary = vocabularyFor(combination, base)
  const own = combination.level ?? house.level
  const limit = house.limits[`load.limit.${level}`]
  const check = (one: Combination) => checkCombination(one, base, house)
  const search: Search = {
    now: { ...combination, level },
    checked: check({ ...combination, level }),
    known: new Set(),
    check,
    vocabulary,
    changes: 0,
    options: { ...combination, level },
    taken: [],
  }
  search.known = new Set(search.checked.findings.flatMap(keysOf))
  const before = hardestLoad(check(combination).loads)
  const rank = (one: DancerLevel) => DancerLevel.options.indexOf(one)
  if (rank(level) < rank(own)) {
    takeOptions(search, 'easier')
    dropFlourishes(search)
    takeWritten(search, 'easier', rank(own) - rank(level))
  }
  // What is eased may open the way for what could not be eased before.
  for (let done = -1; done !== search.changes; ) {
    done = search.changes
    if (level === 'new') spareNecks(search)
    easeFindings(search)
    easeLoad(search, limit)
  }
  if (rank(level) > rank(own)) {
    const fits = ({ loads }: Checked) =>
      loads.every(({ total, at }) => total <= Math.max(limit, loadAt(search.checked, at)))
    const isHarder = takeOptions(search, 'harder', fits)
    if (!takeWritten(search, 'harder', rank(level) - rank(own), fits) && !isHarder)
      for (const addition of additionsTo(search.now, vocabulary)) take(search, addition, fits)
  }
  return {
    level,
    combination: search.now,
    swaps: [...search.taken, ...swapsBetween(search.options, search.now, vocabulary)],
    load: { before, after: hardestLoad(search.checked.loads), limit },
    left: search.checked.findings.filter(({ code }) => MISSES_LEVEL.has(code)),
  }
}

/** Where the search for a version has come to. */
interface Search {
  now: Combination
  checked: Checked
  /** What is said of the original at that level. */
  known: ReadonlySet<string>
  readonly check: (one: Combination) => Checked
  readonly vocabulary: Vocabulary
  changes: number
  /** The original with the options that were taken: what else is changed is told against it. */
  options: Combination
  taken: readonly Swap[]
}

/** A finding by what it is about: each move it stands for, or its phrase. */
function keysOf({ code, side, spot, events, also = [], ...fact }: Finding): readonly string[] {
  const about = `${severityOf({ code, ...fact } as Finding)} ${code} ${side}`
  if (code === 'load.high' || code.startsWith('join.') || code.startsWith('space.'))
    return [`${about} ${code === 'load.high' ? spot.phrase : ''}`]
  const ids = [events[0], ...also.map(({ event }) => event)]
  return ids.map((id) => `${about} ${id ?? `${spot.phrase} ${spot.at}`}`)
}

/** Takes a change where nothing new is said of it, and it is good for what it is made for. */
function take(search: Search, make: Edit, isGood: (after: Checked) => boolean = () => true) {
  if (search.changes >= MOST_CHANGES) return false
  const now = followed(search.now, make(search.now))
  if (now === search.now) return false
  const checked = search.check(now)
  if (!checked.findings.flatMap(keysOf).every((key) => search.known.has(key))) return false
  if (!isGood(checked)) return false
  search.now = now
  search.checked = checked
  search.changes++
  return true
}

const takeFirst = (search: Search, makes: Iterable<Edit>, isGood?: (after: Checked) => boolean) => {
  for (const make of makes) if (take(search, make, isGood)) return true
  return false
}

const eventsOf = ({ phrases }: Combination): readonly Event[] =>
  phrases.flatMap(({ events }) => events)

/** What is alike up to its side, of one layer and as long: it is changed together. */
function alike(combination: Combination, event: Event): readonly Event[] {
  const key = alikeKey(event)
  return eventsOf(combination).filter((one) => alikeKey(one) === key)
}

function alikeKey({ layer, what, length, optional, easier, harder, kept }: Event): string {
  const mirrored = [mirrorWhat(what), mirrorForms(easier), mirrorForms(harder)]
  const sides = [[what, easier, harder], mirrored].map((one) => JSON.stringify(one)).sort()
  return JSON.stringify([layer, sides[0], length, optional, kept])
}

/** Changes all that is alike: each by what it is danced as then, or away with it. */
const together =
  (
    event: Event,
    form: ((one: Event) => What | undefined) | undefined,
    vocabulary: Vocabulary,
  ): Edit =>
  (combination) => {
    const all = alike(combination, event)
    if (!form) return removeEvents(all.map(({ id }) => id))(combination)
    return all.reduce((now, one) => {
      const what = form(one)
      return what ? withForm(now, one, what, vocabulary) : now
    }, combination)
  }

/**
 * An event danced as something else in the same time. A figure that does not fill it would leave
 * the feet without steps: then nothing changes.
 */
function withForm(
  combination: Combination,
  event: Event,
  what: What,
  vocabulary: Vocabulary,
): Combination {
  const danced = combination.phrases
    .flatMap((phrase) => dancedIn(phrase, vocabulary))
    .find(({ id }) => id === event.id)
  if (!danced) return combination
  const own = ownLengthOf({ what }, vocabulary)
  const move = what.kind === 'move' ? vocabulary.find(what.move) : undefined
  if (move?.kind === 'steps' && danced.length % own !== 0) return combination
  const isLonger = event.length === undefined && !danced.isCut && own !== danced.length
  const before = event.what.kind === 'move' ? vocabulary.find(event.what.move) : undefined
  // A way in place of a shimmy is danced again and again, not once as slow.
  const isAgain = before?.kind === 'texture' && move?.kind === 'path' && danced.length >= 2 * own
  return changeEvent(event.id, {
    what:
      isAgain && what.kind === 'move'
        ? { ...what, every: own, ...(move.to !== '=' && { alt: true as const }) }
        : what,
    easier: undefined,
    harder: undefined,
    as: undefined,
    ...(isLonger && what.kind !== 'foot' && { length: danced.length }),
  })(combination)
}

/**
 * The options that are written for it, each whole: of a phrase the first that brings nothing new.
 * What is a matter of taste is nobody's to take, and room has to do with no level.
 */
function takeOptions(
  search: Search,
  kind: 'easier' | 'harder',
  isGood?: (after: Checked) => boolean,
): boolean {
  let isTaken = false
  for (const { id, name, title, options = [] } of search.now.phrases)
    for (const option of options.filter((one) => one.kind === kind)) {
      const tried = withTried(search.now, id, [option.name])
      if (!take(search, () => tried, isGood)) continue
      isTaken = true
      search.options = withTried(search.options, id, [option.name])
      const swap: Swap = {
        kind,
        events: option.events.map((event) => event.id),
        at: name,
        from: title || `phrase ${name}`,
        to: option.words,
      }
      search.taken = [...search.taken, swap]
      break
    }
  return isTaken
}

function dropFlourishes(search: Search): void {
  for (const event of eventsOf(search.now))
    if (event.optional && eventOf(search.now, event.id))
      take(search, together(event, undefined, search.vocabulary))
}

/**
 * The forms that are written for it, wherever they can be danced: one a level, the last one where
 * there are fewer; where one can't be danced, the next.
 */
function takeWritten(
  search: Search,
  which: 'easier' | 'harder',
  levels: number,
  isGood?: (after: Checked) => boolean,
): boolean {
  let isTaken = false
  for (const { id } of eventsOf(search.now)) {
    const event = eventOf(search.now, id)
    const forms = event?.[which]
    if (!event || !forms || event.kept) continue
    const { vocabulary } = search
    // Each of those that are alike has its own, from its side.
    const own = (one: Event, i: number) => {
      const form = one[which]?.[i]
      return form && formOf(form, one.what, vocabulary)
    }
    const first = Math.min(levels, forms.length) - 1
    const makes = forms.slice(first).map((form, i) => {
      const make = (one: Event) => own(one, first + i)
      return together(event, 'none' in form ? undefined : make, vocabulary)
    })
    if (takeFirst(search, makes, isGood)) isTaken = true
  }
  return isTaken
}

/** What strains neck or back, and hard, takes a form that does not; else it goes. */
function spareNecks(search: Search): void {
  for (const { id } of eventsOf(search.now)) {
    const event = eventOf(search.now, id)
    const move = event?.what.kind === 'move' ? search.vocabulary.find(event.what.move) : undefined
    if (!event || !move || event.kept || !asksMuch(move)) continue
    const forms = safeWhats(event, search.vocabulary)
    takeFirst(search, [
      ...forms.map((make) => together(event, make, search.vocabulary)),
      together(event, undefined, search.vocabulary),
    ])
  }
}

/** What turns, jumps or goes too fast for the level is danced easier, where that ends it. */
function easeFindings(search: Search): void {
  const tried = new Set<string>()
  for (;;) {
    const finding = search.checked.findings.find(
      ({ code, events }) => EASED.has(code) && !tried.has(`${code} ${events[0]}`),
    )
    if (!finding) return
    tried.add(`${finding.code} ${finding.events[0]}`)
    const event = eventOf(search.now, finding.events[0] ?? '')
    if (!event || event.kept) continue
    const isGone = ({ findings }: Checked) =>
      !findings.some(({ code, events }) => code === finding.code && events[0] === event.id)
    const makes = easierWhats(event, search.vocabulary).map((form) =>
      together(event, form, search.vocabulary),
    )
    const walked = finding.code === 'turn.too-fast' ? [walkedTurn(event.id)] : []
    takeFirst(search, [...walked, ...makes], isGone)
  }
}

/** What is too hard on a count: the hardest of it first, as long as that helps. */
function easeLoad(search: Search, limit: number): void {
  let stuck = new Set<number>()
  for (;;) {
    const worst = [...search.checked.loads]
      .filter(({ at, total }) => total > limit + 1e-9 && !stuck.has(at))
      .sort((a, b) => b.total - a.total)[0]
    if (!worst) return
    const isEased = (after: Checked) => loadAt(after, worst.at) < worst.total - 1e-9
    const makes = [...worst.parts]
      .sort((a, b) => b.own * b.share - a.own * a.share)
      .flatMap((part) => eventOf(search.now, part.event) ?? [])
      .filter(({ kept }) => !kept)
      .flatMap((event) =>
        easierWhats(event, search.vocabulary).map((form) =>
          together(event, form, search.vocabulary),
        ),
      )
    if (takeFirst(search, makes, isEased)) stuck = new Set()
    else stuck.add(worst.at)
  }
}

const loadAt = ({ loads }: Checked, at: number): number =>
  loads.find((one) => one.at === at)?.total ?? 0

/** What a version dances otherwise: all that was alike once, with what it has become. */
function swapsBetween(
  before: Combination,
  after: Combination,
  vocabulary: Vocabulary,
): readonly Swap[] {
  const known = new Set(eventsOf(before).map(({ id }) => id))
  const swaps = new Map<string, Swap & { readonly places: readonly string[] }>()
  const add = (key: string, place: string, swap: Omit<Swap, 'at'>) => {
    const same = swaps.get(key)
    const places = [...(same?.places ?? []), place]
    const events = [...(same?.events ?? []), ...swap.events]
    swaps.set(key, { ...(same ?? swap), events, places, at: places.join(', ') })
  }
  for (const [event, place] of placesIn(before, vocabulary)) {
    const now = eventOf(after, event.id)
    const from = nameOf(event, vocabulary)
    if (!now) add(`- ${alikeKey(event)}`, place, { kind: 'dropped', events: [event.id], from })
    else if (JSON.stringify(now.what) !== JSON.stringify(event.what)) {
      const name = nameOf(now, vocabulary)
      const isHarder =
        event.harder?.some((form) => isForm(now, form)) ||
        (name === from && everyOf(now) < everyOf(event))
      const kind = isHarder ? ('harder' as const) : ('easier' as const)
      const to = name === from ? `${name}, every ${labelOfEvery(everyOf(now))}` : name
      add(alikeKey(event), place, { kind, events: [event.id], from, to })
    }
  }
  for (const [event, place] of placesIn(after, vocabulary))
    if (!known.has(event.id))
      add(`+ ${alikeKey(event)}`, place, {
        kind: 'added',
        events: [event.id],
        to: nameOf(event, vocabulary),
      })
  return [...swaps.values()]
    .map(({ places: _, ...swap }) => swap)
    .sort((a, b) => Number(b.kind === 'dropped') - Number(a.kind === 'dropped'))
}

const everyOf = ({ what }: Event): number =>
  (what.kind === 'move' && what.every) || Number.POSITIVE_INFINITY

const labelOfEvery = (ticks: number): string =>
  ticks === HALF_COUNT ? 'half count' : `${ticks / COUNT} counts`

const isForm = ({ what }: Event, form: EventForm): boolean =>
  'move' in form
    ? what.kind === 'move' && what.move === form.move
    : 'what' in form && dequal(form.what, what)

function placesIn(
  { phrases }: Combination,
  vocabulary: Vocabulary,
): readonly (readonly [DancedEvent, string])[] {
  return phrases.flatMap((phrase) =>
    dancedIn(phrase, vocabulary).map(
      (event) => [event, placeIn(phrase.name, whenSaid(event, labelIn(phrase)))] as const,
    ),
  )
}

/** A combination with some events in their easier form; those that have none, or can't take it, stay. */
export function easedCombination(
  combination: Combination,
  ids: readonly string[],
  vocabulary: Vocabulary,
): Combination {
  let now = combination
  for (const id of ids) {
    const event = eventOf(now, id)
    const form = event && nearestForm(event, 'easier', vocabulary)
    const what = form && formOf(form, event.what, vocabulary)
    if (event && what) now = withForm(now, event, what, vocabulary)
  }
  return now
}
